import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { newSlot } from './builders';
import { checkShow } from './check/checkShow';
import { applyEdit, invertEdit } from './edits';
import { leftOver, reorderList } from './reorderList';
import { matchSlots, reorderSlots, usedSlots, type Destination, type ListedName } from './reorder';
import type { Show, Slot } from './schema';
import { runs } from '../testing/runs';

const show = demoShow();
const quillback = show.units[0]!;
const list = (...names: string[]): ListedName[] => names.map((name, index) => ({ index, name }));
const slots = (...names: string[]): Slot[] => names.map((name, i) => newSlot(`s${i}`, i, name));
const outcome = (old: readonly Slot[], now: readonly ListedName[]) =>
  matchSlots(old, now).matches.map((m) => [m.how, m.after?.index ?? null]);

describe('matching an old list with a new one', () => {
  it('goes by the same name first, whatever its capitals and blanks', () => {
    expect(outcome(slots('Fog Lead', 'Gull'), list('gull', ' fog  lead'))).toEqual([
      ['same-name', 1],
      ['same-name', 0],
    ]);
  });

  it('puts the nearest of several same names together', () => {
    const now = [
      { index: 0, name: 'Dry' },
      { index: 5, name: 'Dry' },
      { index: 6, name: 'Dry' },
    ];
    expect(outcome([newSlot('a', 5, 'Dry'), newSlot('b', 0, 'Dry')], now)).toEqual([
      ['same-name', 5],
      ['same-name', 0],
    ]);
  });

  it('then goes by the nearest name, the most alike first, and only where there is something alike', () => {
    const { matches, fresh } = matchSlots(
      slots('Fog Lead', 'Fog Lead 2', 'Winter'),
      list('Fog Leads 2', 'Fogg Lead', 'Zzz'),
    );
    expect(matches.map((m) => [m.how, m.after?.name ?? null])).toEqual([
      ['nearest', 'Fogg Lead'],
      ['nearest', 'Fog Leads 2'],
      ['none', null],
    ]);
    expect(matches[0]!.likeness).toBeGreaterThan(0.6);
    expect(fresh.map((f) => f.name)).toEqual(['Zzz']);
  });

  it('leaves slots where they are that the list says nothing of, unless their place is taken or empty now', () => {
    expect(outcome([newSlot('a', 7, ''), newSlot('b', 8, 'Gull')], list('x'))).toEqual([
      ['unlisted', 7],
      ['unlisted', 8],
    ]);
    expect(outcome([newSlot('a', 0, '')], list('x'))).toEqual([['none', null]]);
    expect(outcome([newSlot('a', 1, 'Gull')], list('x', ''))).toEqual([['none', null]]);
  });

  it('uses every new name once, and answers every old slot', () => {
    const name = fc.constantFrom('Dry', 'Dry 2', 'Fog Lead', 'Fog', 'Lead', '', 'Winter Pier', 'winter pier');
    fc.assert(
      fc.property(
        fc.array(name, { maxLength: 12 }),
        fc.array(
          name.filter((n) => n !== ''),
          { maxLength: 12 },
        ),
        (old, now) => {
          const { matches, fresh } = matchSlots(slots(...old), list(...now));
          expect(matches.map((m) => m.slotId)).toEqual(old.map((_, i) => `s${i}`));
          const used = matches
            .filter((m) => m.how === 'same-name' || m.how === 'nearest')
            .flatMap((m) => m.after?.index ?? []);
          expect(new Set(used).size).toBe(used.length);
          expect(used.length + fresh.length).toBe(now.length);
        },
      ),
      runs(91, 400),
    );
  });
});

describe('a reorder', () => {
  const named = quillback.slots.filter((s) => s.name !== '');
  const turned = named.map((s, i) => ({ index: named[named.length - 1 - i]!.index, name: s.name }));
  const apply = (now: readonly ListedName[], from: Show = show): Show => {
    const { matches, fresh } = matchSlots(from.units[0]!.slots, now);
    const destinations = new Map(matches.map((m) => [m.slotId, m.after] as [string, Destination]));
    let n = 0;
    const edit = reorderSlots(from, 'quillback', destinations, fresh, () => `fresh-${n++}`)!;
    const after = applyEdit(from, edit);
    expect(checkShow(after)).toEqual([]);
    expect(applyEdit(after, invertEdit(edit))).toEqual(from);
    return after;
  };

  it('moves presets, and tones keep meaning the same sound', () => {
    const after = apply(turned);
    for (const slot of named) {
      const now = after.units[0]!.slots.find((s) => s.id === slot.id)!;
      expect(now.name).toBe(slot.name);
      expect(now.index).toBe(turned.find((t) => t.name === slot.name)!.index);
    }
    expect(after.tones).toBe(show.tones);
  });

  it('keeps what is gone but used among the lost, and finds it when it comes back', () => {
    const gone = { index: 47, name: '' };
    const without = [...turned.filter((t) => t.name !== 'Fog Lead' && t.index !== 47), gone];
    const lost = apply(without);
    expect(lost.units[0]!.lostSlots).toMatchObject([{ id: 'quillback-h6', name: 'Fog Lead', lastIndex: 47 }]);
    const again = apply([...without, { index: 150, name: 'fog lead' }], lost);
    expect(again.units[0]!.lostSlots).toEqual([]);
    expect(again.units[0]!.slots.find((s) => s.id === 'quillback-h6')).toMatchObject({ index: 150 });
  });

  it('forgets what is gone and used by nothing, and takes in what is new', () => {
    const extra = apply([...named.map(({ index, name }) => ({ index, name })), { index: 178, name: 'Brand new' }]);
    expect(extra.units[0]!.slots.at(-1)).toMatchObject({ index: 178, name: 'Brand new' });
    const back = apply([...named.map(({ index, name }) => ({ index, name })), { index: 178, name: '' }], extra);
    expect(back.units[0]!.slots.some((s) => s.name === 'Brand new')).toBe(false);
    expect(back.units[0]!.lostSlots).toEqual([]);
  });

  it('knows what is used, by tones and by relay rules of either end', () => {
    expect(usedSlots(show, 'quillback').has('quillback-h6')).toBe(true);
    const called = show.units.flatMap((u) => u.relays.filter((r) => r.toUnitId === 'oxbow').map((r) => r.toSlotId));
    for (const id of called) expect(usedSlots(show, 'oxbow').has(id)).toBe(true);
    expect(reorderSlots(show, 'none', new Map(), [], () => 'x')).toBeNull();
  });
});

describe('the before-and-after list', () => {
  it('says of every slot what becomes of it, and takes in what somebody chose by hand', () => {
    const old = slots('Dry', 'Gull', 'Tern', 'Swift', 'Fog');
    const now = [
      { index: 0, name: 'Dry' },
      { index: 2, name: 'Gull' },
      { index: 3, name: 'Swift 2' },
      { index: 1, name: 'Tern 2' },
      { index: 4, name: 'Brand new' },
    ];
    const destinations = new Map<string, Destination>(matchSlots(old, now).matches.map((m) => [m.slotId, m.after]));
    const lines = reorderList(old, destinations, leftOver(now, destinations));
    expect(lines.map((l) => l.what)).toEqual(['same', 'moved', 'moved-renamed', 'renamed', 'gone', 'new']);
    destinations.set('s4', now[4]!);
    expect(leftOver(now, destinations)).toEqual([]);
    expect(reorderList(old, destinations, []).at(-1)).toMatchObject({ what: 'renamed', after: { name: 'Brand new' } });
  });
});
