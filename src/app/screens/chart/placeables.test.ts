import { describe, expect, it } from 'vitest';
import { demoShow } from '../../../core/demo';
import { indexOfLabel, labelOf } from '../../../core/addressing';
import { newSlot, newTone, type Cue } from '../../../core/show';
import { placeables, valuesNamed } from './placeables';

const show = demoShow();
const names = (text: string) => placeables(show, text, 'label').map((p) => p.name);

describe('what can be placed', () => {
  it('is found by a part of its name, what begins with it first', () => {
    expect(names('fog')[0]).toBe('Fog Lead');
    expect(names('echo')).toContain('Ledger Echo');
    expect(names('four')).toEqual(['Four taps']);
    expect(names('nothing like that')).toEqual([]);
    expect(placeables(show, '', 'label').length).toBeLessThanOrEqual(40);
  });

  it('may be a control with its value', () => {
    const first = (text: string) => placeables(show, text, 'label')[0]?.does;
    expect(first('tarn mix 40')).toEqual({ kind: 'control', unitId: 'tarn', controlId: 'mix', value: 40 });
    expect(first('harmony on')).toEqual({ kind: 'control', unitId: 'harrow', controlId: 'active', value: 1 });
    expect(first('interval fif')).toMatchObject({ controlId: 'interval', value: 3 });
    expect(first('tarn mix 400')).toBeUndefined();
    expect(first('tarn mix loud')).toBeUndefined();
  });

  it('may be a preset by its label, its number in the counting shown, or its name', () => {
    const quill = show.units.find((u) => u.id === 'quillback')!;
    const h6 = indexOfLabel(quill.profile.plan, 'H6')!;
    const one = (text: string, counting: 'zero' | 'one' | 'label' = 'label') => {
      const found = placeables(show, text, counting).find((p) => !('kind' in p.does) || p.does.kind === 'tone');
      return found?.does;
    };
    // What a tone of just that says already is that tone.
    const direct = (does: ReturnType<typeof one>): unknown =>
      does && 'kind' in does ? wantedParts(does) : does && [does.unitId, does.index, does.variant];
    const wantedParts = (does: Cue['action']): unknown => {
      const tone = does.kind === 'tone' ? show.tones.find((t) => t.id === does.toneId) : undefined;
      const [part] = tone?.parts ?? [];
      return part && [part.unitId, quill.slots.find((s) => s.id === part.slotId)?.index ?? null, part.variant];
    };
    expect(direct(one('qb h6'))).toEqual(['quillback', h6, null]);
    expect(direct(one(`quillback ${h6 + 1}`, 'one'))).toEqual(['quillback', h6, null]);
    expect(direct(one(`qb ${h6}`, 'zero'))).toEqual(['quillback', h6, null]);
    expect(direct(one('qb h6 swell'))).toEqual(['quillback', h6, quill.profile.variants!.names.indexOf('Swell')]);
    expect(direct(one('qb swell'))).toEqual(['quillback', null, quill.profile.variants!.names.indexOf('Swell')]);
  });

  it('are what is called just so before what only begins with it, but for a bare figure or scene', () => {
    const unit = show.units.find((u) => u.id === 'quillback')!;
    const tones = [newTone('t1', 'Halo 2'), newTone('t2', '12 strings'), newTone('t3', 'Bite back')];
    const slots = [...unit.slots, newSlot('halo', 100, 'Halo')];
    const own = { ...show, tones, units: [{ ...unit, slots }] };
    const first = (text: string) => placeables(own, text, 'one')[0]?.name;
    expect(first('halo')).toBe('Halo');
    expect(first('halo 2')).toBe('Halo 2');
    expect(first('12')).toBe('12 strings');
    expect(first('bite')).toBe('Bite back');
    expect(first('qb bite')).toBe('Quillback Bite');
  });

  it('are counted as it is shown, also of a unit whose labels are figures', () => {
    const tarn = show.units.find((u) => u.id === 'tarn')!;
    const index = (text: string, counting: 'zero' | 'one' | 'label') => {
      const [does] = placeables(show, text, counting).map((p) => p.does);
      if (!does) return undefined;
      if (!('kind' in does)) return does.index;
      const part = does.kind === 'tone' ? show.tones.find((x) => x.id === does.toneId)?.parts[0] : undefined;
      return tarn.slots.find((s) => s.id === part?.slotId)?.index;
    };
    // Tarn writes its presets from 000 on.
    expect(labelOf(tarn.profile.plan, 40)).toBe('040');
    expect([index('tarn 40', 'label'), index('tarn 40', 'zero'), index('tarn 40', 'one')]).toEqual([40, 40, 39]);
  });

  it('are those of a unit that is named alone', () => {
    const found = placeables(show, 'qb', 'label');
    expect(found.length).toBeGreaterThan(3);
    expect(found.every((p) => p.aside?.startsWith('Quillback'))).toBe(true);
  });

  it('are offered by their unit where several have what was typed', () => {
    const asides = placeables(show, 'scene 2', 'label').map((p) => p.aside);
    expect(new Set(asides).size).toBe(asides.length);
  });
});

describe('another value for what stands there', () => {
  const action = { kind: 'control', unitId: 'tarn', controlId: 'mix', value: 10 } as const;

  it('is typed by itself, and has to be in the range', () => {
    expect(valuesNamed(show, action, '40').map((p) => p.does)).toEqual([{ ...action, value: 40 }]);
    expect(valuesNamed(show, action, '400')).toEqual([]);
    expect(valuesNamed(show, action, ' ')).toEqual([]);
    expect(valuesNamed(show, { kind: 'tone', toneId: 'x', reload: false }, '40')).toEqual([]);
  });
});
