import { describe, expect, it } from 'vitest';
import { labelOf } from '../addressing';
import { demoShow } from '../demo';
import { paperOf } from '../testing/sheets';
import { testShow, testUnit, modelerProfile } from '../testing/rigs';
import { hearers, patchSheet, wireLoops } from './wiring';
import { relayCycles, storingSteps } from './storingSteps';
import type { Show, Unit } from '../show';

const show = demoShow();
const chain = (...units: readonly Partial<Unit>[]): Show =>
  testShow(units.map((u, i) => ({ ...testUnit(u.id ?? `u${i}`, i + 1, modelerProfile), ...u })));
const behind = (unitId: string, thru: boolean) => ({ from: 'unit', unitId, thru }) as const;

describe('wires', () => {
  it('of the demo have no loop', () => {
    expect(wireLoops(show)).toEqual([]);
    expect(relayCycles(show)).toEqual([]);
  });

  it('loop through thru sockets, and through a port that sends on what arrives', () => {
    const ring = chain({ id: 'a', input: behind('b', true) }, { id: 'b', input: behind('a', true) });
    expect(wireLoops(ring).map((way) => way.map((p) => p.id))).toEqual([['a', 'b']]);
    expect(wireLoops(chain({ id: 'a', input: behind('b', false) }, { id: 'b', input: behind('a', true) }))).toEqual([]);
    const back = chain({ id: 'a', returns: { portId: 'p1', thru: true } });
    expect(wireLoops(back)).toEqual([]);
    const soft = { ...back, ports: back.ports.map((p) => ({ ...p, softThru: true })) };
    expect(wireLoops(soft).map((way) => way.map((p) => p.at))).toEqual([['port-out', 'unit', 'port-in']]);
    expect(wireLoops({ ...soft, ports: soft.ports.map((p) => ({ ...p, active: false })) })).toEqual([]);
    // From the out socket comes only what the unit sends by itself.
    expect(
      wireLoops({ ...soft, units: soft.units.map((u) => ({ ...u, returns: { portId: 'p1', thru: false } })) }),
    ).toEqual([]);
  });

  it('are heard by all that hangs behind, but not past an out socket', () => {
    const rig = chain({ id: 'a' }, { id: 'b', input: behind('a', true) }, { id: 'c', input: behind('b', false) });
    expect(hearers(rig, 'p1').map((u) => u.id)).toEqual(['a', 'b']);
    expect(hearers(rig, 'none')).toEqual([]);
  });

  it('make a patch sheet with every cable once, numbered along the chains', () => {
    const sheet = patchSheet(show);
    expect(sheet.map((r) => r.number)).toEqual(sheet.map((_, i) => i + 1));
    const cables =
      show.units.filter((u) => u.input !== null).length + show.units.filter((u) => u.returns !== null).length;
    expect(sheet).toHaveLength(cables);
    expect(sheet[0]).toMatchObject({ fromSocket: 'out', toSocket: 'in', cable: show.ports[0]!.cable });
    const ring = chain({ id: 'a', input: behind('b', true) }, { id: 'b', input: behind('a', true) });
    expect(patchSheet(ring).length).toBe(2);
  });
});

describe('relay rules', () => {
  it('make a checklist of what to store on the next unit, and who calls it', () => {
    const oxbow = show.units.find((u) => u.id === 'oxbow')!;
    const steps = storingSteps(show, oxbow);
    expect(steps.length).toBeGreaterThan(2);
    for (const { panel, calledBy, program } of steps) {
      expect(panel.every((p) => p.setting !== null)).toBe(true);
      expect(calledBy[0]!.unit).toBe('Quillback');
      expect(program).not.toBeNull();
    }
    const indexes = steps.map((s) => oxbow.slots.find((x) => x.id === s.slotId)!.index);
    expect(indexes).toEqual(indexes.toSorted((a, b) => a - b));
    const bare: Show = {
      ...show,
      units: show.units.map((u) => (u === oxbow ? { ...u, slots: u.slots.map((s) => ({ ...s, panel: [] })) } : u)),
    };
    expect(
      storingSteps(
        bare,
        bare.units.find((u) => u.id === 'oxbow')!,
      )[0]!.panel[0]!.setting,
    ).toBeNull();
  });

  it('call a state by slot alone, by variant alone, or by both: the checklist says which', () => {
    const oxbow = show.units.find((u) => u.id === 'oxbow')!;
    const quillback = show.units.find((u) => u.id === 'quillback')!;
    const [slot] = quillback.slots;
    const to = { toUnitId: 'oxbow', toSlotId: oxbow.slots[0]!.id };
    const relays = [
      { id: 'a', when: { slotId: slot!.id, variant: null }, ...to },
      { id: 'b', when: { slotId: null, variant: 1 }, ...to },
      { id: 'c', when: { slotId: slot!.id, variant: 0 }, ...to },
    ];
    const made: Show = { ...show, units: show.units.map((u) => (u === quillback ? { ...u, relays } : u)) };
    const { calledBy } = storingSteps(made, oxbow)[0]!;
    const names = quillback.profile.variants!.names;
    const label = labelOf(quillback.profile.plan, slot!.index);
    expect(calledBy.map((c) => [c.label, c.variant])).toEqual([
      [label, null],
      [null, names[1]],
      [label, names[0]],
    ]);
    const paper = paperOf(made, 'stored').find((s) => s.title.includes(oxbow.name))!.parts[0]!;
    const cells = paper.kind === 'table' ? paper.rows[0]! : [];
    expect(cells.at(-1)).toBe(`Quillback ${label}; Quillback ${names[1]}; Quillback ${label} ${names[0]}`);
  });

  it('that set each other off in a circle are found once', () => {
    const rule = (id: string, to: string) => ({
      id,
      when: { slotId: null, variant: 0 },
      toUnitId: to,
      toSlotId: `${to}-s0`,
    });
    const circle = chain(
      { id: 'a', relays: [rule('r1', 'b')] },
      { id: 'b', relays: [rule('r2', 'c')] },
      { id: 'c', relays: [rule('r3', 'a')] },
    );
    expect(relayCycles(circle)).toEqual([['a', 'b', 'c']]);
  });
});
