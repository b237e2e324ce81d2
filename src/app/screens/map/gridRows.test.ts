import { describe, expect, it } from 'vitest';
import { slotCount } from '../../../core/addressing';
import { LIBRARY, libraryProfile } from '../../../core/library';
import { gridColumns, gridRows, rowOf, verticalNeighbour } from './gridRows';

const letters = libraryProfile('letter-modeler').plan;

describe('the slot grid', () => {
  it.each(LIBRARY.map((e) => [e.id, e.profile.plan] as const))('shows every slot of %s once', (_, plan) => {
    const slots = gridRows(plan).flatMap((r) =>
      r.kind === 'slots' ? Array.from({ length: r.count }, (_x, i) => r.first + i) : [],
    );
    expect(slots).toEqual(Array.from({ length: slotCount(plan) }, (_x, i) => i));
  });

  it('puts a bank on a line where it fits, and names groups where there are several', () => {
    expect(gridColumns(letters)).toBe(6);
    expect(gridRows(letters).filter((r) => r.kind === 'heading')).toMatchObject([{ first: 0 }, { first: 120 }]);
    expect(gridColumns(libraryProfile('bass-processor').plan)).toBe(4);
    expect(gridColumns(libraryProfile('reverb').plan)).toBe(4);
    expect(gridRows(libraryProfile('reverb').plan).some((r) => r.kind === 'heading')).toBe(false);
  });

  it('moves up and down over group edges', () => {
    const rows = gridRows(letters);
    expect(rowOf(rows, 119)).toBe(20);
    expect(verticalNeighbour(rows, 119, 1)).toBe(125);
    expect(verticalNeighbour(rows, 120, -1)).toBe(114);
    expect(verticalNeighbour(rows, 0, -1)).toBe(0);
    expect(verticalNeighbour(rows, 179, 1)).toBe(179);
    expect(verticalNeighbour(rows, 999, 1)).toBe(999);
  });
});
