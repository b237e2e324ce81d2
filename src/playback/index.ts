export type { Floor, FootFaults, FootTouch } from './footStandIns';
export { BoundPorts, type Binding, type Outgoing } from './boundPorts';
export type { SentFor } from './ports';
export { MONITOR_LINES, withLines, type MonitorLine } from './monitor';
export { Playback, WAKE_MILLIS, type PlaybackEars, type PlaybackNews } from './playback';
export type { BoxTurn, PairSeat } from './pair/companion';
export { hushedUnits } from './planAnew';
export {
  FAR_AHEAD,
  FOR_AUDIENCE,
  LOOK_AHEAD,
  REAL_AHEAD,
  type PracticeWay,
  type Remembered,
  type SessionEvent,
  type SongLoop,
} from './sessionState';
export { StandIns } from './standIns';
export { launchesHeard } from './launch';
export { type Played } from './running';
export type { MachineAct } from './codeMachine';
export type { PedalPoint, PedalRecording } from './tasks/record';
export type { Lesson } from './tasks/teach';
export type { TransferNews } from './tasks/transfer';
export type { Walk } from './tasks/walk';
