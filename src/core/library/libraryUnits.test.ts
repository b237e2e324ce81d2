import { describe, expect, it } from 'vitest';
import { decodeValue, encodeValue, keepsOf, planProblems, valueRange, type Profile } from '../addressing';
import { checkRig } from '../checks';
import { decodeMessage, type Message } from '../midi';
import { checkShow, emptyShow, newPort, newUnit, type Show } from '../show';
import { LIBRARY } from './';
import { tonightOf } from '../tonight';

const profiles = LIBRARY.flatMap((e) =>
  [e.profile, ...e.versions].map((p) => [`${e.id} ${p.firmware}`.trim(), p] as const),
);
const showOf = (profile: Profile): Show => ({
  ...emptyShow('x', 'X'),
  ports: [newPort('p', 'Port', 'din')],
  units: [newUnit('u', 'Unit', 'UN', profile, { input: { from: 'port', portId: 'p' } })],
});

/** What a unit reads from messages one after the other, as it would from a cable. */
function read(encoding: Profile['controls'][number]['encoding'], value: number): number | undefined {
  const memory = new Map<number, number>();
  let last: number | undefined;
  for (const bytes of encodeValue(encoding, 3, value)) {
    const message = decodeMessage(bytes) as Message;
    const decoded = decodeValue(encoding, message, memory);
    if (typeof decoded === 'number') last = decoded;
    if (message.kind === 'control') memory.set(message.control, message.value);
  }
  return last;
}

describe.each(profiles)('%s', (_, profile) => {
  it('makes a show that is sound, with nothing wrong in its map', () => {
    const show = showOf(profile);
    expect(checkShow(show)).toEqual([]);
    expect(planProblems(profile.plan)).toEqual([]);
    expect(checkRig(tonightOf(show)).filter((f) => f.code.startsWith('map.'))).toEqual([]);
  });

  it('reads every value of every control back as it was sent', () => {
    for (const { name, encoding } of profile.controls) {
      if (keepsOf(encoding) !== 'value') continue;
      const { low, high, step } = valueRange(encoding);
      const values =
        step === 0 ? [low, (low + high) / 2, high] : Array.from({ length: high - low + 1 }, (__, i) => low + i);
      for (const value of values) {
        const back = read(encoding, value);
        // A figure comes back to within one step of the wire.
        const grain = step === 0 ? Math.abs(high - low) / 100 : 0;
        expect(Math.abs(back! - value), `${name} ${value}`).toBeLessThanOrEqual(grain + 1e-9);
      }
    }
  });

  it('tells its variants apart', () => {
    const { variants } = profile;
    if (!variants) return;
    const heard = variants.names.map((__, i) => read(variants.encoding, i));
    expect(heard).toEqual(variants.names.map((__, i) => i));
  });

  it('names only controls that it has, and rests within their range', () => {
    const ids = new Set(profile.controls.map((c) => c.id));
    for (const { cut, ring } of profile.effects) {
      expect(ids.has(cut)).toBe(true);
      expect(ring === null || ids.has(ring)).toBe(true);
    }
    expect(profile.engage === null || ids.has(profile.engage)).toBe(true);
    for (const { rest, encoding, name } of profile.controls) {
      if (rest === null) continue;
      const { low, high } = valueRange(encoding);
      expect(rest >= low && rest <= high, name).toBe(true);
    }
  });
});
