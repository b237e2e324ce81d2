import { append, groupBy } from '../groups';
import type { RigSpec, Wanted } from '../rig';
import type { TimedBytes } from '../midi';
import { judgeBytes, judgeTempo } from './judgeOthers';
import { judgeStates } from './judgeStates';
import { SimulatedRig } from './rig';
import { unitLines } from './unitLine';
import { DEFAULT_TOLERANCE, type DryRun, type Tolerance, type Verdict } from './verdict';

/** Plays bytes to a simulated rig and judges each thing wanted by what the units did. */
export function dryRun(
  spec: RigSpec,
  events: readonly TimedBytes[],
  wants: readonly Wanted[],
  tolerance: Tolerance = DEFAULT_TOLERANCE,
): DryRun {
  const rig = new SimulatedRig(spec);
  for (const { portId, at, bytes } of events) rig.send(portId, at, bytes);
  rig.settle();
  const lines = unitLines(spec, rig.trace, events);
  const byUnit = groupBy(wants, (w) => w.unitId);
  const verdicts: Verdict[] = [];
  for (const [unitId, list] of byUnit) {
    const line = lines.get(unitId);
    if (!line) continue;
    const ordered = list.toSorted((a, b) => a.due - b.due);
    append(verdicts, judgeStates(line, ordered, tolerance));
    for (const wanted of ordered) {
      const { aim } = wanted;
      if (aim.kind === 'bytes') verdicts.push(judgeBytes(line, wanted, aim.bytes, tolerance));
      if (aim.kind === 'tempo') verdicts.push(judgeTempo(line, wanted, aim, tolerance));
    }
  }
  return { verdicts: verdicts.sort((a, b) => a.due - b.due), trace: rig.trace };
}
