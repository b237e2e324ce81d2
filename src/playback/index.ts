export { AssumedRig } from './assumedRig';
export { MONITOR_LINES, Monitor, withLines, type MonitorLine } from './monitor';
export { Playback, WAKE_MILLIS, type PlaybackEars, type PlaybackNews } from './playback';
export type { Arrival, Ports } from './ports';
export { hushedUnits, type SessionEvent, type SongLoop } from './session';
export { StandIns } from './standIns';
export type { PedalPoint, PedalRecording } from './tasks/record';
export type { Lesson } from './tasks/teach';
export type { Walk } from './tasks/walk';
