import { nanoid } from 'nanoid';
import type { UnitAim } from '../../core/rig';
import {
  applyEdit,
  indexShow,
  invertEdit,
  type Edit,
  type ListedName,
  type Matching,
  type Show,
} from '../../core/show';
import { sameToWires, surroundingsOf } from '../../core/meaning';
import type { Ticks } from '../../core/time';
import {
  withLines,
  type Lesson,
  type PedalPoint,
  type PedalRecording,
  type SessionEvent,
  type Walk,
} from '../../playback';
import { problemLine } from '../../wording';
import { getWorkers } from '../adapters/workers';
import { shelf } from '../persistence/db';
import { copySounds } from '../persistence/sounds';
import { keepProof, loadProofs, loadShow, saveShow, watchRevision } from '../persistence/shows';
import { useLanes } from './lanes';
import { forgetRuns, keepChecked, keepRun } from './runs';
import { keepSounds, readySounds, wakeSound } from './sound';
import { useApp, type Done, type OpenShow } from './store';

/** A new id for anything in a show. */
export const newId = (): string => nanoid(10);

const workers = () =>
  getWorkers({
    news: (news) => useApp.setState({ news }),
    lines: (batch) => useApp.setState((s) => ({ lines: withLines(s.lines, batch) })),
    events: hear,
  });

const UNDO_LIMIT = 500;
const SAVE_DELAY = 250;
/** However busy the screen is, an edit waits no longer than this for its saving. */
const SAVE_LATEST = 1500;

let saveTimer: ReturnType<typeof setTimeout> | undefined;
let saving: Promise<void> = Promise.resolve();
let endWatch: (() => void) | undefined;

function setOpen(change: Partial<OpenShow>): void {
  const { open } = useApp.getState();
  if (open) useApp.setState({ open: { ...open, ...change } });
}

/** Does an edit, keeps the way back, saves soon. A null edit (nothing would change) does nothing. */
export function perform(edit: Edit | null, label: string): boolean {
  const { open } = useApp.getState();
  if (!edit || !open) return false;
  const past = [...open.past, { edit, label }].slice(-UNDO_LIMIT);
  setOpen({ show: applyEdit(open.show, edit), past, future: [] });
  useApp.setState({ note: null });
  changed();
  return true;
}

/** Says what an edit meant beyond itself. An empty text says nothing. */
export const say = (text: string): void => useApp.setState({ note: text.trim() === '' ? null : text });

export function undo(): void {
  const { open } = useApp.getState();
  const last = open?.past.at(-1);
  if (!open || !last) return;
  const show = applyEdit(open.show, invertEdit(last.edit));
  setOpen({ show, past: open.past.slice(0, -1), future: [last, ...open.future] });
  changed();
}

export function redo(): void {
  const { open } = useApp.getState();
  const next: Done | undefined = open?.future[0];
  if (!open || !next) return;
  setOpen({ show: applyEdit(open.show, next.edit), past: [...open.past, next], future: open.future.slice(1) });
  changed();
}

/** After every change: the workers hear of it, the marks follow the content, the shelf gets it soon. */
function changed(): void {
  if (useApp.getState().open?.save !== 'conflict') setOpen({ save: 'unsaved' });
  refreshing = refreshFingerprints();
  clearTimeout(saveTimer);
  saveTimer = setTimeout(() => requestIdleCallback(() => void saveNow(), { timeout: SAVE_LATEST }), SAVE_DELAY);
}

/** Saves what is not saved. Calls wait for each other, so that a revision is never used twice. */
export function saveNow(): Promise<void> {
  clearTimeout(saveTimer);
  saving = saving.then(async () => {
    const { open } = useApp.getState();
    if (!open || open.save === 'saved' || open.save === 'conflict') return;
    try {
      const saved = await saveShow(shelf, open.show, open.revision, Date.now());
      if (saved.kind === 'conflict') setOpen({ save: 'conflict' });
      else {
        const same = useApp.getState().open?.show === open.show;
        setOpen({ revision: saved.revision, save: same ? 'saved' : 'unsaved' });
      }
    } catch {
      setOpen({ save: 'failed' });
    }
  });
  return saving;
}

async function refreshFingerprints(): Promise<void> {
  const show = useApp.getState().open?.show;
  if (!show) return;
  const { proof, playback } = workers();
  // Workers take messages in their order: what is asked next is asked of this show.
  void proof.show(show);
  void playback.show(show);
  const asked = songsToFingerprint(printed, show);
  const found = await proof.worker.fingerprints(asked);
  // An edit in the meantime has its own answer on the way.
  if (useApp.getState().open?.show !== show) return;
  printed = show;
  const ids = new Set(show.songs.map((s) => s.id));
  const kept = Object.entries(useApp.getState().fingerprints).filter(([id]) => ids.has(id));
  useApp.setState({ fingerprints: { ...Object.fromEntries(kept), ...found } });
}

/** The fingerprints that are on their way. */
let refreshing: Promise<void> = Promise.resolve();

/** The show that the fingerprints in the store are of. */
let printed: Show | undefined;

/** Songs whose cues may have other fingerprints than before: an edit of one song leaves the others theirs. */
function songsToFingerprint(before: Show | undefined, show: Show): string[] {
  if (!before) return show.songs.map((s) => s.id);
  const known = new Set(before.songs);
  const [was, is] = [surroundingsOf(before), surroundingsOf(show)];
  return show.songs.filter((s) => !known.has(s) || !sameToWires(s, was, is)).map((s) => s.id);
}

async function enter(show: Show, revision: number | null): Promise<void> {
  endWatch?.();
  const proofs = await loadProofs(shelf, show.id);
  if (useApp.getState().open?.show.id !== show.id) forgetRuns();
  useApp.setState({
    open: { show, revision, past: [], future: [], save: revision === null ? 'unsaved' : 'saved' },
    refusal: null,
    proofs,
    fingerprints: {},
  });
  printed = undefined;
  if (revision === null) await saveNow();
  await refreshFingerprints();
  endWatch = watchRevision(shelf, show.id, (now) => void follow(now));
}

/** Another tab saved this show: follow it, unless something here is not saved yet. */
async function follow(revision: number): Promise<void> {
  await saving;
  const { open } = useApp.getState();
  if (!open || open.revision === null || revision <= open.revision) return;
  if (open.save === 'saved') await takeSaved();
  else setOpen({ save: 'conflict' });
}

/** Takes what lies on the shelf in place of what is here. */
export async function takeSaved(): Promise<void> {
  const { open } = useApp.getState();
  if (!open) return;
  await openFromShelf(open.show.id);
}

/** Keeps what is here as a show of its own, and goes on with that one. Gives its id. */
export async function keepAsCopy(): Promise<string | undefined> {
  const { open } = useApp.getState();
  if (!open) return undefined;
  const copy: Show = { ...open.show, id: newId(), title: `${open.show.title} (copy)`.slice(0, 120) };
  await copySounds(shelf, open.show.id, copy.id);
  await enter(copy, null);
  return copy.id;
}

/** Opens a show of the shelf; what is wrong with it is kept as `refusal`, and the row is left as it is. */
export async function openFromShelf(id: string): Promise<void> {
  const loaded = await loadShow(shelf, id);
  if (!loaded) {
    useApp.setState({ open: null, refusal: 'There is no such show in this browser.' });
    return;
  }
  const { value, problems } = loaded.read;
  if (value) await enter(value, loaded.revision);
  else useApp.setState({ open: null, refusal: problems.map(problemLine)[0] ?? 'The show cannot be read.' });
}

/** Puts a show that came from elsewhere on the shelf as a new one, with the sounds that came with it; gives its id there. */
export async function shelve(
  show: Show,
  sounds: ReadonlyMap<string, Uint8Array<ArrayBuffer>> = new Map(),
): Promise<string> {
  const own: Show = { ...show, id: newId() };
  await saveShow(shelf, own, null, Date.now());
  const lost = await keepSounds(show, own.id, sounds);
  if (lost.length > 0) say(`Not taken in, because it cannot be decoded or does not fit: ${lost.join(', ')}.`);
  return own.id;
}

/** Runs a song against the stand-in rig and keeps what that proved. */
export async function prove(songId: string): Promise<void> {
  const show = useApp.getState().open?.show;
  if (!show) return;
  useApp.setState((s) => ({ proving: [...s.proving, songId] }));
  try {
    const { proof } = workers();
    await proof.show(show);
    const found = await proof.worker.prove(songId);
    useApp.setState((s) => ({ proofs: { ...s.proofs, ...found.proofs } }));
    const song = indexShow(show).songs.get(songId);
    if (song) keepRun(show, song, found);
    await keepProof(shelf, show.id, found);
  } finally {
    useApp.setState((s) => ({ proving: s.proving.filter((id) => id !== songId) }));
  }
}

/** Asks the checks about a song as it is now, without playing it. */
export async function checkNow(songId: string): Promise<void> {
  // Lanterns come first: they are what one looks at.
  await refreshing;
  const show = useApp.getState().open?.show;
  const song = show && indexShow(show).songs.get(songId);
  if (!song) return;
  const { proof } = workers();
  await proof.show(show);
  keepChecked(show, song, await proof.worker.check(songId));
}

/** Plays a song from a place; a dry run goes before it, so that its lanterns say what to expect. */
export async function playSong(songId: string, from: Ticks): Promise<void> {
  const show = useApp.getState().open?.show;
  const song = show && indexShow(show).songs.get(songId);
  if (!show || !song) return;
  const { playback } = workers();
  wakeSound();
  await Promise.all([prove(songId), playback.show(show), readySounds(show, song)]);
  await playback.worker.play(songId, from);
}

/** From now on keeps what a pedal does while a song plays. */
export const recordPedal = async (what: PedalRecording | null): Promise<void> => (await playbackNow()).record(what);

/** What a pedal did. */
export const recordedPedal = async (): Promise<readonly PedalPoint[]> => (await playbackNow()).recorded();

// What is muted in the lanes is sent nothing from then on.
useLanes.subscribe((lanes) => {
  if (useApp.getState().open) void workers().playback.worker.lanes([...lanes.muted], [...lanes.solo]);
});

/** What happened to the session, where somebody should know. */
function hear(events: readonly SessionEvent[]): void {
  for (const event of events) {
    if (event.kind === 'stopped' && event.why === 'gone')
      say('The song that played is not in the show any more: stopped.');
    if (event.kind === 'slept')
      say(
        `The computer slept for ${Math.round(event.time / 1e6)} s: what was due meanwhile was not sent, the rig is caught up.`,
      );
  }
}

export async function stopSong(): Promise<void> {
  await workers().playback.worker.stop();
}

/** Matches a unit's slots with a new list of them, beside the screen's own work. */
export async function matchList(unitId: string, now: readonly ListedName[]): Promise<Matching | undefined> {
  const show = useApp.getState().open?.show;
  if (!show) return undefined;
  const { proof } = workers();
  await proof.show(show);
  return proof.worker.match(unitId, now);
}

/** The playback, told of the show as it is now. */
async function playbackNow() {
  const { playback } = workers();
  const show = useApp.getState().open?.show;
  if (show) await playback.show(show);
  return playback.worker;
}

/** Sends what tries one thing on a unit. */
export const audition = async (unitId: string, aim: UnitAim): Promise<void> =>
  void (await (await playbackNow()).audition(unitId, aim));

/** Sends one thing after the other to a unit, hands on the instrument. */
export const walk = async (run: Walk): Promise<void> => (await playbackNow()).walk(run);
export const stopWalk = async (): Promise<void> => (await playbackNow()).stopWalk();

/** Sends a message to a unit that waits to learn, again and again. */
export const teach = async (lesson: Lesson): Promise<void> => (await playbackNow()).teach(lesson);
export const stopTeaching = async (): Promise<void> => (await playbackNow()).stopTeaching();

/** Moves a switch, pad or pedal of a controller's stand-in. */
export const touch = async (unitId: string, senderId: string, value: number): Promise<void> =>
  (await playbackNow()).touch(unitId, senderId, value);

/** For a page that is going away: the last edits must not be lost. */
export function saveOnLeave(): () => void {
  const onHide = (): void => void saveNow();
  const onLeave = (event: BeforeUnloadEvent): void => {
    if (useApp.getState().open?.save === 'unsaved') {
      void saveNow();
      event.preventDefault();
    }
  };
  document.addEventListener('visibilitychange', onHide);
  window.addEventListener('beforeunload', onLeave);
  return () => {
    document.removeEventListener('visibilitychange', onHide);
    window.removeEventListener('beforeunload', onLeave);
  };
}
