import { describe, expect, it } from 'vitest';
import { plainPlan } from './builders';
import { addressOf, labelOf, planProblems, slotCount, type AddressPlan } from './plan';
import { countedTable, edgeSlots, withDigit, withGroup } from './planShape';

const numbered = (count: number): AddressPlan => plainPlan(count, [{ kind: 'number', start: 0, count, width: 3 }]);
const plan: AddressPlan = { ...numbered(300), perBank: 100, bank: { send: 'msb', when: 'differs' } };

describe('an address plan that somebody edits', () => {
  it('shows its edges: the ends of each group and each bank', () => {
    expect(edgeSlots(plan)).toEqual([0, 1, 99, 100, 199, 200, 299]);
    const two = withGroup(plan)!;
    expect(edgeSlots(two)).toEqual(expect.arrayContaining([299, 300, 301, 599]));
    expect(edgeSlots(numbered(1))).toEqual([0]);
    expect(edgeSlots({ ...numbered(12_800), perBank: 128 }).length).toBeLessThanOrEqual(15);
  });

  it('gets groups whose labels no other group has', () => {
    let larger = plan;
    for (let i = 0; i < 3; i++) larger = withGroup(larger)!;
    expect(planProblems(larger)).toEqual([]);
    const labels = Array.from({ length: slotCount(larger) }, (_, i) => labelOf(larger, i));
    expect(new Set(labels).size).toBe(labels.length);
  });

  it('as a table calls what it called in sequence', () => {
    const table = { ...plan, table: countedTable(plan) };
    for (let i = 0; i < 128; i++) expect(addressOf(table, i)).toEqual(addressOf(plan, i));
    expect(countedTable(plan)).toHaveLength(128);
    expect(countedTable(numbered(5))).toHaveLength(5);
  });

  it('gets no more groups, and no more parts of a label, than a plan may have', () => {
    let grown: AddressPlan | null = plan;
    let groups = 0;
    for (let next = withGroup(plan); next; next = withGroup(next)) [grown, groups] = [next, groups + 1];
    expect(grown.groups).toHaveLength(16);
    expect(groups).toBe(15);
    let parts = 0;
    for (let next = withDigit(plan.groups[0]!); next; next = withDigit(next)) parts = next.digits.length;
    expect(parts).toBe(8);
  });
});
