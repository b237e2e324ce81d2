import { describe, expect, it } from 'vitest';
import { newPort } from '../../core/show';
import type { RealPort } from '../adapters/realPorts';
import { knownElsewhere, nameOf } from './portNames';

const real = (key: string, name: string, direction: 'in' | 'out' = 'out'): RealPort => ({
  key,
  name,
  maker: 'Pier',
  direction,
});
const rack = newPort('rack', 'Rack', 'din', { known: { out: 'Grey box', in: '' } });
const feet = newPort('feet', 'Feet', 'usb', { known: { out: '', in: 'Foot board' } });

describe('ports that had a real one on another computer', () => {
  it('are offered those of the same name and direction here', () => {
    const here = [real('o1', 'Grey box'), real('i1', 'Grey box', 'in'), real('i2', 'Foot board', 'in')];
    expect(knownElsewhere([rack, feet], {}, here)).toEqual([
      { port: rack, direction: 'out', name: 'Grey box', alike: [here[0]] },
      { port: feet, direction: 'in', name: 'Foot board', alike: [here[2]] },
    ]);
  });

  it('are asked about where there are twins, and told where there is none', () => {
    const twins = [real('o1', 'Grey box'), real('o2', 'Grey box')];
    const [known, none] = knownElsewhere([rack, feet], {}, twins);
    expect(known!.alike).toEqual(twins);
    expect(none!.alike).toEqual([]);
  });

  it('are not asked about once they are bound here, nor offered what another port is bound to', () => {
    const twins = [real('o1', 'Grey box'), real('o2', 'Grey box')];
    const bound = { standIn: false, out: nameOf(twins[0]!, twins), in: null };
    expect(knownElsewhere([rack], { rack: bound }, twins)).toEqual([]);
    expect(knownElsewhere([rack], { board: bound }, twins)[0]!.alike).toEqual([twins[1]]);
    expect(knownElsewhere([newPort('new', 'New', 'usb')], {}, twins)).toEqual([]);
  });
});
