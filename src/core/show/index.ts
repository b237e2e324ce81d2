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
export { rigSpec, routeTo, type Route } from './rigSpec';
export { OPENING_CUE, activeCues, aimOf, songWants, toneAims } from './aims';
export { emptyShow, messageCue, newPart, newPort, newSlot, newSong, newTone, newUnit, toneCue } from './builders';
export { checkShow } from './checkShow';
export { MIGRATIONS, migrate, type Migration } from './migrations';
export {
  addSong,
  addTone,
  addUnit,
  changeCue,
  moveInSet,
  nameSlot,
  placeCue,
  removeCue,
  removeSong,
  removeTone,
  renameTone,
  setShowTitle,
  setSongField,
  setTonePart,
  setUnitField,
  slotAt,
  slotTitle,
  slotUses,
  toneUses,
} from './commands';
