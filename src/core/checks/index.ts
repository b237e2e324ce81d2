export { RIG_CHECKS, checkRig } from './checkRig';
export { acceptedReason, canAccept, findingKey, findingSays } from './accepted';
export { SONG_CHECKS, checkSong } from './checkSong';
export type { Finding, FindingCode, FindingData, FindingPlace } from './finding';
export { mendAll } from './mendAll';
export type { Remedy } from './remedies';
export { roomFixes, type RoomFix } from './roomFixes';
export { writtenFixes } from './writtenFixes';
