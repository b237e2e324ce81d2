import type { Micros } from '../time';
import { leastOf } from './margins';
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

/** How little it takes until a change that landed misses, in microseconds; without end where nothing makes it miss. */
export const roomOf = ({ margin }: Pick<Verdict, 'margin'>): Micros =>
  margin ? leastOf(margin) : Number.POSITIVE_INFINITY;

/** Negative where `a` is worse: by how it misses, then by how little room it has, then by how late it lands. */
function compareBadness(a: Verdict, b: Verdict): number {
  const [x, y] = [badness(a), badness(b)];
  if (x !== y) return y > x ? 1 : -1;
  const [r, s] = [roomOf(a), roomOf(b)];
  if (r !== s) return r < s ? -1 : 1;
  return (b.offset ?? 0) - (a.offset ?? 0);
}

const worse = (a: Verdict, b: Verdict): boolean => compareBadness(a, b) < 0;

/** The worst first; of those that are well, those with the least room. */
export const worstFirst = (verdicts: readonly Verdict[]): readonly Verdict[] => verdicts.toSorted(compareBadness);

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
