export { minutesAndSeconds, timeOfDay, type SheetCounting } from './figures';
export { sheetCsv } from './sheetCsv';
export { switchStrips } from './rigSheets';
export { SHEET_KINDS, sheetsOf, type SheetKind } from './sheetsOf';
export type { Sheet, SheetPart, SheetTable } from './sheet';
