import type { Mirrored } from '../../core/formats/line';
import { indexShow, songAsPlayed, songTime, ticksAt } from '../../core/show';
import type { Micros } from '../../core/time';
import { startLine, within } from '../plans';
import { NEW_SESSION, loopOf, type Session } from '../sessionState';
import { fromOf, playing, type Transport } from '../transport';

/** What the other computer has to know of a session to go on with it. */
export function mirrorOf(session: Session, now: Micros): Mirrored {
  const { transport, song, planned, muted, solo, history, following, loop, next } = session;
  const { entryId, queued, speed, counted, countsIn, outside, isLed, night, beside } = session;
  return {
    showId: session.show?.id ?? '',
    songId: song?.id ?? null,
    entryId,
    queued,
    plays:
      transport.kind === 'playing' && planned
        ? { from: Math.max(0, ticksAt(songTime(planned), fromOf(transport, now))), zero: transport.zero }
        : null,
    place: transport.kind === 'stopped' ? transport.place : 0,
    speed,
    counted,
    countsIn,
    outside,
    isLed,
    loop,
    following,
    history: [...history],
    night,
    muted: [...muted],
    solo: [...solo],
    next,
    beside,
  };
}

/** The same with all its clock times moved: those of one computer are not those of another. */
export const mirrorMoved = (mirror: Mirrored, by: Micros): Mirrored => ({
  ...mirror,
  plays: mirror.plays && { ...mirror.plays, zero: mirror.plays.zero + by },
  following: mirror.following && { ...mirror.following, at: mirror.following.at + by },
  history: mirror.history.map((p) => ({ ...p, at: p.at + by, until: p.until === null ? null : p.until + by })),
});

/**
 * A session that is where that of the other computer is. What plays is planned from where that was started, so that
 * it need only be planned on from here; nothing of it is sent before.
 */
export function mirrored(session: Session, mirror: Mirrored): Session {
  const { show } = session;
  if (show?.id !== mirror.showId) return session;
  const { showId: _, songId, plays, place, muted, solo, ...rest } = mirror;
  const song = songId === null ? null : (indexShow(show).songs.get(songId) ?? null);
  const next: Session = {
    ...session,
    ...rest,
    before: null,
    muted: new Set(muted),
    solo: new Set(solo),
    recent: [],
    begun: [],
    song,
    lastWake: null,
  };
  if (!song) return { ...next, planned: null, transport: NEW_SESSION.transport };
  const planned = sameWay(session, next) ? session.planned! : songAsPlayed(song, next);
  if (!plays) return { ...next, planned, transport: { kind: 'stopped', place } };
  const was = session.transport;
  const goesOn = was.kind === 'playing' && sameWay(session, next) && sameStart(session, was, plays.from);
  const transport: Transport = goesOn
    ? { ...was, zero: plays.zero }
    : playing(within(show, planned, startLine(show, planned, plays.from, {}), loopOf(next, song)), plays.zero);
  return { ...next, planned, transport };
}

/** Whether a song is planned as it was. */
const sameWay = (was: Session, next: Session): boolean =>
  was.planned !== null &&
  was.song === next.song &&
  was.speed === next.speed &&
  was.counted === next.counted &&
  was.outside === next.outside &&
  JSON.stringify(was.loop) === JSON.stringify(next.loop);

const sameStart = ({ planned }: Session, { line }: Extract<Transport, { kind: 'playing' }>, from: number): boolean =>
  Math.abs(ticksAt(songTime(planned!), line.place) - from) < 1;
