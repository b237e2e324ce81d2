export { plugCable, pullCable, type Socket } from './cables';
export {
  copyBySection,
  exchangeActions,
  muteCues,
  pasteCues,
  removeCues,
  replaceTone,
  shiftCues,
  stepValues,
  tonesOn,
  writeTones,
  type Press,
} from './cues';
export { directName, directTone, knownDirect, type Direct } from './direct';
export {
  copySection,
  insertBars,
  moveSection,
  putMetre,
  putPrinted,
  putSection,
  addTempo,
  putTempo,
  removeBars,
  removeMetre,
  removeSection,
  removeTempo,
  setPickup,
} from './frame';
export {
  dipOf,
  dipShape,
  newSweep,
  putMove,
  putSweep,
  removeMove,
  removeSweep,
  setTaps,
  stretchSweep,
  sweepable,
} from './sweeps';
export { captureOver, captureTone } from './capture';
export {
  addHouseNumber,
  addVersion,
  changeProfile,
  copyMap,
  takeMap,
  removeHouseNumber,
  renumbered,
  setHouseNumber,
  switchVersion,
  withControl,
  withoutControl,
  type Dropped,
  type ProfileChange,
} from './profiles';
export {
  addPlayer,
  addPort,
  addUnit,
  putRelay,
  removePlayer,
  removePort,
  removeRelay,
  removeUnit,
  setPlayerField,
  setPortField,
  setShowTitle,
  setUnitField,
} from './rig';
export { asUsual, moveReaction, setLevel, setMissing, setTonight, setTonightAll } from './night';
export { setRoom, setUnitRoom, type RoomField } from './room';
export { moveSlots, nameSlots, runOfNames, setSlotField } from './slotRuns';
export { nameSlot, slotAt, slotFor, slotDependents, slotTitle, slotUses, songsBySlot, type Dependents } from './slots';
export {
  addEntry,
  addSet,
  addSong,
  addToSet,
  changeEntry,
  moveInSet,
  removeSet,
  removeSong,
  setSetField,
  chooseSet,
} from './sets';
export { changeCue, placeCue, removeCue, setSongField } from './songs';
export {
  addInterlude,
  addTrack,
  callEverySection,
  changeTrack,
  deleteSong,
  putReaction,
  removeReaction,
  removeTrack,
  replaceAudio,
  setCall,
  setCallSound,
  setClock,
  soundsOf,
  takeOut,
  type CallPlace,
} from './sound';
export { songOfCore, startFrom } from './patterns';
export { launchBytes, numberLaunches, setLaunches, songsToNumber } from './launches';
export { addPedal, addRow, addSwitch, layOutFloor, moveSwitch, removeFromFloor } from './floor';
export { takeKept } from './stored';
export { cutIntoSongs } from './cut';
export { layBars } from './layBars';
export { meaningOf, setMeaning } from './colours';
export { hearing, putEar, putStem, removeEar, removeStem, setStemOf, sourceName, sourcesOf } from './mix';
export { putRemark, removeRemark } from './remarks';
export {
  CORE_LIMIT,
  acceptFinding,
  addTone,
  removeTone,
  addTonesOf,
  removeToneEverywhere,
  renameTone,
  setCore,
  setOpening,
  setShowOpening,
  setTimeCode,
  setTolerance,
  setToneNotes,
  setTonePart,
  toneUses,
} from './tones';
export {
  addFootPage,
  changeFeet,
  feetOf,
  orderFootPages,
  pageTitle,
  pagesOf,
  putFootPedal,
  putFootSwitches,
  removeFootPage,
  type LayerId,
} from './feet';
