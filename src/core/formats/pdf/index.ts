export { type Typeface } from './pdfFonts';
export { writeSheetsPdf, type PaperSize, type PdfWish } from './sheetsPdf';
