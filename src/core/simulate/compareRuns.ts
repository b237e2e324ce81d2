import type { Micros } from '../time';
import type { Verdict } from './verdict';

/** How one change landed in two runs; undefined where a run does not have it. */
export interface RunDifference {
  readonly cueId: string;
  readonly unitId: string;
  readonly before: Verdict | undefined;
  readonly after: Verdict | undefined;
}

/** Landings nearer to each other than this are the same. */
const SAME: Micros = 50;

const keyOf = ({ cueId, unitId }: Verdict): string => `${cueId}\n${unitId}`;

/** How bad it is: not at all there, then late by most, then early. */
const badness = ({ outcome, offset }: Verdict): number =>
  outcome === 'never' ? Number.POSITIVE_INFINITY : outcome === 'on-time' ? 0 : Math.abs(offset ?? 0) + 1;

/** The worst verdict of each cue on each unit (a sweep has hundreds), in order of time. What was so already is left out. */
export function worstOfEach(verdicts: readonly Verdict[]): readonly Verdict[] {
  const worst = new Map<string, Verdict>();
  for (const verdict of verdicts) {
    if (verdict.reason.kind === 'already') continue;
    const before = worst.get(keyOf(verdict));
    if (!before || worse(verdict, before)) worst.set(keyOf(verdict), verdict);
  }
  return [...worst.values()].sort((a, b) => a.due - b.due);
}

const worse = (a: Verdict, b: Verdict): boolean =>
  badness(a) - badness(b) > 0 || (badness(a) === badness(b) && (a.offset ?? 0) > (b.offset ?? 0));

/** The worst first; of those that are well, those that land last. */
export const worstFirst = (verdicts: readonly Verdict[]): readonly Verdict[] =>
  verdicts.toSorted((a, b) => {
    const [x, y] = [badness(a), badness(b)];
    if (x !== y) return y > x ? 1 : -1;
    return (b.offset ?? 0) - (a.offset ?? 0);
  });

/** What landed otherwise in the second of two runs, in order of time; each given the worst of each cue and unit. */
export function compareRuns(before: readonly Verdict[], after: readonly Verdict[]): readonly RunDifference[] {
  const old = new Map(before.map((v) => [keyOf(v), v]));
  const now = new Map(after.map((v) => [keyOf(v), v]));
  const found: RunDifference[] = [];
  for (const [key, verdict] of now) {
    const was = old.get(key);
    if (was && alike(was, verdict)) continue;
    found.push({ cueId: verdict.cueId, unitId: verdict.unitId, before: was, after: verdict });
  }
  for (const [key, was] of old) {
    if (!now.has(key)) found.push({ cueId: was.cueId, unitId: was.unitId, before: was, after: undefined });
  }
  return found.sort((a, b) => (a.after ?? a.before)!.due - (b.after ?? b.before)!.due);
}

const alike = (a: Verdict, b: Verdict): boolean =>
  a.outcome === b.outcome && Math.abs((a.offset ?? 0) - (b.offset ?? 0)) < SAME;
