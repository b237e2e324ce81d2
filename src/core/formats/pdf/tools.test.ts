import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { FLOOR_KINDS, SHEET_KINDS, SHEET_USES } from '../../sheets';
import { fontsOf } from '../../testing/fonts';
import { SCRIPT_TITLES, inScripts } from '../../testing/scripts';
import { paperOf } from '../../testing/sheets';
import { unprintable, writeSheetsPdf } from './';

/** Debian's qpdf and poppler-utils, which know nothing of us. */
const THERE = ['/usr/bin/qpdf', '/usr/bin/pdfinfo', '/usr/bin/pdftotext'].every((tool) => existsSync(tool));

const show = inScripts(demoShow());
/** A sheet of each kind, for the desk and for the floor. */
const sheets = SHEET_USES.flatMap((use) =>
  SHEET_KINDS.filter((k) => use === 'desk' || FLOOR_KINDS.has(k)).flatMap((kind) =>
    paperOf(show, kind, { use }).slice(0, 1),
  ),
);

let folder = '';
let path = '';
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'lantern-paper-'));
  path = join(folder, 'sheets.pdf');
  const fonts = fontsOf(sheets, show.title);
  expect(unprintable(sheets, show.title, fonts)).toEqual([]);
  writeFileSync(path, await writeSheetsPdf(sheets, { paper: 'a4', show: show.title, asOf: 'today', fonts }));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const ask = (tool: string, ...args: readonly string[]): { readonly status: number | null; readonly out: string } => {
  const { status, stdout, stderr } = spawnSync(tool, args, { encoding: 'utf8' });
  return { status, out: `${stdout}${stderr}` };
};

describe.skipIf(!THERE)('paper in eight scripts, as other programs read it', () => {
  it('is a sound file', () => {
    const { status, out } = ask('qpdf', '--check', path);
    expect(out).toContain('No syntax or stream encoding errors found');
    expect(status).toBe(0);
  });

  it('is tagged: a title, a language, a heading for each sheet, tables of rows', () => {
    const info = ask('pdfinfo', path).out;
    expect(info).toMatch(/^Tagged: +yes$/m);
    expect(info).toMatch(/^Title: +\S/m);
    const structure = ask('pdfinfo', '-struct', path).out;
    expect(structure).not.toMatch(/error|warning/i);
    const count = (tag: string): number => structure.match(new RegExp(`^ *${tag}\\b`, 'gm'))?.length ?? 0;
    expect(count('Document')).toBe(1);
    expect(count('H1')).toBe(sheets.length);
    expect(count('Table')).toBeGreaterThan(5);
    expect(count('TR')).toBeGreaterThan(count('Table'));
    expect(count('TH')).toBeGreaterThan(0);
  });

  it('has the titles as they are typed, from left to right and from right to left', () => {
    // Points and accents stand beside letters by themselves; letters are what is copied and searched for.
    const letters = (text: string): string => text.normalize('NFD').replaceAll(/[\p{M}\p{Cf}\s]/gu, '');
    const text = letters(ask('pdftotext', path, '-').out);
    expect(SCRIPT_TITLES.filter((title) => !text.includes(letters(title.split(' ')[0]!)))).toEqual([]);
  });
});
