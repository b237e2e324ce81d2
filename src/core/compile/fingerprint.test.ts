import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import {
  applyEdit,
  changeCue,
  invertEdit,
  messageCue,
  placeCue,
  putSweep,
  renameTone,
  setClock,
  setTolerance,
  setUnitField,
  type Edit,
  type Show,
} from '../show';
import { songWants } from '../meaning';
import { runs } from '../testing/runs';
import { randomShow } from '../testing/randomShow';
import { compileSong } from './compileSong';
import { fingerprints } from './fingerprint';

const show = demoShow();
const song = show.songs[0]!;
const fingerprintsOf = (s: Show, i = 0): ReadonlyMap<string, string> =>
  fingerprints(s, compileSong(s, s.songs[i]!), songWants(s, s.songs[i]!), 'engine');
const changedBy = (edit: Edit | null): string[] => {
  const after = fingerprintsOf(applyEdit(show, edit!));
  const before = fingerprintsOf(show);
  return [...after.keys()].filter((id) => after.get(id) !== before.get(id));
};

describe('fingerprints', () => {
  it('are one a cue, the opening, sweeps and taps included, and no two alike', () => {
    const all = fingerprintsOf(show);
    expect(all.size).toBe(song.cues.length + song.sweeps.length + song.taps.length + 1);
    expect(new Set(all.values()).size).toBe(all.size);
  });

  it('come out the same every time', () => {
    expect(fingerprintsOf(demoShow())).toEqual(fingerprintsOf(show));
  });

  it('change with a hundredth of a millisecond, and with a fine value of a control', () => {
    expect(changedBy(changeCue(show, song.id, song.cues[4]!.id, { shift: 0.01 }))).toContain(song.cues[4]!.id);
    const { id, shape } = song.sweeps[0]!;
    if (shape.kind !== 'wave') throw new Error('the sweep of the demo is a wave');
    const lower = { ...song.sweeps[0]!, shape: { ...shape, high: shape.high - 1 } };
    expect(changedBy(putSweep(show, song.id, lower))).toContain(id);
  });

  it('go with what is on time, and come back with it', () => {
    const strict = setTolerance(show, { after: 1, before: 100 })!;
    expect(changedBy(strict)).toHaveLength(fingerprintsOf(show).size);
    const there = applyEdit(show, strict);
    expect(fingerprintsOf(applyEdit(there, invertEdit(strict)))).toEqual(fingerprintsOf(show));
  });

  it('do not change with names', () => {
    expect(changedBy(renameTone(show, 'fog-lead', 'Another name'))).toEqual([]);
    expect(changedBy(setUnitField(show, 'quillback', 'name', 'Another'))).toEqual([]);
    expect(changedBy(setUnitField(show, 'quillback', 'spare', 'the old one'))).toEqual([]);
  });

  it('of a clock change with what holds it up', () => {
    const clocked = applyEdit(show, setClock(show, song.id, 'rack', 'clock')!);
    const before = fingerprintsOf(clocked).get('clock');
    expect(before).toBeDefined();
    const withFingerprint = (bytes: string): string | undefined =>
      fingerprintsOf(
        applyEdit(clocked, placeCue(clocked, song.id, messageCue('new', 2 * 3360, 'quillback', bytes))!),
      ).get('clock');
    // A program change fits between two clocks; a tenth of a second of data does not.
    expect(withFingerprint('c003')).toBe(before);
    expect(withFingerprint(`f07d${'11'.repeat(300)}f7`)).not.toBe(before);
  });

  it('never stay when what is sent or wanted for a cue is another, on random shows', () => {
    fc.assert(
      fc.property(randomShow(960), fc.nat(11), fc.integer({ min: 1, max: 400 }), ({ show: s, song: of }, at, shift) => {
        const cue = of.cues[at % of.cues.length]!;
        const edit = changeCue(s, of.id, cue.id, { shift });
        if (!edit) return;
        const [a, b] = [fingerprintsOf(s), fingerprintsOf(applyEdit(s, edit))];
        // A cue that wants nothing of any unit has none.
        if (a.has(cue.id)) expect(b.get(cue.id)).not.toBe(a.get(cue.id));
      }),
      runs(38, 60),
    );
  });
});
