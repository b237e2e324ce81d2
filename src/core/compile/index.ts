export { compileSong, type CompiledSong, type Forecasted } from './compileSong';
export { CATCH_UP_CUE, catchUp, catchUpSteps, stateAt, type CatchUp } from './catchUp';
export type { Step, StepKind } from './expand';
export { writtenSong, type WrittenMessage } from './writtenSong';
