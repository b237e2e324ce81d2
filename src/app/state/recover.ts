import { stoppedAt } from '../adapters/lastStop';
import { isTurnTaken } from '../adapters/turn';
import { shelf } from '../persistence/db';
import { journal, loadPlaces } from '../persistence/journal';
import { asStopped, interruptedOf, useJournal } from './journal';

// What a page looks for first when it is opened: whether a show was interrupted.

/** A page that is loaded anew still holds its turn for a moment, in milliseconds. */
const HELD_FOR = 1000;
const LOOK_EVERY = 50;

const isTakenForLong = async (): Promise<boolean> => {
  for (const end = Date.now() + HELD_FOR; await isTurnTaken();) {
    if (Date.now() > end) return true;
    await new Promise((next) => setTimeout(next, LOOK_EVERY));
  }
  return false;
};

async function look(): Promise<void> {
  try {
    const place = interruptedOf(
      (await loadPlaces(journal)).map((p) => asStopped(p, stoppedAt(p.showId))),
      Date.now(),
    );
    // What another tab plays is not interrupted.
    if (!place || (await isTakenForLong()) || !(await shelf.shows.get(place.showId))) return;
    useJournal.setState({ interrupted: place });
  } catch {
    // A browser without storage has written nothing down.
  }
}

let looked: Promise<void> | undefined;

/** Looks once, when the page is opened, where a show was when whatever played it ended. */
export const recover = (): Promise<void> => (looked ??= look());
