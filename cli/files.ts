import { randomBytes } from 'node:crypto';
import { readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { readShowFile } from '../src/core/formats/show-file';
import { hasErrors, type Problem, type Read } from '../src/core/problems';
import type { Show, Song } from '../src/core/show';
import { problemLine } from '../src/wording';
import { Failure } from './failure';

/** Largest file that is read; a show of 60 songs is a tenth of it. */
const SIZE_LIMIT = 256 * 1024 * 1024;

export function readBytes(path: string): Uint8Array {
  try {
    const { size } = statSync(path);
    if (size > SIZE_LIMIT) throw new Failure(`${path}: the file is larger than ${SIZE_LIMIT / 1024 / 1024} MB.`);
    return readFileSync(path);
  } catch (error) {
    throw error instanceof Failure ? error : new Failure(`${path}: ${fileError(error)}`);
  }
}

/** Writes a file whole or not at all: what was there before stays until the new one is complete. */
export function writeWhole(path: string, data: string | Uint8Array): void {
  const draft = join(dirname(path), `.${basename(path)}.${randomBytes(6).toString('hex')}`);
  try {
    writeFileSync(draft, data, { flag: 'wx' });
    renameSync(draft, path);
  } catch (error) {
    rmSync(draft, { force: true });
    throw new Failure(`${path}: ${fileError(error)}`);
  }
}

function fileError(error: unknown): string {
  const code = (error as NodeJS.ErrnoException).code;
  if (code === 'ENOENT') return 'there is no such file or folder.';
  if (code === 'EISDIR') return 'this is a folder, not a file.';
  if (code === 'EACCES' || code === 'EPERM') return 'no permission.';
  return `it cannot be read or written (${code ?? 'unknown reason'}).`;
}

/** The value of a reader, or a failure with its first error. */
export function valueOf<T>(path: string, read: Read<T>): T {
  if (read.value !== undefined && !hasErrors(read.problems)) return read.value;
  const first = read.problems.find((p) => p.severity === 'error')!;
  const more = read.problems.filter((p) => p.severity === 'error').length - 1;
  throw new Failure(`${path}: ${problemLine(first)}${more > 0 ? ` (and ${more} more)` : ''}`);
}

export function readShow(path: string): Show {
  const bytes = readBytes(path);
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new Failure(`${path}: The file is not text in UTF-8, so it is not a show.`);
  }
  return valueOf(path, readShowFile(text));
}

/** A song by its title; capitals do not matter. */
export function findSong(show: Show, title: string): Song {
  const wanted = title.trim().toLowerCase();
  const found = show.songs.filter((s) => s.title.toLowerCase() === wanted);
  if (found.length === 1) return found[0]!;
  if (found.length > 1) throw new Failure(`The show has ${found.length} songs named "${title}".`);
  const titles = show.songs.slice(0, 12).map((s) => `"${s.title}"`);
  throw new Failure(
    titles.length === 0
      ? `The show has no songs, so none is named "${title}".`
      : `The show has no song named "${title}"; it has ${titles.join(', ')}.`,
  );
}

export const reportLines = (problems: readonly Problem[]): string[] =>
  problems.map((p) => `${p.severity}: ${problemLine(p)}`);
