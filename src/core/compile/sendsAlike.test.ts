import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newControl, onOff, slotCount, exactly } from '../addressing';
import { sendsAlike, surroundingsOf } from '../meaning';
import { toHex } from '../midi';
import { checkShow, type Show, type Slot, type Song, type Unit, newSlot } from '../show';
import { randomShow } from '../testing/randomShow';
import { runs } from '../testing/runs';
import { compileSong } from './';

const sent = (show: Show, song: Song): string[] =>
  compileSong(show, song).events.map((e) => `${e.at.toFixed(4)} ${e.unitId} ${toHex(e.bytes)}`);
const alike = (song: Song, a: Show, b: Show): boolean => sendsAlike(song, surroundingsOf(a), surroundingsOf(b));

const each = (show: Show, change: (unit: Unit, index: number) => Unit): Show => ({
  ...show,
  units: show.units.map(change),
});
const freePlace = (unit: Unit): number | undefined =>
  Array.from({ length: slotCount(unit.profile.plan) }, (_, i) => i).find((i) => !unit.slots.some((s) => s.index === i));
const slotAt = (index: number): Slot => newSlot('new-slot', index, 'New');

/** What comes along beside what is there. */
const beside: readonly ((show: Show) => Show)[] = [
  (show) => ({
    ...show,
    units: [...show.units, { ...show.units[0]!, id: 'new-unit', name: 'New', input: null, returns: null, relays: [] }],
  }),
  (show) => {
    const [first] = show.units;
    return { ...show, units: [...show.units, { ...first!, id: 'twin', name: 'Twin', returns: null, relays: [] }] };
  },
  (show) =>
    each(show, (unit) => {
      const index = freePlace(unit);
      return index === undefined
        ? unit
        : { ...unit, slots: [...unit.slots, slotAt(index)].toSorted((a, b) => a.index - b.index) };
    }),
  (show) =>
    each(show, (unit) => ({
      ...unit,
      profile: { ...unit.profile, controls: [...unit.profile.controls, newControl('new', 'New', onOff(119))] },
    })),
];

/** What changes something that is there: of a unit that the song may use, or may not. */
const within: readonly ((show: Show, at: number) => Show)[] = [
  (show, at) => each(show, (u, i) => (i === at ? { ...u, channel: (u.channel % 16) + 1 } : u)),
  (show, at) =>
    each(show, (u, i) => (i === at ? { ...u, slots: u.slots.map((s) => ({ ...s, name: `${s.name}!` })) } : u)),
  (show, at) =>
    each(show, (u, i) =>
      i === at
        ? {
            ...u,
            profile: {
              ...u.profile,
              times: { ...u.profile.times, recall: exactly(u.profile.times.recall.typical + 7) },
            },
          }
        : u,
    ),
  (show, at) => ({ ...show, tones: show.tones.filter((_, i) => i !== at) }),
  (show, at) => ({ ...show, units: show.units.filter((_, i) => i !== at) }),
  // One more that hangs behind another: all bytes go through its cable.
  (show, at) => {
    const over = show.units[at % show.units.length]!;
    const behind = { ...show.units[0]!, id: 'behind', name: 'Behind', returns: null, relays: [] };
    return { ...show, units: [...show.units, { ...behind, input: { from: 'unit', unitId: over.id, thru: true } }] };
  },
  // A preset that went from the unit, and is still called.
  (show, at) =>
    each(show, (u, i) => {
      const [slot, ...slots] = u.slots;
      if (i !== at || slot === undefined) return u;
      const lost = { id: slot.id, name: slot.name, lastIndex: slot.index };
      return { ...u, slots, lostSlots: [...u.lostSlots, lost] };
    }),
  (show, at) => ({
    ...show,
    tones: show.tones.map((t, i) => (i === at ? { ...t, parts: t.parts.slice(1) } : t)),
  }),
];

describe('what comes along beside what a song knows', () => {
  it('changes nothing of what it sends, and that is said', () => {
    fc.assert(
      fc.property(randomShow({ gap: 120, shifts: true }), fc.subarray([...beside]), ({ show, song }, changes) => {
        const after = changes.reduce((s, change) => change(s), show);
        fc.pre(checkShow(after).length === 0);
        expect(alike(song, show, after)).toBe(true);
        expect(alike(song, after, show)).toBe(true);
        expect(sent(after, song)).toEqual(sent(show, song));
      }),
      runs(1201, 80),
    );
  });
});

describe('whatever is said to be sent alike', () => {
  it('is, also by bytes as they stand and after changes of all kinds', () => {
    let relayed = 0;
    fc.assert(
      fc.property(
        randomShow({ gap: 120, shifts: true, raw: true }),
        fc.subarray([...beside]),
        fc.array(fc.record({ what: fc.nat(within.length - 1), at: fc.nat(5) }), { maxLength: 2 }),
        ({ show, song }, more, changes) => {
          const along = more.reduce((s, change) => change(s), show);
          const after = changes.reduce((s, c) => within[c.what]!(s, c.at), along);
          if (checkShow(after).length > 0 || !alike(song, show, after)) return;
          relayed += 1;
          expect(sent(after, song)).toEqual(sent(show, song));
        },
      ),
      runs(1202, 150),
    );
    expect(relayed).toBeGreaterThan(0);
  });
});
