import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { barAt, formatPosition } from '../../time';
import { newSection, newSong, toneCue } from '../builders';
import { applyEdit, type Edit } from '../edits';
import { indexShow } from '../find';
import type { Show, Song } from '../schema';
import { microsAt, songTime } from '../songTime';
import {
  addSong,
  copyBySection,
  copySection,
  exchangeActions,
  insertBars,
  moveSection,
  muteCues,
  pasteCues,
  putMetre,
  putPrinted,
  putSection,
  addTempo,
  putTempo,
  removeBars,
  removeCues,
  removeMetre,
  removeSection,
  removeTempo,
  replaceTone,
  setPickup,
  shiftCues,
  stepValues,
  tonesOn,
} from './';
import { doingTo } from '../../testing/doing';

const show = demoShow();
const ID = 'slack-tide';
let made = 0;
const newId = (): string => `made-${made++}`;
const song = (s: Show = show, id = ID): Song => indexShow(s).songs.get(id)!;
const places = (s: Show, id = ID): string[] =>
  song(s, id).cues.map((c) => formatPosition(songTime(song(s, id)).bars, c.at, song(s, id).bars));

const done = doingTo(show);

describe('the frame of a song', () => {
  it('takes tempos, steps and ramps, and gives them up but for the first', () => {
    const at = barAt(songTime(song()).bars, 9).tick;
    const ramp = done(putTempo(show, ID, { at, bpm: 120, beat: 1, rampTo: 90 }));
    const mark = song(ramp).tempo.find((m) => m.at === at)!;
    // A ramp needs a mark after it; without one it is a step.
    expect(mark.rampTo).toBe(song().tempo.some((m) => m.at > at) ? 90 : null);
    expect(done(removeTempo(ramp, ID, at), ramp).songs).toEqual(show.songs);
    expect(removeTempo(show, ID, 0)).toBeNull();
    const first = song().tempo[0]!;
    expect(song(done(putTempo(show, ID, { ...first, bpm: 99 }))).tempo[0]!.bpm).toBe(99);
    expect(putTempo(show, ID, first)).toBeNull();
    expect(putTempo(show, ID, { ...first, at: -1 })).toBeNull();
  });

  it('puts a mark at the tempo that is there, which changes no time; inside a ramp it divides it', () => {
    const bars = (n: number): number => n * 7680;
    const [first] = song(show).tempo;
    const end = done(putTempo(show, ID, { at: bars(8), bpm: 60, beat: 1.5, rampTo: null }));
    const ramped = done(putTempo(end, ID, { at: bars(4), bpm: 80, beat: 1.5, rampTo: 60 }), end);
    const split = done(addTempo(ramped, ID, bars(6)), ramped);
    const marks = song(split).tempo.filter((m) => m.at >= bars(4));
    expect(marks.map((m) => [m.at, m.bpm, m.rampTo])).toEqual([
      [bars(4), 80, 70],
      [bars(6), 70, 60],
      [bars(8), 60, null],
    ]);
    for (const at of [bars(5), bars(6), bars(7), bars(9)]) {
      expect(microsAt(songTime(song(split)), at)).toBeCloseTo(microsAt(songTime(song(ramped)), at), 3);
    }
    expect(addTempo(split, ID, bars(6))).toBeNull();
    const plain = done(addTempo(show, ID, 3360));
    expect(song(plain).tempo.find((m) => m.at === 3360)).toMatchObject({ bpm: first!.bpm, rampTo: null });
  });

  it('takes metres; cues keep their bar and beat', () => {
    const after = done(putMetre(show, ID, 5, 5, 4));
    expect(places(after).slice(0, 2)).toEqual(places(show).slice(0, 2));
    expect(song(after).metre.find((m) => m.bar === 5)).toEqual({ bar: 5, beats: 5, unit: 4 });
    expect(song(done(removeMetre(after, ID, 5), after)).metre).toEqual(song().metre);
    expect(removeMetre(show, ID, 1)).toBeNull();
    expect(putMetre(show, ID, 0, 4, 4)).toBeNull();
  });

  it('takes a pickup shorter than a bar', () => {
    expect(song(done(setPickup(show, ID, 480))).pickup).toBe(480);
    expect(setPickup(show, ID, 7 * 480)).toBeNull();
    expect(setPickup(show, ID, -1)).toBeNull();
  });

  it('takes sections, one a bar, and printed numbers', () => {
    const added = done(putSection(show, ID, newSection('new', ' Break ', 12)));
    expect(song(added).sections.find((s) => s.id === 'new')).toEqual(newSection('new', 'Break', 12));
    expect(putSection(show, ID, newSection('new', 'Break', song().sections[1]!.bar))).toBeNull();
    expect(putSection(show, ID, newSection('new', '', 12))).toBeNull();
    expect(putSection(show, ID, newSection('new', 'X', 999))).toBeNull();
    expect(done(removeSection(added, ID, 'new'), added)).toEqual(show);
    const printed = done(putPrinted(show, ID, 9, 101));
    expect(song(printed).printed).toContainEqual({ bar: 9, number: 101 });
    expect(done(putPrinted(printed, ID, 9, null), printed)).toEqual(show);
  });

  it('gains and loses bars', () => {
    const more = done(insertBars(show, ID, 9, 4));
    expect(song(more).bars).toBe(song().bars + 4);
    expect(done(removeBars(more, ID, 9, 4), more).songs).toEqual(show.songs);
    expect(song(done(insertBars(show, ID, song().bars + 1, 1))).bars).toBe(song().bars + 1);
    expect(insertBars(show, ID, 0, 1)).toBeNull();
    expect(removeBars(show, ID, 1, song().bars)).toBeNull();
    const fewer = done(removeBars(show, ID, 5, 4));
    expect(song(fewer).cues.length).toBeLessThan(song().cues.length);
  });

  it('moves and copies sections with all that is in them', () => {
    const sections = song().sections.map((s) => s.name);
    const second = song().sections[1]!;
    const moved = done(moveSection(show, ID, second.id, 1));
    expect(song(moved).sections[0]!.name).toBe(second.name);
    expect(
      song(moved)
        .cues.map((c) => c.id)
        .sort(),
    ).toEqual(
      song()
        .cues.map((c) => c.id)
        .sort(),
    );
    const copied = done(copySection(show, ID, second.id, 1, newId));
    expect(song(copied).sections.map((s) => s.name)).toEqual([second.name, ...sections]);
    expect(song(copied).cues.length).toBeGreaterThan(song().cues.length);
    expect(moveSection(show, ID, second.id, second.bar)).toBeNull();
    expect(moveSection(show, ID, 'none', 1)).toBeNull();
  });
});

describe('several cues', () => {
  const ids = new Set(
    song()
      .cues.slice(2, 4)
      .map((c) => c.id),
  );

  it('move together, not before the start', () => {
    const after = done(shiftCues(show, ID, ids, 480));
    for (const c of song().cues.filter((x) => ids.has(x.id))) {
      expect(song(after).cues.find((x) => x.id === c.id)!.at).toBe(c.at + 480);
    }
    const back = done(shiftCues(show, ID, ids, -1e9));
    expect(
      Math.min(
        ...song(back)
          .cues.filter((c) => ids.has(c.id))
          .map((c) => c.at),
      ),
    ).toBe(0);
    expect(shiftCues(show, ID, new Set(), 480)).toBeNull();
  });

  it('go, fall silent, and come back as copies', () => {
    expect(song(done(removeCues(show, ID, ids))).cues).toHaveLength(song().cues.length - 2);
    const muted = done(muteCues(show, ID, ids, true));
    expect(
      song(muted)
        .cues.filter((c) => c.muted)
        .map((c) => c.id),
    ).toEqual([...ids]);
    expect(muteCues(muted, ID, ids, true)).toBeNull();
    const copies = song().cues.filter((c) => ids.has(c.id));
    const pasted = done(pasteCues(show, 'fog-bell', copies, 960, newId));
    const fresh = song(pasted, 'fog-bell').cues.filter((c) => c.id.startsWith('made'));
    expect(fresh.map((c) => c.at)).toEqual([960, 960 + copies[1]!.at - copies[0]!.at]);
    expect(pasteCues(show, ID, [], 0, newId)).toBeNull();
  });

  it('have one tone replaced by another, here or everywhere', () => {
    const uses = (s: Show, tone: string): number =>
      s.songs.reduce(
        (n, x) => n + x.cues.filter((c) => c.action.kind === 'tone' && c.action.toneId === tone).length,
        0,
      );
    const here = done(replaceTone(show, 'fog-lead', 'undertow', ID));
    expect(uses(here, 'fog-lead')).toBeLessThan(uses(show, 'fog-lead'));
    const all = done(replaceTone(show, 'fog-lead', 'undertow', null));
    expect(uses(all, 'fog-lead')).toBe(0);
    expect(all.songs.some((s) => s.openingToneId === 'fog-lead')).toBe(false);
    expect(replaceTone(show, 'fog-lead', 'none', null)).toBeNull();
    expect(replaceTone(show, 'fog-lead', 'fog-lead', null)).toBeNull();
  });
});

describe('what stands at a change', () => {
  const at = song().cues.find((c) => c.action.kind === 'tone')!;
  const odd = { ...at, shift: -20, landing: 'sent' as const, muted: true, action: { ...at.action, reload: true } };
  const withOdd = { ...song(), cues: song().cues.map((c) => (c.id === at.id ? (odd as typeof c) : c)) };
  const from: Show = { ...show, songs: show.songs.map((s) => (s.id === ID ? withOdd : s)) };
  const after = (edit: Edit | null): Song['cues'][number] =>
    song(applyEdit(from, edit!)).cues.find((c) => c.id === at.id)!;
  const other = show.tones.find((t) => at.action.kind === 'tone' && t.id !== at.action.toneId)!;

  it('is exchanged where it stands: place, shift, landing and reload stay', () => {
    const tone = { kind: 'tone', toneId: other.id, reload: false } as const;
    expect(after(exchangeActions(from, ID, new Set([at.id]), tone))).toEqual({
      ...odd,
      action: { ...tone, reload: true },
    });
    const value = { kind: 'control', unitId: 'tarn', controlId: 'mix', value: 40 } as const;
    expect(after(exchangeActions(from, ID, new Set([at.id]), value))).toEqual({ ...odd, action: value });
  });

  it('is exchanged at several, and is nothing where nothing would change', () => {
    const ids = new Set(song(from).cues.map((c) => c.id));
    const move = { kind: 'move', moveId: show.moves[0]!.id } as const;
    const all = applyEdit(from, exchangeActions(from, ID, ids, move)!);
    expect(new Set(song(all).cues.map((c) => JSON.stringify(c.action)))).toEqual(new Set([JSON.stringify(move)]));
    expect(exchangeActions(all, ID, ids, move)).toBeNull();
    expect(exchangeActions(from, 'no song', ids, move)).toBeNull();
    expect(exchangeActions(from, ID, new Set(['no cue']), move)).toBeNull();
  });

  it('is stepped as far as its control goes, and only where it is a value', () => {
    const value = { kind: 'control', unitId: 'tarn', controlId: 'mix', value: 98 } as const;
    const ids = new Set([at.id]);
    const set = applyEdit(from, exchangeActions(from, ID, ids, value)!);
    const stepped = (steps: number): unknown => {
      const edit = stepValues(set, ID, ids, steps);
      const { action } = song(edit ? applyEdit(set, edit) : set).cues.find((c) => c.id === at.id)!;
      return action.kind === 'control' ? action.value : action;
    };
    expect([stepped(1), stepped(10), stepped(-10)]).toEqual([99, 100, 88]);
    expect(stepped(-1000)).toBe(0);
    expect(stepValues(from, ID, ids, 1)).toBeNull();
  });

  it('is known by its place where tones stand, but for those that are muted', () => {
    expect(tonesOn(song(), at.at).map((c) => c.id)).toContain(at.id);
    expect(tonesOn(song(from), at.at).map((c) => c.id)).not.toContain(at.id);
    expect(tonesOn(song(), at.at + 1)).toEqual([]);
  });
});

describe('changes of one song in another', () => {
  it('come into sections of the same name, at the same bar and beat of them', () => {
    const { bars } = songTime(newSong('x', 'X', { bars: 16 }));
    const source: Song = {
      ...newSong('source', 'Source', { bars: 16 }),
      openingToneId: 'undertow',
      sections: [newSection('v1', 'Verse', 1), newSection('c1', 'Chorus', 5), newSection('v2', 'verse', 9)],
      cues: [1, 6, 10, 12].map((bar) => toneCue(`c${bar}`, barAt(bars, bar).tick + 960, 'undertow')),
    };
    const target: Song = {
      ...newSong('target', 'Target', { bars: 20, beats: 3 }),
      sections: [
        newSection('i', 'Intro', 1),
        newSection('v1', 'Verse', 3),
        newSection('v2', 'Verse', 7),
        newSection('c1', 'Chorus', 9),
      ],
    };
    const both = done(addSong(done(addSong(show, source, 'e1')), target, 'e2'), done(addSong(show, source, 'e1')));
    const after = done(copyBySection(both, 'source', 'target', newId), both);
    // The second verse has only two bars, so the change in the fourth bar of it finds no place.
    expect(places(after, 'target')).toEqual(['3|2', '8|2', '10|2']);
    expect(song(after, 'target').openingToneId).toBe('undertow');
    expect(copyBySection(after, 'source', 'target', newId)).toBeNull();
    expect(copyBySection(both, 'source', 'source', newId)).toBeNull();
  });
});
