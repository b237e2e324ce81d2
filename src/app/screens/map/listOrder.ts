import { labelOf, slotCount } from '../../../core/addressing';
import type { Unit } from '../../../core/show';

export type ListSort = 'place' | 'name' | 'songs';

const byName = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' });

/**
 * Indexes of the slots that a list shows, in its order. By place all are there; sorted by
 * name or use, those without a name come last. `find` narrows to names and labels that
 * hold it.
 */
export function listOrder(
  unit: Unit,
  sort: ListSort,
  find: string,
  songs: ReadonlyMap<string, ReadonlySet<string>>,
): number[] {
  const { plan } = unit.profile;
  const slots = new Map(unit.slots.map((s) => [s.index, s]));
  const wanted = find.trim().toLowerCase();
  const all = Array.from({ length: slotCount(plan) }, (_, i) => i);
  const shown =
    wanted === ''
      ? all
      : all.filter((i) => `${labelOf(plan, i)} ${slots.get(i)?.name ?? ''}`.toLowerCase().includes(wanted));
  if (sort === 'place') return shown;
  const name = (i: number): string => slots.get(i)?.name ?? '';
  const uses = (i: number): number => songs.get(slots.get(i)?.id ?? '')?.size ?? 0;
  return shown.toSorted((a, b) => {
    if (sort === 'songs' && uses(a) !== uses(b)) return uses(b) - uses(a);
    if ((name(a) === '') !== (name(b) === '')) return name(a) === '' ? 1 : -1;
    return byName.compare(name(a), name(b)) || a - b;
  });
}
