export { codeRanges, type CodeRange } from './codeRanges';
export { leaderOf, type Leader } from './leader';
export { songWants, toneAims } from './aims';
export { aimOf, partAims } from './partAims';
export { changesTo, relayOrder, takeMessage, type RelayEffects, type Thrift } from './changes';
export { compareShows, type ComparedFields, type ShowDifference } from './compareShows';
export { FIRST_STEPS, firstSteps, type FirstStep } from './firstSteps';
export { compareTones, type ToneDifference } from './compareTones';
export { contextOf, passMoment, type Doing, type RigContext, type Room } from './context';
export { Course, leadsTo, type RelayCall } from './course';
export { afterSettled, afterThere, calledUntil } from './relayTiming';
export { leftovers } from './leftovers';
export { MessageReader, type Direction, type Meaning } from './messageReader';
export { OPENING_CUE, moments, type Moment } from './moments';
export { durationOf, latencyOf, thruGap, type Path } from './path';
export { pressOf, type Press } from './press';
export {
  NOT_REACTED,
  goesAlong,
  heardOf,
  newTone,
  react,
  reactLater,
  type Act,
  type Miss,
  type Reacting,
  type ReactionStep,
} from './reactions';
export { rigSpec, routeTo } from './rigOf';
export { timesBasis } from './timesBasis';
export { selectorRuns } from './selectorRuns';
export { StateFold } from './stateFold';
export { stopsOf } from './stops';
export { relayCycles, storingSteps, type StoringStep } from './storingSteps';
export { sameSurroundings, sameToWires, sendsAlike, surroundingsOf, type Surroundings } from './surroundings';
export { linePoints, reshaped, sweptOn } from './sweepShapes';
export { playedSweeps, sweepValue } from './sweeps';
export { hearers, patchSheet, returnsTo, wireLoops, type PatchRow, type WirePoint } from './wiring';
