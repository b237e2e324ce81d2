import { append, groupBy } from '../groups';
import type { RigSpec, Wanted } from '../rig';
import type { TimedBytes } from '../midi';
import type { Micros } from '../time';
import { judgeBytes, judgeTempo } from './judgeOthers';
import { judgeStates } from './judgeStates';
import { Losses, RigLosses } from './losses';
import { SimulatedRig } from './rig';
import { unitLines } from './unitLine';
import type { Timing } from './timing';
import { DEFAULT_TOLERANCE, type DryRun, type Tolerance, type Verdict } from './verdict';

/** How a dry run is judged. */
export interface JudgedBy {
  readonly tolerance?: Tolerance;
  /** The rig as the plan reckons with it, where the one that is played is quicker or slower. */
  readonly planned?: RigSpec;
  /** Whether to say what each change bears beyond the times of the rig: it is the rig at its worst then. */
  readonly margins?: boolean;
  /** How long things take, where that is not what the rig's pace says. */
  readonly timing?: Timing;
  /** When each message leaves, by its place among the events, where that is not as planned. */
  readonly leaves?: ArrayLike<Micros>;
}

/** Plays bytes to a simulated rig and judges each thing wanted by what the units did. */
export function dryRun(
  spec: RigSpec,
  events: readonly TimedBytes[],
  wants: readonly Wanted[],
  { tolerance = DEFAULT_TOLERANCE, planned = spec, margins = false, timing, leaves }: JudgedBy = {},
): DryRun {
  const rig = new SimulatedRig(spec, undefined, {}, timing);
  const order = leaves && Array.from(events.keys()).sort((a, b) => leaves[a]! - leaves[b]! || a - b);
  for (let k = 0; k < events.length; k++) {
    const i = order ? order[k]! : k;
    const { portId, bytes } = events[i]!;
    const at = leaves ? leaves[i]! : events[i]!.at;
    // So that little is pending at any time.
    rig.advance(at);
    rig.send(portId, at, bytes, i);
  }
  rig.settle();
  const lines = unitLines(spec, rig.trace, events, planned);
  const byUnit = groupBy(wants, (w) => w.unitId);
  if (margins) {
    const all = new RigLosses(spec.units);
    for (const line of lines.values()) line.losses = new Losses(line, events, all);
    all.sort();
  }
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
