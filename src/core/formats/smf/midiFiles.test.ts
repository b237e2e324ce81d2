import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { newSong, songsOfSet, type Show, type Song } from '../../show';
import { randomShow } from '../../testing/randomShow';
import { runs } from '../../testing/runs';
import { buildTempoMap, ticksToSeconds } from '../../time';
import { midiFiles, readSmf, type MidiWish } from './';
import { tonightOf } from '../../tonight';

const demo = demoShow();
const set = songsOfSet(demo);

/** What a file plays: every message with its second. */
function played(bytes: Uint8Array): { at: number; bytes: string; unit: string }[] {
  const { value, problems } = readSmf(bytes);
  expect(problems.filter((p) => p.severity === 'error')).toEqual([]);
  const { division, tracks } = value!;
  if (division.kind !== 'quarter') throw new Error('not in quarters');
  const scale = 960 / division.ticks;
  const tempo = buildTempoMap(
    tracks[0]!.events.flatMap((e) =>
      e.kind === 'tempo' ? [{ at: e.tick * scale, bpm: 60e6 / e.micros, beat: 1 as const }] : [],
    ),
  );
  return tracks
    .flatMap((t) => {
      const name = t.events.find((e) => e.kind === 'text' && e.type === 'track-name');
      return t.events.flatMap((e) =>
        e.kind === 'message' || e.kind === 'packet'
          ? [
              {
                at: ticksToSeconds(tempo, e.tick * scale),
                bytes: e.bytes.join(' '),
                unit: name?.kind === 'text' ? name.text : '',
              },
            ]
          : [],
      );
    })
    .sort((a, b) => a.at - b.at);
}

const wish = (rest: Partial<MidiWish> = {}): MidiWish => ({ mode: 'written', format: 1, per: 'all', ...rest });
const one = (show: Show, songs: readonly Song[], rest: Partial<MidiWish> = {}) =>
  played(midiFiles(tonightOf(show), songs, 'Set', wish(rest)).files[0]!.bytes);
const bare = (list: readonly { at: number; bytes: string }[]): string[] =>
  list.map((m) => `${m.at.toFixed(6)} ${m.bytes}`).sort();

describe('songs as MIDI files', () => {
  it.each(['written', 'sent'] as const)('plays the whole set as each of its songs, %s', (mode) => {
    const whole = one(demo, set, { mode });
    const single = set.map((song) => one(demo, [song], { mode }));
    expect(whole).toHaveLength(single.flat().length);
    // Within a song all distances are what they are when it stands alone: a file's places move by less than a millisecond.
    let from = 0;
    for (const song of single) {
      const there = whole.slice(from, from + song.length);
      from += song.length;
      const start = there[0]!.at - song[0]!.at;
      for (const [i, m] of song.entries()) {
        expect(there[i]!.bytes).toBe(m.bytes);
        expect(Math.abs(there[i]!.at - start - m.at)).toBeLessThan(0.001);
      }
    }
  });

  it('names each song of a set where it starts', () => {
    const { value } = readSmf(midiFiles(tonightOf(demo), set, 'Winter', wish()).files[0]!.bytes);
    const marks = value!.tracks[0]!.events.flatMap((e) => (e.kind === 'text' && e.type === 'marker' ? [e.text] : []));
    for (const song of set) expect(marks).toContain(song.title);
    expect(value!.tracks[0]!.events[0]).toMatchObject({ type: 'track-name', text: 'Winter' });
  });

  it('counts a song by its own metre, whatever the one before it was in, also behind a pickup', () => {
    const odd: Song = { ...newSong('odd', 'Odd'), bars: 2, metre: [{ bar: 1, beats: 7, unit: 8 }] };
    for (const pickup of [0, 480]) {
      const late: Song = { ...newSong('late', 'Late'), bars: 8, pickup, metre: [{ bar: 5, beats: 3, unit: 4 }] };
      const { value } = readSmf(midiFiles(tonightOf(demo), [odd, late], 'Set', wish()).files[0]!.bytes);
      const metres = value!.tracks[0]!.events.flatMap((e) => (e.kind === 'metre' ? [e] : []));
      const division = value!.division.kind === 'quarter' ? value!.division.ticks : 1;
      const start = 2 * 3.5 * division + (pickup * division) / 960;
      const at = metres.filter((m) => m.tick === start).at(-1)!;
      expect([at.beats, at.unit]).toEqual([3, 4]);
    }
  });

  it('says the same in one track, and which channels cannot be told apart there', () => {
    const { files, problems } = midiFiles(tonightOf(demo), set, 'Set', wish({ format: 0 }));
    const { value } = readSmf(files[0]!.bytes);
    expect([value!.format, value!.tracks.length]).toEqual([0, 1]);
    expect(bare(played(files[0]!.bytes))).toEqual(bare(one(demo, set)));
    const channels = new Map<number, Set<string>>();
    for (const m of one(demo, set)) {
      const channel = (Number(m.bytes.split(' ')[0]) & 15) + 1;
      channels.set(channel, new Set([...(channels.get(channel) ?? []), m.unit]));
    }
    const shared = [...channels].filter(([, units]) => units.size > 1).map(([c]) => c);
    const told = problems.flatMap((p) => (p.code === 'smf.one-track' ? p.data.channels : []));
    for (const channel of told) expect(shared).toContain(channel);
  });

  it.each(['unit', 'player'] as const)('leaves nothing out and sends nothing twice in a file for each %s', (per) => {
    const { files } = midiFiles(tonightOf(demo), set, 'Set', wish({ per }));
    expect(files.length).toBeGreaterThan(1);
    expect(new Set(files.map((f) => f.part)).size).toBe(files.length);
    expect(bare(files.flatMap((f) => played(f.bytes)))).toEqual(bare(one(demo, set)));
  });

  it('says what it cannot carry', () => {
    const said = midiFiles(tonightOf(demo), set, 'Set', wish()).problems.flatMap((p) =>
      p.code === 'export.left-out' ? p.data.what : [],
    );
    expect(said.join()).toMatch(/names of tones.*who plays what/);
  });

  it('holds what random songs send, split as it may be', () => {
    fc.assert(
      fc.property(
        randomShow({ gap: 120, shifts: true, raw: true }),
        fc.constantFrom('written' as const, 'sent' as const),
        ({ show, song }, mode) => {
          const whole = bare(one(show, [song, song], { mode }));
          expect(bare(one(show, [song, song], { mode, format: 0 }))).toEqual(whole);
          const parts = midiFiles(tonightOf(show), [song, song], 'Set', wish({ mode, per: 'unit' })).files;
          expect(bare(parts.flatMap((f) => played(f.bytes)))).toEqual(whole);
        },
      ),
      runs(5121, 40),
    );
  });
});
