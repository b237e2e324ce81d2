import { transfer } from 'comlink';
import { exportFile, type ExportWish, type ExportedFile } from '../core/formats/exportFile';
import { writeSheetsPdf, type PdfWish } from '../core/formats/pdf';
import { linesOf, sheetCsv, sheetsOf, type Sheet, type SheetCounting, type SheetKind } from '../core/sheets';
import type { Show } from '../core/show';
import { tonightOf } from '../core/tonight';
import type { FilesWorker, SheetHead, ShowUpdate } from './protocol';
import { ShowMirror } from './showMirror';

interface Kept {
  readonly show: Show;
  readonly kind: SheetKind;
  readonly counting: SheetCounting;
  readonly sheets: readonly Sheet[];
}

/** Makes paper and files of a show in a worker. The sheets that were asked for last are kept: they are taken one by one. */
export class FileMaker implements FilesWorker {
  private readonly mirror = new ShowMirror();
  private kept: Kept | undefined;

  update(update: ShowUpdate): void {
    this.mirror.update(update);
  }

  sheets(kind: SheetKind, counting: SheetCounting): readonly SheetHead[] {
    return this.all(kind, counting).map((sheet) => {
      const { id, title, wide } = sheet;
      return { id, kind: sheet.kind, title, wide, lines: linesOf(sheet) };
    });
  }

  sheet(kind: SheetKind, counting: SheetCounting, id: string): Sheet | null {
    return this.all(kind, counting).find((s) => s.id === id) ?? null;
  }

  wholeSheets(kind: SheetKind, counting: SheetCounting): readonly Sheet[] {
    return this.all(kind, counting);
  }

  sheetTable(kind: SheetKind, counting: SheetCounting, ids: readonly string[]): string {
    return sheetCsv(this.chosen(kind, counting, ids));
  }

  async pdf(
    kind: SheetKind,
    counting: SheetCounting,
    ids: readonly string[],
    wish: PdfWish,
  ): Promise<Uint8Array<ArrayBuffer>> {
    const bytes = new Uint8Array(await writeSheetsPdf(this.chosen(kind, counting, ids), wish));
    return transfer(bytes, [bytes.buffer]);
  }

  file(wish: ExportWish): ExportedFile {
    const made = exportFile(this.mirror.show, wish);
    return typeof made.data === 'string' ? made : transfer(made, [made.data.buffer]);
  }

  private chosen(kind: SheetKind, counting: SheetCounting, ids: readonly string[]): readonly Sheet[] {
    const wanted = new Set(ids);
    return this.all(kind, counting).filter((s) => wanted.has(s.id));
  }

  private all(kind: SheetKind, counting: SheetCounting): readonly Sheet[] {
    const { show } = this.mirror;
    const { kept } = this;
    if (kept?.show === show && kept.kind === kind && kept.counting === counting) return kept.sheets;
    const sheets = sheetsOf(tonightOf(show), kind, counting);
    this.kept = { show, kind, counting, sheets };
    return sheets;
  }
}
