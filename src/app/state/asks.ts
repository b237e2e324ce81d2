import type { Remote } from 'comlink';
import type { RoomFix } from '../../core/checks';
import type { Proposal, Rehearsal, RehearsalSum } from '../../core/feet';
import type { ExportWish, ExportedFile } from '../../core/formats/exportFile';
import type { FilesWorker, LetterFont } from '../../workers/protocol';
import type { ListedName, Matching } from '../../core/show';
import { ThreadFailed } from '../adapters/thread';
import { startFileMaker } from '../adapters/workers';

import { lazily, proverThread, showNow, tonight } from './wiring';

// What is worked out in threads, beside the screen's own work.

/** Matches a unit's slots with a new list of them, beside the screen's own work. */
export async function matchList(unitId: string, now: readonly ListedName[]): Promise<Matching | undefined> {
  const show = tonight();
  if (!show) return undefined;
  proverThread().show(show);
  return proverThread().ask((w) => w.match(unitId, now));
}

/** What gives a change more room, worked out beside the screen's own work. */
export async function findRoom(songId: string, cueId: string, unitId: string): Promise<readonly RoomFix[]> {
  const show = tonight();
  if (!show) return [];
  proverThread().show(show);
  return proverThread().ask((w) => w.room(songId, cueId, unitId));
}

/** Pages for the songs of the set, worked out beside the screen's own work. */
export async function proposePages(unitId: string): Promise<Proposal | null> {
  const show = tonight();
  if (!show) return null;
  proverThread().show(show);
  return proverThread().ask((w) => w.propose(unitId));
}

/** Songs played by foot without the computer, in figures, worked out beside the screen's own work. */
export async function rehearseAllByFoot(unitId: string, songIds: readonly string[]): Promise<readonly RehearsalSum[]> {
  const show = tonight();
  if (!show) return [];
  proverThread().show(show);
  return proverThread().ask((w) => w.rehearseAll(unitId, songIds));
}

/** One of them, step by step. */
export async function rehearseByFoot(unitId: string, songId: string): Promise<Rehearsal | null> {
  const show = tonight();
  if (!show) return null;
  proverThread().show(show);
  return proverThread().ask((w) => w.rehearse(unitId, songId));
}

const filesThread = lazily(() => startFileMaker(() => undefined));

/** Asks the thread that makes paper and files of the show as it is now. */
export async function askFiles<T>(run: (worker: Remote<FilesWorker>) => Promise<T>): Promise<T> {
  const show = showNow();
  if (!show) throw new Error('no show is open');
  filesThread().show(show);
  return filesThread().ask(run);
}

/** Fonts with some letters, from the thread that makes paper. */
export const askLetters = (text: string, have: readonly string[]): Promise<readonly LetterFont[]> =>
  filesThread().ask((w) => w.letters(text, have));

/** Makes a file of the show as it is now, beside the screen's own work; on the screen's where no thread can be started. */
export async function makeFile(wish: ExportWish): Promise<ExportedFile> {
  try {
    return await askFiles((w) => w.file(wish));
  } catch (error) {
    const show = showNow();
    if (!(error instanceof ThreadFailed) || !show) throw error;
    return (await import('../../core/formats/exportFile')).exportFile(show, wish);
  }
}
