export { BOAT_PORT, boatShow } from './boat';
export {
  TRIGGER_WORDS,
  compareHeard,
  listenSteps,
  listenThrough,
  typingList,
  type ListenStep,
  type Listened,
  type TypedRow,
} from './byHand';
export { callOf } from './calls';
export { PRESS_TIME, fallbackOf, inTime, reachOf, type Fallback, type FallbackStep, type Reach } from './fallback';
export { fillSeries, inTriggerOrder, setOnMany } from './fill';
export { labelsOf, type SwitchLabel } from './labels';
export { DOUBLE_PRESS, FOOT_AT_REST, LONG_PRESS, footStep, isLit, type FootInput, type FootState } from './machine';
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
export { propose, takeProposal, toneOn, tonesInUse, type Proposal, type ToneMove } from './propose/proposal';
export type { PlacedTone } from './propose/proposePages';
export { hasBoat, rehearse, type Rehearsal, type StepOutcome } from './rehearse';
export {
  doingName,
  entryOn,
  shownName,
  switchSends,
  switchTitle,
  type HoldKind,
  type SwitchMessage,
  type SwitchSends,
  type SwitchWrong,
  type TriggerSends,
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
  type FootMessage,
  type FootReceiver,
  type Refusal,
  type Transfer,
  type TransferEnd,
  type TransferInput,
} from './transfer';
export { deadEnds, footWays, pageOfSong, wayTo, type FootWays, type Press } from './ways';
