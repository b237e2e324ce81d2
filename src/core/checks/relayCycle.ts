import { indexShow } from '../show';
import { relayCycles } from '../meaning';
import { finding, type Check } from './finding';

/** Units whose relay rules set each other off in a circle. */
export const relayCycle: Check = (show) =>
  relayCycles(show).map((way) => {
    const names = way.map((id) => indexShow(show).units.get(id)!.name);
    return finding('rig.relay-cycle', 'error', { in: 'unit', unitId: way[0]! }, { way: names });
  });
