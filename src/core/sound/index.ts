export {
  SOURCES,
  countInLength,
  countInTimes,
  soundInto,
  soundLine,
  sourceOf,
  type ClickLevel,
  type Sound,
  type SoundLine,
  type SoundRound,
  type Source,
} from './soundLine';
export { PEAKS_PER_SECOND, peaksOf } from './peaks';
export { speakable, withoutSilence, wordOf, wordsOf } from './words';
export { callWave, clickWave } from './tones';
export { findGap, timeFromPresses, type TakenTime } from './measure';
