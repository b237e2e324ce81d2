import { describe, expect, it } from 'vitest';
import { addressOf, bankMessages, indexOfAddress, indexOfLabel, labelOf, slotCount, slotMessages } from '../addressing';
import { BANK_LSB, BANK_MSB, decodeMessage } from '../midi';
import { LIBRARY, libraryEntry, librarySchema } from './';

describe('the library', () => {
  it('is valid, each entry once, each profile named', () => {
    expect(librarySchema.safeParse(LIBRARY).success).toBe(true);
    expect(new Set(LIBRARY.map((e) => e.id)).size).toBe(LIBRARY.length);
    expect(() => libraryEntry('none')).toThrow('no profile "none"');
  });

  /** What a unit would make of messages, from the bytes alone. */
  function heard(bytes: readonly (readonly number[])[], send: string): { bank: number; program: number } {
    let msb = 0;
    let lsb = 0;
    let program = -1;
    for (const b of bytes) {
      const m = decodeMessage(b)!;
      if (m.kind === 'control' && m.control === BANK_MSB) msb = m.value;
      if (m.kind === 'control' && m.control === BANK_LSB) lsb = m.value;
      if (m.kind === 'program') program = m.program;
    }
    return { bank: send === 'both' ? msb * 128 + lsb : send === 'lsb' ? lsb : msb, program };
  }

  it.each(LIBRARY.flatMap((e) => [e.profile, ...e.versions].map((p) => [`${e.id} ${p.firmware}`, p] as const)))(
    'goes label, index, bytes, label unchanged for every slot of %s',
    (_, { plan }) => {
      for (let index = 0; index < slotCount(plan); index++) {
        const label = labelOf(plan, index);
        expect(indexOfLabel(plan, label)).toBe(index);
        const address = addressOf(plan, index);
        if (!address) {
          // Only a table of the unit's own may leave a slot without a program.
          expect(plan.table).not.toBeNull();
          continue;
        }
        const bytes = slotMessages(plan, 5, index, null)!;
        expect(bytes.length).toBe(bankMessages(plan, 5, address.bank).length + 1);
        const back = indexOfAddress(plan, heard(bytes, plan.bank.send));
        expect(back === undefined ? undefined : labelOf(plan, back)).toBe(label);
      }
    },
  );
});
