export { callText } from './cueSheet';
export { SHEET_COUNTINGS, minutesAndSeconds, timeOfDay } from './figures';
export { sheetCsv } from './sheetCsv';
export type { SheetWords } from './nightSheets';
export { switchStrips } from './rigSheets';
export {
  FLOOR_KINDS,
  SHEET_KINDS,
  SHEET_USES,
  sheetsOf,
  usualSheets,
  type SheetKind,
  type SheetUse,
  type SheetWish,
} from './sheetsOf';
export { linesOf, type Sheet, type SheetColumn, type SheetPart, type SheetTable } from './sheet';
