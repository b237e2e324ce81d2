export { CableLoad } from './cableLoad';
export { compileSong, problemsOf, type CompiledSong } from './compileSong';
export { CATCH_UP_CUE, audition, catchUp, catchUpSends, stateAt } from './catchUp';
export { fingerprints } from './fingerprint';
export { clocksGoOn, playLine, stopsOf, type PlayLine, type SeamLate } from './playLine';
export { lineInto, loopIn, type Loop } from './loop';
export { stateLine, type StateChange } from './stateLine';
export { writtenSong } from './writtenSong';
export type { Late } from './lateness';
