import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { problemLine } from '../../../wording';
import { compileSong } from '../../compile';
import { demoShow } from '../../demo';
import { toHex } from '../../midi';
import {
  checkShow,
  emptyShow,
  feetOf,
  newSet,
  openingOf,
  setOf,
  sharing,
  type Show,
  type Song,
  type Unit,
} from '../../show';
import { randomShow } from '../../testing/randomShow';
import { runs } from '../../testing/runs';
import {
  bringIn,
  clashKey,
  cutPart,
  proposeUnits,
  readPart,
  writePart,
  type Meeting,
  type Part,
  type PartWish,
} from './';

const demo = demoShow();
let made = 0;
const newId = (): string => `new-${made++}`;

/** A part that went through a file. */
function handedOn(show: Show, wish: PartWish): Part {
  const { part } = cutPart(show, wish);
  expect(checkShow(part.show)).toEqual([]);
  const { value, problems } = readPart(writePart(part));
  expect(problems).toEqual([]);
  expect(value).toEqual(part);
  return value!;
}

function bring(show: Show, part: Part, meetings: readonly (readonly [string, Meeting])[] = []) {
  const read = bringIn(show, part, { units: proposeUnits(show, part), meetings: new Map(meetings) }, newId);
  expect(read.problems.filter((p) => p.severity === 'error').map(problemLine)).toEqual([]);
  expect(checkShow(read.value!.show)).toEqual([]);
  return { ...read.value!, problems: read.problems };
}

const partOfSong = (show: Show, song: Song) => handedOn(show, { kind: 'songs', songIds: [song.id] });
const theirs = (part: Part): (readonly [string, Meeting])[] => [
  ...part.show.songs.map((s) => [clashKey({ kind: 'song', id: s.id }), 'theirs'] as const),
  ...part.show.feet.map((f) => [clashKey({ kind: 'pages', id: f.id }), 'theirs'] as const),
];
/** What a song sends, by the names of its units. */
const sends = (show: Show, song: Song): string[] =>
  compileSong(show, song).events.map(
    (e) => `${e.at.toFixed(3)} ${show.units.find((u) => u.id === e.unitId)?.name ?? ''} ${toHex(e.bytes)}`,
  );
/** The same rig with no song in it: what somebody else has who plays the same units. */
const bareRig = (show: Show): Show => ({
  ...emptyShow('other', 'Other'),
  ports: show.ports,
  players: show.players,
  units: show.units,
  house: show.house,
  margin: show.margin,
  guard: show.guard,
});

describe('a song with its tones', () => {
  it.each(demo.songs.map((s) => [s.title, s] as const))('%s changes nothing where it came from', (_, song) => {
    const part = partOfSong(demo, song);
    const { show, problems } = bring(demo, part, theirs(part));
    expect(problems).toEqual([]);
    const silent = (s: Show): Show => ({
      ...s,
      songs: s.songs.map((x) => (x.id === song.id ? { ...x, sections: [], announce: null, openingToneId: null } : x)),
    });
    expect(sharing(silent(demo), silent(show)).tones).toEqual(demo.tones);
    expect(sharing(silent(demo), silent(show))).toEqual(silent(demo));
  });

  it.each(demo.songs.map((s) => [s.title, s] as const))(
    '%s sends the same from another show with the same rig',
    (_, song) => {
      const own: Song = { ...song, opening: 'own', openingToneId: openingOf(demo, song) };
      const from: Show = { ...demo, songs: demo.songs.map((s) => (s.id === song.id ? own : s)) };
      const { show } = bring(bareRig(demo), partOfSong(from, own));
      expect(sends(show, show.songs[0]!)).toEqual(sends(from, own));
    },
  );

  it('sends the same from a random show, whatever it does', () => {
    fc.assert(
      fc.property(randomShow({ gap: 120, shifts: true, raw: true }), ({ show: drawn, song }) => {
        const named: Show = { ...drawn, tones: drawn.tones.map((t, i) => ({ ...t, name: `Tone ${i}` })) };
        const own: Song = { ...song, opening: 'own', openingToneId: openingOf(named, song) };
        const from: Show = { ...named, songs: [own] };
        const { show, problems } = bring(bareRig(from), partOfSong(from, own));
        expect(problems).toEqual([]);
        expect(sends(show, show.songs[0]!)).toEqual(sends(from, own));
      }),
      runs(911, 60),
    );
  });

  it('that opens as all songs of its show do brings that opening along, and says so', () => {
    const song: Song = { ...demo.songs[0]!, opening: 'show', openingToneId: null };
    const from: Show = { ...demo, songs: [song], openingToneId: 'undertow' };
    const part = partOfSong(from, song);
    expect(part.show.tones.map((t) => t.id)).toContain('undertow');
    // Where songs open with something else, with nothing, or with the same.
    for (const [openingToneId, opening] of [
      ['still-water', 'own'],
      [null, 'own'],
      ['undertow', 'show'],
    ] as const) {
      const { show, problems } = bring({ ...demo, openingToneId }, part);
      const come = show.songs.at(-1);
      expect(come!.opening).toBe(opening);
      expect(openingOf(show, come!)).toBe('undertow');
      const said = problems.filter((p) => p.code === 'part.opening').map((p) => p.data);
      expect(said).toEqual(opening === 'own' ? [{ song: song.title, tone: 'Undertow' }] : []);
    }
    const none = partOfSong({ ...from, openingToneId: null }, song);
    const { show, problems } = bring(demo, none);
    expect(openingOf(show, show.songs.at(-1)!)).toBeNull();
    expect(problems.some((p) => p.code === 'part.opening')).toBe(true);
  });

  it('comes without an opening of its own that it does not use', () => {
    const other = demo.tones.find((t) => !JSON.stringify(demo.songs[1]!.cues).includes(t.id))!;
    const song: Song = { ...demo.songs[1]!, opening: 'show', openingToneId: other.id };
    const part = partOfSong({ ...demo, songs: [song] }, song);
    expect(part.show.songs[0]!.openingToneId).toBeNull();
    expect(part.show.tones.some((t) => t.id === other.id)).toBe(false);
  });

  it('finds presets, controls and variants by their names in a unit that was put in another order', () => {
    const song = demo.songs[0]!;
    const part = partOfSong(demo, song);
    const turned = (u: Unit): Unit => ({
      ...u,
      slots: u.slots.map((s, i) => ({ ...s, id: `other-${s.id}`, index: u.slots[(i + 1) % u.slots.length]!.index })),
      profile: { ...u.profile, controls: u.profile.controls.toReversed() },
    });
    const other: Show = { ...bareRig(demo), units: demo.units.map((u) => ({ ...turned(u), relays: [] })) };
    const { show, problems } = bring(other, part);
    expect(problems.filter((p) => p.code !== 'part.opening')).toEqual([]);
    expect(show.units.map((u) => u.slots.length)).toEqual(other.units.map((u) => u.slots.length));
    const nameOf = (s: Show, unitId: string, slotId: string | null): string =>
      s.units.find((u) => u.id === unitId)!.slots.find((x) => x.id === slotId)?.name ?? '';
    for (const tone of part.show.tones) {
      const now = show.tones.find((t) => t.name === tone.name)!;
      expect(now.parts.map((p) => nameOf(show, p.unitId, p.slotId))).toEqual(
        tone.parts.map((p) => nameOf(demo, p.unitId, p.slotId)),
      );
    }
  });

  it('brings units along that the show has not, and says what it cannot bring', () => {
    const song = demo.songs.find((s) => s.tracks.length > 0) ?? demo.songs[0]!;
    const { part, problems } = cutPart(demo, { kind: 'songs', songIds: [song.id] });
    expect(problems.map(problemLine).join()).toMatch(/Not in the file: .*cables, channels and players/);
    const { show } = bring(emptyShow('empty', 'Empty'), part);
    expect(show.units.map((u) => u.name)).toEqual(part.show.units.map((u) => u.name));
    expect(show.units.every((u) => u.input === null)).toBe(true);
    expect(show.songs[0]!.cues).toHaveLength(song.cues.length);
  });

  it('keeps a preset by name where its place is another one, and says so', () => {
    const song = demo.songs[0]!;
    const part = partOfSong(demo, song);
    const taken: Show = {
      ...bareRig(demo),
      units: demo.units.map((u) => ({
        ...u,
        relays: [],
        slots: u.slots.map((s) => ({ ...s, name: `${s.name} of mine` })),
      })),
    };
    const { show, problems } = bring(taken, part);
    expect(problems.map(problemLine).join()).toMatch(/has another preset where .* was/);
    const quillback = show.units.find((u) => u.name === 'Quillback')!;
    expect(quillback.lostSlots.length).toBeGreaterThan(0);
    expect(quillback.slots).toEqual(taken.units.find((u) => u.name === 'Quillback')!.slots);
  });

  it('leaves out what a unit has not, and says of which tone', () => {
    const song = demo.songs[0]!;
    const part = partOfSong(demo, song);
    const poor = (u: Unit): Unit => ({
      ...u,
      relays: [],
      slots: u.slots.map((s) => ({ ...s, startControls: [], startVariant: null })),
      profile: { ...u.profile, controls: [], effects: [], engage: null, variants: null },
    });
    const { show, problems } = bring({ ...bareRig(demo), units: demo.units.map(poor) }, part);
    expect(problems.map(problemLine).join()).toMatch(/has no .*, so it is left out/);
    expect(show.tones.every((t) => t.parts.every((p) => p.controls.length === 0 && p.variant === null))).toBe(true);
  });
});

describe('names that both have', () => {
  const song = demo.songs[0]!;
  const part = partOfSong(demo, song);
  const [tone] = part.show.tones;
  const other: Show = {
    ...demo,
    tones: demo.tones.map((t) => (t.name === tone!.name ? { ...t, parts: t.parts.slice(1) } : t)),
  };
  const toneKey = clashKey({ kind: 'tone', id: tone!.id });

  it('asks about them, and leaves the show’s own tone until told', () => {
    const { show, clashes } = bring(other, part);
    expect(clashes).toEqual([
      { kind: 'tone', id: tone!.id, name: tone!.name },
      { kind: 'song', id: song.id, name: song.title },
    ]);
    expect(show.tones).toEqual(other.tones);
    expect(show.songs.map((s) => s.title)).toEqual([...demo.songs.map((s) => s.title), `${song.title} 2`]);
  });

  it('replaces the tone, or has both', () => {
    expect(bring(other, part, [[toneKey, 'theirs']]).show.tones).toEqual(demo.tones);
    const both = bring(other, part, [[toneKey, 'both']]).show;
    expect(both.tones.slice(0, -1)).toEqual(other.tones);
    expect(both.tones.at(-1)).toMatchObject({ name: `${tone!.name} 2`, parts: tone!.parts });
    const brought = both.songs.at(-1)!;
    expect(JSON.stringify(brought)).toContain(both.tones.at(-1)!.id);
  });

  it('keeps the show’s own song where that is chosen', () => {
    const { show } = bring(demo, part, [[clashKey({ kind: 'song', id: song.id }), 'mine']]);
    expect(show).toEqual(demo);
  });
});

describe('a set', () => {
  it('comes as a running order of its own, with its songs', () => {
    const part = handedOn(demo, { kind: 'set', setId: demo.setId });
    const { show } = bring(bareRig(demo), part);
    const order = (s: Show, set: Show['sets'][number]): (string | undefined)[] =>
      set.entries.map((e) => (e.kind === 'song' ? s.songs.find((x) => x.id === e.songId)!.title : e.kind));
    const other = newSet('other', 'Other', { entries: [{ kind: 'break', id: 'tea', title: 'Tea', minutes: 5 }] });
    const with2: Show = { ...bareRig(demo), sets: [other], setId: 'other' };
    const second = bring(with2, part).show;
    expect(second.sets[0]).toEqual(other);
    expect(second.sets[1]!.title).toBe(setOf(demo).title);
    expect(second.setId).toBe('other');
    // A show that was just begun has one set, with nothing in it.
    expect(show.sets).toHaveLength(1);
    expect(setOf(show).title).toBe(setOf(demo).title);
    expect(order(show, setOf(show))).toEqual(order(demo, setOf(demo)));
  });
});

describe('a kit', () => {
  const all: PartWish = { kind: 'kit', toneIds: demo.tones.map((t) => t.id), moveIds: demo.moves.map((m) => m.id) };

  it('is tones and moves with the maps that they lean on, and no song', () => {
    const { show } = handedOn(demo, all);
    expect([show.tones, show.moves, show.songs]).toEqual([demo.tones, demo.moves, []]);
    const moves = handedOn(demo, { ...all, toneIds: [] }).show;
    expect(moves.tones).toEqual([]);
    const used = new Set(demo.moves.flatMap((m) => m.steps.map((s) => s.unitId)));
    expect(moves.units.map((u) => u.id).sort()).toEqual([...used].sort());
  });

  it('changes nothing where it came from, and is whole in a show with the same rig', () => {
    expect(sharing(demo, bring(demo, handedOn(demo, all)).show)).toEqual(demo);
    const { show } = bring(bareRig(demo), handedOn(demo, all));
    expect(show.tones.map((t) => t.name)).toEqual(demo.tones.map((t) => t.name));
    expect(show.moves.map((m) => m.steps)).toEqual(demo.moves.map((m) => m.steps));
  });

  it('finds controls by their names on a unit whose map has other numbers', () => {
    const units = demo.units.map((u) => ({
      ...u,
      profile: { ...u.profile, controls: u.profile.controls.toReversed() },
    }));
    const { show } = bring(bareRig({ ...demo, units }), handedOn(demo, { ...all, toneIds: [] }));
    expect(show.moves.map((m) => m.name)).toEqual(demo.moves.map((m) => m.name));
  });
});

describe('pages of a controller', () => {
  const controller = demo.feet.find((f) => f.pages.length > 0)!;
  const part = handedOn(demo, { kind: 'pages', unitId: controller.id });
  const titles = (s: Show): string[] =>
    feetOf(s, controller.id).pages.map(
      (p) => s.units.find((u) => u.id === controller.id)!.slots.find((x) => x.id === p.id)!.name,
    );

  it('come into the same rig as they were', () => {
    const { show, clashes } = bring({ ...bareRig(demo), feet: [] }, part);
    expect(clashes).toEqual([]);
    expect(titles(show)).toEqual(titles(demo));
    const doings = (s: Show): unknown =>
      feetOf(s, controller.id).pages.map((p) => p.switches.map((x) => [x.id, x.doings.map((d) => d.does.kind)]));
    expect(doings(show)).toEqual(doings(part.show));
  });

  it('take the place of those that are there, come behind them, or stay away', () => {
    const kept = bring(demo, part);
    expect(kept.clashes).toMatchObject([{ kind: 'pages' }]);
    expect(kept.show).toEqual(demo);
    const over = bring(demo, part, theirs(part)).show;
    expect(titles(over)).toEqual(titles(demo));
    // Each is for the song that it was for, found again by its title; one page a song.
    const songsOf = (s: Show): unknown => feetOf(s, controller.id).pages.map((p) => p.songId);
    expect(songsOf(over)).toEqual(songsOf(demo));
    expect(controller.pages.some((p) => p.songId !== null)).toBe(true);
    const behind = bring(demo, part, [[clashKey({ kind: 'pages', id: controller.id }), 'both']]).show;
    expect(titles(behind)).toEqual([...titles(demo), ...titles(demo)]);
    expect(songsOf(behind)).toEqual([...controller.pages.map((p) => p.songId), ...controller.pages.map(() => null)]);
    expect(behind.units.find((u) => u.id === controller.id)!.slots.length).toBe(
      demo.units.find((u) => u.id === controller.id)!.slots.length + titles(demo).length,
    );
  });

  it('bring their controller along', () => {
    const { show } = bring(emptyShow('empty', 'Empty'), part);
    expect(show.feet).toHaveLength(1);
    expect(show.feet[0]!.pages).toHaveLength(controller.pages.length);
  });
});

describe('any text as a part', () => {
  const text = writePart(partOfSong(demo, demo.songs[1]!));

  it.each([
    ['{}', /expected the format "hollow-lantern-part", found none/],
    ['{"format":"hollow-lantern-part","version":8,"kind":"other","show":{}}', /a part of no known kind/],
    ['{"format":"hollow-lantern-part","version":99,"kind":"songs","show":{}}', /newer/],
    ['{"format":"hollow-lantern-part"', /JSON/],
  ])('%s', (bad, wanted) => {
    const read = readPart(bad);
    expect(read.value).toBeUndefined();
    expect(read.problems.map(problemLine).join()).toMatch(wanted);
  });

  it('is answered, cut or damaged', () => {
    fc.assert(
      fc.property(fc.nat(), fc.nat(), fc.string({ maxLength: 3 }), (cut, at, put) => {
        const short = text.slice(0, cut % (text.length + 1));
        const place = at % (short.length + 1);
        const read = readPart(short.slice(0, place) + put + short.slice(place));
        expect(read.value !== undefined || read.problems.length > 0).toBe(true);
      }),
      runs(912, 60),
    );
  });
});
