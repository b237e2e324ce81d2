import { compileSong } from '../compile';
import { rigSpec, songWants } from '../meaning';
import { applyEdit, indexShow, type Edit, type Song } from '../show';
import { proofRun, roomOf, worstOfEach, type Verdict } from '../simulate';
import { millisToMicros, type Micros } from '../time';
import { tonightOf, writtenOf, type ShowTonight } from '../tonight';
import { musicalWays, remedies, type Remedy } from './remedies';
import { songFacts } from './song/facts';
import { isWritten } from './writtenFixes';

/** An edit that gives a change more room than it has, and how much. */
export interface RoomFix {
  readonly remedy: Remedy;
  readonly edit: Edit;
  /** What the change bears after it, in microseconds; infinite where nothing makes it miss. */
  readonly room: Micros;
}

/** So many are offered. */
const OFFERED = 3;

/** Less than this is not worth an edit. */
const WORTH: Micros = 1000;

const keyOf = ({ cueId, unitId }: Pick<Verdict, 'cueId' | 'unitId'>): string => `${cueId}\n${unitId}`;

/** The room of each change of a song, by cue and unit; -1 where it misses. */
type Rooms = ReadonlyMap<string, Micros>;

/** Plays a song as it is written in a show. */
function played(show: ShowTonight, songId: string) {
  const song = indexShow(show).songs.get(songId)!;
  const compiled = compileSong(show, song);
  const dry = proofRun(rigSpec(show), compiled.events, songWants(show, song), show.tolerance);
  return { compiled, dry };
}

const roomsOf = (verdicts: readonly Verdict[]): Rooms =>
  new Map(worstOfEach(verdicts).map((v) => [keyOf(v), v.outcome === 'on-time' ? roomOf(v) : -1]));

/**
 * Up to three edits that give one change of a song more room, the gentlest first; for one that misses, also such as are
 * heard. Each was tried: the song was compiled and played with it, the change bears more than before, and no other change
 * misses or bears less than this one does then, unless it did before.
 */
export function roomFixes(
  show: ShowTonight,
  song: Song,
  change: Pick<Verdict, 'cueId' | 'unitId'>,
): readonly RoomFix[] {
  const run = played(show, song.id);
  const worst = worstOfEach(run.dry.verdicts);
  const verdict = worst.find((v) => keyOf(v) === keyOf(change));
  if (!verdict) return [];
  const before = roomsOf(worst);
  const now = before.get(keyOf(verdict))!;
  const unit = indexShow(show).units.get(change.unitId);
  const wished = millisToMicros(unit?.margin ?? show.margin);
  const lates = run.compiled.lates.filter((l) => l.cueId === change.cueId);
  const late = lates.find((l) => l.unitId === change.unitId) ?? lates[0];
  // What is late has to come sooner by that, and then have room.
  const lacks = (now < 0 ? Math.max(0, verdict.offset ?? 0) : 0) + Math.max(wished - Math.max(0, now), WORTH);
  const ailing = {
    cueId: change.cueId,
    unitId: change.unitId,
    due: verdict.due,
    millis: Math.ceil(lacks / 1000),
    late: now < 0 ? (late?.cause ?? null) : null,
  };
  const found: RoomFix[] = [];
  const facts = songFacts(show, song, run);
  const ways = [...remedies(facts, ailing), ...(now < 0 ? musicalWays(facts, ailing) : [])];
  for (const { edit, remedy } of ways) {
    if (found.length === OFFERED) break;
    if (found.some((f) => f.remedy.how === remedy.how) || !isWritten(writtenOf(show), show, edit)) continue;
    const after = roomsOf(played(tonightOf(applyEdit(writtenOf(show), edit)), song.id).dry.verdicts);
    // A unit that is left as it is misses nothing.
    const room = after.get(keyOf(verdict)) ?? (remedy.how === 'leave' ? Number.POSITIVE_INFINITY : -1);
    if (room >= Math.max(0, now) + WORTH && takesNothing(before, after, Math.min(room, wished))) {
      found.push({ remedy, edit, room });
    }
  }
  return found;
}

/** Whether no change misses that landed before, and none has less room than it had and than `enough`. */
function takesNothing(before: Rooms, after: Rooms, enough: Micros): boolean {
  for (const [key, room] of after) {
    const was = before.get(key);
    if (was !== undefined && room < Math.min(was, enough) - 1) return false;
  }
  return true;
}
