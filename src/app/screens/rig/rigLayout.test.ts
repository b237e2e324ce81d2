import { describe, expect, it } from 'vitest';
import { demoShow } from '../../../core/demo';
import type { Show } from '../../../core/show';
import { cablePath, layOutRig } from './rigLayout';

const show = demoShow();

describe('the drawing of the rig', () => {
  it('gives every port and unit a place of its own', () => {
    const { ports, units, width, height } = layOutRig(show);
    const places = [...ports, ...units].map((b) => `${b.x} ${b.y}`);
    expect(new Set(places).size).toBe(show.ports.length + show.units.length);
    for (const b of [...ports, ...units]) {
      expect(b.x).toBeLessThan(width);
      expect(b.y).toBeLessThan(height);
    }
  });

  it('draws every cable once, chains to the right', () => {
    const { cables } = layOutRig(show);
    const inputs = show.units.filter((u) => u.input !== null).length;
    expect(cables.filter((c) => c.which === 'input')).toHaveLength(inputs);
    expect(cables.filter((c) => c.which === 'returns')).toHaveLength(show.units.filter((u) => u.returns).length);
    for (const c of cables) if (c.which === 'input') expect(c.to.x).toBeGreaterThan(c.from.x);
    for (const c of cables) expect(cablePath(c)).not.toContain('NaN');
  });

  it('stands a circle of units, and units on nothing, somewhere', () => {
    const ring: Show = {
      ...show,
      units: show.units.map((u) => {
        if (u.id === 'tarn') return { ...u, input: { from: 'unit', unitId: 'harrow', thru: true } };
        if (u.id === 'harrow') return { ...u, input: { from: 'unit', unitId: 'tarn', thru: true } };
        return { ...u, input: null };
      }),
    };
    expect(layOutRig(ring).units).toHaveLength(show.units.length);
    expect(layOutRig({ ...show, units: [], ports: [] })).toMatchObject({ units: [], cables: [], height: 0 });
  });
});
