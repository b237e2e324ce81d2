export { aimOf, songWants, toneAims } from './aims';
export { compareTones, type ToneDifference } from './compareTones';
export { MessageReader, type Direction, type Meaning } from './messageReader';
export { OPENING_CUE, moments, tapRuns, type Moment, type MomentAction, type TapRun } from './moments';
export { rigSpec, routeTo, type Route } from './rigOf';
export { relayCycles, storingSteps, type StoringStep } from './storingSteps';
export { sameSurroundings, surroundingsOf, type Surroundings } from './surroundings';
export { playedSweeps, sweepPoints, sweepValue, type PlayedSweep, type SweepPoint } from './sweeps';
export { hearers, patchSheet, wireLoops, type PatchRow, type WirePoint } from './wiring';
