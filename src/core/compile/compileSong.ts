import { append, entry } from '../groups';
import { contextOf, moments, StateFold, type RigContext } from '../meaning';
import type { TimedBytes } from '../midi';
import { NOWHERE, problem, type Problem } from '../problems';
import type { RigState } from '../rig';
import { indexShow, microsAt, songTime, type Show, type Song } from '../show';
import { millisToMicros, type Micros } from '../time';
import { CheckpointKeeper } from './checkpoints';
import { clockJobs, clockPaths } from './clock';
import { Dues } from './dues';
import { expandMoment } from './expand';
import { Forecast, leavingOf, type Forecasted, type Scheduled } from './forecast';
import { Planner } from './planner';
import type { PortJob } from './portJob';
import { latesOf, type Late } from './lateness';
import { timed } from './timed';

export interface CompiledSong {
  readonly songId: string;
  /** In the order in which they leave. Times count from tick 0; the opening may leave before it. */
  readonly events: readonly TimedBytes[];
  /** Computed on first use: sending does not need it. */
  readonly forecasts: readonly Forecasted[];
  /** Changes that come late, with the reason; computed on first use. */
  readonly lates: readonly Late[];
  /** Units, with the cues that want them somewhere, where neither bytes nor relay rules bring them. */
  readonly unreached: ReadonlyMap<string, ReadonlySet<string>>;
  /** When the last bar ends. */
  readonly end: Micros;
}

/**
 * All messages of a song with the times at which they leave, so that every cue lands as
 * it says, as far as units and cables allow. `from` is what is known of the rig before.
 */
export function compileSong(show: Show, song: Song, from: RigState = {}): CompiledSong {
  const context = contextOf(show);
  const time = songTime(song);
  const fold = new StateFold(context.units, from);
  const planner = new Planner(context);
  const dues = new Dues(-millisToMicros(song.preRoll));
  const unreached = new Map<string, Set<string>>();

  // What is known on the way makes every place of the song quick to reach later.
  const keeper = Object.keys(from).length === 0 ? new CheckpointKeeper() : undefined;
  for (const moment of moments(show, song)) {
    const { id: cueId, due, landing } = moment;
    keeper?.add(fold, due);
    const all = expandMoment(show, context, fold, moment, 'changes');
    for (const sends of all) if (sends.unreached) entry(unreached, sends.unit.id, () => new Set<string>()).add(cueId);
    planner.add({ cueId, due, landing }, all, (sends) => dues.release(moment, sends));
  }

  keeper?.keep(show, song);
  const lists = new Map<string, PortJob[]>(planner.lists);
  for (const { id, path } of clockPaths(show, song, planner)) {
    append(
      entry(lists, path.portId, () => []),
      clockJobs(song, id, path),
    );
  }
  const { events, scheduled } = timed(context, from, lists);
  let forecasts: readonly Forecasted[] | undefined;
  let lates: readonly Late[] | undefined;
  return {
    songId: song.id,
    events,
    get forecasts() {
      return (forecasts ??= forecast(show, song, context, from, scheduled));
    },
    get lates() {
      return (lates ??= scheduled.flatMap(({ list, ends }) => latesOf(list, ends)));
    },
    unreached,
    end: microsAt(time, time.end),
  };
}

function forecast(
  show: Show,
  song: Song,
  context: RigContext,
  from: RigState,
  scheduled: readonly Scheduled[],
): Forecasted[] {
  const dueOf = new Map<string, Micros>();
  for (const { id, due } of moments(show, song)) dueOf.set(id, due);
  const cast = new Forecast(context, from);
  cast.play(leavingOf(scheduled));
  return [...cast.found.values()].map((f) => ({ ...f, due: dueOf.get(f.cueId)! }));
}

/** What stands in the way of a song's messages as a whole. Told apart from what was compiled, because it names units. */
export const problemsOf = (show: Show, { unreached }: CompiledSong): Problem[] =>
  [...unreached.keys()].flatMap((id) => noPort(show, id));

/** Why nothing reaches a unit. One that others tell something is reached, if only where their rules take it: that is said of the tone. */
function noPort(show: Show, unitId: string): Problem[] {
  const { units, ports } = indexShow(show);
  const unit = units.get(unitId)!;
  if (show.units.some((u) => u.relays.some((r) => r.toUnitId === unitId))) return [];
  const input = unit.input;
  const port = input?.from === 'port' ? ports.get(input.portId) : undefined;
  if (port && !port.active) {
    return [problem('compile.port-off', 'error', NOWHERE, { unit: unit.name, port: port.name })];
  }
  return [problem('compile.no-port', 'error', NOWHERE, { unit: unit.name })];
}
