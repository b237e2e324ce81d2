export { RIG_CHECKS, checkRig } from './checkRig';
export { acceptedReason, findingKey, findingSays } from './accepted';
export { SONG_CHECKS, checkSong } from './checkSong';
export type { Finding, FindingCode, FindingData, FindingPlace } from './finding';
export { mendAll } from './mendAll';
export { writtenFixes } from './writtenFixes';
