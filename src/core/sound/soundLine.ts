import { microsAt, songTime, type Call, type Song, type SongTime, type Track } from '../show';
import {
  TICKS_PER_QUARTER,
  barAt,
  barOfTick,
  millisToMicros,
  tempoAt,
  type BarMap,
  type Micros,
  type Ticks,
} from '../time';

/** How loud and how high a click is: the first of a bar, a beat, or a part of one. */
export type ClickLevel = 'bar' | 'beat' | 'part';

/** Something that is heard beside the units. `at` is the song time of its first sample. */
export type Sound =
  /** `gain` is in decibels. */
  | { readonly kind: 'click'; readonly at: Micros; readonly level: ClickLevel; readonly gain: number }
  | { readonly kind: 'call'; readonly at: Micros; readonly call: Call; readonly text: string; readonly gain: number }
  /** A beat that is counted, from 1 in its bar: spoken, or as a tone. */
  | {
      readonly kind: 'count';
      readonly at: Micros;
      readonly beat: number;
      readonly spoken: boolean;
      readonly gain: number;
    }
  | {
      readonly kind: 'track';
      readonly at: Micros;
      readonly trackId: string;
      readonly audioId: string;
      /** Seconds of the recording that are left out at its start. */
      readonly skip: number;
      /** Song time at which it is broken off; absent where it plays to its end. */
      readonly until?: Micros;
      readonly gain: number;
      /** The source that it goes out by. */
      readonly source: string;
    };

export interface SoundLine {
  /** In the order of time. */
  readonly sounds: readonly Sound[];
  /** Song time at which the first of it is heard; the place itself where nothing comes before. */
  readonly start: Micros;
  /** The place that is played from. */
  readonly place: Micros;
}

/**
 * What is heard when a song is played from a place: the announcement, the count-in, clicks,
 * calls ahead of sections, and recordings, at the times of the same tempo map that the
 * messages are compiled from.
 */
export function soundLine(song: Song, at: Ticks, missing: Missing = NOBODY): SoundLine {
  const time = songTime(song);
  const place = microsAt(time, at);
  const count = countIn(song, at);
  const first = count[0]?.at ?? place;
  const sounds: Sound[] = [
    ...announcement(song, time, at, first),
    ...count,
    ...heardFrom(song, time, at, place, first, missing),
  ].sort((a, b) => a.at - b.at);
  return { sounds, start: Math.min(place, sounds[0]?.at ?? place), place };
}

/** Players whose parts are added to the backing. */
export type Missing = ReadonlySet<string>;
const NOBODY: Missing = new Set();

const sourceOfRole = (role: Track['role']): 'backing' | 'guide' => (role === 'guide' ? 'guide' : 'backing');

/** What a sound goes out by: one of `SOURCES`, or a stem. */
export const sourceOf = (sound: Sound): string =>
  sound.kind === 'click' ? 'click' : sound.kind === 'track' ? sound.source : 'calls';

/** What comes round in a loop is heard in every round alike: without a count-in, recordings broken off at the seam. */
export interface SoundRound {
  readonly sounds: readonly Sound[];
  readonly from: Micros;
  readonly to: Micros;
}

/** The sound line of a song that is played from a place into a loop, and what is heard in each round behind it. */
export function soundInto(
  song: Song,
  at: Ticks,
  loop: { readonly from: Ticks; readonly to: Ticks },
  missing: Missing = NOBODY,
): [SoundLine, SoundRound] {
  const time = songTime(song);
  const [from, to] = [microsAt(time, loop.from), microsAt(time, loop.to)];
  const cut = (sounds: readonly Sound[]): Sound[] =>
    sounds.filter((s) => s.at < to - 1).map((s) => (s.kind === 'track' ? { ...s, until: to } : s));
  const line = soundLine(song, at, missing);
  const round = heardFrom(song, time, loop.from, from, from, missing);
  return [
    { ...line, sounds: cut(line.sounds) },
    { sounds: cut(round.toSorted((a, b) => a.at - b.at)), from, to },
  ];
}

/** Clicks, calls and recordings from a place on; `first` is when the first of all is heard. */
const heardFrom = (song: Song, time: SongTime, at: Ticks, place: Micros, first: Micros, missing: Missing): Sound[] => [
  ...(song.click.on ? clicks(song, time, at) : []),
  ...calls(song, time, place, first),
  ...tracks(song, time, at, place, missing),
];

/** When the clicks of the count-in before a place are heard. */
export const countInTimes = (song: Song, at: Ticks): readonly Micros[] => countIn(song, at).map((c) => c.at);

/** How long before a place the count-in begins. */
export function countInLength(song: Song, at: Ticks): Micros {
  const count = countIn(song, at);
  return count.length === 0 ? 0 : microsAt(songTime(song), at) - count[0]!.at;
}

/**
 * The count-in: bars of click in the metre and tempo of the place. Before a pickup it is
 * drawn out so that the count of the first bar begins where the bar line would be.
 */
function countIn(song: Song, at: Ticks): Extract<Sound, { kind: 'click' }>[] {
  const bars = song.click.countIn;
  if (bars === 0) return [];
  const time = songTime(song);
  const bar = metreAt(song, time.bars, at);
  const beats = bar.beats;
  const beat = (beatSeconds(time, at) * bar.beatTicks) / 960;
  const place = microsAt(time, at);
  // What of a bar has gone by at the place is counted too: the pickup, or a start within a bar.
  const into = at < song.pickup ? beats - (song.pickup - at) / bar.beatTicks : (at - bar.tick) / bar.beatTicks;
  const whole = Math.ceil(into - 1e-9);
  const late = (whole - into) * beat * 1e6;
  return Array.from({ length: bars * beats + whole }, (_, i) => ({
    kind: 'click' as const,
    at: place + late - (bars * beats + whole - i) * beat * 1e6,
    level: i % beats === 0 ? ('bar' as const) : ('beat' as const),
    gain: song.levels.click,
  }));
}

/** The metre that holds at a place; of a pickup, that of bar 1. */
const metreAt = (song: Song, bars: BarMap, at: Ticks) => (at < song.pickup ? barAt(bars, 1) : barOfTick(bars, at));

/** Seconds of a quarter at a place. */
const beatSeconds = (time: SongTime, at: Ticks): number => 60 / tempoAt(time.tempo, Math.max(0, at));

function clicks(song: Song, time: SongTime, from: Ticks): Sound[] {
  const found: Sound[] = [];
  const { parts } = song.click;
  const add = (tick: Ticks, level: ClickLevel): void => {
    if (tick >= from - 1e-6) found.push({ kind: 'click', at: microsAt(time, tick), level, gain: song.levels.click });
  };
  for (let n = song.pickup > 0 ? 0 : 1; n <= song.bars; n++) {
    const bar = barAt(time.bars, n);
    // Beats of a pickup are the last ones of a bar, counted back from bar 1.
    const lead = n === 0 ? Math.ceil(bar.length / bar.beatTicks - 1e-9) : bar.beats;
    const zero = n === 0 ? bar.tick + bar.length - lead * bar.beatTicks : bar.tick;
    for (let beat = 0; beat < lead; beat++) {
      for (let part = 0; part < parts; part++) {
        const tick = zero + (beat + part / parts) * bar.beatTicks;
        if (tick < bar.tick - 1e-6) continue;
        add(tick, part > 0 ? 'part' : beat === 0 && n > 0 ? 'bar' : 'beat');
      }
    }
  }
  return found;
}

function announcement(song: Song, time: SongTime, at: Ticks, first: Micros): Sound[] {
  if (!song.announce || at > 0) return [];
  const beat = beatSeconds(time, at) * 1e6;
  const call = song.announce;
  return [
    {
      kind: 'call',
      at: first - call.ahead * beat,
      call,
      text: call.text.trim() || song.title,
      gain: song.levels.calls,
    },
  ];
}

/** Calls ahead of sections and bars: a word so many beats of the metre ahead that holds before the place, and a count. */
function calls(song: Song, time: SongTime, place: Micros, first: Micros): Sound[] {
  const all = [
    ...song.sections.flatMap(({ bar, name, call }) => (call ? [{ bar, name, call }] : [])),
    ...song.calls.map(({ bar, call }) => ({ bar, name: nameOfBar(song, bar), call })),
  ];
  return all.flatMap(({ bar, name, call }): Sound[] => {
    const begins = barAt(time.bars, bar).tick;
    if (microsAt(time, begins) < place - 1) return [];
    const before = metreAt(song, time.bars, Math.max(0, begins - 1));
    const word = microsBefore(time, begins - call.ahead * before.beatTicks);
    const gain = song.levels.calls;
    const said: Sound[] =
      call.how === 'count' ? [] : [{ kind: 'call', at: word, call, text: call.text.trim() || name, gain }];
    const counted = counts(song, time, bar, call.how === 'count' ? Math.max(1, call.count) : call.count)
      // The word stands in the place of the number on its beat.
      .filter(({ at }) => said.length === 0 || Math.abs(at - word) > 1)
      .map(({ at, beat }): Sound => ({ kind: 'count', at, beat, spoken: call.how !== 'tones', gain }));
    // What would have begun before anything is heard is left out.
    return [...said, ...counted].filter(({ at }) => at >= first - 1);
  });
}

/** Seconds from the beginning of a call ahead of a bar until its count, or until the bar: what is longer is heard over that. */
export function callRoom(song: Song, bar: number, call: Call): number {
  const time = songTime(song);
  const begins = barAt(time.bars, bar).tick;
  const before = metreAt(song, time.bars, Math.max(0, begins - 1));
  const word = microsBefore(time, begins - call.ahead * before.beatTicks);
  const counted = counts(song, time, bar, call.count).find(({ at }) => at > word + 1);
  return ((counted?.at ?? microsBefore(time, begins)) - word) / 1e6;
}

/** The section that a bar lies in; the song itself before the first. */
const nameOfBar = (song: Song, bar: number): string => song.sections.findLast((s) => s.bar <= bar)?.name ?? song.title;

/** The beats of so many bars before a bar, in the metre of each; before bar 1 in that of bar 1. */
function counts(
  song: Song,
  time: SongTime,
  bar: number,
  count: number,
): { readonly at: Micros; readonly beat: number }[] {
  const beats: { at: Micros; beat: number }[] = [];
  let tick = barAt(time.bars, bar).tick;
  for (let n = bar - 1; n >= bar - count; n--) {
    const { beats: all, beatTicks } = n >= 1 ? barAt(time.bars, n) : metreAt(song, time.bars, 0);
    tick -= all * beatTicks;
    for (let i = 0; i < all; i++) beats.push({ at: microsBefore(time, tick + i * beatTicks), beat: i + 1 });
  }
  return beats;
}

/** The song time of a place; before tick 0 there is no tempo map, and the first tempo holds. */
const microsBefore = (time: SongTime, tick: Ticks): Micros =>
  tick >= 0 ? microsAt(time, tick) : (tick / TICKS_PER_QUARTER) * beatSeconds(time, 0) * 1e6;

/** A part is heard where its player is missing, beside the backing. */
function tracks(song: Song, time: SongTime, at: Ticks, place: Micros, missing: Missing): Sound[] {
  return song.tracks
    .filter((t) => !t.muted && (t.role !== 'part' || (t.playerId !== null && missing.has(t.playerId))))
    .map((t): Sound => {
      const begins = microsAt(time, t.at) + millisToMicros(t.offset);
      const base = {
        kind: 'track',
        trackId: t.id,
        audioId: t.audioId,
        gain: t.gain + song.levels[sourceOfRole(t.role)],
        source: t.stemId ?? sourceOfRole(t.role),
      } as const;
      // From the start of the song a recording may begin before tick 0, in the count-in.
      if (begins >= place || (at <= 0 && begins < 0)) return { ...base, at: begins, skip: 0 };
      return { ...base, at: place, skip: (place - begins) / 1e6 };
    });
}
