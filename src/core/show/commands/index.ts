export { nameSlot, slotAt, slotTitle, slotUses } from './slots';
export { addTone, removeTone, renameTone, setTonePart, toneUses } from './tones';
export { addSong, changeCue, moveInSet, placeCue, removeCue, removeSong, setSongField } from './songs';
export { addUnit, setShowTitle, setUnitField } from './rig';
