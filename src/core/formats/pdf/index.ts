export { type Typeface } from './pdfFonts';
export { writeSheetsPdf, type PaperSize } from './sheetsPdf';
