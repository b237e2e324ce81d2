import type { Bytes } from '../../core/midi';
import { rigSpec } from '../../core/meaning';
import type { Show } from '../../core/show';
import type { Micros } from '../../core/time';
import { BoundPorts } from '../boundPorts';
import type { MonitorLine } from '../monitor';
import { Playback, type PlaybackNews } from '../playback';
import { LOOK_AHEAD, type SessionEvent } from '../sessionState';
import { StandIns } from '../standIns';

/** A playback with stand-ins, and real ports beside them, and a clock that goes on by hand. */
export function played(show: Show, ahead: Micros = LOOK_AHEAD) {
  let now: Micros = 7e6;
  const standIns = new StandIns();
  const ports = new BoundPorts(standIns);
  const playback = new Playback(() => now, ports);
  const lines: MonitorLine[] = [];
  const events: SessionEvent[] = [];
  let news: PlaybackNews | undefined;
  Object.assign(playback.ears, {
    news: (n: PlaybackNews) => (news = n),
    lines: (l: readonly MonitorLine[]) => lines.push(...l),
    events: (e: readonly SessionEvent[]) => events.push(...e),
  });
  const edit = (next: Show): void => {
    standIns.follow(rigSpec(next));
    ports.bind(new Map(next.ports.map((p) => [p.id, { standIn: true, real: true }])));
    playback.show(next);
  };
  edit(show);
  playback.ahead(ahead);
  const wake = (): void => {
    playback.wake();
    standIns.advance(now);
  };
  const go = (millis: number): PlaybackNews => {
    for (const end = now + millis * 1000; now < end;) {
      now = Math.min(end, now + 8000);
      wake();
    }
    return news!;
  };
  const sleep = (millis: number): PlaybackNews => {
    now += millis * 1000;
    wake();
    return news!;
  };
  const arrive = (portId: string, bytes: Bytes, at = now): void => ports.arrive(portId, at, bytes);
  const out = (): readonly MonitorLine[] => lines.filter((l) => l.direction === 'out');
  return { playback, standIns, edit, go, sleep, out, arrive, events, now: () => now };
}
