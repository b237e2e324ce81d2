import type { Edit } from '../edits';
import { indexShow } from '../find';
import type { Show } from '../schema';
import { setUnitField } from './rig';

/** A socket that a cable goes into. Units take in at one and give out at two: what they say, and what they pass on. */
export type Socket =
  | { readonly of: 'port'; readonly id: string; readonly socket: 'out' | 'in' }
  | { readonly of: 'unit'; readonly id: string; readonly socket: 'in' | 'out' | 'thru' };

const gives = (s: Socket): boolean => (s.of === 'port' ? s.socket === 'out' : s.socket !== 'in');

/**
 * Puts a cable between two sockets, whichever end comes first; the cable that was in the
 * taking end before is pulled. Null where the two cannot be joined, or already are.
 */
export function plugCable(show: Show, a: Socket, b: Socket): Edit | null {
  if (gives(a) === gives(b)) return null;
  const [from, to] = gives(a) ? [a, b] : [b, a];
  const { ports, units } = indexShow(show);
  const there = (s: Socket): boolean => (s.of === 'port' ? ports : units).has(s.id);
  if (!there(from) || !there(to) || (from.of === to.of && from.id === to.id)) return null;
  if (to.of === 'port') {
    if (from.of === 'port') return null;
    return setUnitField(show, from.id, 'returns', { portId: to.id, thru: from.socket === 'thru' });
  }
  return from.of === 'port'
    ? setUnitField(show, to.id, 'input', { from: 'port', portId: from.id })
    : setUnitField(show, to.id, 'input', { from: 'unit', unitId: from.id, thru: from.socket === 'thru' });
}

/** Pulls the cable out of a unit's in socket, or the one that goes back from it to the computer. Null where there is none. */
export const pullCable = (show: Show, unitId: string, cable: 'input' | 'returns'): Edit | null =>
  setUnitField(show, unitId, cable, null);
