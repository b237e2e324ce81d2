import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { labelOf } from '../addressing';
import { demoShow } from '../demo';
import { actionCue, emptyShow, newCall, songsOfSet, type Show } from '../show';
import { SHEET_KINDS, sheetCsv, type SheetKind, type SheetTable } from './';
import { paperOf } from '../testing/sheets';

const show = demoShow();
/** A night on which everything is odd that a sheet is about. */
const odd: Show = {
  ...show,
  accepted: [{ key: 'rig', says: 'a port that nothing hangs on', reason: 'it is for tomorrow' }],
  sets: show.sets.map((s) => ({
    ...s,
    missing: [show.players[0]!.id],
    tonight: [{ how: 'spare', unitId: 'tarn', channel: 9, firmware: '' }],
    entries: s.entries.map((e, i) =>
      e.kind === 'song' && i === 0 ? { ...e, launch: { portId: 'feet', bytes: 'C104', does: 'start' as const } } : e,
    ),
  })),
};
const tables = (kind: SheetKind, nth = 0): SheetTable[] =>
  paperOf(show, kind)[nth]!.parts.filter((p): p is SheetTable => p.kind === 'table');

describe('sheets of paper', () => {
  it.each(SHEET_KINDS)('of the kind %s are whole: every row as long as its head, every name said', (kind) => {
    const sheets = paperOf(odd, kind);
    expect(sheets.length).toBeGreaterThan(0);
    expect(new Set(sheets.map((s) => s.id)).size).toBe(sheets.length);
    for (const { title, parts } of sheets) {
      expect(title).not.toBe('');
      for (const part of parts) {
        if (part.kind === 'table') for (const row of part.rows) expect(row).toHaveLength(part.columns.length);
        if (part.kind === 'strips') expect(part.rows.every((r) => r.length * part.pitch <= 190)).toBe(true);
      }
    }
  });

  it.each(SHEET_KINDS)('of the kind %s are none, or say so, where the show is empty', (kind) => {
    expect(paperOf(emptyShow('e', 'Empty'), kind)).toEqual([]);
  });

  it('say of a song each change with its printed bar, its time, and what each player goes to', () => {
    const [changes] = tables('cues');
    expect(changes!.columns.map((c) => c.head)).toEqual(['Bar', 'Time', 'Sound', 'Ines', 'Okoro', 'Maude', 'Section']);
    expect(changes!.rows[0]!.slice(0, 3)).toEqual(['before', '', 'Still Water']);
    expect(changes!.rows[1]!.slice(0, 4)).toEqual([
      '5|1',
      '0:07',
      'Harbour Clean',
      'Quillback A3 Body, Harrow 001, Thistle Echo 01-1, Oxbow Forty state 1',
    ]);
    expect(changes!.tight![1]![3]).toBe('QB A3 Body, HA 001, TE 01-1, OX state 1');
    const lead = changes!.rows.find((r) => r[2] === 'Fog Lead')!;
    expect(lead[3]).toContain('Quillback H6 Bite');
    expect(changes!.rows.map((r) => r[2])).toEqual(expect.arrayContaining(['Metre 4/4', 'Metre 7/8']));
    expect(changes!.rows.some((r) => r[2]!.includes('moved until'))).toBe(true);
  });

  it('say of a song its remarks and calls, and values with their figure', () => {
    const song = {
      ...show.songs[0]!,
      cues: [actionCue('c', 3840, { kind: 'control', unitId: 'tarn', controlId: 'mix', value: 40 })],
    };
    const remarks = [{ id: 'r', at: 7680, text: 'wait for the harp', onStage: false }];
    const calls = [
      { id: 'a', bar: 9, call: newCall({ text: 'Solo', count: 2 }) },
      { id: 'b', bar: 11, call: newCall({ how: 'count', count: 1 }) },
    ];
    const own = { ...song, metre: [song.metre[0]!], sweeps: [], remarks, calls };
    const sheet = paperOf({ ...show, songs: [own, ...show.songs.slice(1)] }, 'cues')[0]!;
    const rows = sheet.parts.flatMap((p) => (p.kind === 'table' ? p.rows : []));
    expect(rows.map((r) => r[2])).toEqual([
      'Still Water',
      'Tarn: Mix 40 %',
      '“wait for the harp”',
      'Call: “Solo”, 2 bars counted',
      'Call: 1 bar counted',
    ]);
    expect(rows.slice(3).map((r) => r[0])).toEqual(['9|1', '11|1']);
  });

  it('have what starts the songs of the set, where messages do', () => {
    expect(tables('set')[0]!.columns.map((c) => c.head)).not.toContain('Starts by');
    const [set] = show.sets;
    const launch = { portId: 'feet', bytes: 'C104', does: 'start' as const };
    const entries = set!.entries.map((e, i) => (i === 0 && e.kind === 'song' ? { ...e, launch } : e));
    const sheet = paperOf({ ...show, sets: [{ ...set!, entries }] }, 'set')[0]!;
    const [order] = sheet.parts.filter((p): p is SheetTable => p.kind === 'table');
    const started = order!.rows.map((r) => r[order!.columns.findIndex((c) => c.head === 'Starts by')]);
    expect(started[0]).toBe(`program 4 from 0, channel 2, ${show.ports.find((p) => p.id === 'feet')!.name}`);
    expect(started.slice(1).every((s) => s === '')).toBe(true);
  });

  it('have the set with clock times, its break, and what follows', () => {
    const [order] = tables('set');
    expect(order!.rows[0]!.slice(0, 3)).toEqual(['1', 'Slack Tide in Seven', '20:30']);
    expect(order!.rows.filter((r) => r[4] === 'break')).toHaveLength(1);
    expect(order!.rows.some((r) => r[4]!.startsWith('goes on after'))).toBe(true);
    expect(order!.rows.filter((r) => r[0] !== '')).toHaveLength(songsOfSet(show).length);
  });

  it('have a unit’s numbers in the chosen counting', () => {
    const programs = (counting: 'zero' | 'one' | 'label'): string | undefined => {
      const chart = paperOf(show, 'numbers', { counting }).find((s) => s.title === 'Quillback')!;
      const presets = chart.parts[0] as SheetTable;
      return presets.rows.find((r) => r[0] === 'H6')!.join(' ');
    };
    expect(programs('zero')).toBe('H6 Fog Lead 0 47');
    expect(programs('one')).toBe('H6 Fog Lead 1 48');
    expect(programs('label')).toBe('H6 Fog Lead 0 47');
    const chart = paperOf(show, 'numbers').find((s) => s.title === 'Quillback')!;
    expect((chart.parts[1] as SheetTable).rows[2]).toEqual(['3', 'Bite', 'B0 55 02']);
  });

  it('have every cable, with spares, and those of the emergency wiring', () => {
    const [cables, boat] = tables('patch');
    expect(cables!.rows.flat()).toContain('The grey cable in the lid');
    expect(boat!.name).toContain('Treadle Ten instead');
    expect(boat!.rows[0]!.slice(1, 4)).toEqual(['Treadle Ten', 'out', 'Harrow']);
  });

  it('have each song by foot, and the states that have to be stored', () => {
    const [steps] = tables('fallback');
    expect(steps!.rows[0]).toEqual(['before', 'Still Water', 'page 02 Slack Tide', 'Switch 7']);
    const [states] = tables('stored');
    expect(states!.rows[0]!.slice(0, 4)).toEqual(['☐', 'state 1', 'Clean channel, loop off', '0']);
  });

  it('are read from the floor: titles and sounds with their bars, and nothing else', () => {
    const [set] = paperOf(show, 'set', { use: 'floor' });
    const [order] = set!.parts as SheetTable[];
    expect(set!.type.least).toBe(30);
    expect(order!.columns.filter((c) => !c.spare).map((c) => c.head)).toEqual(['No.', 'Title']);
    expect(order!.rows[0]!.slice(0, 2)).toEqual(['1', 'Slack Tide in Seven']);
    const [cues] = paperOf(show, 'cues', { use: 'floor' });
    const [changes] = cues!.parts as SheetTable[];
    expect(cues!.type.least).toBe(18);
    expect(changes!.rows.slice(0, 2)).toEqual([
      ['before', 'Still Water', ''],
      ['5|1', 'Harbour Clean', ''],
    ]);
    // Sweeps are nothing that a foot or a hand does.
    expect(changes!.rows.flat().join()).not.toContain('moved until');
    expect(paperOf(show, 'patch', { use: 'floor' })).toEqual(paperOf(show, 'patch'));
  });

  it('say of a tempo that moves where from and to, and of a long recording that it does', () => {
    const mark = (at: number, bpm: number, rampTo: number | null = null) => ({ at, bpm, beat: 1, rampTo });
    const bare = { ...show.songs[0]!, metre: [show.songs[0]!.metre[0]!], cues: [], sweeps: [], remarks: [], calls: [] };
    const told = (tempo: Show['songs'][number]['tempo']): string[] => {
      const sheet = paperOf({ ...show, songs: [{ ...bare, tempo }, ...show.songs.slice(1)] }, 'cues')[0]!;
      return [...(sheet.parts[0] as SheetTable).rows.map((r) => r[2]!), sheet.about.split(', ').slice(1, 3).join()];
    };
    expect(told([mark(0, 120), mark(3840, 132, 57), mark(7680, 57), mark(9600, 80.5)])).toEqual([
      'Still Water',
      'Tempo from 132 to 57',
      'Tempo 80.5',
      '120 beats a minute,44 bars',
    ]);
    const followed = Array.from({ length: 60 }, (_, i) => mark(i * 480, 120 + i / 10));
    expect(told(followed)).toEqual(['Still Water', '120 beats a minute,tempo moves throughout']);
  });

  it('have the unit that relays of relays reach, and not what a tone calls itself', () => {
    const [a, b, c] = show.units.filter((u) => u.slots.length > 1);
    const rule = (id: string, from: typeof a, to: typeof a) => ({
      id,
      when: { slotId: from!.slots[0]!.id, variant: null },
      toUnitId: to!.id,
      toSlotId: to!.slots[0]!.id,
    });
    const units = show.units.map((u) => ({
      ...u,
      playerId: null,
      relays: u.id === a!.id ? [rule('1', a, b)] : u.id === b!.id ? [rule('2', b, c)] : [],
    }));
    const part = (u: typeof a, slot: number) => ({
      unitId: u!.id,
      slotId: u!.slots[slot]!.id,
      variant: null,
      controls: [],
      effects: [],
    });
    const of = (parts: ReturnType<typeof part>[]): string => {
      const tone = { ...show.tones[0]!, parts };
      const song = { ...show.songs[0]!, openingToneId: tone.id, cues: [], sweeps: [] };
      const made = {
        ...show,
        units,
        tones: [tone],
        songs: [song],
        sets: [{ ...show.sets[0]!, entries: [{ ...show.sets[0]!.entries[0]!, songId: song.id }] }],
      };
      return (paperOf(made, 'cues')[0]!.parts[0] as SheetTable).tight![0]![3]!;
    };
    const label = (u: typeof a, slot: number): string =>
      `${u!.monogram} ${labelOf(u!.profile.plan, u!.slots[slot]!.index)}`;
    expect(of([part(a, 0)])).toBe([label(a, 0), label(b, 0), label(c, 0)].join(', '));
    expect(of([part(a, 0), part(c, 1)])).toBe([label(a, 0), label(c, 1), label(b, 0)].join(', '));
    expect(of([part(a, 1)])).toBe(label(a, 1));
  });

  it('say what a foot reaches without an emergency cable', () => {
    const [controller] = show.feet;
    const bare = { ...show, feet: show.feet.map((f) => ({ ...f, boat: [] })) };
    const of = (made: Show): string => paperOf(made, 'fallback').find((s) => s.id.includes(controller!.id))!.about;
    expect(of(show)).not.toContain('emergency');
    expect(of(bare)).toMatch(/without the computer the controller reaches /);
    const behind = show.units.find((u) => u.id !== controller!.id)!;
    const units = show.units.map((u) =>
      u.id === behind.id
        ? { ...u, input: { from: 'unit' as const, unitId: controller!.id, thru: false } }
        : { ...u, input: null },
    );
    expect(of({ ...bare, units })).toContain(`reaches ${behind.name}.`);
    expect(of({ ...bare, units: units.map((u) => ({ ...u, input: null })) })).toContain('reaches nothing.');
  });

  it('have what the show reacts to, always and by song', () => {
    const [reaction] = show.reactions;
    const made = {
      ...show,
      reactions: [reaction!, { ...reaction!, id: 'own', name: 'Own', on: false, songId: show.songs[1]!.id }],
    };
    const [pads] = paperOf(made, 'pads');
    expect(pads!.parts.map((p) => (p as SheetTable).name)).toEqual(['Always', show.songs[1]!.title]);
    expect((pads!.parts[1] as SheetTable).rows[0]!.at(-1)).toContain('(switched off)');
  });

  it('have the ports with what hangs on them and who plays it, what starts songs, and what differs tonight', () => {
    const [ports] = paperOf(show, 'ports');
    const rows = (ports!.parts[0] as SheetTable).rows;
    expect(rows).toHaveLength(show.ports.length);
    const all = new Set(rows.flatMap((r) => r[4]!.split(', ')));
    // Oxbow Forty hears Quillback and no port.
    for (const u of show.units)
      expect([u.name, all.has(u.name)]).toEqual([u.name, u.input !== null && u.name !== 'Oxbow Forty']);
    const starts = paperOf(odd, 'starts')[0]!.parts[0] as SheetTable;
    expect(starts.rows).toEqual([['Slack Tide in Seven', 'program 4 from 0, channel 2', 'C104', 'Feet', 'starts it']]);
    const differs = paperOf(odd, 'tonight')[0]!.parts[0] as SheetTable;
    expect(differs.rows.map((r) => r[2]!.split(':')[0])).toEqual(['a spare on channel 9', 'missing']);
    expect((paperOf(odd, 'accepted')[0]!.parts[0] as SheetTable).rows[0]!.at(-1)).toBe('it is for tomorrow');
  });

  it('come as CSV too, where a cell is never a formula', () => {
    const strange = { ...show, tones: [{ ...show.tones[0]!, name: '=SUM(A1)', notes: 'a "quoted", note' }] };
    const text = sheetCsv(paperOf(strange, 'tones'));
    const { data } = Papa.parse<string[]>(text);
    expect(data[0]).toEqual(['Tone sheet', 'Winter Pier Residency', 'Tones']);
    expect(data[2]![0]).toBe("'=SUM(A1)");
    expect(data[2]!.at(-1)).toBe('a "quoted", note');
    expect(sheetCsv(paperOf(show, 'strips'))).toContain('Harbour Clean');
  });
});
