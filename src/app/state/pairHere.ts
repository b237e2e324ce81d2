import type { Remote } from 'comlink';
import type { PlaybackNews } from '../../playback';
import type { PlaybackWorker } from '../../workers/protocol';
import { openLine } from '../adapters/line';
import { takePairTurn } from '../adapters/turn';
import { shelf } from '../persistence/db';
import { keepDevice, loadDevice } from '../persistence/device';
import { saveShow } from '../persistence/shows';
import { keepSound, loadSound } from '../persistence/sounds';
import { setCaret } from './caret';
import type { ShowDocument } from './document';
import { useLanes } from './lanes';
import { useNews } from './news';
import { useNight } from './night';
import { createPair, usePair, type Pair, type PairNeeds } from './pair';
import { useApp } from './store';

/** Where the next start begins, as the other computer said last. */
let mirroredNext: PlaybackNews['next'] = null;

/** What this tab knows of the show that is on, and of its lanes, is what the computer has that leads. */
export function mirrorTab({ night: id, history, muted, solo, next }: PlaybackNews): void {
  if (useNight.getState().id !== id) useNight.setState({ id, begun: (history[0]?.at ?? Date.now() * 1000) / 1000 });
  // Once: who looks elsewhere on this computer is not called back.
  if (next && next !== mirroredNext) setCaret(next.songId, next.place);
  mirroredNext = next;
  const lanes = useLanes.getState();
  const same = (a: ReadonlySet<string>, b: readonly string[]): boolean =>
    a.size === b.length && b.every((x) => a.has(x));
  if (!same(lanes.muted, muted) || !same(lanes.solo, solo)) {
    useLanes.setState({ muted: new Set(muted), solo: new Set(solo) });
  }
}

interface Needs extends Pick<PairNeeds, 'show' | 'later'> {
  readonly ask: <T>(run: (worker: Remote<PlaybackWorker>) => Promise<T>) => Promise<T>;
  readonly doc: Pick<ShowDocument, 'become' | 'say'>;
}

/** This browser as one of two computers: its playback, its shelf and its line. */
export function pairHere({ ask, show, doc, later }: Needs): Pair {
  /** A playback that does not answer is started anew, and told again. */
  const tell = (run: (worker: Remote<PlaybackWorker>) => Promise<void>): void => void ask(run).catch(() => undefined);
  const pair = createPair({
    store: usePair,
    openLine,
    playback: {
      pair: (seat) => tell((w) => w.pair(seat)),
      road: (road) => tell((w) => w.pairRoad(road)),
      hears: (text) => tell((w) => w.pairHears(text)),
      lead: () => tell((w) => w.lead()),
      turnsBox: (box) => tell((w) => w.turnsBox(box)),
      awake: (is) => tell((w) => w.pairAwake(is)),
    },
    takeTurn: takePairTurn,
    leads: () => useNews.getState().news.pair?.leads ?? null,
    show,
    shelve: async (theirs) => {
      await saveShow(shelf, theirs, null, Date.now());
    },
    become: (theirs) => void doc.become(theirs, 'what the other computer has', true),
    sounds: {
      missing: async ({ id: showId, audio }) => {
        const rows = await Promise.all(audio.map(({ id }) => loadSound(shelf, showId, id)));
        return audio.flatMap(({ id }, i) => (rows[i] ? [] : [id]));
      },
      load: (showId, id) => loadSound(shelf, showId, id),
      keep: (row) => keepSound(shelf, row),
      wait: (millis) => new Promise((done) => void later(done, millis)),
    },
    keep: (row) => void keepDevice(shelf, 'pair', row).catch(() => undefined),
    load: async () => (await loadDevice(shelf)).pair ?? undefined,
    now: Date.now,
    clock: () => performance.now(),
    later,
    say: doc.say,
  });
  useNews.subscribe(({ news }, { news: before }) => {
    if (news.pair?.leads !== before.pair?.leads) pair.changed();
  });
  useApp.subscribe(({ open }, before) => {
    if (open?.show !== before.open?.show) pair.changed();
  });
  return pair;
}
