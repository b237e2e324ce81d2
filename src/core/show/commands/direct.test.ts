import { describe, expect, it } from 'vitest';
import { letterPlan } from '../../testing/rigs';
import { newProfile, onOff, newControl } from '../../addressing';
import { emptyShow, newPart, newSlot, newTone, newUnit } from '../builders';
import { applyEdit } from '../edits';
import type { Show } from '../schema';
import { directTone, type Direct } from './direct';

const profile = {
  ...newProfile('Two scenes', letterPlan),
  variants: { word: 'scene', names: ['Dry', ''], encoding: onOff(30) },
  controls: [newControl('mix', 'Mix', onOff(31))],
};
const unit = newUnit('u', 'Grey box', 'GB', profile, { slots: [newSlot('bite', 2, 'Bite')] });
const show: Show = { ...emptyShow('s', 'Show'), units: [unit] };

let n = 0;
const newId = (): string => `new-${n++}`;
const made = (from: Show, wanted: Omit<Direct, 'unitId'>): Show => {
  const tone = directTone(from, { unitId: 'u', ...wanted }, newId)!;
  return tone.edits.reduce((s, e) => applyEdit(s, e), from);
};
const named = (from: Show, index: number | null, variant: number | null): string | undefined =>
  directTone(from, { unitId: 'u', index, variant }, newId)?.name;

describe('a preset or variant that is wanted by itself', () => {
  it('becomes a tone of just that, named after it', () => {
    const after = made(show, { index: 2, variant: null });
    expect(after.tones.map((t) => [t.name, t.parts])).toEqual([['Bite', [newPart('u', { slotId: 'bite' })]]]);
    expect(named(show, 2, 0)).toBe('Bite Dry');
    expect(named(show, null, 0)).toBe('Grey box Dry');
    expect(named(show, null, 1)).toBe('Grey box scene 2');
  });

  it('enters a preset that nobody named into the list, and is called by its label', () => {
    const after = made(show, { index: 0, variant: null });
    expect(after.units[0]!.slots.map((s) => [s.index, s.name])).toEqual([
      [0, ''],
      [2, 'Bite'],
    ]);
    expect(after.tones[0]!.parts[0]!.slotId).toBe(after.units[0]!.slots[0]!.id);
    expect(after.tones[0]!.name).toMatch(/^GB /);
  });

  it('is found again, also when it has another name by now', () => {
    const once = made(show, { index: 2, variant: 1 });
    const [tone] = once.tones;
    const renamed = { ...once, tones: [{ ...tone!, name: 'Chorus sound' }] };
    const again = directTone(renamed, { unitId: 'u', index: 2, variant: 1 }, newId);
    expect(again).toEqual({ toneId: tone!.id, name: 'Chorus sound', edits: [] });
    // The same preset without the variant is something else.
    expect(directTone(renamed, { unitId: 'u', index: 2, variant: null }, newId)?.edits).not.toEqual([]);
  });

  it('is not mistaken for a tone that wants more', () => {
    const parts = [newPart('u', { slotId: 'bite', controls: [{ controlId: 'mix', value: 1 }] })];
    const other = { ...show, tones: [newTone('t', 'Wet bite', parts)] };
    expect(made(other, { index: 2, variant: null }).tones).toHaveLength(2);
  });

  it('is told apart from a tone that has its name', () => {
    const other = { ...show, tones: [newTone('t', 'bite')] };
    expect(named(other, 2, null)).toBe('GB Bite');
    expect(named({ ...other, tones: [...other.tones, newTone('t2', 'GB Bite')] }, 2, null)).toBe('GB Bite 2');
  });

  it('is nothing where the unit has no such preset or variant', () => {
    expect(directTone(show, { unitId: 'u', index: 1e6, variant: null }, newId)).toBeNull();
    expect(directTone(show, { unitId: 'u', index: -1, variant: null }, newId)).toBeNull();
    expect(directTone(show, { unitId: 'u', index: null, variant: 2 }, newId)).toBeNull();
    expect(directTone(show, { unitId: 'u', index: null, variant: null }, newId)).toBeNull();
    expect(directTone(show, { unitId: 'gone', index: 0, variant: null }, newId)).toBeNull();
  });
});
