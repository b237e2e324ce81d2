import type { AddressPlan, SlotGroup } from '../../../core/addressing';

/** A line of the slot grid: a group's heading, or slots from `first` on. */
export type GridRow =
  | { readonly kind: 'heading'; readonly group: SlotGroup; readonly first: number }
  | { readonly kind: 'slots'; readonly first: number; readonly count: number };

const MAX_COLUMNS = 6;

/** How many slots stand side by side: one turn of the last digit where that fits, else a handy few. */
export function gridColumns(plan: AddressPlan): number {
  const last = plan.groups[0]!.digits.findLast((d) => d.kind !== 'text');
  const count = last?.count ?? 1;
  if (count > 1 && count <= MAX_COLUMNS) return count;
  return count % 4 === 0 ? 4 : count % 5 === 0 ? 5 : 4;
}

/** The grid's lines. Each group starts on a line of its own. */
export function gridRows(plan: AddressPlan): GridRow[] {
  const columns = gridColumns(plan);
  const rows: GridRow[] = [];
  let first = 0;
  for (const group of plan.groups) {
    if (plan.groups.length > 1) rows.push({ kind: 'heading', group, first });
    for (let i = 0; i < group.count; i += columns) {
      rows.push({ kind: 'slots', first: first + i, count: Math.min(columns, group.count - i) });
    }
    first += group.count;
  }
  return rows;
}

/** Line that a slot stands in. */
export const rowOf = (rows: readonly GridRow[], index: number): number =>
  rows.findIndex((r) => r.kind === 'slots' && index >= r.first && index < r.first + r.count);

/** The slot one line up or down, in the same column as far as that line goes. */
export function verticalNeighbour(rows: readonly GridRow[], index: number, step: 1 | -1): number {
  const at = rowOf(rows, index);
  const row = rows[at];
  if (row?.kind !== 'slots') return index;
  for (let i = at + step; i >= 0 && i < rows.length; i += step) {
    const next = rows[i]!;
    if (next.kind === 'slots') return next.first + Math.min(index - row.first, next.count - 1);
  }
  return index;
}
