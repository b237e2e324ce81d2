export { CableLoad } from './cableLoad';
export { compileSong, problemsOf, type CompiledSong } from './compileSong';
export type { Forecasted } from './forecast';
export {
  AUDITION_CUE,
  CATCH_UP_CUE,
  audition,
  catchUp,
  catchUpSends,
  stateAt,
  type CatchUp,
  type Turns,
} from './catchUp';
export { fingerprints } from './fingerprint';
export { clocksGoOn, playLine, stopsOf, type PlayLine, type Round } from './playLine';
export { lineInto, loopIn, type Loop } from './loop';
export { stateLine, type StateChange } from './stateLine';
export { writtenSong, type WrittenMessage } from './writtenSong';
export type { Late, LateCause } from './lateness';
export { expandMoment, type Send, type SendKind, type UnitSends } from './expand';
