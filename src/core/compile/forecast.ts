import { addTo } from '../groups';
import { Course, StateFold, type RigContext } from '../meaning';
import { effectAfter, type RigState, type UnitSpec } from '../rig';
import { CABLE_TIMING } from '../midi';
import type { Micros } from '../time';
import type { PlannedJob, PortJob } from './portJob';

/** When a unit will be as a cue wants it, by the compiler's reckoning. */
export interface Forecasted {
  readonly cueId: string;
  readonly unitId: string;
  readonly due: Micros;
  /** When the last effect is there. */
  readonly complete: Micros;
}

/** A message that leaves, and when its last byte is through its port's cable. */
interface Leaving {
  readonly job: PortJob;
  readonly arrives: Micros;
}

/** One port's messages and when each ends. */
export interface Scheduled {
  readonly list: readonly PortJob[];
  readonly ends: ArrayLike<Micros>;
}

/** All that leaves, in the order in which it does. */
export function leavingOf(scheduled: readonly Scheduled[]): readonly Leaving[] {
  const leaving = scheduled.flatMap(({ list, ends }) =>
    list.map((job, i) => {
      const { byteMicros, latency } = CABLE_TIMING[job.path.cable];
      const at = ends[i]! - job.duration;
      return { job, at, arrives: at + job.send.bytes.length * byteMicros + latency + job.path.portDelay };
    }),
  );
  return leaving.sort((a, b) => a.at - b.at);
}

/**
 * Effects that the compiler counts on, from the units' times: it looks at what sends are meant
 * to do, never at bytes. `R` of the course is the cue.
 */
export class Forecast extends Course<PlannedJob> {
  /** When each cue is complete on each unit; a preset that another takes the place of never is. */
  readonly found = new Map<string, { readonly cueId: string; readonly unitId: string; complete: Micros }>();

  private readonly effects = new Map<PlannedJob, Micros>();

  constructor(
    context: RigContext,
    from: RigState,
    /** Called when a message reaches its unit, whether the unit accepts it or not. */
    private readonly arrived: (job: PlannedJob, at: Micros) => void = () => undefined,
  ) {
    super(context.units, new StateFold(context.units, from));
  }

  /** All that leaves, in the order in which it does. */
  play(all: readonly Leaving[]): void {
    const roots = new Map<string, UnitSpec[]>();
    for (const unit of this.units.values()) {
      if (unit.input?.from !== 'port') continue;
      addTo(roots, unit.input.portId, unit);
    }
    for (const { job, arrives } of all) {
      const hear = (unit: UnitSpec, at: Micros): void => {
        if (job.unit === null || unit.id !== job.unit.id) return;
        this.arrived(job, at);
        this.takes(job, at);
      };
      for (const unit of roots.get(job.path.portId) ?? []) {
        // Where nobody passes anything on, only the unit that is meant matters.
        if (!job.path.thru && unit.id !== job.unit?.id) continue;
        this.queue.push(arrives, () => {
          hear(unit, arrives);
          if (job.path.thru) this.passOn(unit, 'thru', job.send.bytes.length, arrives, hear);
        });
      }
    }
    this.run();
  }

  protected override came(unit: UnitSpec, at: Micros, { cueId }: PlannedJob): void {
    this.note(cueId, unit.id, at);
  }

  private takes(job: PlannedJob, arrives: Micros): void {
    const { unit, send, cueId } = job;
    const fold = this.states as StateFold;
    this.accept(
      unit,
      arrives,
      (at) => {
        const busy = this.busyUntil.get(unit.id) ?? Number.NEGATIVE_INFINITY;
        if (send.kind === 'recall') {
          const there = (done: Micros): void => {
            fold.loadSlot(unit, send.reaches);
            this.note(cueId, unit.id, done);
            this.takeEffect(job, 'slot', done);
          };
          this.load(unit, send.reaches, at, there, () => undefined);
        } else if (send.kind === 'variant') {
          const done = Math.max(busy, at + effectAfter(unit, 'variant'));
          this.queue.push(done, () => {
            fold.setVariant(unit, send.reaches!);
            this.note(cueId, unit.id, done);
            this.takeEffect(job, 'variant', done);
          });
        } else if (send.kind === 'control') {
          this.note(cueId, unit.id, Math.max(busy, at + effectAfter(unit, 'control')));
        }
      },
      () => undefined,
    );
  }

  private takeEffect(job: PlannedJob, reached: 'slot' | 'variant', at: Micros): void {
    this.effects.set(job, at);
    this.reached(job.unit, reached, at, job);
  }

  /** How much later than planned the calls of each message arrive, because a cable was busy. */
  relayedLater(): ReadonlyMap<PlannedJob, Micros> {
    const later = new Map<PlannedJob, Micros>();
    const counts = new Map<PlannedJob, Map<UnitSpec, number>>();
    for (const { root, unit, arrives } of this.relayed) {
      const effect = this.effects.get(root);
      if (effect === undefined) continue;
      let count = counts.get(root);
      if (!count) counts.set(root, (count = new Map()));
      const n = count.get(unit) ?? 0;
      count.set(unit, n + 1);
      const reckoned = root.send.relayEffects?.relayed.filter((t) => t.unit === unit)[n];
      if (reckoned) later.set(root, Math.max(later.get(root) ?? 0, arrives - effect - reckoned.arrives));
    }
    return later;
  }

  private note(cueId: string, unitId: string, complete: Micros): void {
    const key = `${cueId}\n${unitId}`;
    const before = this.found.get(key);
    if (!before) this.found.set(key, { cueId, unitId, complete });
    else before.complete = Math.max(before.complete, complete);
  }
}
