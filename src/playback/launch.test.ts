import { describe, expect, it } from 'vitest';
import { launchesHeard } from './launch';

const heard = (...messages: (readonly [string, ...number[]])[]): string[] =>
  launchesHeard(messages.map(([portId, ...bytes]) => ({ portId, bytes }))).map((l) => `${l.portId} ${l.bytes}`);

describe('presses that may start songs', () => {
  it('are taken in their order, without their releases', () => {
    expect(
      heard(
        ['feet', 0xc0, 5],
        ['feet', 0xb0, 80, 127],
        ['feet', 0xb0, 80, 0],
        ['pads', 0x90, 60, 99],
        ['pads', 0x90, 60, 0],
        ['pads', 0x80, 61, 0],
      ),
    ).toEqual(['feet C005', 'feet B0507F', 'pads 903C']);
  });

  it('are taken once, also where they are pressed again, but on each port by itself', () => {
    expect(heard(['feet', 0xc0, 5], ['feet', 0xc0, 6], ['feet', 0xc0, 5], ['pads', 0xc0, 5])).toEqual([
      'feet C005',
      'feet C006',
      'pads C005',
    ]);
  });

  it('are nothing else that arrives: clocks, bends, pressure', () => {
    expect(heard(['feet', 0xf8], ['feet', 0xe0, 0, 64], ['feet', 0xd0, 3])).toEqual([]);
  });
});
