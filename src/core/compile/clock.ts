import { CLOCK, CLOCK_TICKS, CONTINUE, POSITION_TICKS, START, STOP, songPosition } from '../clock';
import { CABLE_TIMING, type Bytes, type Cable, type TimedBytes } from '../midi';
import { LIMITS, indexShow, microsAt, songTime, type Port, type Show, type Song } from '../show';
import { microsOf } from '../rig';
import type { Micros, Ticks } from '../time';
import { durationOf, latencyOf, type Path } from '../meaning';
import type { Planner } from './planner';
import type { RawJob } from './portJob';

/** Song position goes out this long before the message that makes units go on from it. */
const POSITION_AHEAD: Micros = 5000;

/** How many pulses a clock through the whole song has. */
export const clockPulses = (song: Song): number => Math.ceil(songTime(song).end / CLOCK_TICKS);

/** A song's clocks on ports that are switched on; none where they would have more pulses than are sent. */
export const runningClocks = (show: Show, song: Song): { readonly id: string; readonly port: Port }[] => {
  const { ports } = indexShow(show);
  if (song.clocks.length === 0 || clockPulses(song) > LIMITS.clockPulses) return [];
  return song.clocks.flatMap(({ id, portId }) => {
    const port = ports.get(portId);
    return port?.active ? [{ id, port }] : [];
  });
};

/** The same with their cables: past thrus where what else leaves on the port goes through any. */
export const clockPaths = (
  show: Show,
  song: Song,
  { lists }: Pick<Planner, 'lists'>,
): { readonly id: string; readonly path: Path }[] =>
  runningClocks(show, song).map(({ id, port }) => {
    const thru = lists.get(port.id)?.[0]?.path.thru ?? false;
    const delay = microsOf(port.delay, 'typical');
    return { id, path: { portId: port.id, cable: port.cable, hops: 0, thru, portDelay: delay, delay, spread: 0 } };
  });

const clockJob = (clockId: string, path: Path, bytes: Bytes, due: Micros): RawJob => {
  const duration = durationOf(path, bytes);
  const latency = latencyOf(path, bytes);
  return {
    cueId: clockId,
    unit: null,
    path,
    send: { bytes },
    duration,
    deadline: due - latency,
    release: due - latency - duration,
    // What follows a clock asks for even intervals, not for being early.
    margin: 0,
    after: -1,
    gap: 0,
    guard: 0,
    also: null,
  };
};

/** A song's clock on one port: start with the first clock, a clock every 24th of a quarter along the tempo map, stop at the end. */
export function clockJobs(song: Song, clockId: string, path: Path): RawJob[] {
  const time = songTime(song);
  const job = (due: Micros, bytes: Bytes): RawJob => clockJob(clockId, path, bytes, due);
  const jobs: RawJob[] = [job(microsAt(time, 0) - durationOf(path, START), START)];
  for (let tick = 0; tick < time.end; tick += CLOCK_TICKS) jobs.push(job(microsAt(time, tick), CLOCK));
  jobs.push(job(microsAt(time, time.end), STOP));
  return jobs;
}

/**
 * The clock of a stretch that comes round: clocks from a place until another, and before the first
 * of them what makes units that follow the clock go back to it: stop, position, continue.
 */
export function clockRound(song: Song, clockId: string, path: Path, from: Ticks, to: Ticks): RawJob[] {
  const time = songTime(song);
  const jobs: RawJob[] = [];
  for (let tick = Math.ceil(from / CLOCK_TICKS - 1e-9) * CLOCK_TICKS; tick < to - 1e-6; tick += CLOCK_TICKS) {
    jobs.push(clockJob(clockId, path, CLOCK, microsAt(time, tick)));
  }
  const [position, go] = continueClock(song, clockId, path.portId, path.cable, from);
  if (!position || !go) return jobs;
  const latency = latencyOf(path, STOP);
  const back = [{ ...position, bytes: STOP, at: position.at - durationOf(path, STOP) }, position, go];
  return [...back.map((e) => clockJob(clockId, path, e.bytes, e.at + latency + durationOf(path, e.bytes))), ...jobs];
}

/**
 * What makes units that follow a clock go on from a place: the song position, which counts
 * sixteenths, and "continue" just before the clock of the first sixteenth at or after it.
 */
export function continueClock(song: Song, clockId: string, portId: string, cable: Cable, at: Ticks): TimedBytes[] {
  const time = songTime(song);
  const sixteenth = Math.ceil(at / POSITION_TICKS - 1e-9);
  const position = songPosition(sixteenth);
  if (position === null) return [];
  const due = microsAt(time, sixteenth * POSITION_TICKS) - CABLE_TIMING[cable].latency;
  const { byteMicros } = CABLE_TIMING[cable];
  const event = (when: Micros, bytes: Bytes): TimedBytes => ({ at: when, portId, bytes, cueId: clockId, unitId: '' });
  return [event(due - POSITION_AHEAD, position), event(due - 2 * byteMicros, CONTINUE)];
}
