import type { Micros } from '../time';
import type { PlannedJob, PortJob, Release } from './portJob';

/** Why a change cannot be there on its beat. */
export type LateCause =
  /** The song starts too soon: the change needs `needs` before it, and has less. */
  | { readonly kind: 'start'; readonly needs: Micros; readonly has: Micros }
  /** The change before it on the same unit is too near. */
  | { readonly kind: 'previous'; readonly cueId: string; readonly needs: Micros; readonly has: Micros }
  /** The cable is busy with what goes to others, or to the unit itself. */
  | { readonly kind: 'cable'; readonly portId: string; readonly others: readonly string[] };

/** A change that the schedule cannot bring in on its beat. */
export interface Late {
  readonly cueId: string;
  readonly unitId: string;
  readonly late: Micros;
  readonly cause: LateCause;
}

/** Rounding of sums of microseconds. */
const GRAIN: Micros = 1;

interface Group {
  readonly jobs: number[];
  late: Micros;
}

/** Each late change of one port's schedule with its cause, worst first within a port. */
export function latesOf(jobs: readonly PortJob[], ends: ArrayLike<Micros>): Late[] {
  const groups = new Map<string, Group>();
  for (const [i, job] of jobs.entries()) {
    if (job.unit === null) continue;
    const key = `${job.cueId}\n${job.unit.id}`;
    let group = groups.get(key);
    if (!group) groups.set(key, (group = { jobs: [], late: 0 }));
    group.jobs.push(i);
    group.late = Math.max(group.late, ends[i]! - job.deadline);
  }
  const lates: Late[] = [];
  const cable = new Cable(jobs, ends);
  for (const group of groups.values()) {
    if (group.late <= GRAIN) continue;
    const first = jobs[group.jobs[0]!] as PlannedJob;
    const { cueId } = first;
    lates.push({
      cueId,
      unitId: first.unit.id,
      late: group.late,
      cause: causeOf(jobs, ends, group, first.origin, cable),
    });
  }
  return lates.sort((a, b) => b.late - a.late);
}

/** So many of those that keep a cable busy are named. */
const NAMED = 4;

/** A port's messages in the order in which they end. */
class Cable {
  private readonly order: readonly number[];
  private readonly units: number;

  constructor(
    private readonly jobs: readonly PortJob[],
    private readonly ends: ArrayLike<Micros>,
  ) {
    this.order = jobs.map((_, i) => i).sort((a, b) => ends[a]! - ends[b]!);
    this.units = new Set(jobs.flatMap((j) => j.unit?.id ?? [])).size;
  }

  /** Units whose messages keep it busy between two times, but for some messages. */
  busyWith(from: Micros, to: Micros, but: ReadonlySet<number>): string[] {
    const others = new Set<string>();
    for (let k = this.firstAfter(from); k < this.order.length && others.size < this.units; k++) {
      const i = this.order[k]!;
      const { unit, duration } = this.jobs[i]!;
      if (this.ends[i]! - duration >= to) break;
      if (unit !== null && !but.has(i)) others.add(unit.id);
      if (others.size === NAMED) break;
    }
    return [...others];
  }

  private firstAfter(at: Micros): number {
    let low = 0;
    let high = this.order.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.ends[this.order[middle]!]! <= at) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}

function causeOf(
  jobs: readonly PortJob[],
  ends: ArrayLike<Micros>,
  group: Group,
  release: Release,
  cable: Cable,
): LateCause {
  const first = jobs[group.jobs[0]!] as PlannedJob;
  // With the cable to itself: as early as its release and its own unit allow.
  const own = new Map<number, Micros>();
  let free = Number.NEGATIVE_INFINITY;
  let alone = Number.NEGATIVE_INFINITY;
  for (const i of group.jobs) {
    const job = jobs[i]!;
    let end = Math.max(job.release, free) + job.duration;
    const after = (on: number, gap: Micros): void => {
      end = Math.max(end, (own.get(on) ?? ends[on]!) + gap);
    };
    if (job.after >= 0) after(job.after, job.gap);
    if (job.also) for (const { on, gap } of job.also) after(on, gap);
    own.set(i, (free = end));
    alone = Math.max(alone, end - job.deadline);
  }
  if (alone >= group.late - GRAIN) {
    const leaves = Math.min(...group.jobs.map((i) => jobs[i]!.deadline - jobs[i]!.duration));
    const span = { needs: release.due - leaves, has: release.due - release.at };
    return release.cueId === null ? { kind: 'start', ...span } : { kind: 'previous', cueId: release.cueId, ...span };
  }
  const [from, to] = [jobs[group.jobs[0]!]!.release, ends[group.jobs.at(-1)!]!];
  const others = cable.busyWith(from, to, new Set(group.jobs));
  return { kind: 'cable', portId: first.path.portId, others };
}
