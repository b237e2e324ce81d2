import { describe, expect, it } from 'vitest';
import { differenceWords } from '../../wording';
import { demoShow } from '../demo';
import { newPart, newTone } from '../show';
import { compareTones } from './compareTones';

const show = demoShow();
const tone = (id: string) => show.tones.find((t) => t.id === id)!;

describe('two tones', () => {
  it('do not differ from themselves', () => {
    for (const t of show.tones) expect(compareTones(show, t, t)).toEqual([]);
  });

  it('differ in slot, variant and values, and in what relay rules bring', () => {
    const a = newTone('a', 'A', [
      newPart('quillback', { slotId: 'quillback-h6', variant: 2 }),
      newPart('tarn', { controls: [{ controlId: 'mix', value: 20 }] }),
    ]);
    const b = newTone('b', 'B', [newPart('quillback', { slotId: 'quillback-b1', variant: 2 })]);
    const words = compareTones(show, a, b).map((d) => differenceWords(show, d));
    expect(words).toContain('Quillback: H6 Fog Lead / B1 Ledger Rhythm');
    expect(words).toContain('Tarn: Mix 20 % / as it is');
    const reached = compareTones(show, a, newTone('c', 'C'));
    expect(reached.map((d) => d.unitId)).toContain('quillback');
  });

  it('are told in the order of the rig', () => {
    const order = show.units.map((u) => u.id);
    const places = compareTones(show, tone('fog-lead'), tone('ledger-rhythm')).map((d) => order.indexOf(d.unitId));
    expect(places).toEqual(places.toSorted((x, y) => x - y));
    expect(places.length).toBeGreaterThan(0);
  });
});
