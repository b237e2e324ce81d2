export { fontFilesFor, fontPath, type FontFile, type LoadedFont } from './faces';
export { writeSheetsPdf, type PaperSize, type PdfWish } from './sheetsPdf';
export { fontFilesOf, unprintable, type Unprintable } from './unprintable';
