import {
  fitText,
  indexShow,
  setPortField,
  setMissing,
  setOf,
  setSongField,
  setUnitField,
  sharing,
  songTime,
  ticksAt,
  songAsPlayed,
} from '../../core/show';
import { tonightOf, type ShowTonight } from '../../core/tonight';
import { barOfTick } from '../../core/time';
import { nanoid } from 'nanoid';
import type { Show, Turn } from '../../core/show';
import { followInterludes, interludesHear } from './interlude';
import { moveFader, turn } from './mix';
import { withLines, type Played, type SongLoop } from '../../playback';
import { openRealPorts } from '../adapters/realPorts';
import { startPlayback, startProver } from '../adapters/workers';
import { noteStop } from '../adapters/lastStop';
import { takeShowTurn, takeTurn } from '../adapters/turn';
import { shelf } from '../persistence/db';
import { loadShow } from '../persistence/loadShow';
import { keepProof } from '../persistence/proofs';
import { keepDevice, loadDevice } from '../persistence/device';
import { keepNight, loadNights } from '../persistence/nights';
import { journal, keepPlace, keepPlayed, namePlayed, removePlayed } from '../persistence/journal';
import { today } from '../adapters/today';
import type { PortUse } from '../persistence/rows';
import { saveShow } from '../persistence/shows';
import { followCaret, followSelected, setCaret } from './caret';
import { runCompared } from './comparing';
import { createDocument } from './document';
import { createFeet, useFeet } from './feet';
import { createJournal, rehearsalOf, useJournal, type PlayedRow } from './journal';
import { createLastNights, useLastNights } from './lastNights';
import { createLateness } from './lateness';
import { proofOf } from './marks';
import { hearAll, useLanes } from './lanes';
import { useNews } from './news';
import { createNight, useNight } from './night';
import { SEED, playSetNights, useNights } from './nights';
import { createPorts, usePorts, type Answer } from './ports';
import { mirrorTab, pairHere } from './pairHere';
import { createPlaying } from './playing';
import { Proving, type ProvingThread, type Sight } from './proving';
import { useProofs } from './proofs';
import { forgetWays, keepWay, wayOf } from './rehearsal';
import { createSaving } from './saving';
import { followSounds, playSample, wakeSound } from './heard';
import { readySounds } from './sound';
import { followWords } from './words';
import { useApp } from './store';
import { said } from '../../wording';

// Puts the parts together: each has what it needs handed in, and knows none of the others.

/** A new id for anything in a show. */
export const newId = (): string => nanoid(10);

const later = (run: () => void, millis: number): (() => void) => {
  const timer = setTimeout(run, millis);
  return () => clearTimeout(timer);
};

/** The show that is open now: not the one of the picture that an action began in. */
export const showNow = (): Show | undefined => useApp.getState().open?.show;

/** What is proven and played: the show as the night has it. */
export const tonight = (): ShowTonight | undefined => {
  const show = showNow();
  return show && tonightOf(show);
};

/** Something that is made when it is first used. */
export function lazily<T>(make: () => T): () => T {
  let made: T | undefined;
  return () => (made ??= make());
}

/** Whether another computer leads, and this one follows it. */
export const follows = (): boolean => useNews.getState().news.pair?.leads === false;

/** Whether the show is on for its audience. */
const isShowOn = (): boolean => useNight.getState().id !== null;

export const doc = createDocument(
  useApp,
  (show) => {
    const now = tonightOf(show);
    proving.changed(now);
    playbackThread().show(now);
    if (useApp.getState().open?.save !== 'saved') saving.soon();
    pair.changed();
  },
  (forTonight) => (follows() ? said.editedThere() : isShowOn() && !forTonight ? said.editsHeldOff() : null),
);
export const { perform, undo, redo, say } = doc;

export const saving = createSaving({
  open: () => useApp.getState().open,
  document: doc,
  save: (show, base, now, before) => saveShow(shelf, show, base, now, before),
  load: async (id) => {
    const loaded = await loadShow(shelf, id);
    return loaded?.read.value && { show: loaded.read.value, revision: loaded.revision, lifted: loaded.lifted };
  },
  now: Date.now,
  isHeldOff: isShowOn,
  later,
});
export const saveNow = saving.now;
/** Takes what lies on the shelf in place of what is here; undo brings back what was here. */
export const takeSaved = saving.takeTheirs;
/** Saves the open show again, where the browser's storage has it no more. */
export const saveAnew = saving.anew;

/** Says that a thread cannot be started, and that it can again. */
const sayBroken = (what: string) => (broken: boolean) =>
  say(
    broken
      ? `${what} cannot be started. It is tried again; if that does not help, load the page again. What was typed is saved.`
      : `${what} works again.`,
  );

export const proverThread = lazily(() => startProver(sayBroken('The proving')));

const provingThread = (thread: () => ReturnType<typeof startProver>): ProvingThread => ({
  show: (show) => thread().show(show),
  fingerprints: (songId) => thread().ask((w) => w.fingerprints(songId)),
  prove: (songId, detailed) => thread().ask((w) => w.prove(songId, detailed)),
});

/** As many threads as there are cores, up to four, prove side by side; one of them is for what is in sight. */
const helpers = lazily(() => {
  const count = Math.min(4, navigator.hardwareConcurrency || 1) - 1;
  return Array.from({ length: count }, () => provingThread(lazily(() => startProver(() => undefined))));
});

export const proving = new Proving({
  store: useProofs,
  show: tonight,
  front: provingThread(proverThread),
  // What plays goes before what is proven.
  helpers: () => (useNews.getState().news.playing ? [] : helpers()),
  keep: (showId, songId, proofs) => void keepProof(shelf, showId, songId, proofs).catch(() => undefined),
  later,
});

/** Plays the set on its nights, on every thread that there is. */
export function playNights(): Promise<void> {
  const show = tonight();
  if (!show) return Promise.resolve();
  const threads = nightThreads().map((thread) => ({
    show: (to: Show) => thread().show(to),
    nights: (songId: string, seed: number, from: number, to: number) =>
      thread().ask((w) => w.nights(songId, seed, from, to)),
  }));
  return playSetNights(show, threads);
}

/** Threads that play nights: as many as there are cores, up to four. */
const nightThreads = lazily(() =>
  Array.from({ length: Math.min(4, Math.max(1, navigator.hardwareConcurrency || 1)) }, () =>
    lazily(() => startProver(() => undefined)),
  ),
);

/** Shows one night of a song in place of its plan; null shows the plan again. */
export async function openNight(songId: string, night: number | null): Promise<void> {
  if (night === null) return useNights.setState({ opened: null });
  const picture = await proverThread().ask((w) => w.night(songId, SEED, night));
  useNights.setState({ opened: { songId, night, picture } });
}

/** Runs of an earlier state of the show have a thread of their own. */
const comparer = lazily(() => startProver(() => undefined));

/** Runs songs of the state that is compared with. */
export const runOther = (songIds: readonly string[]): Promise<void> =>
  runCompared(songIds, (show, songId) => {
    comparer().show(show);
    return comparer().ask((w) => w.prove(songId, false));
  });

/** What is on screen from now on: it is proven first, and in full. */
export const look = (sight: Sight): void => proving.look(sight);

const playbackThread = lazily(() =>
  startPlayback(
    {
      news: (news) => {
        // What is the same as before is the same object: thirty times a second nothing else is drawn again.
        useNews.setState((s) => ({ news: sharing(s.news, news) }));
        if (news.pair && !news.pair.leads) mirrorTab(useNews.getState().news);
      },
      peer: (message) => pair.peer(message),
      lines: (batch) => useNews.setState((s) => ({ lines: withLines(s.lines, batch) })),
      events: (events) => {
        playing.hear(events);
        interludesHear(events);
        lastNights.hear(events);
        if (events.some((e) => e.kind === 'stopped' && e.why === 'asked')) growByPlaying();
        for (const e of events) {
          if (e.kind === 'answered') {
            ports.answered(e);
            noteAnswer(e);
          }
          if (e.kind === 'foot-stored') feet.holds(e.unitId, e.bytes);
          if (e.kind === 'sample') void playSample(showNow()?.id ?? '', e.audioId, e.gain);
          if (e.kind === 'level') moveFader(e.fader, e.of, e.gain);
          if (e.kind === 'turn') turn(e.of, e.how);
          if (e.kind === 'part') turnPart(e.playerId, e.how);
          if (e.kind === 'pressed') useNews.setState({ pressed: e });
        }
      },
    },
    (batch, from) => ports.handOver(batch, from),
    () => {
      playing.lost();
      pair.tellAgain();
      night.tellAgain();
      void playing.countIn(useNews.getState().news.countsIn);
      const { muted, solo } = useLanes.getState();
      void playing.lanes(muted, solo);
      ports.tellAgain();
      feet.tellAgain();
    },
    sayBroken('The playback'),
  ),
);

/** One of two computers of this show. */
export const pair = pairHere({ ask: (run) => playbackThread().ask(run), show: showNow, doc, later });

/** An open-ended song is as long as it was played, where that was longer than it is written. Not for a stand-in player. */
function growByPlaying(): void {
  const show = showNow();
  const { news } = useNews.getState();
  const { songId, place } = news;
  const song = show?.songs.find((s) => s.id === songId);
  if (!show || !song?.open || isShowOn() || useApp.getState().stageOnly.includes(show.id)) return;
  const time = songTime(songAsPlayed(song, news));
  const { bar } = barOfTick(time.bars, ticksAt(time, place));
  if (bar > song.bars) perform(setSongField(show, song.id, 'bars', bar), `${song.title} is ${bar} bars`);
}

/** Lets a player's part into the backing, or takes it out, as the set says it: with undo. */
function turnPart(playerId: string, how: Turn): void {
  const show = showNow();
  if (!show) return;
  const missing = how === 'on' || (how === 'flip' && !setOf(show).missing.includes(playerId));
  const name = indexShow(show).players.get(playerId)?.name ?? '';
  perform(setMissing(show, playerId, missing), missing ? `${name} is missing` : `${name} is there`, true);
}

/** Where one unit alone comes back on a port, it is that one that answered. Once, so that undo takes it back. */
function noteAnswer({ portId, identity }: Answer): void {
  const show = showNow();
  const [unit, ...others] = show?.units.filter((u) => u.returns?.portId === portId) ?? [];
  if (show && unit && others.length === 0 && !isShowOn()) {
    perform(setUnitField(show, unit.id, 'answered', identity), `note who ${unit.name} is`);
  }
}

const playing = createPlaying({
  show: showNow,
  thread: { show: (show) => playbackThread().show(tonightOf(show)), ask: (run) => playbackThread().ask(run) },
  news: useNews,
  say,
  takeTurn,
  wakeSound,
  readySounds,
  wayOf,
  follows,
});
const { night: tellNight, remember: tellRemembered } = playing;
export const {
  play: playSong,
  practise: practiseSong,
  stop: stopSong,
  select: selectPlace,
  countIn,
  goSong,
  chooseSong,
  goChange,
  queue: queueEntry,
  back: takeStartBack,
  panic,
  tone: goToTone,
  audition,
  walk,
  stopWalk,
  teach,
  stopTeaching,
  touch,
  send: sendOn,
  listenOnly,
  standInClock,
  standInMachine,
  beLed,
  foot: pressFoot,
  playOut,
  loadFoot,
  footFaults,
  transfer: transferPages,
  stopTransfer,
  recordPedal,
  recordedPedal,
} = playing;

/** A song is practised at another speed, or in a stretch, from now on: at once if it plays. Not while a show is on. */
export function practiseSpeed(songId: string, speed: number): void {
  if (isShowOn()) return say(said.noPracticeNow());
  keepWay(songId, { speed });
  if (playsNow(songId)) void playing.speed(speed);
}

export function practiseLoop(songId: string, loop: SongLoop | null): void {
  if (isShowOn()) return say(said.noPracticeNow());
  keepWay(songId, { loop });
  if (playsNow(songId)) void playing.loop(loop);
  // What is practised begins with its stretch; whoever wants to come in ahead of it goes there.
  else if (loop) setCaret(songId, loop.from);
}

function playsNow(songId: string): boolean {
  const { news } = useNews.getState();
  return news.playing && news.songId === songId;
}

export const feet = createFeet({
  store: useFeet,
  load: () => loadDevice(shelf),
  keep: (key, value) => keepDevice(shelf, key, value),
  fill: (unitId, bytes) => playing.loadFoot(unitId, bytes),
});
export const { holds: controllerHolds, tick: tickTyped } = feet;

export const ports = createPorts({
  store: usePorts,
  show: showNow,
  ask: async (run) => {
    const show = tonight();
    if (!show) return undefined;
    playbackThread().show(show);
    return playbackThread().ask(run);
  },
  openReal: openRealPorts,
  load: async (showId) => (await loadDevice(shelf)).ports?.[showId] ?? {},
  keep: (showId, uses) => void keepPortUses(showId, uses),
  clock: { now: () => performance.now(), origin: () => performance.timeOrigin * 1000 },
  later,
  say,
  isShowOn,
  leftAt: (port, late) => lateness.left(port, late),
  leftFor: (what, late) => lastNights.left(what, late),
});
export const { open: openPorts, clickOn } = ports;

/** Binds a port of the show on this computer; what it is called here is noted in the show, for others. */
export function usePort(portId: string, use: PortUse): void {
  ports.use(portId, use);
  const show = showNow();
  const port = show && indexShow(show).ports.get(portId);
  const known = { out: use.out?.name ?? port?.known.out ?? '', in: use.in?.name ?? port?.known.in ?? '' };
  const isNew = port && (known.out !== port.known.out || known.in !== port.known.in);
  if (!show || !port || !isNew || isShowOn()) return;
  const short = { out: fitText(known.out, 'title'), in: fitText(known.in, 'title') };
  perform(setPortField(show, portId, 'known', short), `note what ${port.name} was here`);
}

/** Writes down where the show is, so that it is known after a crash. */
export const journaling = createJournal({
  store: useJournal,
  now: Date.now,
  show: showNow,
  lanes: useLanes.getState,
  keepPlace: (row) => keepPlace(journal, row),
  keepPlayed: (row) => keepPlayed(journal, row),
  noteStop,
});
export const { letBe } = journaling;
useNews.subscribe(({ news }, { news: before }) => journaling.hear(news, before));

const listOf = (id: string): readonly Played[] => useJournal.getState().lists.find((l) => l.id === id)?.history ?? [];

export const night = createNight({
  store: useNight,
  show: tonight,
  now: Date.now,
  newId,
  say,
  takeTurn: takeShowTurn,
  tell: (id) => tellNight(id, listOf(id ?? rehearsalOf(Date.now()))),
  tellRemembered,
  stop: playing.stop,
  select: playing.select,
  endPractice: () => {
    forgetWays();
    hearAll();
  },
  bindAgain: ports.bindAgain,
  over: () => void saving.followLater(),
  follows,
});
export const { start: startShow, end: endShow } = night;

/** Gives a list of what was played another name; an empty one calls it by its day again. */
export async function renamePlayed(list: PlayedRow, name: string): Promise<void> {
  await namePlayed(journal, list, name);
  setLists((lists) => lists.map((l) => (l.id === list.id ? { ...l, name } : l)));
}

/** Clears a list of what was played; that of now begins anew. Not while a song of it plays. */
export async function clearPlayed(list: PlayedRow): Promise<void> {
  const { playing: plays, night: on } = useNews.getState().news;
  const isNow = list.id === (on ?? rehearsalOf(Date.now()));
  if (isNow && plays) return say(said.playsNow());
  await removePlayed(journal, list);
  if (isNow) await tellNight(on, []);
  setLists((lists) => lists.filter((l) => l.id !== list.id));
}

const setLists = (change: (lists: readonly PlayedRow[]) => readonly PlayedRow[]): void =>
  useJournal.setState(({ lists }) => ({ lists: change(lists) }));

const lateness = createLateness({
  later,
  today,
  keep: (all) => void keepDevice(shelf, 'portTimes', { ...all }).catch(() => undefined),
});
export const { forget: forgetLateness } = lateness;

export const lastNights = createLastNights({
  store: useLastNights,
  now: () => Date.now(),
  show: () => {
    const show = showNow();
    return show && { id: show.id, titleOf: (songId) => indexShow(show).songs.get(songId)?.title ?? '' };
  },
  // At another speed other times hold.
  marginOf: (songId, cueId, unitId) => {
    if (useNews.getState().news.speed !== 1) return null;
    const verdicts = proofOf(useProofs.getState(), songId, cueId)?.verdicts ?? [];
    const margins = verdicts.flatMap((v) => (v.unitId === unitId && v.margin ? [v.margin.later] : []));
    return margins.length > 0 ? Math.min(...margins) : null;
  },
  load: (showId) => loadNights(shelf, showId),
  // A browser without storage says so where something is to be saved.
  keep: (night) => void keepNight(shelf, night).catch(() => undefined),
});

/** Of other shows this computer remembers its ports too. */
async function keepPortUses(showId: string, uses: Readonly<Record<string, PortUse>>): Promise<void> {
  try {
    const all = (await loadDevice(shelf)).ports ?? {};
    await keepDevice(shelf, 'ports', { ...all, [showId]: { ...uses } });
  } catch {
    say(said.portsNotKept());
  }
}

// What is muted in the lanes is sent nothing from then on.
useLanes.subscribe(({ muted, solo }) => {
  if (showNow()) void playing.lanes(muted, solo);
});
followSounds();
followInterludes();
followWords();
followSelected();
followCaret(isShowOn, (songId, at) => void playing.stand(songId, at));

/** For a page that is going away: the last edits must not be lost. */
export function saveOnLeave(): () => void {
  const onHide = (): void => {
    void saveNow();
    const isHidden = document.visibilityState === 'hidden';
    ports.hidden(isHidden);
    pair.hidden(isHidden);
  };
  const onLeave = (event: BeforeUnloadEvent): void => {
    const save = useApp.getState().open?.save ?? 'saved';
    if (save !== 'saved') void saveNow();
    // What plays would end with the page.
    if (save !== 'saved' || useNews.getState().news.playing) event.preventDefault();
  };
  document.addEventListener('visibilitychange', onHide);
  window.addEventListener('beforeunload', onLeave);
  return () => {
    void saveNow();
    document.removeEventListener('visibilitychange', onHide);
    window.removeEventListener('beforeunload', onLeave);
  };
}
