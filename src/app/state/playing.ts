import type { Remote } from 'comlink';
import type { StoreApi } from 'zustand';
import type { Bytes } from '../../core/midi';
import type { Errand } from '../../core/feet';
import type { UnitAim } from '../../core/rig';
import { indexShow, type Show, type Song } from '../../core/show';
import type { Ticks } from '../../core/time';
import type {
  FootFaults,
  FootTouch,
  Lesson,
  PedalPoint,
  PedalRecording,
  Played,
  PracticeWay,
  Remembered,
  SessionEvent,
  SongLoop,
  Walk,
  MachineAct,
} from '../../playback';
import type { PlaybackWorker } from '../../workers/protocol';
import { NO_NEWS, type News } from './news';
import { said } from '../../wording';

export interface PlayingNeeds {
  readonly show: () => Show | undefined;
  readonly thread: {
    readonly show: (show: Show) => void;
    readonly ask: <T>(run: (worker: Remote<PlaybackWorker>) => Promise<T>) => Promise<T>;
  };
  readonly news: Pick<StoreApi<News>, 'getState' | 'setState'>;
  readonly say: (text: string) => void;
  /** Takes the right to play, which one tab has at a time; gives what lets go of it, or null where another tab plays. */
  readonly takeTurn: () => Promise<(() => void) | null>;
  /** Lets sound be heard, and decodes what a song needs of it. */
  readonly wakeSound: () => void;
  readonly readySounds: (show: Show, song: Song) => Promise<unknown>;
  /** Whether another computer leads: then nothing is played from here. */
  readonly follows: () => boolean;
  /** How a song is practised in this tab. */
  readonly wayOf: (songId: string) => PracticeWay;
}

/** What the page asks of the playback. */
export interface Playing {
  /** Plays a song from a place on, as the audience gets it; `entryId` says where it stands in the set. */
  readonly play: (songId: string, from: Ticks, entryId?: string | null) => Promise<void>;
  /** Plays a song from a place on as it is practised. */
  readonly practise: (songId: string, from: Ticks) => Promise<void>;
  readonly select: (songId: string, place: Ticks, entryId?: string | null) => Promise<void>;
  /** The next start begins there, whoever asks for it: nothing is sent. */
  readonly stand: (songId: string, place: Ticks) => Promise<void>;
  readonly goSong: (by: 1 | -1) => Promise<void>;
  readonly chooseSong: (by: 1 | -1) => Promise<void>;
  readonly goChange: (by: 1 | -1) => Promise<void>;
  readonly queue: (entryId: string | null) => Promise<void>;
  readonly back: () => Promise<void>;
  readonly tone: (toneId: string) => Promise<void>;
  readonly panic: () => Promise<void>;
  readonly stop: () => Promise<void>;
  /** The show is on for its audience from now on, by its id, with what was played in it; null: it is over. */
  readonly night: (id: string | null, history: readonly Played[]) => Promise<void>;
  readonly remember: (remembered: Remembered) => Promise<void>;
  readonly speed: (speed: number) => Promise<void>;
  readonly loop: (loop: SongLoop | null) => Promise<void>;
  /** Whether songs that are started from now on are counted in. */
  readonly countIn: (on: boolean) => Promise<void>;
  readonly lanes: (muted: ReadonlySet<string>, solo: ReadonlySet<string>) => Promise<void>;
  readonly audition: (unitId: string, aim: UnitAim) => Promise<void>;
  readonly walk: (run: Walk) => Promise<void>;
  readonly stopWalk: () => Promise<void>;
  readonly teach: (lesson: Lesson) => Promise<void>;
  readonly stopTeaching: () => Promise<void>;
  /** Sends a message on a port as it stands. */
  readonly send: (portId: string, bytes: Bytes) => Promise<void>;
  readonly listenOnly: (on: boolean) => Promise<void>;
  readonly standInClock: (portId: string, bpm: number | null) => Promise<void>;
  readonly standInMachine: (portId: string, act: MachineAct) => Promise<void>;
  /** Time code or a clock leads, or leads no longer. */
  readonly beLed: (on: boolean) => Promise<void>;
  readonly touch: (unitId: string, senderId: string, value: number) => Promise<void>;
  /** Presses and moves the stand-in of a foot controller. */
  readonly foot: (unitId: string, touch: FootTouch) => Promise<void>;
  /** Has it send messages, as if a switch with them was pressed. */
  readonly playOut: (unitId: string, messages: readonly Bytes[]) => Promise<void>;
  /** Has it forget what it holds (null), or hold what it held before. */
  readonly loadFoot: (unitId: string, bytes: Bytes | null) => Promise<void>;
  readonly footFaults: (unitId: string, faults: FootFaults | null) => Promise<void>;
  /** Programs a controller, or reads what it has. */
  readonly transfer: (unitId: string, errand: Errand) => Promise<void>;
  readonly stopTransfer: () => Promise<void>;
  readonly recordPedal: (what: PedalRecording | null) => Promise<void>;
  readonly recordedPedal: () => Promise<readonly PedalPoint[]>;
  /** What happened to the session, where somebody should know. */
  readonly hear: (events: readonly SessionEvent[]) => void;
  /** The worker ended and was started anew: nothing plays, and nothing is known of the rig. */
  readonly lost: () => void;
}

export function createPlaying(needs: PlayingNeeds): Playing {
  const { show, thread, news, say, takeTurn, wakeSound, readySounds, wayOf, follows } = needs;
  let turn: (() => void) | null = null;
  const letGo = (): void => {
    turn?.();
    turn = null;
  };
  /** Asks the playback, told of the show as it is now. What it cannot do is said. */
  const ask = async <T>(run: (worker: Remote<PlaybackWorker>) => Promise<T>): Promise<T | undefined> => {
    const now = show();
    if (now) thread.show(now);
    try {
      return await thread.ask(run);
    } catch {
      say(said.playbackSilent());
      return undefined;
    }
  };
  /** The same, of what is only done where this computer leads. */
  const act = async <T>(run: (worker: Remote<PlaybackWorker>) => Promise<T>): Promise<T | undefined> => {
    if (!follows()) return ask(run);
    say(said.playedThere());
    return undefined;
  };
  const portName = (id: string): string => show()?.ports.find((p) => p.id === id)?.name ?? 'A port';
  /** Something that arrived started a song: the turn is taken for it, or the song is stopped again. */
  const takeTurnFor = async (songId: string): Promise<void> => {
    const now = show();
    const song = now && indexShow(now).songs.get(songId);
    turn = await takeTurn();
    if (!turn) {
      await ask((w) => w.stop());
      say(said.otherTabStarts());
    } else if (now && song) await readySounds(now, song);
  };
  let taking: ReturnType<PlayingNeeds['takeTurn']> | null = null;
  /** The start that is under way, while its sounds are readied: the last that was asked for, or none after a stop. */
  let start: { readonly done: Promise<void> } | null = null;
  const begin = (songId: string, from: Ticks, entryId: string | null, way: PracticeWay | null): Promise<void> => {
    const own: { done: Promise<void> } = { done: Promise.resolve() };
    start = own;
    own.done = started(() => start === own, songId, from, entryId, way).finally(() => {
      if (start === own) start = null;
    });
    return own.done;
  };
  /** What comes behind a start that is under way waits for it, as it was pressed. */
  const behind = async (run: (worker: Remote<PlaybackWorker>) => Promise<unknown>): Promise<void> => {
    // One that came to nothing keeps nobody waiting.
    await start?.done.catch(() => undefined);
    await act(run);
  };
  /** A start that is under way comes to nothing. */
  const giveUp = (): void => {
    if (start && !news.getState().news.playing) letGo();
    start = null;
  };
  const started = async (
    stands: () => boolean,
    songId: string,
    from: Ticks,
    entryId: string | null,
    way: PracticeWay | null,
  ): Promise<void> => {
    const now = show();
    const song = now && indexShow(now).songs.get(songId);
    if (!now || !song) return;
    if (follows()) return say(said.playedThere());
    wakeSound();
    if (!turn) {
      // Two starts in a row ask for one turn.
      taking ??= takeTurn().finally(() => (taking = null));
      const own = await taking;
      if (!own) {
        say(said.otherTabPlays());
        return;
      }
      turn ??= own;
      if (!start) letGo();
    }
    if (!stands()) return;
    await readySounds(now, song);
    if (stands()) await ask((w) => w.play(songId, from, entryId, way));
  };
  return {
    play: (songId, from, entryId = null) => begin(songId, from, entryId, null),
    practise: (songId, from) => begin(songId, from, null, wayOf(songId)),
    select: (songId, place, entryId = null) => behind((w) => w.select(songId, place, entryId)),
    stand: async (songId, place) => void (await ask((w) => w.stand(songId, place))),
    goSong: (by) => behind((w) => w.goSong(by)),
    chooseSong: (by) => behind((w) => w.chooseSong(by)),
    goChange: (by) => behind((w) => w.goChange(by)),
    queue: (entryId) => behind((w) => w.queue(entryId)),
    back: () => behind((w) => w.back()),
    tone: async (toneId) => void (await act((w) => w.tone(toneId))),
    panic: async () => {
      if (follows()) return say(said.playedThere());
      giveUp();
      await ask((w) => w.panic());
      say(said.allSoundOff());
    },
    stop: async () => {
      giveUp();
      await act((w) => w.stop());
    },
    night: async (id, history) => void (await ask((w) => w.audience(id, history))),
    remember: async (remembered) => void (await ask((w) => w.remember(remembered))),
    speed: async (speed) => void (await act((w) => w.speed(speed))),
    loop: async (loop) => void (await act((w) => w.loop(loop))),
    countIn: async (on) => void (await ask((w) => w.countIn(on))),
    lanes: async (muted, solo) => void (await ask((w) => w.lanes([...muted], [...solo]))),
    audition: async (unitId, aim) => void (await act((w) => w.audition(unitId, aim))),
    walk: async (run) => void (await act((w) => w.walk(run))),
    stopWalk: async () => void (await ask((w) => w.stopWalk())),
    teach: async (lesson) => void (await act((w) => w.teach(lesson))),
    stopTeaching: async () => void (await ask((w) => w.stopTeaching())),
    send: async (portId, bytes) => void (await act((w) => w.send(portId, bytes))),
    listenOnly: async (on) => void (await ask((w) => w.listenOnly(on))),
    standInMachine: async (portId, act) => void (await ask((w) => w.standInMachine(portId, act))),
    beLed: async (on) => void (await ask((w) => w.beLed(on))),
    standInClock: async (portId, bpm) => void (await ask((w) => w.standInClock(portId, bpm))),
    touch: async (unitId, senderId, value) => void (await ask((w) => w.touch(unitId, senderId, value))),
    foot: async (unitId, t) => void (await ask((w) => w.foot(unitId, t))),
    playOut: async (unitId, messages) => void (await ask((w) => w.playOut(unitId, messages))),
    loadFoot: async (unitId, bytes) => void (await ask((w) => w.loadFoot(unitId, bytes))),
    footFaults: async (unitId, faults) => void (await ask((w) => w.footFaults(unitId, faults))),
    transfer: async (unitId, errand) => {
      const begun = await act((w) => w.transfer(unitId, errand));
      if (begun === false) say(said.noCableThere());
    },
    stopTransfer: async () => void (await ask((w) => w.stopTransfer())),
    recordPedal: async (what) => void (await ask((w) => w.record(what))),
    recordedPedal: async () => (await ask((w) => w.recorded())) ?? [],
    hear: (events) => {
      for (const event of events) {
        // What follows by itself plays on in this tab's turn.
        if (event.kind === 'stopped' && event.follows !== true) letGo();
        if (event.kind === 'stopped' && event.why === 'gone') {
          say(said.songGone());
        }
        if (event.kind === 'started' && !turn) void takeTurnFor(event.songId);
        if (event.kind === 'pair') {
          const { news: now } = news.getState();
          say(event.leads ? said.leadsNow() : said.leadsNoLonger());
          // What plays goes on in this tab's turn; what another computer plays needs none.
          if (!event.leads) letGo();
          else if (now.playing && now.songId !== null && !turn) void takeTurnFor(now.songId);
        }
        if (event.kind === 'flooded') {
          say(said.portFlooded(portName(event.portId)));
        }
        if (event.kind === 'code') say(said.code(event.what, event.rate));
        if (event.kind === 'clock') say(said.clock(portName(event.portId), event.what));
        if (event.kind === 'slept') {
          const seconds = Math.round(event.time / 1e6);
          say(said.computerSlept(seconds));
        }
      }
    },
    lost: () => {
      const { playing } = news.getState().news;
      letGo();
      news.setState({ news: NO_NEWS });
      say(
        playing
          ? 'The playback failed and was started again: the song has stopped. Press Play to go on from the caret.'
          : 'The playback failed and was started again. What units are on is not known any more.',
      );
    },
  };
}
