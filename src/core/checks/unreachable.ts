import type { Severity } from '../problems';
import { indexShow, setPortField, type Unit } from '../show';
import { routeTo } from '../meaning';
import { unitsOff } from '../tonight';
import { finding, type Check, type Finding } from './finding';

/** A unit that nothing reaches: no cable, or a port that is off. */
export const unreachable: Check = (show) => {
  const { ports } = indexShow(show);
  const wanted = new Set([
    ...show.tones.flatMap((t) => t.parts.map((p) => p.unitId)),
    ...show.moves.flatMap((m) => m.steps.map((s) => s.unitId)),
    ...show.songs.flatMap(({ cues, sweeps }) => [
      ...cues.flatMap(({ action }) => ('unitId' in action ? [action.unitId] : [])),
      ...sweeps.map((s) => s.unitId),
    ]),
  ]);
  const off = unitsOff(show);
  return show.units.flatMap((unit): Finding[] => {
    if (off.has(unit.id)) return [];
    const place = { in: 'unit', unitId: unit.id } as const;
    const route = routeTo(show, unit);
    const port = route && ports.get(route.portId);
    if (port && !port.active) {
      const fix = setPortField(show, port.id, 'active', true);
      return [finding('rig.port-off', severityOf(unit), place, { unit: unit.name, port: port.name }, fix)];
    }
    if (port) return [];
    // A controller only sends; a unit behind another one may be set by that one's rules.
    const quiet = !wanted.has(unit.id) && (unit.profile.senders.length > 0 || unit.input?.from === 'unit');
    return quiet ? [] : [finding('rig.no-port', severityOf(unit), place, { unit: unit.name })];
  });

  /** What nothing is wanted of yet is only unfinished. */
  function severityOf({ id }: Unit): Severity {
    return wanted.has(id) ? 'error' : 'note';
  }
};
