import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readShowFile } from '../formats/show-file';
import { rigSpec, songWants } from '../meaning';
import { SimulatedRig, dryRun, type Verdict } from '../simulate';
import { expectSame } from '../testing/expectSame';
import { stateAt } from './catchUp';
import { compileSong } from './compileSong';

const folder = new URL('../../../fixtures/cases/', import.meta.url);

/** The shows that are kept, by what their file is called. */
const kept = readdirSync(folder).map((name): [title: string, file: URL] => [
  name.replace('.json', '').replaceAll('-', ' '),
  new URL(name, folder),
]);

function played(file: URL) {
  const show = readShowFile(readFileSync(file, 'utf8')).value!;
  const song = show.songs[0]!;
  const compiled = compileSong(show, song);
  const reckoned = new Set(compiled.lates.map((l) => l.cueId));
  const { verdicts } = dryRun(rigSpec(show), compiled.events, songWants(show, song));
  const unreckoned = (v: Verdict): boolean => v.outcome !== 'on-time' && !reckoned.has(v.cueId);
  return { show, song, compiled, verdicts, unreckoned: verdicts.filter(unreckoned) };
}

// Each is a show that a large random run found, and that came out wrong once: messages and what relay rules
// tell wait for each other, in thrus or at units that are told twice.
describe.each(kept)('%s', (_, file) => {
  const { show, song, compiled, unreckoned } = played(file);
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
    expect(unreckoned).toEqual([]);
  });
});
