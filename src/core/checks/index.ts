export { RIG_CHECKS, checkRig } from './checkRig';
export { acceptedReason, findingKey, findingSays } from './accepted';
export { SONG_CHECKS, checkSong } from './checkSong';
export { songFacts, type SongFacts } from './song/facts';
export type { Check, Finding, FindingCode, FindingData, FindingPlace } from './finding';
export { mendAll } from './mendAll';
