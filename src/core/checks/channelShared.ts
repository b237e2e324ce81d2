import { hearers } from '../meaning';
import type { Unit } from '../show';
import { finding, type Check } from './finding';

const overlap = (a: Unit, b: Unit): number | undefined => {
  if (b.listens === 'all' || b.listens === a.channel) return a.channel;
  return undefined;
};

/** A unit obeys messages that are meant for another one on its cable. */
export const channelShared: Check = (show) =>
  show.ports.flatMap((port) => {
    const units = hearers(show, port.id);
    return units.flatMap((unit, i) =>
      units.flatMap((other, k) => {
        const channel = i === k ? undefined : overlap(unit, other);
        // Two on one channel receive each other's messages; reported once, at the later one.
        if (channel === undefined || (i > k && overlap(other, unit) !== undefined)) return [];
        const data = { unit: other.name, other: unit.name, channel };
        return [finding('rig.channel-shared', 'warning', { in: 'unit', unitId: other.id }, data)];
      }),
    );
  });
