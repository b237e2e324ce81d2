export {
  SOURCES,
  countInLength,
  countInTimes,
  soundInto,
  soundLine,
  sourceOf,
  type ClickLevel,
  type Missing,
  type Sound,
  type SoundLine,
  type SoundRound,
  type Source,
} from './soundLine';
export { PEAKS_PER_SECOND, peaksOf } from './peaks';
export { callWave, clickWave } from './tones';
export { findGap, timeFromPresses, type Gap, type TakenTime } from './measure';
