import { indexShow, setUnitField, type Edit, type Show, type Unit } from '../show';
import { finding, type Check, type Finding } from './finding';

/** A 5-pin socket takes one cable: where more are drawn, they need a splitter, or have to be chained. The fix chains them. */
export const socketShared: Check = (show) => {
  const { units } = indexShow(show);
  const byPort = show.ports.flatMap((port): Finding[] => {
    const fed = show.units.filter((u) => u.input?.from === 'port' && u.input.portId === port.id);
    if (port.cable !== 'din' || port.splitter || fed.length < 2) return [];
    const data = { socket: port.name, units: fed.map((u) => u.name) };
    return [finding('rig.socket-shared', 'error', { in: 'port', portId: port.id }, data, chained(show, fed))];
  });
  const byUnit = [...units.values()].flatMap((unit) =>
    [true, false].flatMap((thru): Finding[] => {
      const fed = show.units.filter(
        (u) => u.input?.from === 'unit' && u.input.unitId === unit.id && u.input.thru === thru,
      );
      if (unit.splitter || fed.length < 2) return [];
      const data = { socket: `${unit.name} ${thru ? 'thru' : 'out'}`, units: fed.map((u) => u.name) };
      return [finding('rig.socket-shared', 'error', { in: 'unit', unitId: unit.id }, data, chained(show, fed))];
    }),
  );
  return [...byPort, ...byUnit];
};

/** Each after the first hangs on the thru of the one before it. */
function chained(show: Show, fed: readonly Unit[]): Edit {
  const edits = fed.slice(1).flatMap((unit, i) => {
    const edit = setUnitField(show, unit.id, 'input', { from: 'unit', unitId: fed[i]!.id, thru: true });
    return edit ? [edit] : [];
  });
  return { kind: 'group', edits };
}
