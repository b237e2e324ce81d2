import type { Act } from '../core/meaning';
import type { Bytes } from '../core/midi';
import { indexShow, songTime, songsOfSet, ticksAt, type SessionAct } from '../core/show';
import type { Micros, Ticks } from '../core/time';
import { entryFor, entryOf, type Start } from './running';
import { placeIn, type Input, type Session, type SessionEvent } from './sessionState';

/**
 * Something that the playback is to do. What arrives, and the tasks, return commands; only the playback
 * carries them out, one after the other.
 */
export type Command =
  | { readonly kind: 'input'; readonly input: Input }
  /** Starts a song as soon as can be, or (`at`) at a clock time. */
  | {
      readonly kind: 'begin';
      readonly songId: string;
      readonly from: Ticks;
      readonly entryId: string | null;
      readonly how: Start;
      readonly at: Micros | null;
    }
  | { readonly kind: 'play'; readonly songId: string; readonly from: Ticks; readonly entryId: string | null }
  | { readonly kind: 'select'; readonly songId: string; readonly place: Ticks; readonly entryId: string | null }
  | { readonly kind: 'queue'; readonly entryId: string | null }
  | { readonly kind: 'go-song' | 'choose-song' | 'go-change'; readonly by: 1 | -1 }
  | { readonly kind: 'back' | 'stop' | 'panic' }
  | { readonly kind: 'tone'; readonly toneId: string }
  /** Sends a message as it stands, now. */
  | { readonly kind: 'send'; readonly portId: string; readonly bytes: Bytes }
  /** Sends what arrived out again; not where the cable is full. */
  | { readonly kind: 'pass-on'; readonly portId: string; readonly bytes: Bytes }
  | { readonly kind: 'report'; readonly events: readonly SessionEvent[] }
  /** What a reaction does: the session of that moment decides what that comes to. */
  | { readonly kind: 'act'; readonly act: Act };

/** A start that a message or a reaction asked for. */
export const launch = (songId: string, entryId: string | null, from: Ticks = 0, at: Micros | null = null): Command => ({
  kind: 'begin',
  songId,
  from,
  entryId,
  how: 'launched',
  at,
});

export const report = (...events: readonly SessionEvent[]): Command => ({ kind: 'report', events });

/** The commands that a reaction's act comes to in a session at a clock time; none where no show is open. */
export function commandsOf(act: Act, session: Session, now: Micros): readonly Command[] {
  if (!session.show) return [];
  switch (act.kind) {
    case 'session':
      return sessionCommands(act.act, session);
    case 'song':
      return songCommands(act, session);
    case 'tone': {
      const { place } = placeIn(session, now);
      const { toneId } = act;
      return [report({ kind: 'pressed', toneId, songId: session.song?.id ?? null, place }), { kind: 'tone', toneId }];
    }
    case 'move':
      return [{ kind: 'input', input: { kind: 'move', moveId: act.moveId } }];
    case 'set': {
      const aim = { controls: { [act.controlId]: act.value } };
      return [{ kind: 'input', input: { kind: 'audition', unitId: act.unitId, aim } }];
    }
    case 'send':
      return [act];
    case 'sample':
    case 'level':
    case 'turn':
    case 'part':
      // Sound is made on the page.
      return [report(act)];
  }
}

function songCommands({ songId, how }: Extract<Act, { kind: 'song' }>, session: Session): readonly Command[] {
  const entryId = entryFor(session, songId);
  if (how === 'start') return [launch(songId, entryId)];
  if (how === 'select') return [{ kind: 'select', songId, place: 0, entryId }];
  return entryId === null ? [] : [{ kind: 'queue', entryId }];
}

function sessionCommands(act: SessionAct, session: Session): readonly Command[] {
  switch (act) {
    case 'play':
      return playHere(session);
    case 'play-or-stop':
      return session.transport.kind === 'playing' ? [{ kind: 'stop' }] : playHere(session);
    case 'next-change':
    case 'previous-change':
      return [{ kind: 'go-change', by: act === 'next-change' ? 1 : -1 }];
    case 'next-song':
    case 'previous-song':
      return [{ kind: 'go-song', by: act === 'next-song' ? 1 : -1 }];
    case 'choose-next':
    case 'choose-previous':
      return [{ kind: 'choose-song', by: act === 'choose-next' ? 1 : -1 }];
    case 'start-chosen':
      return startChosen(session);
    case 'interlude':
      return [report({ kind: 'interlude' })];
    case 'stop':
    case 'back':
    case 'panic':
      return [{ kind: act }];
  }
}

/** Starts the song that was chosen; where none was, the one that stands there. */
function startChosen(session: Session): readonly Command[] {
  const { show, queued } = session;
  const chosen = show && entryOf(show, queued);
  return chosen ? [launch(chosen.songId, chosen.id)] : playHere(session);
}

/** Where the next start begins, as somebody said; null where nobody did, or the song is gone. */
export function nextStart({ show, next }: Session): Session['next'] {
  return next && show && indexShow(show).songs.has(next.songId) ? next : null;
}

/** Plays on from where the next start begins: there, where the session is, or the first of the set. */
function playHere(session: Session): readonly Command[] {
  const { show, song, entryId, transport, planned } = session;
  if (transport.kind === 'playing' || !show) return [];
  const next = nextStart(session);
  if (next) return [{ kind: 'play', songId: next.songId, from: next.place, entryId: next.entryId }];
  if (song && planned) {
    const time = songTime(planned);
    const place = ticksAt(time, transport.place);
    // At its end it begins anew.
    const from = place >= time.end - 1 ? 0 : Math.max(0, place);
    return [{ kind: 'play', songId: song.id, from, entryId }];
  }
  const first = songsOfSet(show)[0];
  return first ? [{ kind: 'play', songId: first.id, from: 0, entryId: null }] : [];
}
