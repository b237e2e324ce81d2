export {
  callRoom,
  countInLength,
  countInTimes,
  soundInto,
  soundLine,
  sourceOf,
  type ClickLevel,
  type Sound,
  type SoundLine,
  type SoundRound,
} from './soundLine';
export { PEAKS_PER_SECOND, peaksOf } from './peaks';
export { mixing, type MixWish, type Route, type Send } from './mixing';
export { TakeOver } from './takeOver';
export { beatAt, numberTaps, steadyBeats, tapsOff, type Tap } from './tapping';
export { speakable, withoutSilence, wordOf, wordsOf } from './words';
export { callWave, clickWave } from './tones';
export { findGap, standInGap, timeFromPresses, type TakenTime } from './measure';
