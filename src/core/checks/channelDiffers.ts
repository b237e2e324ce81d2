import { setUnitField } from '../show';
import { finding, type Check } from './finding';

/** We send on one channel, the unit listens on another: nothing happens, silently. */
export const channelDiffers: Check = (show) =>
  show.units.flatMap((unit) => {
    const { channel, listens } = unit;
    if (listens === 'all' || listens === channel) return [];
    const fix = setUnitField(show, unit.id, 'channel', listens);
    const data = { unit: unit.name, sends: channel, listens };
    return [finding('rig.channel-differs', 'error', { in: 'unit', unitId: unit.id }, data, fix)];
  });
