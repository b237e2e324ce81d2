import type { FromPeer } from '../../core/formats/line';
import { rigSpec } from '../../core/meaning';
import type { RigState } from '../../core/rig';
import { SimulatedRig } from '../../core/simulate';
import type { Show } from '../../core/show';
import type { Micros } from '../../core/time';
import { BoundPorts } from '../boundPorts';
import { withoutThru } from '../ports';
import { Playback, type PlaybackNews } from '../playback';
import { REAL_AHEAD, type SessionEvent } from '../sessionState';
import { StandIns } from '../standIns';

/** A message on the common cable, with who sent it. */
export interface OnCable {
  readonly who: 0 | 1;
  readonly portId: string;
  readonly at: Micros;
  readonly bytes: readonly number[];
}

interface Travelling {
  readonly at: Micros;
  readonly to: 0 | 1;
  readonly run: () => void;
}

/** How far ahead the second computer's clock is. */
const OFF: Micros = 123_456_789;

/**
 * Two computers with one rig on both their outputs, and a line between them: each message takes `trip` milliseconds.
 * What is handed to a port and not yet due when its computer is ended does not leave.
 */
export function pairOf(show: Show, trip: () => number = () => 2) {
  let now: Micros = 7e6;
  const alive: [boolean, boolean] = [true, true];
  let cut = false;
  let line: Travelling[] = [];
  let waiting: OnCable[] = [];
  const cable: OnCable[] = [];
  const rig = new SimulatedRig(withoutThru(rigSpec(show)), () => undefined);
  /** All that one told the other. */
  const said: FromPeer[] = [];
  const clocks = [(): Micros => now, (): Micros => now + OFF] as const;
  const over = (to: 0 | 1, run: () => void): void => {
    const last = line.findLast((t) => t.to === to)?.at ?? 0;
    // One behind the other, as on any line.
    line.push({ at: Math.max(last, now + trip() * 1000), to, run });
  };
  const computers = ([0, 1] as const).map((who) => {
    const own = clocks[who];
    const toNow = (at: Micros): Micros => at - own() + now;
    const ports = new BoundPorts(new StandIns(), (batch) => {
      for (const { portId, at, bytes } of batch) waiting.push({ who, portId, at: toNow(at), bytes });
    });
    const playback = new Playback(own, ports);
    const events: SessionEvent[] = [];
    let news: PlaybackNews | undefined;
    Object.assign(playback.ears, {
      news: (n: PlaybackNews) => (news = n),
      events: (e: readonly SessionEvent[]) => events.push(...e),
      peer: (message: FromPeer) => {
        said.push(message);
        const to = who === 0 ? 1 : 0;
        if (!cut && alive[who]) over(to, () => computers[to]!.playback.pair.hears(structuredClone(message)));
      },
    });
    ports.bind(new Map(show.ports.map((p) => [p.id, { standIn: false, real: true }])));
    playback.show(show);
    playback.ahead(REAL_AHEAD);
    return { playback, ports, events, news: () => news!, own };
  });
  const go = (millis: number): void => {
    for (const end = now + millis * 1000; now < end;) {
      now = Math.min(end, now + 4000);
      const due = line.filter((t) => t.at <= now);
      line = line.filter((t) => t.at > now);
      for (const { to, run } of due) if (alive[to]) run();
      for (const [who, { playback, ports }] of computers.entries()) {
        if (!alive[who]) continue;
        playback.wake();
        ports.flush();
      }
      const leaves = waiting.filter((e) => e.at <= now).toSorted((a, b) => a.at - b.at);
      waiting = waiting.filter((e) => e.at > now);
      for (const e of leaves) {
        cable.push(e);
        rig.send(e.portId, e.at, e.bytes);
      }
      rig.advance(now);
    }
  };
  const [first, second] = [computers[0]!, computers[1]!];
  const road = (is: 'open' | 'cut' | 'gone', who: 0 | 1): void => computers[who]!.playback.pair.road(is);
  const join = (): void => {
    first.playback.pair.sit({ first: true, leads: true });
    second.playback.pair.sit({ first: false, leads: false });
    road('open', 0);
    road('open', 1);
    go(600);
  };
  /** The show as it is from now on, at both: the other one has it a moment later. */
  const edit = (next: Show): void => {
    computers[0]!.playback.show(next);
    over(1, () => computers[1]!.playback.show(next));
  };
  /** Ends a computer; the other one is told, or hears nothing any more. */
  const kill = (who: 0 | 1, told = true): void => {
    alive[who] = false;
    waiting = waiting.filter((e) => e.who !== who);
    line = line.filter((t) => t.to !== who);
    const other = who === 0 ? 1 : 0;
    if (told) over(other, () => road('gone', other));
  };
  const cutLine = (is: boolean): void => {
    cut = is;
    if (is) line = [];
  };
  return {
    first,
    second,
    go,
    join,
    kill,
    edit,
    cutLine,
    road,
    cable,
    said,
    rig: (): RigState => rig.state(),
    quiet: (): boolean => rig.quiet,
    now: () => now,
  };
}
