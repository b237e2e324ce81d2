import { CABLE_TIMING, type Bytes, type Cable, type TimedBytes } from '../midi';
import { microsAt, songTime, type Song } from '../show';
import { TICKS_PER_QUARTER, type Micros, type Ticks } from '../time';
import { durationOf, latencyOf, type Path } from '../meaning';
import type { RawJob } from './jobs';

/** MIDI 1.0, system real-time and song position: 24 clocks a quarter, six to each unit of song position. */
const CLOCK = 0xf8;
const START = 0xfa;
const CONTINUE = 0xfb;
export const CLOCK_STOP: Bytes = [0xfc];
const CLOCK_TICKS: Ticks = TICKS_PER_QUARTER / 24;
const POSITION_TICKS: Ticks = CLOCK_TICKS * 6;
const POSITION_LIMIT = 16383;
/** Song position goes out this long before the message that makes units go on from it. */
const POSITION_AHEAD: Micros = 5000;

/** A song's clock on one port: start with the first clock, a clock every 24th of a quarter along the tempo map, stop at the end. */
export function clockJobs(song: Song, clockId: string, path: Path): RawJob[] {
  const time = songTime(song);
  const duration = durationOf(path, [CLOCK]);
  const latency = latencyOf(path, [CLOCK]);
  const job = (due: Micros, byte: number): RawJob => ({
    cueId: clockId,
    unit: null,
    path,
    send: { bytes: [byte] },
    duration,
    deadline: due - latency,
    release: due - latency - duration,
    after: -1,
    gap: 0,
    also: null,
  });
  const jobs: RawJob[] = [job(microsAt(time, 0) - duration, START)];
  for (let tick = 0; tick < time.end; tick += CLOCK_TICKS) jobs.push(job(microsAt(time, tick), CLOCK));
  jobs.push(job(microsAt(time, time.end), CLOCK_STOP[0]!));
  return jobs;
}

/**
 * What makes units that follow a clock go on from a place: the song position, which counts
 * sixteenths, and "continue" just before the clock of the first sixteenth at or after it.
 */
export function continueClock(song: Song, clockId: string, portId: string, cable: Cable, at: Ticks): TimedBytes[] {
  const time = songTime(song);
  const position = Math.ceil(at / POSITION_TICKS - 1e-9);
  if (position > POSITION_LIMIT) return [];
  const due = microsAt(time, position * POSITION_TICKS) - CABLE_TIMING[cable].latency;
  const { byteMicros } = CABLE_TIMING[cable];
  const event = (when: Micros, bytes: Bytes): TimedBytes => ({ at: when, portId, bytes, cueId: clockId, unitId: '' });
  return [event(due - POSITION_AHEAD, [0xf2, position & 127, position >> 7]), event(due - 2 * byteMicros, [CONTINUE])];
}
