export { bringIn, clashKey, proposeUnits, usualMeeting, type Clash, type Meeting } from './bringIn';
export { cutPart } from './cutPart';
export { type Part, type PartWish } from './format';
export { isPart, readPart, writePart } from './partFile';
