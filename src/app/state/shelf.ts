import type { Show } from '../../core/show';
import { shelf } from '../persistence/db';
import { forgetShow, journal } from '../persistence/journal';
import type { Listed } from '../persistence/listed';
import * as rows from '../persistence/shows';

// What lies in this browser's storage, without anything that an open show needs: the first screen draws it.

export type { Listed };

/** Tells the shows of the shelf now and whenever they change, or why they cannot be read; gives what ends that. */
export const watchShelf = (tell: (shows: readonly Listed[]) => void, refused: (error: Error) => void): (() => void) =>
  rows.watchShows(shelf, tell, refused);

/** Deletes a show with its versions, proofs and recordings. */
export const removeFromShelf = async (id: string): Promise<void> => {
  await rows.removeShow(shelf, id);
  await forgetShow(journal, id).catch(() => undefined);
};

/** The show of the shelf that a file holds already; undefined where there is none. */
export const sameOnShelf = (show: Show): Promise<Listed | undefined> => rows.findSame(shelf, show);

/** The id of the show with a title; undefined where there is none. */
export const titledOnShelf = (title: string): Promise<string | undefined> => rows.findTitled(shelf, title);
