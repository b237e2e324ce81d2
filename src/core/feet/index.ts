export { BOAT_PORT, boatShow } from './boat';
export { listenSteps, listenThrough, typingList } from './byHand';
export { PRESS_TIME, fallbackOf, inTime, reachOf } from './fallback';
export { fillSeries, inTriggerOrder, setOnMany } from './fill';
export { labelsOf } from './labels';
export { FOOT_AT_REST, footStep, isLit, type FootInput, type FootState } from './machine';
export {
  EMPTY_MEMORY,
  compareMemories,
  memoryOf,
  pedalOn,
  storedPedal,
  type FootMemory,
  type MemoryDifference,
} from './memory';
export { allReactions, echoesOf, heardSwitch, pageReactions, type HeardSwitch } from './pageReactions';
export { propose, takeProposal, type Proposal } from './propose/proposal';
export type { PlacedTone, ProposedPage } from './propose/proposePages';
export type { ToneMove } from './propose/proposal';
export type { ListenStep, Listened, TypedRow } from './byHand';
export { rehearse, stepWorked, sumOfRehearsal, type Rehearsal, type RehearsalSum } from './rehearse';
export {
  doingName,
  entryOn,
  shownName,
  switchSends,
  switchTitle,
  type HoldKind,
  type SwitchSends,
  type SwitchWrong,
} from './switchSends';
export {
  beginTransfer,
  footBytes,
  isFootBytes,
  memoryBytes,
  newReceiver,
  progressOf,
  readFootBytes,
  readMemoryBytes,
  receive,
  stepTransfer,
  transferTime,
  type Errand,
  type FootReceiver,
  type Transfer,
  type TransferEnd,
} from './transfer';
export { deadEnds, footWays, pageOfSong, type Press } from './ways';
export { blankDump, dumpDifferences, formProblems, readDump, writeDump } from './dumps';
