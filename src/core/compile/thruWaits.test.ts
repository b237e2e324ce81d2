import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readShowFile } from '../formats/show-file';
import { rigSpec } from '../meaning';
import { SimulatedRig } from '../simulate';
import { compileSong } from './compileSong';

describe('messages that wait in a thru', () => {
  it('have what follows them wait too, where everything is so dense that waiting does not come to rest', () => {
    const file = new URL('../../../fixtures/cases/waits-behind-a-thru.json', import.meta.url);
    const show = readShowFile(readFileSync(file, 'utf8')).value!;
    const { events } = compileSong(show, show.songs[0]!);
    const rig = new SimulatedRig(rigSpec(show));
    for (const e of events) rig.send(e.portId, e.at, e.bytes);
    rig.settle();
    // A control that comes 28 us before its unit has settled would be lost.
    expect(rig.trace.filter((t) => t.kind === 'ignored' && t.why === 'settling')).toEqual([]);
  });
});
