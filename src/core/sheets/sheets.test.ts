import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { actionCue, emptyShow, newCall, songsOfSet } from '../show';
import { SHEET_KINDS, sheetCsv, sheetsOf, type SheetKind, type SheetTable } from './';
import { tonightOf } from '../tonight';

const show = demoShow();
const tables = (kind: SheetKind, nth = 0): SheetTable[] =>
  sheetsOf(tonightOf(show), kind)[nth]!.parts.filter((p): p is SheetTable => p.kind === 'table');

describe('sheets of paper', () => {
  it.each(SHEET_KINDS)('of the kind %s are whole: every row as long as its head, every name said', (kind) => {
    const sheets = sheetsOf(tonightOf(show), kind);
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
    expect(sheetsOf(tonightOf(emptyShow('e', 'Empty')), kind)).toEqual([]);
  });

  it('say of a song each change with its printed bar, its time, and what each player goes to', () => {
    const [changes] = tables('cues');
    expect(changes!.columns.map((c) => c.head)).toEqual(['Bar', 'Time', 'Sound', 'Ines', 'Okoro', 'Maude', 'Section']);
    expect(changes!.rows[0]!.slice(0, 3)).toEqual(['before', '', 'Still Water']);
    expect(changes!.rows[1]!.slice(0, 4)).toEqual(['5|1', '0:07', 'Harbour Clean', 'QB A3 Body, HA 001, TE 01-1']);
    const lead = changes!.rows.find((r) => r[2] === 'Fog Lead')!;
    expect(lead[3]).toContain('QB H6 Bite');
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
    const own = { ...song, sweeps: [], remarks, calls };
    const sheet = sheetsOf(tonightOf({ ...show, songs: [own, ...show.songs.slice(1)] }), 'cues')[0]!;
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
    const sheet = sheetsOf(tonightOf({ ...show, sets: [{ ...set!, entries }] }), 'set')[0]!;
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
      const chart = sheetsOf(tonightOf(show), 'numbers', counting).find((s) => s.title === 'Quillback')!;
      const presets = chart.parts[0] as SheetTable;
      return presets.rows.find((r) => r[0] === 'H6')!.join(' ');
    };
    expect(programs('zero')).toBe('H6 Fog Lead 0 47');
    expect(programs('one')).toBe('H6 Fog Lead 1 48');
    expect(programs('label')).toBe('H6 Fog Lead 0 47');
    const chart = sheetsOf(tonightOf(show), 'numbers').find((s) => s.title === 'Quillback')!;
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

  it('come as CSV too, where a cell is never a formula', () => {
    const odd = { ...show, tones: [{ ...show.tones[0]!, name: '=SUM(A1)', notes: 'a "quoted", note' }] };
    const text = sheetCsv(sheetsOf(tonightOf(odd), 'tones'));
    const { data } = Papa.parse<string[]>(text);
    expect(data[0]).toEqual(['Tone sheet', 'Winter Pier Residency', 'Tones']);
    expect(data[2]![0]).toBe("'=SUM(A1)");
    expect(data[2]!.at(-1)).toBe('a "quoted", note');
    expect(sheetCsv(sheetsOf(tonightOf(show), 'strips'))).toContain('Harbour Clean');
  });
});
