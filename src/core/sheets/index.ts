export { cueSheet } from './cueSheet';
export { minutesAndSeconds, timeOfDay, type SheetCounting } from './figures';
export { sheetCsv } from './sheetCsv';
export { switchStrips } from './rigSheets';
export { SHEET_KINDS, sheetsOf, type SheetKind } from './sheetsOf';
export type { Sheet, SheetColumn, SheetPart, SheetTable } from './sheet';
