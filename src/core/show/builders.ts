import { exactly, type Profile } from '../addressing';
import type { Millis } from '../time';
import {
  SHOW_FORMAT,
  SHOW_VERSION,
  type Call,
  type Cue,
  type Doing,
  type Feet,
  type FootPage,
  type FootSwitch,
  type Levels,
  type Player,
  type Port,
  type Section,
  type Show,
  type ShowSet,
  type Slot,
  type Song,
  type SongEntry,
  type SoundEntry,
  type Tone,
  type TonePart,
  type Track,
  type Unit,
} from './schema';

/** Milliseconds before their beat that changes land, and that settling is waited for beyond the worst, in a new show. */
export const DEFAULT_MARGIN: Millis = 5;
export const DEFAULT_GUARD: Millis = 3;

/** A show with nothing in it. */
export const emptyShow = (id: string, title: string): Show => ({
  format: SHOW_FORMAT,
  version: SHOW_VERSION,
  id,
  title,
  notes: '',
  players: [],
  ports: [],
  units: [],
  house: [],
  tones: [],
  timeCode: { portId: null, sends: [], rate: '25' },
  tolerance: { after: 2, before: 250 },
  margin: DEFAULT_MARGIN,
  guard: DEFAULT_GUARD,
  openingToneId: null,
  core: [],
  audio: [],
  colours: [],
  stems: [],
  ears: [],
  moves: [],
  songs: [],
  accepted: [],
  reactions: [],
  feet: [],
  sets: [newSet('set', 'Set')],
  setId: 'set',
});

/** A running order with nothing in it: half a minute between songs that wait. */
export const newSet = (id: string, title: string, rest: Partial<ShowSet> = {}): ShowSet => ({
  id,
  title,
  onStage: null,
  between: 30,
  runsOn: false,
  entries: [],
  missing: [],
  tonight: [],
  ...rest,
});

/** A song as it stands in a set: at its end, it waits to be told what comes next. */
export const songEntry = (id: string, songId: string, rest: Partial<SongEntry> = {}): SongEntry => ({
  kind: 'song',
  id,
  songId,
  follow: 'wait',
  pause: 0,
  bridgeToneId: null,
  launch: null,
  ...rest,
});

/** A running order of songs, as the only one of a show. */
export const inOrder = (songIds: readonly string[]): Pick<Show, 'sets' | 'setId'> => ({
  sets: [newSet('set', 'Set', { entries: songIds.map((songId, i) => songEntry(`set-${i + 1}`, songId)) })],
  setId: 'set',
});

/** Everything as loud as it was recorded. */
export const EVEN_LEVELS: Levels = { click: 0, calls: 0, backing: 0, guide: 0 };

/** A song from a name, a tempo and a metre; all the rest can come later. */
export const newSong = (
  id: string,
  title: string,
  options: {
    readonly bpm?: number;
    readonly beats?: number;
    readonly unit?: Song['metre'][number]['unit'];
    readonly bars?: number;
  } = {},
): Song => ({
  id,
  title,
  notes: '',
  bars: options.bars ?? 32,
  pickup: 0,
  preRoll: 2000,
  tempo: [{ at: 0, bpm: options.bpm ?? 120, beat: 1, rampTo: null }],
  metre: [{ bar: 1, beats: options.beats ?? 4, unit: options.unit ?? 4 }],
  printed: [],
  sections: [],
  remarks: [],
  calls: [],
  opening: 'own',
  openingToneId: null,
  cues: [],
  sweeps: [],
  taps: [],
  clocks: [],
  click: { on: true, countIn: 1, parts: 1 },
  announce: null,
  tracks: [],
  pattern: false,
  stepped: false,
  open: false,
  followsPortId: null,
  code: null,
  levels: EVEN_LEVELS,
});

/** A section that begins at a bar, counted from 1, without a call. */
export const newSection = (id: string, name: string, bar: number): Section => ({ id, name, bar, call: null });

/** A call that speaks the name of what it goes ahead of, a bar of four before it. */
export const newCall = (rest: Partial<Call> = {}): Call => ({
  how: 'voice',
  text: '',
  pattern: 'rise',
  audioId: null,
  ahead: 4,
  count: 0,
  ...rest,
});

/** A player who has no colour yet. `part` is what they play. */
export const newPlayer = (id: string, name: string, part = ''): Player => ({ id, name, part, colour: null });

/** A recording of a song, from its beginning on, as loud as it is. */
export const newTrack = (id: string, audioId: string, rest: Partial<Omit<Track, 'id' | 'audioId'>> = {}): Track => ({
  id,
  audioId,
  role: 'backing',
  playerId: null,
  stemId: null,
  at: 0,
  offset: 0,
  gain: 0,
  muted: false,
  ...rest,
});

/** A sound between songs that begins by itself and comes round until the next song. */
export const newInterlude = (id: string, audioId: string): SoundEntry => ({
  kind: 'sound',
  id,
  audioId,
  gain: -6,
  loops: true,
  begins: 'after',
  fade: 3,
});

/** A unit of a profile, on channel 1 and without cables unless `rest` says otherwise. */
export const newUnit = (
  id: string,
  name: string,
  monogram: string,
  profile: Profile,
  rest: Partial<Omit<Unit, 'id' | 'name' | 'monogram' | 'profile'>> = {},
): Unit => ({
  id,
  name,
  monogram,
  playerId: null,
  input: null,
  channel: 1,
  listens: rest.channel ?? 1,
  returns: null,
  splitter: false,
  spare: '',
  answered: null,
  profile,
  versions: [],
  slots: [],
  lostSlots: [],
  relays: [],
  margin: null,
  guard: null,
  ...rest,
});

/** A port that is switched on, without thru or splitter unless `rest` says otherwise. */
export const newPort = (id: string, name: string, cable: Port['cable'], rest: Partial<Port> = {}): Port => ({
  id,
  name,
  cable,
  active: true,
  softThru: false,
  splitter: false,
  spare: '',
  delay: exactly(0),
  known: { out: '', in: '' },
  ...rest,
});

/** A named slot of which nothing else is noted. `index` counts from 0. */
export const newSlot = (id: string, index: number, name: string, rest: Partial<Slot> = {}): Slot => ({
  id,
  index,
  name,
  startVariant: null,
  startControls: [],
  panel: [],
  recall: null,
  ...rest,
});

/** A part of a tone that wants nothing yet. */
export const newPart = (unitId: string, rest: Partial<TonePart> = {}): TonePart => ({
  unitId,
  slotId: null,
  variant: null,
  controls: [],
  effects: [],
  ...rest,
});

/** A tone with what it wants of each unit that it names. */
export const newTone = (id: string, name: string, parts: Tone['parts'] = []): Tone => ({
  id,
  name,
  notes: '',
  parts,
});

/** A cue that brings a tone, complete on its beat. `at` is in ticks from the song's start. */
export const toneCue = (id: string, at: number, toneId: string, rest: Partial<Cue> = {}): Cue => ({
  id,
  at,
  shift: 0,
  landing: 'complete',
  muted: false,
  action: { kind: 'tone', toneId, reload: false },
  ...rest,
});

/** A cue that does something else than a tone. */
export const actionCue = (id: string, at: number, action: Cue['action']): Cue => ({
  id,
  at,
  shift: 0,
  landing: 'complete',
  muted: false,
  action,
});

/** A cue that sends bytes as they stand, written in hexadecimal. `at` is in ticks. */
export const messageCue = (id: string, at: number, unitId: string, bytes: string): Cue => ({
  id,
  at,
  shift: 0,
  landing: 'sent',
  muted: false,
  action: { kind: 'message', unitId, bytes },
});

/** Values of a sweep follow each other no faster than this. */
export const SWEEP_SPACING: Millis = 10;

/** A controller into which nothing is programmed yet. */
export const newFeet = (unitId: string, rest: Partial<Feet> = {}): Feet => ({
  id: unitId,
  calls: true,
  everywhere: { switches: [], pedals: [] },
  pages: [],
  boat: [],
  menus: ['page', 'switch', 'trigger', 'kind', 'channel', 'number', 'value'],
  dumps: [],
  ...rest,
});

/** An empty page of a foot controller, stored in one of its slots. */
export const newFootPage = (slotId: string, rest: Partial<FootPage> = {}): FootPage => ({
  id: slotId,
  songId: null,
  switches: [],
  pedals: [],
  ...rest,
});

/** A switch that does things when it is pressed. */
export const newFootSwitch = (
  switchId: string,
  does: readonly Doing[],
  rest: Partial<FootSwitch> = {},
): FootSwitch => ({
  id: switchId,
  name: '',
  doings: does.map((d) => ({ on: 'press', does: d })),
  pinned: false,
  colour: null,
  ...rest,
});
