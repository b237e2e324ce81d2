export { compileSong, type CompiledSong, type Forecasted } from './compileSong';
export { AUDITION_CUE, CATCH_UP_CUE, audition, catchUp, catchUpSteps, stateAt, type CatchUp } from './catchUp';
export { fingerprints } from './fingerprint';
export { playLine, type PlayLine } from './playLine';
export { stateLine, type StateChange } from './stateLine';
export { writtenSong, type WrittenMessage } from './writtenSong';
export { contextOf, expandCue } from './compileSong';
export type { Late, LateCause } from './lateness';
export { StateFold, type Step, type StepKind } from './expand';
