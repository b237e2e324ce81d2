import { LIMITS } from '../../core/show';
import type { Show } from '../../core/show';
import { problemLine, said } from '../../wording';
import { fileName } from '../../core/formats/fileName';
import { download } from '../adapters/download';
import { shelf } from '../persistence/db';
import { copySounds } from '../persistence/sounds';
import { loadShow } from '../persistence/loadShow';
import { journal, loadPlayed } from '../persistence/journal';
import { loadProofs } from '../persistence/proofs';
import { removeDamaged, saveShow, watchRevision } from '../persistence/shows';
import { keepVersion, loadVersion, removeVersion, watchVersions } from '../persistence/versions';
import { createVersions } from './versions';
import { followExports } from './exported';
import { useJournal } from './journal';
import { useLanes } from './lanes';
import { useNews } from './news';
import { useNight } from './night';
import { forgetNights } from './nights';
import { forgetProofs, useProofs } from './proofs';
import { recover } from './recover';
import { forgetWays } from './rehearsal';
import { keepSounds, readySamples } from './sound';
import { useApp } from './store';

import {
  doc,
  feet,
  journaling,
  lastNights,
  newId,
  night,
  pair,
  ports,
  proving,
  say,
  saveNow,
  saving,
  showNow,
} from './wiring';

let endWatch: (() => void) | undefined;

async function enter(show: Show, revision: number | null): Promise<void> {
  endWatch?.();
  // Without them everything is proven again.
  const proofs = await loadProofs(shelf, show.id).catch(() => ({}));
  const before = showNow()?.id;
  if (before !== show.id) {
    if (before !== undefined) {
      // Where another tab is with that show stays written down.
      const isOurs = useNight.getState().id !== null || useNews.getState().news.playing;
      await night.leave();
      if (isOurs) journaling.left(before);
    }
    forgetProofs();
    forgetNights();
    forgetWays();
  }
  proving.forget();
  useProofs.setState({ proofs });
  doc.enter(show, revision);
  if (before !== show.id) void rememberNight(show).catch(() => undefined);
  void pair.resume(show.id).catch(() => undefined);
  void ports.follow(show);
  void lastNights.follow(show.id).catch(() => undefined);
  void feet.follow(show);
  void readySamples(show);
  void followExports(show.id, Date.now());
  if (revision === null) await saveNow();
  // Else the browser may clear the show away when the disk is full. A browser that will not is not asked twice.
  void navigator.storage?.persist?.();
  endWatch = watchRevision(shelf, show.id, (now) => void saving.follow(now));
}

/** What was played of a show is there again, and where it was interrupted, so that feet and pads go on from there. */
async function rememberNight(show: Show): Promise<void> {
  await recover();
  const lists = await loadPlayed(journal, show.id);
  if (showNow()?.id !== show.id) return;
  useJournal.setState({ lists });
  const { interrupted } = useJournal.getState();
  const there = interrupted?.showId === show.id ? interrupted : null;
  const begun = lists.find((l) => l.id === there?.night)?.begun ?? there?.when ?? 0;
  await night.remember(journaling.rememberedOf(show, there), begun);
  if (!there) return;
  useLanes.setState({ muted: new Set(there.muted), solo: new Set(there.solo) });
  // A show between two songs is simply on again.
  if (!there.playing) useJournal.setState({ interrupted: null });
}

/** Keeps what is here as a show of its own, and goes on with that one. Gives its id. */
export async function keepAsCopy(): Promise<string | undefined> {
  const show = showNow();
  if (!show) return undefined;
  const copy: Show = { ...show, id: newId(), title: `${show.title} (copy)`.slice(0, LIMITS.title) };
  await copySounds(shelf, show.id, copy.id);
  await enter(copy, null);
  return copy.id;
}

export const versions = createVersions({
  show: showNow,
  become: doc.become,
  say,
  keep: (row) => keepVersion(shelf, row),
  load: (showId, id) => loadVersion(shelf, showId, id),
  remove: (showId, id) => removeVersion(shelf, showId, id),
  watch: (showId, on, refused) => watchVersions(shelf, showId, on, refused),
  newId,
  now: Date.now,
});
pair.keepsOwn(() => void versions.keep('Before following another computer'));

/** What was put on the shelf last, and not opened yet: it need not be read again. No revision: the shelf did not take it. */
let fresh: { readonly show: Show; readonly revision: number | null } | null = null;

/** Exports the data of songs that could not be read, as it lies there. */
export function exportDamaged(): void {
  const { open, damaged } = useApp.getState();
  if (!open) return;
  const text = JSON.stringify(
    damaged.map((d) => d.data),
    null,
    1,
  );
  download(fileName(`${open.show.title} damaged songs`, 'json'), text, 'application/json');
}

/** Deletes it from the browser's storage. */
export async function deleteDamaged(): Promise<void> {
  const { open, damaged } = useApp.getState();
  if (!open) return;
  await removeDamaged(shelf, open.show.id, damaged);
  useApp.setState({ damaged: [] });
}

/** Opens a show of the shelf; what is wrong with it is kept as `refusal`, and the row is left as it is. */
export async function openFromShelf(id: string): Promise<void> {
  const refuse = (refusal: string): void => useApp.setState({ open: null, refusal });
  useApp.setState({ damaged: [] });
  const shelved = fresh?.show.id === id ? fresh : null;
  fresh = null;
  if (shelved) {
    if (shelved.revision !== null) saving.opened({ show: shelved.show, revision: shelved.revision, lifted: false });
    await enter(shelved.show, shelved.revision);
    return;
  }
  let loaded: Awaited<ReturnType<typeof loadShow>>;
  try {
    loaded = await loadShow(shelf, id);
  } catch (error) {
    refuse(said.storageUnread(error));
    return;
  }
  if (!loaded) {
    refuse(said.noSuchShow());
    return;
  }
  const { value, problems } = loaded.read;
  if (value) {
    // Rows that cannot be read stay where they are: what is saved is compared with what could be.
    const { revision, lifted } = loaded;
    if (loaded.inRows && loaded.lost === 0) saving.opened({ show: value, revision, lifted });
    await enter(value, loaded.revision);
    useApp.setState({ damaged: loaded.damaged });
    if (loaded.lost > 0) {
      const songs = loaded.lost === 1 ? '1 song is' : `${loaded.lost} songs are`;
      say(`${songs} missing in this browser's storage and left out. A file that you exported may still have them.`);
    }
  } else refuse(problems.map(problemLine)[0] ?? said.showUnread());
}

/**
 * Puts a show that came from elsewhere on the shelf as a new one, with the sounds that came with it; gives its id there.
 * Where the browser stores nothing, the show is opened all the same: it is there until the page is left.
 */
export async function shelve(
  show: Show,
  sounds: ReadonlyMap<string, Uint8Array<ArrayBuffer>> = new Map(),
): Promise<string> {
  const own: Show = { ...show, id: newId() };
  const saved = await saveShow(shelf, own, null, Date.now()).catch(() => null);
  fresh = saved?.kind === 'saved' ? { show: own, revision: saved.revision } : { show: own, revision: null };
  if (saved === null) return own.id;
  const lost = await keepSounds(show, own.id, sounds);
  if (lost.length > 0) say(said.soundsLost(lost));
  return own.id;
}
