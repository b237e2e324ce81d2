import type { Bytes } from '../midi';
import type { Wanted } from '../rig';
import { CableLoad, type CompiledSong } from '../compile';
import type { Show } from '../show';
import { worstOfEach, type DryRun, type Verdict } from '../simulate';
import type { Micros } from '../time';

/** What a unit is on from when to when; a gap is a preset that loads, with what was on before it. */
export interface StateSpan {
  readonly from: Micros;
  readonly to: Micros;
  readonly slot: number | null;
  readonly variant: number | 'stored' | null;
  readonly gap: boolean;
}

/** What a dry run looks like along a song. */
export interface SongPicture {
  /** Of each 5-pin port, how much of each second its cable is busy, from 0 to 1. */
  readonly load: readonly { readonly portId: string; readonly seconds: readonly number[] }[];
  /** Whether `units` is filled: it is as large as the song. */
  readonly detailed: boolean;
  /** Of each unit, in order of time: what was heard of it, what the song wants of it, what was sent to it. */
  readonly units: readonly {
    readonly unitId: string;
    readonly heard: readonly StateSpan[];
    readonly wanted: readonly StateSpan[];
    readonly sent: readonly { readonly at: Micros; readonly bytes: Bytes }[];
  }[];
  /** How the worst change of each cue on each unit landed, in order of time. */
  readonly landings: readonly Verdict[];
  /** When the song ends. */
  readonly end: Micros;
}

export const NO_PICTURE: SongPicture = { load: [], detailed: false, units: [], landings: [], end: 0 };

/** What a dry run looks like: how busy cables are, what units are on and when they load, how changes land. */
export function pictureOf(
  show: Show,
  compiled: CompiledSong,
  wants: readonly Wanted[],
  { verdicts, trace }: DryRun,
  detailed = true,
): SongPicture {
  const { end, events } = compiled;
  const loadOf = (portId: string): number[] => new CableLoad(events.filter((e) => e.portId === portId)).perSecond(end);
  return {
    load: show.ports
      .filter((p) => p.cable === 'din' && p.active)
      .map(({ id }) => ({ portId: id, seconds: loadOf(id) }))
      .filter((l) => l.seconds.some((s) => s > 0)),
    detailed,
    units: (detailed ? show.units : [])
      .map(({ id }) => ({
        unitId: id,
        heard: heardSpans(id, trace, end),
        wanted: wantedSpans(id, wants, end),
        sent: events.filter((e) => e.unitId === id).map((e) => ({ at: e.at, bytes: e.bytes })),
      }))
      .filter((u) => u.heard.length > 0 || u.wanted.length > 0),
    landings: worstOfEach(verdicts),
    end,
  };
}

/** What a unit is on from when to when, as heard; while a preset loads it is on nothing. */
function heardSpans(unitId: string, trace: DryRun['trace'], end: number): StateSpan[] {
  const line = new SpanLine();
  let loadingUntil: number | null = null;
  for (const entry of trace) {
    if (entry.kind === 'loading' && entry.unitId === unitId) {
      line.turn(entry.at, { ...line.state, gap: true });
      loadingUntil = entry.load.until;
    } else if (entry.kind === 'changed' && entry.unitId === unitId) {
      const { slot, variant } = entry.state;
      // Before its preset is there, a unit that changes otherwise is still silent.
      const gap: boolean = loadingUntil !== null && entry.at < loadingUntil;
      if (!gap) loadingUntil = null;
      line.turn(entry.at, { slot, variant, gap });
    }
  }
  return line.done(end);
}

/** What the song wants a unit to be on, from when to when. */
function wantedSpans(unitId: string, wants: readonly Wanted[], end: number): StateSpan[] {
  const line = new SpanLine();
  for (const { unitId: id, due, aim } of wants.toSorted((a, b) => a.due - b.due)) {
    if (id !== unitId || aim.kind !== 'state') continue;
    const { slot = line.state.slot, variant = slot === line.state.slot ? line.state.variant : null } = aim.state;
    line.turn(due, { slot, variant, gap: false });
  }
  return line.done(end);
}

type State = Pick<StateSpan, 'slot' | 'variant' | 'gap'>;

/** Spans one after the other; what is not known is left out, and neighbours that are alike are one. */
class SpanLine {
  state: State = { slot: null, variant: null, gap: false };
  private from = Number.NEGATIVE_INFINITY;
  private readonly spans: StateSpan[] = [];

  turn(at: number, to: State): void {
    const { slot, variant, gap } = this.state;
    if (to.slot === slot && to.variant === variant && to.gap === gap) return;
    this.close(at);
    this.from = at;
    this.state = to;
  }

  done(end: number): StateSpan[] {
    this.close(end);
    return this.spans;
  }

  private close(to: number): void {
    const { slot, variant, gap } = this.state;
    if (to <= this.from || (slot === null && variant === null && !gap)) return;
    this.spans.push({ from: this.from, to, slot, variant, gap });
  }
}
