import type { Profile } from '../addressing';
import { SHOW_FORMAT, SHOW_VERSION, type Cue, type Show, type Song, type Tone, type Unit } from './schema';

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
  tones: [],
  songs: [],
  set: [],
});

/** A song from a name, a tempo and a metre; all the rest can come later. */
export const newSong = (
  id: string,
  title: string,
  options: {
    readonly bpm?: number;
    readonly beats?: number;
    readonly unit?: 1 | 2 | 4 | 8 | 16 | 32;
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
  openingToneId: null,
  cues: [],
});

export const newUnit = (
  id: string,
  name: string,
  monogram: string,
  profile: Profile,
  rest: Partial<Pick<Unit, 'playerId' | 'input' | 'channel' | 'listens' | 'slots' | 'relays'>> = {},
): Unit => ({
  id,
  name,
  monogram,
  playerId: null,
  input: null,
  channel: 1,
  listens: rest.channel ?? 1,
  profile,
  slots: [],
  relays: [],
  ...rest,
});

export const newTone = (id: string, name: string, parts: Tone['parts'] = []): Tone => ({
  id,
  name,
  notes: '',
  parts,
});

export const toneCue = (id: string, at: number, toneId: string, rest: Partial<Cue> = {}): Cue => ({
  id,
  at,
  shift: 0,
  landing: 'complete',
  muted: false,
  action: { kind: 'tone', toneId, reload: false },
  ...rest,
});

export const messageCue = (id: string, at: number, unitId: string, bytes: string): Cue => ({
  id,
  at,
  shift: 0,
  landing: 'sent',
  muted: false,
  action: { kind: 'message', unitId, bytes },
});
