import { describe, expect, it } from 'vitest';
import { demoShow } from '../../../core/demo';
import { songsBySlot } from '../../../core/show';
import { listOrder } from './listOrder';
import { runOf } from './useSlotSheet';

const show = demoShow();
const unit = show.units[0]!;
const songs = songsBySlot(show, unit.id);
const nameAt = (i: number): string => unit.slots.find((s) => s.index === i)?.name ?? '';

describe('the list of slots', () => {
  it('shows every slot by place, and a part of them when it is narrowed', () => {
    expect(listOrder(unit, 'place', '', songs)).toHaveLength(180);
    expect(
      listOrder(unit, 'place', 'FOG', songs)
        .map(nameAt)
        .every((n) => n.includes('Fog')),
    ).toBe(true);
    expect(listOrder(unit, 'place', 'factory b6', songs)).toEqual([131]);
    expect(listOrder(unit, 'place', 'nothing like it', songs)).toEqual([]);
  });

  it('sorts by name with the nameless last, and by how many songs use a slot', () => {
    const byName = listOrder(unit, 'name', '', songs).map(nameAt);
    const named = byName.filter((n) => n !== '');
    expect(byName.slice(0, named.length)).toEqual(named);
    expect(named).toEqual(
      named.toSorted((a, b) => a.localeCompare(b, undefined, { numeric: true, sensitivity: 'base' })),
    );
    const bySongs = listOrder(unit, 'songs', '', songs);
    const uses = (i: number) => songs.get(unit.slots.find((s) => s.index === i)?.id ?? '')?.size ?? 0;
    expect(uses(bySongs[0]!)).toBe(Math.max(...[...songs.values()].map((s) => s.size)));
  });

  it('spans a run from either end', () => {
    expect(runOf(3, 7)).toEqual({ first: 3, count: 5 });
    expect(runOf(7, 3)).toEqual({ first: 3, count: 5 });
    expect(runOf(3, 3)).toEqual({ first: 3, count: 1 });
  });
});
