import type { Bundle } from '../core/formats/bundle';
import type { FromPeer } from '../core/formats/line';
import type { PdfWish, Unprintable } from '../core/formats/pdf';
import type { RoomFix } from '../core/checks';
import type { ExportWish, ExportedFile } from '../core/formats/exportFile';
import type { Sheet, SheetWish } from '../core/sheets';
import type { Errand, Proposal, Rehearsal, RehearsalSum } from '../core/feet';
import type { Read } from '../core/problems';
import type { UnitAim } from '../core/rig';
import type { Bytes, TimedBytes } from '../core/midi';
import type { ListedName, Matching, Show, Song } from '../core/show';
import type { SongNights } from '../core/nights';
import type { SongPicture, SongProof } from '../core/proof';
import type { Micros, Ticks } from '../core/time';
import type {
  Binding,
  FootFaults,
  FootTouch,
  Lesson,
  MonitorLine,
  Outgoing,
  PedalPoint,
  BoxTurn,
  PairSeat,
  PedalRecording,
  PlaybackNews,
  Played,
  PracticeWay,
  Remembered,
  SessionEvent,
  SongLoop,
  Walk,
  MachineAct,
} from '../playback';

/**
 * A show on its way to a worker: only what changed since the last time, so that what is
 * kept there about unchanged songs stays good.
 */
export interface ShowUpdate {
  /** Everything but the songs, where anything in it changed. */
  readonly frame: Omit<Show, 'songs'> | null;
  /** Songs that changed, and the ids of all in their order. */
  readonly songs: readonly Song[];
  readonly order: readonly string[];
}

/** The worker that compiles and proves. */
export interface ProofWorker {
  update(update: ShowUpdate): void;
  /** Fingerprints of a song's cues, by cue. */
  fingerprints(songId: string): Readonly<Record<string, string>>;
  /** Plays a song against the simulated rig; `detailed` with all that units did. */
  prove(songId: string, detailed: boolean): SongProof;
  /** Plays a song on nights of a seed, from one up to another, without that one. */
  nights(songId: string, seed: number, from: number, to: number): SongNights;
  /** What one of them looks like. */
  night(songId: string, seed: number, night: number): SongPicture;
  /** Edits that give one change more room, each tried; at most three, the gentlest first. */
  room(songId: string, cueId: string, unitId: string): readonly RoomFix[];
  /** Matches a unit's slots with a new list of them; long lists take their time. */
  match(unitId: string, now: readonly ListedName[]): Matching;
  /** Pages for the songs of the set; null where the unit is no foot controller. */
  propose(unitId: string): Proposal | null;
  /** What comes of songs that are played by foot, on the rig as it is wired without the computer. */
  rehearseAll(unitId: string, songIds: readonly string[]): readonly RehearsalSum[];
  /** One of them, step by step; null where the unit is no foot controller. */
  rehearse(unitId: string, songId: string): Rehearsal | null;
}

/** A port of the show as this computer binds it. */
export interface PortBinding extends Binding {
  readonly portId: string;
}

/** The worker that holds the clock, the transport and the stand-in rig. */
export interface PlaybackWorker {
  update(update: ShowUpdate): void;
  /** News while it plays and whenever the rig changes; every message that leaves or arrives, in batches; what happened to the session. */
  listen(
    onNews: (news: PlaybackNews) => void,
    onLines: (lines: readonly MonitorLine[]) => void,
    onEvents: (events: readonly SessionEvent[]) => void,
    onOut: (batch: readonly Outgoing[], from: Micros) => void,
    onPeer: (message: FromPeer) => void,
  ): void;
  /** Its clock, in microseconds from the epoch: the page's own may differ from it. */
  now(): Micros;
  /** What each port of the show is on this computer; those that are not named are stand-ins. */
  bindPorts(bindings: readonly PortBinding[]): void;
  /** Whether the page may be slow to take what is handed over to it: then that is done further ahead. */
  unsteady(is: boolean): void;
  /** A real port came or went. */
  port(portId: string, there: boolean): void;
  /** Bytes came in on real ports, at times of the worker's clock. */
  arrived(batch: readonly Outgoing[]): void;
  /** Sends a message on a port as it stands, now. */
  send(portId: string, bytes: Bytes): void;
  /** Whether what arrives does nothing, because somebody learns it. */
  listenOnly(on: boolean): void;
  /** Has a stand-in send a clock into a port, with a start ahead of it, at so many quarter notes a minute; null stops it. */
  standInClock(portId: string, bpm: number | null): void;
  /** A stand-in for a machine that plays back, whose time code comes in on a port. */
  standInMachine(portId: string, act: MachineAct): void;
  /** Whether what comes from outside leads: time code, where the show has it come, or the clock of a song. */
  beLed(on: boolean): void;
  /** This computer is one of two of one show; null: it is alone. */
  pair(seat: PairSeat | null): void;
  /** What turns a switch box to this computer when it takes over; null for none. */
  turnsBox(box: BoxTurn | null): void;
  /** The line to the other one stands, is cut at our end, or the other one has left it. */
  pairRoad(road: 'cut' | 'gone' | 'open'): void;
  /** The page of this computer is seen: one that is hidden does not take over by itself. */
  pairAwake(is: boolean): void;
  /** What the other one says, as a JSON text. */
  pairHears(text: string): void;
  /** This computer leads from now on. */
  lead(): void;
  /** Plays a song from a place on, for an audience unless `way` says how it is practised; `entryId` says where it stands in the set, if it is not to be looked for. */
  play(songId: string, from: Ticks, entryId: string | null, way: PracticeWay | null): void;
  stop(): void;
  /** The show begins for its audience, by its id, with what was played in it so far; null: it is over. */
  audience(id: string | null, history: readonly Played[]): void;
  /** A session that was ended by a crash is there again. Nothing is sent. */
  remember(remembered: Remembered): void;
  /** Brings the rig to a place of a song that does not run. */
  select(songId: string, place: Ticks, entryId: string | null): void;
  /** The next start begins there, whoever asks for it: nothing is sent. */
  stand(songId: string, place: Ticks): void;
  /** One song, or one change, on or back. */
  goSong(by: 1 | -1): void;
  /** Has another song come next; what is on stays. */
  chooseSong(by: 1 | -1): void;
  goChange(by: 1 | -1): void;
  /** Chooses what comes next; null for what the set says. */
  queue(entryId: string | null): void;
  /** Takes the last start back. */
  back(): void;
  /** Brings the rig to a tone at once, whatever plays. */
  tone(toneId: string): void;
  /** All sound off, all notes off, on every unit. */
  panic(): void;
  /** How fast, as a share of what is written; and the stretch that is played again and again, or null. */
  speed(speed: number): void;
  loop(loop: SongLoop | null): void;
  /** Whether songs that are started from now on are counted in, where they have a count-in. */
  countIn(on: boolean): void;
  /** Lanes that are muted, or alone heard, from now on; units that are heard again catch up. */
  lanes(muted: readonly string[], solo: readonly string[]): void;
  /** Sends what tries one thing on a unit; gives the bytes that went out. */
  audition(unitId: string, aim: UnitAim): readonly TimedBytes[];
  walk(walk: Walk): void;
  stopWalk(): void;
  /** Sets the unit to learn, and sends it the message until it has. */
  teach(lesson: Lesson): void;
  stopTeaching(): void;
  /** Moves a switch, pad or pedal of a controller's stand-in. */
  touch(unitId: string, senderId: string, value: number): void;
  /** Presses and moves the stand-in of a foot controller, which runs the pages that it holds. */
  foot(unitId: string, touch: FootTouch): void;
  /** Has the stand-in of a controller send messages, as if a switch with them was pressed. */
  playOut(unitId: string, messages: readonly Bytes[]): void;
  /** Puts into a stand-in what it held when it was here last; null for nothing. */
  loadFoot(unitId: string, bytes: Bytes | null): void;
  /** Has a stand-in misbehave while it is programmed; null for well. */
  footFaults(unitId: string, faults: FootFaults | null): void;
  /** Programs a controller, or reads what it has. False where no cable leads there and back. */
  transfer(unitId: string, errand: Errand): boolean;
  /** Cancels a transfer; one that is over is forgotten. */
  stopTransfer(): void;
  /** From now on keeps what a pedal sends while a song plays; null ends that. */
  record(what: PedalRecording | null): void;
  /** What was kept. */
  recorded(): readonly PedalPoint[];
}

/** A sheet of paper without what stands on it. */
export interface SheetHead {
  readonly id: string;
  readonly kind: string;
  readonly title: string;
  readonly wide: boolean;
  /** Lines on it, about. */
  readonly lines: number;
}

/** What paper a PDF is for, and what state of the show it says that it is of: a date, as one writes it. */
export type PaperWish = Pick<PdfWish, 'paper' | 'asOf'>;

/** A font with letters of a script. */
export interface LetterFont {
  readonly name: string;
  readonly weight: 400 | 700;
  /** A WOFF. */
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** The worker that makes paper and files. */
export interface FilesWorker {
  update(update: ShowUpdate): void;
  /** The sheets of a kind, in their order. */
  sheets(wish: SheetWish): readonly SheetHead[];
  /** One of them; null where there is none of that id. */
  sheet(wish: SheetWish, id: string): Sheet | null;
  /** All of them, with what stands on them. */
  wholeSheets(wish: SheetWish): readonly Sheet[];
  /** Some of them as CSV. */
  sheetTable(wish: SheetWish, ids: readonly string[]): string;
  /** What of them no font has letters for. */
  unprintable(wish: SheetWish): Promise<readonly Unprintable[]>;
  /** Fonts with some letters, the preferred last; but for those that are called as some that are there. */
  letters(text: string, have: readonly string[]): Promise<readonly LetterFont[]>;
  /** Some of them as PDF. */
  pdf(wish: SheetWish, ids: readonly string[], paper: PaperWish): Promise<Uint8Array<ArrayBuffer>>;
  file(wish: ExportWish): ExportedFile;
  /** Everything that one takes along, as a zip; with the bytes of recordings by id. */
  pack(paper: PaperWish, sounds: ReadonlyMap<string, Uint8Array> | null): Promise<PackedZip>;
}

export interface PackedZip {
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** How many files are in it. */
  readonly files: number;
  /** What of its paper no font has letters for. */
  readonly odd: readonly Unprintable[];
}

/** The worker that reads a file. */
export interface ReaderWorker {
  /** As a show. `name` is the file's. */
  show(bytes: Uint8Array, name: string): Read<Bundle>;
  /** A MIDI file, as a show of plain units. */
  midi(bytes: Uint8Array, name: string): Read<Show>;
}

/** The worker that reads recordings for their picture. */
/** The voice: what it says of a text, as a WAV file. */
export interface SpeechWorker {
  speak(text: string): Promise<Uint8Array<ArrayBuffer>>;
}

export interface PeaksWorker {
  peaks(channels: readonly Float32Array[], rate: number, onProgress: (share: number) => void): Uint8Array;
}
