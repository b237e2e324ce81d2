import { indexShow, setPortField, setUnitField, type Show } from '../show';
import { wireLoops, type WirePoint } from '../meaning';
import { finding, type Check, type FindingPlace } from './finding';

/** A message can come back to where it started, and go round until the rig hangs. */
export const midiLoop: Check = (show) =>
  wireLoops(show).map((way) => {
    const { ports, units } = indexShow(show);
    const names = way.map((p) => (p.at === 'unit' ? units.get(p.id)!.name : ports.get(p.id)!.name));
    const softPort = way.find((p) => p.at === 'port-in');
    const place: FindingPlace = softPort
      ? { in: 'port', portId: softPort.id }
      : { in: 'unit', unitId: way.find((p) => p.at === 'unit')!.id };
    const distinct = names.filter((name, i) => name !== names[i - 1]);
    return finding('rig.loop', 'error', place, { way: distinct }, opening(show, way));
  });

/** The smallest change that opens a loop: no soft thru, or a cable taken from the out socket in place of thru. */
function opening(show: Show, way: readonly WirePoint[]) {
  const port = way.find((p) => p.at === 'port-in');
  if (port) return setPortField(show, port.id, 'softThru', false);
  const last = way.at(-1);
  const unit = last && indexShow(show).units.get(last.id);
  if (!unit?.input || unit.input.from !== 'unit') return null;
  return setUnitField(show, unit.id, 'input', { ...unit.input, thru: false });
}
