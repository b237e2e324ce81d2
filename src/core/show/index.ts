export {
  SHOW_FORMAT,
  SHOW_VERSION,
  showSchema,
  unitSchema,
  type Cue,
  type HouseNumber,
  type LostSlot,
  type Player,
  type Port,
  type Relay,
  type Section,
  type Show,
  type Slot,
  type Song,
  type Tone,
  type TonePart,
  type Unit,
} from './schema';
export { applyEdit, invertEdit, readPath, type Edit, type Path, type Step as PathStep } from './edits';
export { cuesInOrder, indexShow, slotsById, type ShowIndex } from './find';
export { microsAt, songTime, type SongTime } from './songTime';
export { MessageReader, type Direction, type Meaning } from './meaning';
export { hearers, patchSheet, wireLoops, type PatchRow, type WirePoint } from './wiring';
export { relayCycles, storingSteps, type StoringStep } from './relayChecklist';
export {
  matchSlots,
  reorderSlots,
  usedSlots,
  type Destination,
  type ListedName,
  type Matching,
  type SlotMatch,
} from './reorder';
export { leftOver, reorderList, type ReorderLine } from './reorderList';
export { rigSpec, routeTo, type Route } from './rigSpec';
export { OPENING_CUE, activeCues, aimOf, songWants, toneAims } from './aims';
export { compareTones, type ToneDifference } from './compareTones';
export { emptyShow, messageCue, newPart, newPort, newSlot, newSong, newTone, newUnit, toneCue } from './builders';
export { checkShow } from './checkShow';
export { MIGRATIONS, migrate, type Migration } from './migrations';
export {
  addHouseNumber,
  addPlayer,
  addPort,
  addSong,
  addTone,
  addUnit,
  addVersion,
  captureOver,
  captureTone,
  changeCue,
  changeProfile,
  copyMap,
  moveInSet,
  moveSlots,
  nameSlot,
  nameSlots,
  placeCue,
  plugCable,
  pullCable,
  putRelay,
  removeCue,
  removeHouseNumber,
  removePlayer,
  removePort,
  removeRelay,
  removeSong,
  removeTone,
  removeUnit,
  renameTone,
  renumbered,
  runOfNames,
  setHouseNumber,
  setPlayerField,
  setPortField,
  setShowTitle,
  setSlotField,
  setSongField,
  setTonePart,
  setUnitField,
  slotAt,
  slotDependents,
  slotTitle,
  slotUses,
  songsBySlot,
  switchVersion,
  toneUses,
  withControl,
  withoutControl,
  type Dependents,
  type Dropped,
  type ProfileChange,
  type Socket,
} from './commands';
export { profileProblems } from './profileProblems';
