import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { problemLine } from '../../../wording';
import { demoShow } from '../../demo';
import { LIBRARY } from '../../library';
import { compareShows } from '../../meaning';
import {
  checkShow,
  newInterlude,
  newSong,
  newUnit,
  setOf,
  sharing,
  toneCue,
  type SetEntry,
  type Show,
  type Song,
} from '../../show';
import { randomShow } from '../../testing/randomShow';
import { runs } from '../../testing/runs';
import {
  readControlTable,
  readCueTable,
  readSetTable,
  readToneTable,
  writeControlTable,
  writeCueTable,
  writeSetTable,
  writeToneTable,
} from './';

const demo = demoShow();
const [song] = demo.songs;
let made = 0;
const newId = (): string => `new-${made++}`;

const said = (read: { readonly problems: readonly Parameters<typeof problemLine>[0][] }): string =>
  read.problems.map(problemLine).join('\n');
const bare = (s: Song): unknown => s.cues.map((c) => ({ ...c, id: '' }));
const linesOf = (text: string): string[] => text.trimEnd().split('\r\n');
/** A table with one cell changed, by line and column. */
const withCell = (text: string, line: number, column: string, cell: string): string => {
  const lines = linesOf(text);
  const at = lines[0]!.split(',').indexOf(column);
  const cells = lines[line]!.split(',');
  cells[at] = cell;
  return lines.with(line, cells.join(',')).join('\r\n');
};

describe('cues as a table', () => {
  it.each(demo.songs.map((s) => [s.title, s] as const))('%s comes back as it was', (_, s) => {
    const { value, problems } = readCueTable(demo, s.id, writeCueTable(demo, s), newId);
    expect(problems).toEqual([]);
    const back = value!.songs.find((x) => x.id === s.id)!;
    expect(bare(back)).toEqual(bare(s));
    expect(back.cues.map((c) => c.id)).toEqual(s.cues.map((c) => c.id));
    expect(checkShow(value!)).toEqual([]);
  });

  it('keeps the ids of cues that stand off the grid', () => {
    const [cue] = song!.cues;
    const off = {
      ...song!,
      cues: [1234.567_89, 1234.567_91, 9000.000_4].map((at, i) => ({ ...cue!, id: `off-${i}`, at })),
    };
    const made = { ...demo, songs: [off, ...demo.songs.slice(1)] };
    const { value } = readCueTable(made, off.id, writeCueTable(made, off), newId);
    expect(value!.songs[0]!.cues.map((c) => c.id)).toEqual(['off-0', 'off-1', 'off-2']);
  });

  it('brings back the cues of random songs', () => {
    fc.assert(
      fc.property(randomShow({ gap: 60, shifts: true, raw: true }), ({ show, song: s }) => {
        const named: Show = { ...show, tones: show.tones.map((t, i) => ({ ...t, name: `=Tone; "${i}"` })) };
        const { value, problems } = readCueTable(named, s.id, writeCueTable(named, s), newId);
        expect(problems).toEqual([]);
        const back = value!.songs.find((x) => x.id === s.id)!;
        expect(back.cues.length).toBe(s.cues.length);
        for (const [i, cue] of s.cues.toSorted((a, b) => a.at - b.at).entries()) {
          expect(Math.abs(back.cues[i]!.at - cue.at)).toBeLessThan(0.001);
          expect({ ...back.cues[i], id: '', at: 0 }).toEqual({ ...cue, id: '', at: 0 });
        }
      }),
      runs(814, 60),
    );
  });

  it('brings back cues that stand outside of their song, with a pickup and printed numbers', () => {
    for (const printed of [[], [{ bar: 1, number: 5 }]]) {
      for (const pickup of [0, 480]) {
        const cues = [-1920, -960, -480, 0, 33.25, 480, 3840 * 8, 3840 * 20].map((at, i) =>
          toneCue(`c${i}`, at, demo.tones[0]!.id),
        );
        const own: Song = { ...newSong('s', 'S', { bars: 8 }), printed, pickup, cues };
        const show: Show = { ...demo, songs: [own] };
        const { value, problems } = readCueTable(show, 's', writeCueTable(show, own), newId);
        expect(problems).toEqual([]);
        expect(value!.songs[0]!.cues).toEqual(cues);
      }
    }
  });

  it('takes columns in any order, parted by semicolons, from another hand', () => {
    const tone = demo.tones[0]!.name;
    const text = `name;PLACE;lands\n${tone};9|2.5;sent\n\n${tone.toUpperCase()};2|1;\n`;
    const { value, problems } = readCueTable(demo, song!.id, text, newId);
    expect(problems).toEqual([]);
    const { cues } = value!.songs[0]!;
    expect(cues.map((c) => c.landing)).toEqual(['complete', 'sent']);
    expect(cues[0]!.at).toBeLessThan(cues[1]!.at);
  });

  it.each([
    ['Place', '900|1', /line 2, column 1.*"900\|1" is no place in/],
    ['Name', 'Nobody', /line 2, column 3.*The show has no tone "Nobody"/],
    ['Lands', 'perhaps', /Expected complete, sent; found "perhaps"/],
    ['Shift (ms)', '99999', /Expected -10000 to 10000; found "99999"/],
    ['Muted', 'si', /Expected no, yes/],
    ['Kind', 'bytes', /no unit ""/],
  ])('says what is wrong in %s, and where', (column, cell, wanted) => {
    const text = writeCueTable(demo, song!);
    const line = linesOf(text).findIndex((l) => l.includes(',tone,'));
    const moved = [linesOf(text)[0]!, linesOf(text)[line]!].join('\r\n');
    const read = readCueTable(demo, song!.id, withCell(moved, 1, column, cell), newId);
    expect(read.value).toBeUndefined();
    expect(said(read)).toMatch(wanted);
  });

  it('says which column is missing, and that nothing is there', () => {
    expect(said(readCueTable(demo, song!.id, 'Bar,Tone\n1,x', newId))).toMatch(/Place, Name is missing/);
    expect(said(readCueTable(demo, song!.id, ' \n', newId))).toMatch(/The table is empty/);
    expect(said(readCueTable(demo, song!.id, 'Place,Name\n1|1,"x', newId))).toMatch(/quot/);
  });

  it('does not choose between two tones of one name', () => {
    const twin: Show = { ...demo, tones: [...demo.tones, { ...demo.tones[0]!, id: 'twin' }] };
    const read = readCueTable(twin, song!.id, `Place,Name\n1|1,${demo.tones[0]!.name}`, newId);
    expect(said(read)).toMatch(/has 2 of the name/);
  });
});

describe('the running order as a table', () => {
  it('comes back as it was', () => {
    const { value, problems } = readSetTable(demo, writeSetTable(demo), newId);
    expect(problems).toEqual([]);
    const bareOf = (show: Show): unknown => setOf(show).entries.map((e) => (e.kind === 'song' ? e : { ...e, id: '' }));
    expect(bareOf(value!)).toEqual(bareOf(demo));
    expect(checkShow(value!)).toEqual([]);
  });

  it('takes a new order from a column of titles, and what is not named stays in the show', () => {
    const titles = demo.songs.map((s) => s.title).reverse();
    const { value } = readSetTable(demo, `Title\n${titles.slice(1).join('\n')}`, newId);
    const order = setOf(value!).entries.flatMap((e) => (e.kind === 'song' ? [e.songId] : []));
    const wanted = titles.slice(1).map((t) => demo.songs.find((s) => s.title === t)!.id);
    expect(order).toEqual(wanted);
    expect(value!.songs).toBe(demo.songs);
  });

  it('has what starts songs, and sounds between them', () => {
    const [first, ...rest] = setOf(demo).entries;
    const launch = { portId: demo.ports[0]!.id, bytes: 'B01440', does: 'queue' as const };
    const audio = { id: 'x', name: 'Harbour', type: 'audio/wav', length: 9, size: 9 };
    const loop = { ...newInterlude('loop', 'x'), begins: 'press' as const, fade: 7 };
    const sets = demo.sets.map((s) =>
      s.id === demo.setId ? { ...s, entries: [{ ...first!, launch } as SetEntry, loop, ...rest] } : s,
    );
    const show: Show = { ...demo, audio: [audio], sets };
    const table = writeSetTable(show);
    expect(table).toMatch(/B0 14 40,[^,]+,queue/);
    const { value, problems } = readSetTable(show, table, newId);
    expect(problems).toEqual([]);
    expect(setOf(value!).entries[0]).toEqual({ ...first, launch });
    expect(setOf(value!).entries[1]).toEqual(loop);
    // A table without the column leaves it, one with an empty cell takes it away.
    const { title } = demo.songs.find((s) => first!.kind === 'song' && s.id === first!.songId)!;
    expect(setOf(readSetTable(show, `Title\n${title}`, newId).value!).entries[0]).toMatchObject({ launch });
    expect(setOf(readSetTable(show, `Title,Started by\n${title},`, newId).value!).entries[0]).toMatchObject({
      launch: null,
    });
    for (const bytes of ['90', 'F0 01', 'C0 FF', 'nothing']) {
      const wrong = readSetTable(show, `Title,Started by,Port\n${title},${bytes},${demo.ports[0]!.name}`, newId);
      expect(said(wrong)).toMatch(/line 2, column 2: .*C0 05/);
    }
    expect(said(readSetTable(show, `Kind,Title\nsound,Quay`, newId))).toMatch(/no sound "Quay"/);
  });

  it('says which title it does not know', () => {
    expect(said(readSetTable(demo, 'Title\nSomething else', newId))).toMatch(/no song "Something else"/);
  });
});

describe('tones as a table', () => {
  it('come back as they were', () => {
    const { value, problems } = readToneTable(demo, writeToneTable(demo), newId);
    expect(problems).toEqual([]);
    expect(sharing(demo, value!)).toBe(demo);
  });

  it('come back where several have one name, and names that look like those that tell them apart', () => {
    fc.assert(
      fc.property(randomShow({ gap: 60, shifts: true, raw: true, crowded: true }), ({ show, song: s }) => {
        const NAMES = ['Lead', 'lead', 'Lead #2', ' Lead #1'];
        const alike: Show = {
          ...show,
          tones: show.tones.map((t, i) => ({ ...t, name: NAMES[i % NAMES.length]! })),
          units: show.units.map((u) => ({ ...u, name: 'Box' })),
        };
        const tones = readToneTable(alike, writeToneTable(alike), newId);
        expect(tones.problems).toEqual([]);
        expect(tones.value!.tones).toEqual(alike.tones);
        // The same cue twice, and bytes by the thousand.
        const raw = { kind: 'message', unitId: show.units[0]!.id, bytes: `f0${'01'.repeat(3000)}f7` } as const;
        const twice: Song = {
          ...s,
          cues: [
            ...s.cues.flatMap((c) => [c, { ...c, id: `${c.id}-again` }]),
            { id: 'long', at: 0, shift: 0, landing: 'sent', muted: false, action: raw },
          ],
        };
        const both = { ...alike, songs: alike.songs.map((x) => (x.id === s.id ? twice : x)) };
        const { value, problems } = readCueTable(both, s.id, writeCueTable(both, twice), newId);
        expect(problems).toEqual([]);
        const byId = new Map(twice.cues.map((c) => [c.id, c]));
        const back = value!.songs.find((x) => x.id === s.id)!.cues;
        expect(back.map((c) => c.id).toSorted()).toEqual([...byId.keys()].toSorted());
        for (const c of back) expect({ ...c, at: 0 }).toEqual({ ...byId.get(c.id)!, at: 0 });
      }),
      runs(816, 40),
    );
  });

  it('come back from a random show', () => {
    fc.assert(
      fc.property(randomShow({ gap: 480 }), ({ show }) => {
        const named: Show = { ...show, tones: show.tones.map((t, i) => ({ ...t, name: `Tone ${i}` })) };
        const { value, problems } = readToneTable(named, writeToneTable(named), newId);
        expect(problems).toEqual([]);
        expect(value!.tones).toEqual(named.tones);
      }),
      runs(815, 60),
    );
  });

  it('adds what is new, changes what is named, leaves the rest', () => {
    const unit = demo.units.find((u) => u.slots.length > 2)!;
    const [old] = demo.tones;
    const before = writeToneTable({ ...demo, tones: [{ ...old!, name: 'Brand new', parts: old!.parts.slice(0, 1) }] });
    const { value } = readToneTable(demo, before, newId);
    expect(value!.tones.slice(0, -1)).toEqual(demo.tones);
    expect(value!.tones.at(-1)).toMatchObject({ name: 'Brand new', parts: old!.parts.slice(0, 1) });
    // A place that nobody named yet gets its preset.
    const plan = { ...demo, tones: [], units: demo.units.map((u) => (u === unit ? { ...u, slots: [] } : u)) };
    const row = writeToneTable({
      ...demo,
      tones: [
        { ...old!, parts: [{ unitId: unit.id, slotId: unit.slots[0]!.id, variant: null, controls: [], effects: [] }] },
      ],
    });
    const fresh = readToneTable(plan, row, newId);
    expect(fresh.problems).toEqual([]);
    expect(fresh.value!.units.find((u) => u.id === unit.id)!.slots).toMatchObject([
      { index: unit.slots[0]!.index, name: unit.slots[0]!.name },
    ]);
    expect(checkShow(fresh.value!).filter((p) => p.code === 'show.slot-shared')).toEqual([]);
  });

  it('asks where a place has another name by now', () => {
    const text = writeToneTable(demo);
    const line = linesOf(text).findIndex((l) => /Quillback,[A-T][1-6],/.test(l));
    const head = linesOf(text)[0]!;
    const read = readToneTable(
      demo,
      withCell(`${head}\r\n${linesOf(text)[line]!}`, 1, 'Preset name', 'Elsewhere'),
      newId,
    );
    expect(said(read)).toMatch(/Quillback has ".*" at .*, not "Elsewhere"/);
  });
});

describe('controls as a table', () => {
  it.each(demo.units.map((u) => [u.name, u] as const))('%s has them as it had', (_, unit) => {
    const { value, problems } = readControlTable(demo, unit.id, writeControlTable(unit), newId);
    expect(problems).toEqual([]);
    expect(sharing(demo, value!)).toBe(demo);
  });

  it('makes a unit what another one is, whatever its kinds of control', () => {
    for (const { profile } of LIBRARY) {
      const other = newUnit('other', 'Other', 'OT', profile);
      const empty = newUnit('mine', 'Mine', 'MI', { ...profile, controls: [], effects: [], engage: null });
      const show: Show = {
        ...demo,
        tones: [],
        songs: [],
        moves: [],
        sets: demo.sets.map((s) => ({ ...s, entries: [] })),
        units: [empty],
      };
      const { value, problems } = readControlTable(show, 'mine', writeControlTable(other), newId);
      expect(problems.map(problemLine)).toEqual([]);
      const named = (list: typeof profile.controls): unknown => list.map((c) => ({ ...c, id: '', houseId: null }));
      expect(named(value!.units[0]!.profile.controls)).toEqual(named(profile.controls));
    }
  });

  it.each([
    ['Kind', 'lever', /settings of .* do not fit its kind, at kind/],
    ['Number', '128', /at number: expected .*at most 127, found 128/],
    ['Number', '', /at number: expected a number, found nothing/],
    ['Settings', 'on', /Expected name=value/],
    ['Rest', '9', /Expected 0 to 1/],
  ])('says what is wrong in %s', (column, cell, wanted) => {
    const text = 'Control,Kind,Number,Settings,Options,Rest\r\nReverb,set-switch,60,on=127; off=0; onFrom=64,,0';
    const unit = demo.units[0]!;
    expect(readControlTable(demo, unit.id, text, newId).problems).toEqual([]);
    expect(said(readControlTable(demo, unit.id, withCell(text, 1, column, cell), newId))).toMatch(wanted);
  });
});

describe('any text at all', () => {
  it('is answered, and what is taken is a sound show', () => {
    const word = fc.oneof(
      fc.constantFrom('Place', 'Name', 'Tone', 'Title', 'Control', 'Kind', 'Unit', ',', ';', '\n', '"', '1|1', 'song'),
      fc.constantFrom(
        ...demo.tones.map((t) => t.name),
        ...demo.songs.map((s) => s.title),
        ...demo.units.map((u) => u.name),
      ),
      fc.string({ maxLength: 8 }),
    );
    const reads = [
      (t: string) => readCueTable(demo, song!.id, t, newId),
      (t: string) => readSetTable(demo, t, newId),
      (t: string) => readToneTable(demo, t, newId),
      (t: string) => readControlTable(demo, demo.units[0]!.id, t, newId),
    ];
    fc.assert(
      fc.property(fc.array(word, { maxLength: 40 }), fc.nat(3), (words, which) => {
        const { value, problems } = reads[which]!(words.join(''));
        if (value) expect(checkShow(value)).toEqual([]);
        else expect(problems.map(problemLine).every((line) => line.length > 10)).toBe(true);
      }),
      runs(816, 400),
    );
  });

  it('is answered where a table was cut or damaged', () => {
    const texts = [writeCueTable(demo, song!), writeToneTable(demo), writeSetTable(demo)];
    fc.assert(
      fc.property(fc.nat(2), fc.nat(), fc.nat(), fc.string({ maxLength: 3 }), (which, cut, at, put) => {
        const whole = texts[which]!;
        const text = whole.slice(0, cut % whole.length);
        const place = at % (text.length + 1);
        const damaged = text.slice(0, place) + put + text.slice(place);
        const read = [
          () => readCueTable(demo, song!.id, damaged, newId),
          () => readToneTable(demo, damaged, newId),
          () => readSetTable(demo, damaged, newId),
        ][which]!();
        expect(read.value !== undefined || read.problems.length > 0).toBe(true);
        if (read.value) expect(checkShow(read.value)).toEqual([]);
      }),
      runs(817, 200),
    );
  });
});

describe('what a spreadsheet made of a name', () => {
  const show = demoShow();
  it('is asked about and makes no new control, nor a new tone', () => {
    const odd = {
      ...show,
      units: show.units.map((u) =>
        u.id === 'tarn'
          ? {
              ...u,
              profile: {
                ...u.profile,
                controls: u.profile.controls.map((c, i) => (i === 0 ? { ...c, name: '007' } : c)),
              },
            }
          : u,
      ),
    };
    const table = writeControlTable(odd.units.find((u) => u.id === 'tarn')!);
    const read = readControlTable(odd, 'tarn', table.replace('007', '7'), () => 'new');
    expect(read.value).toBeUndefined();
    expect(read.problems.map(problemLine)).toEqual([
      'line 2, column 1: "7" looks like what a spreadsheet made of "007". Write "007" there, as text, or say how such names are read.',
    ]);
    const tones = { ...show, tones: show.tones.map((t, i) => (i === 0 ? { ...t, name: '1/2' } : t)) };
    const written = writeToneTable(tones);
    expect(written).toContain('1/2');
    expect(readToneTable(tones, written.replaceAll('1/2', '1-Feb'), () => 'new').problems[0]?.code).toBe('csv.made-of');
  });

  it('is what it was, or what is written, as one says', () => {
    const [first, second] = show.tones;
    const named = {
      ...show,
      tones: [{ ...first!, name: '007' }, { ...second!, name: '10:30' }, ...show.tones.slice(2)],
    };
    const table = writeToneTable(named).replaceAll('007', '7').replaceAll('10:30', '10:30:00 AM');
    const kept = readToneTable(named, table, () => 'new', 'keep').value!;
    expect(compareShows(named, kept)).toEqual([]);
    const taken = readToneTable(named, table, () => 'new', 'take').value!;
    expect(taken.tones.slice(-2).map((t) => t.name)).toEqual(['7', '10:30:00 AM']);
    const song = named.songs.find((s) =>
      s.cues.some((c) => c.action.kind === 'tone' && c.action.toneId === first!.id),
    )!;
    const cues = writeCueTable(named, song).replaceAll('007', '7').replaceAll('10:30', '10:30:00 AM');
    expect(readCueTable(named, song.id, cues, () => 'new', 'keep').value?.songs).toEqual(named.songs);
    expect(readCueTable(named, song.id, cues, () => 'new', 'take').problems[0]?.code).toBe('csv.no-such');
  });

  it('changes nothing where nobody changed anything, breaks and notes neither', () => {
    const { id } = setOf(show);
    const entries = [...setOf(show).entries, { kind: 'note' as const, id: 'n', text: 'Lights down' }];
    const noted = { ...show, sets: show.sets.map((s) => (s.id === id ? { ...s, entries } : s)) };
    expect(readSetTable(noted, writeSetTable(noted), () => 'new').value).toEqual(noted);
  });

  it('is told of a new control whose number another has', () => {
    const unit = show.units.find((u) => u.profile.controls.some((c) => 'number' in c.encoding))!;
    const control = unit.profile.controls.find((c) => 'number' in c.encoding)!;
    const [head, ...lines] = writeControlTable(unit).split('\r\n');
    const line = lines.find((l) => l.startsWith(control.name))!;
    const read = readControlTable(show, unit.id, [head, line.replace(control.name, 'Fresh')].join('\r\n'), () => 'new');
    expect(read.value).toBeDefined();
    expect(read.problems.map((p) => [p.code, p.severity])).toEqual([['csv.number-taken', 'warning']]);
  });
});
