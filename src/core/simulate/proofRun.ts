import type { TimedBytes } from '../midi';
import { rigAt, type RigSpec, type Wanted } from '../rig';
import { millisToMicros, type Micros } from '../time';
import { dryRun } from './dryRun';
import { DEFAULT_TOLERANCE, type DryRun, type Tolerance, type Verdict } from './verdict';

/**
 * Plays bytes to a rig at its worst times and at its typical ones: what lands has to land at both, and in any mix of
 * them. Each change says what it bears beyond that (`Verdict.margin`). The trace is that of the worst times. `rig` is
 * at its worst, as plans reckon with it.
 */
export function proofRun(
  rig: RigSpec,
  events: readonly TimedBytes[],
  wants: readonly Wanted[],
  tolerance: Tolerance = DEFAULT_TOLERANCE,
): DryRun {
  const worst = dryRun(rig, events, wants, { tolerance, margins: true });
  if (!differsAtTypical(rig, worst.verdicts, tolerance)) return worst;
  const typical = dryRun(rigAt(rig, 'typical'), events, wants, { tolerance, planned: rig });
  // The same wants in the same order.
  const verdicts = worst.verdicts.map((verdict, i) => {
    const usual = typical.verdicts[i]!;
    return verdict.outcome === 'on-time' && usual.outcome !== 'on-time' ? usual : verdict;
  });
  return { verdicts, trace: worst.trace };
}

/**
 * Whether something that lands at the worst times may miss at the typical ones. A quicker unit accepts whatever a slower one
 * accepts, and is there sooner: only what relay rules send comes at another time then, and what is there may be there
 * too soon.
 */
export function differsAtTypical(
  { units, ports }: RigSpec,
  verdicts: readonly Verdict[],
  tolerance: Tolerance,
): boolean {
  const port = ports.reduce((most, { delays }) => Math.max(most, delays.worst - delays.typical), 0);
  let sooner: Micros = 0;
  for (const { paces } of units) {
    const { worst, typical } = paces;
    const own = Object.entries(worst.slots).map(([slot, at]) => at - typical.slots[Number(slot)]!);
    const spread = Math.max(
      worst.recall - typical.recall,
      worst.variant - typical.variant,
      worst.control - typical.control,
      worst.settle - typical.settle,
      ...own,
    );
    sooner = Math.max(sooner, spread + worst.thru - typical.thru);
  }
  sooner += port;
  if (sooner === 0) return false;
  if (units.some((u) => u.relays.length > 0)) return true;
  const earliest = -millisToMicros(tolerance.before) + sooner;
  return verdicts.some((v) => v.offset !== null && v.offset < earliest);
}
