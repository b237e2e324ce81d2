import { describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { UNKNOWN_STATE } from '../../core/rig';
import { DENSITIES, ROOMY } from './density';
import { isQuiet, stateName, type Lane } from './lanes';
import { layoutChart } from './layout';
import { lineShape } from './lineShape';

const show = demoShow();
const song = show.songs[0]!;
const lines = layoutChart(song, 900, 28);
const unit = show.units[0]!;
const lane = (id: string, rest: Partial<Lane> = {}): Lane => ({
  id,
  unit,
  name: 'Ines',
  index: 0,
  hushed: false,
  bracket: null,
  first: false,
  last: false,
  before: undefined,
  changes: [],
  messages: [],
  sweeps: [],
  ...rest,
});
const busy = lane('busy', { messages: [0] });

describe('a line', () => {
  it('gives a row to lanes in which something happens, and one thin row to all others', () => {
    const shape = (lanes: Lane[]) => lineShape(lines[1]!, lanes, [0], song.tempo, false, ROOMY);
    const both = shape([busy, lane('a'), lane('b')]);
    expect(both.active).toEqual([busy]);
    expect(both.quiet.map((l) => l.id)).toEqual(['a', 'b']);
    expect(both.bottom - both.lanesTop).toBe(ROOMY.lane + ROOMY.thin);
    expect(shape([busy, busy]).height - shape([busy]).height).toBe(ROOMY.lane);
    expect(shape([busy]).bottom).toBe(shape([busy]).quietTop);
  });

  it('is lower without flags, and higher with rows of them', () => {
    const height = (rows: number[], opening = false) => lineShape(lines[1]!, [], rows, [], opening, ROOMY).height;
    expect(height([])).toBeLessThan(height([0]));
    expect(height([], true)).toBe(height([0]));
    expect(height([0, 1]) - height([0])).toBe(ROOMY.flag);
  });

  it('gets lower with each density', () => {
    const heights = DENSITIES.map((d) => lineShape(lines[0]!, [busy, lane('a')], [0], song.tempo, true, d).height);
    expect(heights).toEqual(heights.toSorted((a, b) => b - a));
    expect(new Set(heights).size).toBe(DENSITIES.length);
  });
});

describe('a lane', () => {
  it('is quiet when nothing changes, is sent or sweeps', () => {
    expect(isQuiet(lane('a'))).toBe(true);
    expect(isQuiet(busy)).toBe(false);
    expect(isQuiet(lane('a', { sweeps: [{ id: 's', sweep: song.sweeps[0]!, label: '' }] }))).toBe(false);
    expect(isQuiet(lane('a', { changes: [{ at: 0, cueId: 'c', state: UNKNOWN_STATE }] }))).toBe(false);
  });

  it('names what its unit is on, by name or by number', () => {
    const state = { ...UNKNOWN_STATE, slot: 2, variant: 1 };
    expect(stateName(unit, state, 'label')).toBe('Harbour Clean · Body');
    expect(stateName(unit, state, 'zero')).toBe('0·002 · 1');
    expect(stateName(unit, UNKNOWN_STATE, 'label')).toBe('');
  });
});
