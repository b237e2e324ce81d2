import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { checkShow } from '../check/checkShow';
import { applyEdit, invertEdit } from '../edits';
import { indexShow } from '../find';
import type { Show } from '../schema';
import { addPedal, addRow, addSwitch, layOutFloor, moveSwitch, removeFromFloor, type ProfileChange } from './';

const show = demoShow();
const ID = 'treadle';
const unit = show.units.find((u) => u.name === 'Treadle Ten')!;
const after = (change: ProfileChange, from: Show = show): Show => {
  if (!change.ok || !change.edit) throw new Error('nothing was changed');
  const made = applyEdit(from, change.edit);
  expect(checkShow(made)).toEqual([]);
  expect(applyEdit(made, invertEdit(change.edit))).toEqual(from);
  return made;
};
const floorOf = (s: Show, id = unit.id) => indexShow(s).units.get(id)!.profile.controller!;
const nothing = (change: ProfileChange): boolean => change.ok && change.edit === null;

describe('a floor that is laid out by hand', () => {
  it('gets switches in the free places of a row, under names and numbers of their own', () => {
    const [far] = [Math.min(...floorOf(show).switches.map((s) => s.row))];
    const one = after(addSwitch(show, unit.id, far));
    expect(floorOf(one).switches.at(-1)).toEqual({ id: 'switch-11', row: far, column: 5 });
    const senders = indexShow(one).units.get(unit.id)!.profile.senders;
    const numbers = senders.map((s) => ('number' in s.encoding ? s.encoding.number : -1));
    expect(new Set(numbers).size).toBe(numbers.length);
    expect(nothing(addSwitch(show, unit.id, 16))).toBe(true);
  });

  it('gets a row at the feet, as long as the one before it, and pedals', () => {
    const more = after(addRow(show, unit.id));
    const last = Math.max(...floorOf(more).switches.map((s) => s.row));
    expect(floorOf(more).switches.filter((s) => s.row === last)).toHaveLength(5);
    const pedals = after(addPedal(more, unit.id), more);
    expect(floorOf(pedals).pedals).toEqual(['pedal-1', 'pedal-2', 'pedal-3']);
  });

  it('has switches moved, each place for one', () => {
    const [first] = floorOf(show).switches;
    const moved = after(moveSwitch(show, unit.id, first!.id, { rows: 0, columns: 1 }));
    const places = floorOf(moved).switches.map((s) => `${s.row}/${s.column}`);
    expect(new Set(places).size).toBe(places.length);
    expect(floorOf(moved).switches.find((s) => s.id === first!.id)!.column).toBe(first!.column + 1);
    expect(nothing(moveSwitch(show, unit.id, first!.id, { rows: 0, columns: -1 }))).toBe(true);
    expect(nothing(moveSwitch(show, unit.id, 'nowhere', { rows: 0, columns: 1 }))).toBe(true);
  });

  it('loses a switch with what pages have on it; the last one stays', () => {
    const used = show.feet.find((f) => f.id === unit.id)!.pages.flatMap((p) => p.switches)[0]!.id;
    const less = after(removeFromFloor(show, unit.id, used));
    expect(floorOf(less).switches.some((s) => s.id === used)).toBe(false);
    expect(JSON.stringify(less.feet)).not.toContain(`"${used}"`);
    const pedal = after(removeFromFloor(show, unit.id, 'pedal-1'));
    expect(floorOf(pedal).pedals).toEqual(['pedal-2']);
    let bare = show;
    for (const { id } of floorOf(show).switches.slice(1)) bare = after(removeFromFloor(bare, unit.id, id), bare);
    expect(nothing(removeFromFloor(bare, unit.id, floorOf(bare).switches[0]!.id))).toBe(true);
  });

  it('is there for any unit, also for one that sends nothing yet', () => {
    const plain = show.units.find((u) => u.profile.controller === null && u.profile.senders.length === 0)!;
    const laid = after(layOutFloor(show, plain.id));
    expect(floorOf(laid, plain.id).switches).toHaveLength(4);
    expect(nothing(layOutFloor(show, unit.id))).toBe(true);
    expect(nothing(layOutFloor(show, ID))).toBe(true);
  });
});
