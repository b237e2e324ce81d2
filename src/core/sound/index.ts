export {
  countInLength,
  countInTimes,
  soundInto,
  soundLine,
  type ClickLevel,
  type Sound,
  type SoundLine,
  type SoundRound,
} from './soundLine';
export { PEAKS_PER_SECOND, peaksOf } from './peaks';
export { callWave, clickWave } from './tones';
export { findGap, timeFromPresses, type Gap, type TakenTime } from './measure';
