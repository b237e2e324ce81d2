import { zipSync } from 'fflate';
import { existsSync, mkdirSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { packShow } from '../src/core/formats/pack';
import { sheetWords, unprintableSentence } from '../src/wording';
import type { Outcome } from './commands';
import { Failure } from './failure';
import { readShow, writeWhole } from './files';
import { loadFonts, paperSize, todayWords } from './paper';

/** Everything of a show that one takes along: into a folder that is empty or new, or a zip. */
export async function pack(path: string, out: string, paper: string, asJson: boolean): Promise<Outcome> {
  const size = paperSize(paper);
  const show = readShow(path);
  const isZip = out.toLowerCase().endsWith('.zip');
  if (!isZip && existsSync(out) && (readdirSync(out) as readonly string[]).length > 0) {
    throw new Failure(`${out}: the folder is not empty.`);
  }
  const { files, odd } = await packShow(show, {
    paper: size,
    asOf: todayWords(),
    words: sheetWords,
    sounds: null,
    loadFonts,
  });
  if (isZip) {
    const bytes = files.map(({ path: name, data }) => [
      name,
      typeof data === 'string' ? new TextEncoder().encode(data) : data,
    ]);
    writeWhole(out, zipSync(Object.fromEntries(bytes) as Record<string, Uint8Array>));
  } else {
    for (const { path: name, data } of files) {
      mkdirSync(join(out, dirname(name)), { recursive: true });
      writeWhole(join(out, name), data);
    }
  }
  const recordings = show.audio.length > 0 ? ['note: Recordings are kept in the browser, and are not in it.'] : [];
  const told = odd.length > 0 ? [unprintableSentence(odd)] : [];
  if (asJson) {
    const data = { file: out, files: files.map((f) => f.path), recordings: show.audio.length, unprintable: odd };
    return { lines: [JSON.stringify(data, null, 2)], code: 0 };
  }
  return { lines: [`${out}: ${files.length} files`, ...recordings, ...told], code: 0 };
}
