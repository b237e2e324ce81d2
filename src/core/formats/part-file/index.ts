export {
  bringIn,
  clashKey,
  proposeUnits,
  usualMeeting,
  type BringChoices,
  type Brought,
  type Clash,
  type Meeting,
} from './bringIn';
export { cutPart } from './cutPart';
export { type Part, type PartKind, type PartWish } from './format';
export { isPart, readPart, writePart } from './partFile';
