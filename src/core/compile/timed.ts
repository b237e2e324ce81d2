import type { RigContext } from '../meaning';
import type { TimedBytes } from '../midi';
import type { RigState } from '../rig';
import type { Scheduled } from './forecast';
import type { PortJob } from './portJob';
import { schedulePort } from './schedule/schedulePort';
import { scheduleThrough } from './thruWaits';

/** What waits on each port, with the times at which it leaves, in the order of time. */
export function timed(
  context: RigContext,
  from: RigState,
  lists: ReadonlyMap<string, readonly PortJob[]>,
): { readonly events: readonly TimedBytes[]; readonly scheduled: readonly Scheduled[] } {
  const events: TimedBytes[] = [];
  const scheduled: Scheduled[] = [];
  for (const jobs of lists.values()) {
    if (jobs.length === 0) continue;
    const port = scheduleThrough(context, from, jobs, (all) => schedulePort(all).ends);
    scheduled.push(port);
    const { list, ends } = port;
    for (let i = 0; i < list.length; i++) {
      const { duration, path, send, cueId, unit } = list[i]!;
      events.push({ at: ends[i]! - duration, portId: path.portId, bytes: send.bytes, cueId, unitId: unit?.id ?? '' });
    }
  }
  // A stable sort: messages of one port that leave at once (USB) keep the order of their deadlines.
  events.sort((a, b) => a.at - b.at);
  return { events, scheduled };
}
