import { setPortField } from '../show';
import { finding, type Check } from './finding';

/** A port that is on and that no cable hangs on: better switched off, so that nothing leaks through it. */
export const portUnused: Check = (show) =>
  show.ports.flatMap((port) => {
    const used = show.units.some(
      (u) => (u.input?.from === 'port' && u.input.portId === port.id) || u.returns?.portId === port.id,
    );
    if (used || !port.active) return [];
    const fix = setPortField(show, port.id, 'active', false);
    return [finding('rig.port-unused', 'note', { in: 'port', portId: port.id }, { port: port.name }, fix)];
  });
