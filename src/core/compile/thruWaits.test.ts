import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readShowFile } from '../formats/show-file';
import { rigSpec, songWants } from '../meaning';
import { SimulatedRig, dryRun } from '../simulate';
import { expectSame } from '../testing/expectSame';
import { stateAt } from './catchUp';
import { compileSong } from './compileSong';

const cases = new URL('../../../fixtures/cases/', import.meta.url);

// Each is a show that a large random run found, and that came out wrong once: messages and what relay rules
// tell wait for each other in thrus, by less than a message's length.
describe.each(readdirSync(cases).map((name) => [name.replace('.json', '').replaceAll('-', ' '), name]))(
  '%s',
  (_, name) => {
    const show = readShowFile(readFileSync(new URL(name, cases), 'utf8')).value!;
    const song = show.songs[0]!;
    const compiled = compileSong(show, song);
    const rig = new SimulatedRig(rigSpec(show));
    for (const e of compiled.events) rig.send(e.portId, e.at, e.bytes);
    rig.settle();

    it('leaves the rig where the song wants it', () => {
      expectSame(stateAt(show, song, 1e9), rig.state());
    });

    it('has no message lost on a unit that settles', () => {
      expect(rig.trace.filter((t) => t.kind === 'ignored' && t.why === 'settling')).toEqual([]);
    });

    it('is late nowhere that was not reckoned', () => {
      const reckoned = new Set(compiled.lates.map((l) => l.cueId));
      const { verdicts } = dryRun(rigSpec(show), compiled.events, songWants(show, song));
      expect(verdicts.filter((v) => v.outcome !== 'on-time' && !reckoned.has(v.cueId))).toEqual([]);
    });
  },
);
