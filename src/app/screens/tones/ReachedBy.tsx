import { checkRig } from '../../../core/checks';
import { contextOf } from '../../../core/meaning';
import type { Tone, Unit } from '../../../core/show';
import { tonightOf } from '../../../core/tonight';
import { Soft } from '../../widgets/controls';
import { FindingList } from '../../features/FindingList';
import { useShow } from '../../state/store';

/** How a part of a tone gets to a unit that no port reaches: by what other units tell it; and what is wrong with that. */
export function ReachedBy({ tone, unit }: { readonly tone: Tone; readonly unit: Unit }) {
  const show = useShow();
  if (contextOf(show).paths.has(unit.id)) return null;
  const tellers = show.units.filter((u) => u.relays.some((r) => r.toUnitId === unit.id));
  const found = checkRig(tonightOf(show)).filter(
    (f) => f.place.in === 'tone' && f.place.toneId === tone.id && f.place.unitId === unit.id,
  );
  return (
    <>
      <Soft style={{ fontSize: 13.5 }}>
        {tellers.length === 0
          ? `Nothing reaches ${unit.name}: it has no cable from a port, and no relay rule calls it.`
          : `Reached by relay rules of ${tellers.map((t) => t.name).join(' and ')}: when they go there, ${unit.name} follows.`}
      </Soft>
      {found.length > 0 && <FindingList findings={found} well="" />}
    </>
  );
}
