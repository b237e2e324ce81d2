import { entry } from '../groups';
import { durationOf, latencyOf, thruGap, type Path, type RigContext, type SetOff } from '../meaning';
import type { Bytes } from '../midi';
import { acceptsAgainAfter, effectAfter, type UnitSpec } from '../rig';
import type { Micros } from '../time';
import type { Send, UnitSends } from './expand';
import type { Job, Wait } from './schedule/job';

/** Delay from a message's arrival to its effect, in microseconds; 0 for what has none of its own, such as a bank select. */
const effectOf = (unit: UnitSpec, { kind }: Send): Micros =>
  kind === 'recall' || kind === 'variant' || kind === 'control' ? effectAfter(unit, kind) : 0;

/** A job that is still on its way to its port's schedule. */
export interface PlannedJob extends Job {
  readonly cueId: string;
  readonly unit: UnitSpec;
  readonly path: Path;
  readonly send: Send;
  readonly origin: Release;
  /**
   * Of what follows a recall in the same change: it ends no later than this behind that one, wherever that one goes,
   * so that it takes effect when the preset is there, or as soon as the unit takes it. A preset that is called
   * early, for what it has other units told, would sound as it is stored until then; and of two calls of another unit,
   * by the preset and by the variant, the second would not come as was reckoned.
   */
  readonly closely: { readonly on: number; readonly within: Micros } | null;
}

/** What a job may not leave before: the start of the song, or the due time of another cue. */
export interface Release {
  readonly at: Micros;
  /** Null is the start of the song, less the time that it allows. */
  readonly cueId: string | null;
  /** When the job's own cue is due. */
  readonly due: Micros;
}

/** Bytes for a whole port and no unit: its clock. */
export interface RawJob extends Job {
  readonly cueId: string;
  readonly unit: null;
  readonly path: Path;
  readonly send: { readonly bytes: Bytes };
}

/** Whatever waits to leave on a port. */
export type PortJob = PlannedJob | RawJob;

/** While it is being made. */
export type Writable<T> = { -readonly [K in keyof T]: T[K] };

/** A message after whose end something has to go by, and whose turn it belongs to: one moment and one unit. */
interface Mark {
  readonly on: number;
  /** From its end on: until a unit takes the next message, or until a preset is there. */
  readonly until: Micros;
  readonly turn: number;
  /** Rules are carried out once it is there. */
  readonly tells?: boolean;
}

/** Where a unit's messages stand: what the next one has to follow. */
interface Chain {
  readonly portId: string;
  /** Index in the port's list of the unit's last message, -1 for none. */
  last: number;
  lastBytes: Bytes;
  /** From the end of the last message until the unit may get the next. */
  accepts: Micros;
  /** Messages by which other units told it something since: until it may get the next. */
  told: Mark[];
  /** Presets, and variants that tell others something, that nothing may take the place of before they are there. */
  loads: Mark[];
  /** The preset called last: no variant is there sooner. */
  preset?: Mark;
  /** The last variant and the last control: a preset that loads faster than they take effect would come before them. */
  slow: { variant?: Mark; control?: Mark };
}

/** What one moment sends. */
export interface Turn {
  readonly cueId: string;
  readonly landing: 'complete' | 'sent';
  readonly due: Micros;
}

/** So that what two relay rules call comes one after the other also by the last nanosecond. */
const BEHIND: Micros = 1;
/** Where there is time, what relay rules set off comes to its end, and a little more, before more is set off. */
const PATIENCE: Micros = 1000;

/**
 * Puts messages on the lists of their ports, each with when it may leave, when it should be
 * there and what it has to wait for: the message before it to the same unit, with the settling
 * of a recall; what other units told the unit by relay rules; and presets that would be lost
 * if another took their place.
 */
export class Planner {
  readonly lists = new Map<string, Writable<PlannedJob>[]>();
  private readonly chains = new Map<string, Chain>();
  private turns = 0;

  constructor(
    private readonly context: RigContext,
    /** Whether what relay rules set off comes to its end before more is sent: for catch-up, where there is time. */
    private readonly patient = false,
  ) {}

  /**
   * One moment. Landing complete: every effect is there at the due time, also those that relay
   * rules set off. Landing sent: the first byte leaves at it, the rest follow as soon as the
   * units take them.
   */
  add(turn: Turn, all: readonly UnitSends[], releaseOf: (sends: UnitSends) => Release): void {
    const starts = new Map<string, number>();
    for (const { unit, sends, unreached } of all) {
      const path = this.context.paths.get(unit.id);
      if (!path) continue;
      const list = entry(this.lists, path.portId, () => []);
      if (!starts.has(path.portId)) starts.set(path.portId, list.length);
      const origin = releaseOf({ unit, sends, unreached });
      if (sends.length > 0) this.append(turn, list, starts.get(path.portId)!, path, unit, sends, origin);
    }
    for (const [portId, start] of starts) carryBack(this.lists.get(portId)!, start);
  }

  private append(
    turn: Turn,
    list: Writable<PlannedJob>[],
    start: number,
    path: Path,
    unit: UnitSpec,
    sends: readonly Send[],
    origin: Release,
  ): void {
    const number = ++this.turns;
    const chain = this.chainOf(unit, path.portId);
    const { due } = origin;
    const sent = turn.landing === 'sent';
    let end = due;
    /** The recall of this moment: its place, and how far behind it the message ends that was looked at last. */
    let recall: { readonly on: number; readonly effect: Micros; behind: Micros } | undefined;
    for (const [k, send] of sends.entries()) {
      const duration = durationOf(path, send.bytes);
      const latency = latencyOf(path, send.bytes);
      const effect = latency + effectOf(unit, send);
      const waits = this.waitsOf(chain, send, number, duration, latency, effect - latency);
      if (send.setOff) this.addWaitsOfTold(waits, path.portId, send.setOff, effect, number);
      const gap = chain.last < 0 ? 0 : Math.max(chain.accepts - latency, thruGap(path, chain.lastBytes, send.bytes), 0);
      const index = list.length;
      if (recall) recall.behind += Math.max(duration, gap);
      let deadline: Micros;
      if (sent) {
        end += duration;
        if (k > 0) end = Math.max(end, list[index - 1]!.deadline + gap);
        for (const w of waits) if (w.on >= start) end = Math.max(end, list[w.on]!.deadline + w.gap);
        deadline = end;
      } else deadline = due - effect - (send.setOff?.tail ?? 0);
      // A variant is there no sooner than the preset that loads: what it sets off waits for that.
      const { preset } = chain;
      if (preset?.turn === number && !sent && send.setOff) {
        const before = list[preset.on]!;
        before.deadline = Math.min(before.deadline, due - preset.until - send.setOff.tail);
      }
      list.push({
        cueId: turn.cueId,
        unit,
        path,
        send,
        origin,
        duration,
        deadline,
        release: sent ? Math.max(origin.at, due) : origin.at,
        after: chain.last,
        gap,
        also: waits.length > 0 ? waits : null,
        closely:
          recall && (send.kind === 'variant' || send.kind === 'control')
            ? { on: recall.on, within: Math.max(recall.behind, recall.effect - effect) }
            : null,
      });
      const recalls = send.kind === 'recall';
      if (recalls) recall = { on: index, effect, behind: 0 };
      const mark: Mark = { on: index, until: effect, turn: number };
      if (recalls) chain.slow = {};
      else if (send.kind === 'variant' || send.kind === 'control') {
        chain.slow[send.kind] = mark;
      }
      chain.last = index;
      chain.lastBytes = send.bytes;
      chain.accepts = recalls ? latency + acceptsAgainAfter(unit) : 0;
      chain.told = [];
      if (recalls) {
        chain.preset = mark;
        // What has rules carried out has to be there before anything takes its place, or they never are.
        // A variant whose preset never came would count for the preset before, and what the rules say of that one.
        const elsewhere = unit.relays.length > 0 && sends.some((s) => s.kind === 'variant');
        const tells = elsewhere || sends.some((s) => s.setOff !== null);
        chain.loads = sent || tells ? [{ ...mark, tells }] : [];
      } else if (send.setOff) {
        chain.loads = [...chain.loads, { ...mark, tells: true }];
        // It is there no sooner than the preset of an earlier cue that still loads, and lost with it.
        if (send.kind === 'variant' && preset) chain.loads = [...chain.loads, { ...preset, tells: true }];
      }
      if (send.setOff) {
        this.markTold(path.portId, send.setOff, mark, sent);
        if (send.kind === 'variant' && preset) {
          this.markTold(path.portId, send.setOff, { ...preset, turn: number }, sent);
        }
      }
    }
  }

  private chainOf(unit: UnitSpec, portId: string): Chain {
    return entry(this.chains, unit.id, () => ({
      portId,
      last: -1,
      lastBytes: [],
      accepts: 0,
      told: [],
      loads: [],
      slow: {},
    }));
  }

  /** What a message has to wait for beside the one before it. */
  private waitsOf(chain: Chain, send: Send, turn: number, duration: Micros, latency: Micros, effect: Micros): Wait[] {
    const waits = chain.told
      .filter((m) => m.turn !== turn)
      .map(({ on, until }): Wait => ({ on, gap: until - latency }));
    if (send.kind === 'recall') addSlow(waits, chain, latency + effect);
    // Controls take the place of nothing.
    if (send.kind !== 'bank' && send.kind !== 'recall' && send.kind !== 'variant') return waits;
    // Bytes as they stand leave when they are due, but for what rules would never hear of.
    for (const m of chain.loads) {
      if (m.turn !== turn && (m.tells || !send.raw)) waits.push({ on: m.on, gap: m.until + duration });
    }
    return waits;
  }

  /** A message that has other units told something waits until they take it. `effect` counts from its end. */
  private addWaitsOfTold(waits: Wait[], portId: string, { told }: SetOff, effect: Micros, turn: number): void {
    for (const { unit, first, arrives } of told) {
      const chain = this.chains.get(unit.id);
      if (!chain || chain.portId !== portId) continue;
      const add = (on: number, gap: Micros): void => void waits.push({ on, gap: Math.max(0, gap) });
      if (chain.last >= 0) add(chain.last, chain.accepts - effect - first);
      for (const m of chain.told) if (m.turn !== turn) add(m.on, m.until - effect - first);
      for (const m of chain.loads) if (m.turn !== turn) add(m.on, m.until - effect - arrives + BEHIND);
      addSlow(waits, chain, effect + arrives + effectAfter(unit, 'recall'));
    }
  }

  /** Notes on the chains of those that are told what has to go by. `by.until` is when it takes effect. */
  private markTold(portId: string, { told }: SetOff, by: Mark, sent: boolean): void {
    for (const { unit, arrives, there: reckoned } of told) {
      // What is ignored as reckoned may come a little later, and be taken: nothing else is sent before.
      const there = reckoned ?? arrives + effectAfter(unit, 'recall');
      const chain = this.chainOf(unit, portId);
      if (chain.portId !== portId) continue;
      const settled = arrives + acceptsAgainAfter(unit);
      const until = by.until + (this.patient ? Math.max(settled, there) + PATIENCE : settled);
      // Of earlier ones this one has waited for: what waits for it waits for them.
      const own = (marks: readonly Mark[]): Mark[] => marks.filter((m) => m.turn === by.turn);
      chain.told = [...own(chain.told), { ...by, until }];
      const tells = unit.relays.length > 0;
      if (sent || tells) chain.loads = [...own(chain.loads), { ...by, until: by.until + there, tells }];
    }
  }
}

/** A preset is there no sooner than what was set before it. `there` counts from the end of what calls it. */
function addSlow(waits: Wait[], { slow }: Chain, there: Micros): void {
  for (const mark of [slow.variant, slow.control]) {
    const gap = mark ? mark.until - there + BEHIND : 0;
    if (mark && gap > 0) waits.push({ on: mark.on, gap });
  }
}

/** What follows must have its time, so deadlines move back from the last message of a moment to the first. */
function carryBack(list: Writable<PlannedJob>[], start: number): void {
  carryOnce(list, start);
  if (keepClose(list, start)) carryOnce(list, start);
}

/** Moves what follows a recall to it where that one has moved (see `closely`), and what stands between them. Whether anything moved. */
export function keepClose(list: readonly PortJob[], start = 0): boolean {
  let moved = false;
  for (let i = start; i < list.length; i++) {
    const job = list[i]!;
    const closely = job.unit === null ? null : job.closely;
    if (!closely || job.deadline <= list[closely.on]!.deadline + closely.within) continue;
    moved = true;
    (job as Writable<PortJob>).deadline = list[closely.on]!.deadline + closely.within;
    for (let k = i; list[k]!.after > closely.on; k = list[k]!.after) {
      const { deadline, duration, gap, after } = list[k]!;
      const before = list[after]! as Writable<PortJob>;
      before.deadline = Math.min(before.deadline, deadline - Math.max(duration, gap));
    }
  }
  return moved;
}

function carryOnce(list: Writable<PlannedJob>[], start: number): void {
  for (let i = list.length - 1; i >= start; i--) {
    const { deadline, duration, after, gap, also } = list[i]!;
    const before = (on: number, least: Micros): void => {
      if (on < start) return;
      const job = list[on]!;
      job.deadline = Math.min(job.deadline, deadline - Math.max(duration, least));
    };
    before(after, gap);
    if (also) for (const w of also) before(w.on, w.gap);
  }
}
