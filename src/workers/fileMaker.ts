import { transfer } from 'comlink';
import { zipSync } from 'fflate';
import { exportFile, type ExportWish, type ExportedFile } from '../core/formats/exportFile';
import {
  fontFilesFor,
  fontFilesOf,
  fontPath,
  unprintable,
  writeSheetsPdf,
  type Unprintable,
} from '../core/formats/pdf';
import { packShow } from '../core/formats/pack';
import { linesOf, sheetCsv, sheetsOf, type Sheet, type SheetWish } from '../core/sheets';
import type { Show } from '../core/show';
import { tonightOf } from '../core/tonight';
import { sheetWords } from '../wording';
import { loadFonts } from './fonts';
import type { FilesWorker, LetterFont, PackedZip, PaperWish, SheetHead, ShowUpdate } from './protocol';
import { ShowMirror } from './showMirror';

interface Kept extends SheetWish {
  readonly show: Show;
  readonly sheets: readonly Sheet[];
}

/** Makes paper and files of a show in a worker. The sheets that were asked for last are kept: they are taken one by one. */
export class FileMaker implements FilesWorker {
  private readonly mirror = new ShowMirror();
  private kept: Kept | undefined;

  update(update: ShowUpdate): void {
    this.mirror.update(update);
  }

  sheets(wish: SheetWish): readonly SheetHead[] {
    return this.all(wish).map((sheet) => {
      const { id, title, wide } = sheet;
      return { id, kind: sheet.kind, title, wide, lines: linesOf(sheet) };
    });
  }

  sheet(wish: SheetWish, id: string): Sheet | null {
    return this.all(wish).find((s) => s.id === id) ?? null;
  }

  wholeSheets(wish: SheetWish): readonly Sheet[] {
    return this.all(wish);
  }

  sheetTable(wish: SheetWish, ids: readonly string[]): string {
    return sheetCsv(this.chosen(wish, ids));
  }

  async unprintable(wish: SheetWish): Promise<readonly Unprintable[]> {
    const sheets = this.all(wish);
    const { title } = this.mirror.show;
    return unprintable(sheets, title, await loadFonts(fontFilesOf(sheets, title)));
  }

  async letters(text: string, have: readonly string[]): Promise<readonly LetterFont[]> {
    const there = new Set(have);
    // The page has this face already, in one file of all weights.
    const files = fontFilesFor([text]).filter((f) => f.face !== 'ibm-plex-sans' && !there.has(fontPath(f)));
    const fonts = await loadFonts(files.toReversed());
    return fonts.map((f) => ({
      name: fontPath(f),
      weight: f.weight === 'bold' ? 700 : 400,
      bytes: new Uint8Array(f.bytes),
    }));
  }

  async pdf(wish: SheetWish, ids: readonly string[], { paper, asOf }: PaperWish): Promise<Uint8Array<ArrayBuffer>> {
    const sheets = this.chosen(wish, ids);
    const { title } = this.mirror.show;
    const fonts = await loadFonts(fontFilesOf(sheets, title));
    const bytes = new Uint8Array(await writeSheetsPdf(sheets, { paper, asOf, show: title, fonts }));
    return transfer(bytes, [bytes.buffer]);
  }

  file(wish: ExportWish): ExportedFile {
    const made = exportFile(this.mirror.show, wish);
    return typeof made.data === 'string' ? made : transfer(made, [made.data.buffer]);
  }

  async pack({ paper, asOf }: PaperWish, sounds: ReadonlyMap<string, Uint8Array> | null): Promise<PackedZip> {
    const { files, odd } = await packShow(this.mirror.show, { paper, asOf, words: sheetWords, sounds, loadFonts });
    const encoder = new TextEncoder();
    const inside = files.map(
      ({ path, data }) => [path, typeof data === 'string' ? encoder.encode(data) : data] as const,
    );
    const bytes = new Uint8Array(zipSync(Object.fromEntries(inside)));
    return transfer({ bytes, files: files.length, odd }, [bytes.buffer]);
  }

  private chosen(wish: SheetWish, ids: readonly string[]): readonly Sheet[] {
    const wanted = new Set(ids);
    return this.all(wish).filter((s) => wanted.has(s.id));
  }

  private all({ kind, counting, use }: SheetWish): readonly Sheet[] {
    const { show } = this.mirror;
    const { kept } = this;
    if (kept?.show === show && kept.kind === kind && kept.counting === counting && kept.use === use) return kept.sheets;
    const sheets = sheetsOf(tonightOf(show), { kind, counting, use }, sheetWords);
    this.kept = { show, kind, counting, use, sheets };
    return sheets;
  }
}
