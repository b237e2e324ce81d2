import { microsAt, songTime, songAsPlayed, ticksAt, type Show, type Song } from '../core/show';
import type { Micros } from '../core/time';
import { lineFromHere, startLine, within } from './plans';
import { fromOf, playing, roundZero } from './transport';
import { type Session, type Moment, loopOf } from './sessionState';

/** Units that are sent nothing, for whatever reason. */
export function hushedUnits({
  show,
  muted,
  solo,
  gone,
}: Pick<Session, 'show' | 'muted' | 'solo' | 'gone'>): ReadonlySet<string> {
  const hushed = new Set<string>();
  for (const { id, input } of show?.units ?? []) {
    const lost = input?.from === 'port' && gone.has(input.portId);
    if (lost || muted.has(id) || (solo.size > 0 && !solo.has(id))) hushed.add(id);
  }
  return hushed;
}

/** The session with the song that plays planned anew; its place stays the same bar and beat, also where tempos changed. */
export function plannedAnew(
  session: Session,
  show: Show,
  song: Song,
  handedUntil: Micros,
  { now, eventual, busy, acceptsAt }: Moment,
  /** So much further on than it was thought to be. */
  slip: Micros = 0,
): Session {
  const { transport, planned: was } = session;
  if (transport.kind !== 'playing' || !was) return session;
  const { line } = transport;
  const sung = songAsPlayed(song, session);
  const loop = loopOf(session, song);
  const [oldTime, newTime] = [songTime(was), songTime(sung)];
  const begun = roundZero(transport, now);
  const passed = now - begun;
  const moved = (at: Micros): Micros => (at <= 0 ? at : microsAt(newTime, ticksAt(oldTime, at)));
  // Only where the place lies elsewhere in time: sums of microseconds are not the same there and back.
  const shift = was.tempo === sung.tempo ? 0 : moved(passed) - passed;
  const zero = begun - shift - slip;
  const place = fromOf(transport, now);
  if (passed < place && place > 0) {
    // Still on the way to the place it starts from: that way is made anew.
    const anew = within(show, sung, startLine(show, sung, ticksAt(oldTime, place), eventual()), loop);
    const waits = playing(anew, Math.max(zero, busy() - anew.start));
    return { ...session, song, planned: sung, transport: waits };
  }
  const takes = acceptsAt();
  const fromHere = lineFromHere(show, sung, {
    place: now - zero,
    // What a loop had handed over for its next round is no part of this one.
    handedUntil: Math.min(handedUntil - zero, line.round ? moved(line.round.to) : Number.POSITIVE_INFINITY),
    line: { ...line, place: moved(place) },
    eventual: eventual(),
    rests: (units) => busy(units) - zero,
    takes: (unitId) => takes(unitId) - zero,
    hushed: hushedUnits(session),
    clocked: new Set(line.atStop.map((s) => s.portId)),
    ahead: session.recent.filter((e) => !line.round || e.at < begun + line.round.to),
  });
  const bounded = within(show, sung, fromHere, loop, now - zero);
  return { ...session, song, planned: sung, transport: playing(bounded, zero, handedUntil - zero) };
}
