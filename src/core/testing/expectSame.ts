import { expect } from 'vitest';
import type { RigState } from '../rig';

/** What both states know has to be the same; what the first does not know may be anything. */
export function expectSame(wanted: RigState, is: RigState): void {
  for (const [id, state] of Object.entries(wanted)) {
    const other = is[id]!;
    if (state.slot !== null) expect(other.slot, `${id} slot`).toBe(state.slot);
    // What a preset stores can be brought back only where it is known which.
    const stored = (value: unknown): boolean => value === 'stored' && state.slot === null;
    if (state.variant !== null && !stored(state.variant)) expect(other.variant, `${id} variant`).toBe(state.variant);
    for (const [control, value] of Object.entries(state.controls)) {
      if (stored(value)) continue;
      const real = other.controls[control];
      if (value === 'stored' || typeof real !== 'number') expect(real, `${id} ${control}`).toBe(value);
      // Figures come back as the byte that they became: 100 % in 127 steps.
      else expect(Math.abs(real - value), `${id} ${control}`).toBeLessThan(0.5);
    }
  }
}
