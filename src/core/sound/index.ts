export { countInLength, countInTimes, soundLine, type ClickLevel, type Sound, type SoundLine } from './soundLine';
export { PEAKS_PER_SECOND, peaksOf } from './peaks';
export { callWave, clickWave } from './tones';
export { findGap, timeFromPresses, type Gap, type TakenTime } from './measure';
