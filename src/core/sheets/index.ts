export { callText } from './cueSheet';
export { SHEET_COUNTINGS, minutesAndSeconds, timeOfDay, type SheetCounting } from './figures';
export { sheetCsv } from './sheetCsv';
export { switchStrips } from './rigSheets';
export { SHEET_KINDS, sheetsOf, type SheetKind } from './sheetsOf';
export { linesOf, type Sheet, type SheetPart, type SheetTable } from './sheet';
