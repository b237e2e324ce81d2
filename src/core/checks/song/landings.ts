import { compileSong, type Late } from '../../compile';
import { groupBy } from '../../groups';
import { OPENING_CUE, rigSpec, songWants } from '../../meaning';
import { applyEdit, type Edit, indexShow, type Song } from '../../show';
import { proofRun, type Verdict } from '../../simulate';
import { formatPosition, millisToMicros, secondsToTicks, microsToSeconds, type Micros } from '../../time';
import { finding, type Finding } from '../finding';
import type { SongFacts } from './facts';
import { lacks } from './noMatch';
import { inSong, type SongCheck } from './songCheck';
import type { LateCauseData } from '../late';
import { remedies, type Remedy } from '../remedies';

/**
 * Each fix is tried out before it is offered, by compiling the whole song: so many messages are
 * compiled for that at most. What is left without a fix gets its turn when others are mended.
 */
const TRIED_MESSAGES = 18_000;

/** What a dry run saw come late, early or never, with the cause and the smallest change that mends it. */
export const landings: SongCheck = (facts) => {
  const { show, song, time, run } = facts;
  if (!run) return [];
  const { units } = indexShow(show);
  const lates = groupBy(run.compiled.lates, (l) => l.cueId);
  const found: Finding[] = [];
  // Of what the unit in the place of ours has not got is said why it never comes.
  const relayed = new Set(lacks(facts));
  const budget = { left: TRIED_MESSAGES };
  for (const verdict of run.dry.verdicts.toSorted((a, b) => (b.offset ?? 0) - (a.offset ?? 0))) {
    const key = `${verdict.cueId}\n${verdict.unitId}`;
    // Of a sweep the worst value is enough.
    if (verdict.outcome === 'on-time' || relayed.has(key)) continue;
    relayed.add(key);
    const unit = units.get(verdict.unitId)!.name;
    const tick = Math.max(0, Math.round(secondsToTicks(time.tempo, microsToSeconds(verdict.due))));
    const base = { song: song.title, at: formatPosition(time.bars, Math.min(tick, time.end - 1), song.bars), unit };
    const place = inSong(facts, tick, whose(facts, verdict.cueId));
    const millis = Math.abs(verdict.offset ?? 0) / 1000;
    if (verdict.outcome === 'early') found.push(finding('song.early', 'warning', place, { ...base, millis }));
    else if (verdict.outcome === 'never') found.push(never(verdict));
    else {
      // A relayed change is as late as the unit that relays it.
      const ofCue = lates.get(verdict.cueId) ?? [];
      const late = ofCue.find((l) => l.unitId === verdict.unitId) ?? ofCue[0];
      const mended = mend(facts, verdict, late, budget);
      const data = {
        ...base,
        millis,
        cause: late ? causeData(facts, late) : before(facts, verdict),
        fix: mended?.fix ?? null,
      };
      found.push(finding('song.late', 'error', place, data, mended?.edit ?? null));
    }

    function never(v: Verdict): Finding {
      const { reason } = v;
      if (reason.kind === 'other-tempo') {
        const { by, wanted, heard, from } = reason;
        const tempo = { by, wanted: 6e7 / wanted, heard: heard === null ? null : 6e7 / heard, taps: from };
        return finding('song.tempo-missed', 'warning', place, { ...base, ...tempo });
      }
      const why = reason.kind === 'ignored' ? reason.why : reason.kind;
      return finding('song.never', 'error', place, { ...base, why });
    }
  }
  return found;
};

const whose = ({ song }: SongFacts, id: string) =>
  sweepIds(song).has(id) ? { sweepId: id } : id === OPENING_CUE ? {} : { cueId: id };

const sweepsOf = new WeakMap<Song, ReadonlySet<string>>();

function sweepIds(song: Song): ReadonlySet<string> {
  let ids = sweepsOf.get(song);
  if (!ids) sweepsOf.set(song, (ids = new Set(song.sweeps.map((s) => s.id))));
  return ids;
}

type Run = NonNullable<SongFacts['run']>;
const cuesOf = new WeakMap<Run['compiled'], ReadonlyMap<string, ReadonlySet<string>>>();

/** Cues that something is sent to a unit for, by unit. */
function cuesByUnit(compiled: Run['compiled']): ReadonlyMap<string, ReadonlySet<string>> {
  let byUnit = cuesOf.get(compiled);
  if (!byUnit) {
    const made = new Map<string, Set<string>>();
    for (const { unitId, cueId } of compiled.events) {
      const cues = made.get(unitId);
      if (cues) cues.add(cueId);
      else made.set(unitId, new Set([cueId]));
    }
    cuesOf.set(compiled, (byUnit = made));
  }
  return byUnit;
}

/**
 * What is late although its own messages are not: an earlier change, sent on its beat, is still on its way to the
 * unit, or to one that relays to it.
 */
function before({ show, passed, run }: SongFacts, { cueId, unitId, due, offset }: Verdict): LateCauseData {
  const on = indexShow(show).units.get(unitId)!.name;
  const units = new Set([unitId]);
  for (const id of units) for (const u of show.units) if (u.relays.some((r) => r.toUnitId === id)) units.add(u.id);
  const byUnit = cuesByUnit(run!.compiled);
  const sent = [...units].flatMap((id) => byUnit.get(id) ?? []);
  // They are in the order in which they are due.
  let k = countUntil(passed, due);
  while (k > 0) {
    const { id } = passed[k - 1]!.moment;
    if (id !== cueId && sent.some((cues) => cues.has(id))) break;
    k -= 1;
  }
  if (k === 0) return { kind: 'unknown' };
  const from = passed[k - 1]!.moment.due;
  return { kind: 'previous', on, needs: (due + (offset ?? 0) - from) / 1000, has: (due - from) / 1000 };
}

/** How many of what is done in a song are due by a time. */
function countUntil(passed: SongFacts['passed'], due: Micros): number {
  let [low, high] = [0, passed.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (passed[middle]!.moment.due <= due) low = middle + 1;
    else high = middle;
  }
  return low;
}

function causeData({ show }: SongFacts, late: Late): LateCauseData {
  const { cause } = late;
  const { ports, units } = indexShow(show);
  if (cause.kind === 'cable') {
    const others = cause.others.map((id) => units.get(id)?.name ?? id);
    return { kind: 'cable', port: ports.get(cause.portId)?.name ?? '', others };
  }
  return { kind: cause.kind, on: units.get(late.unitId)!.name, needs: cause.needs / 1000, has: cause.has / 1000 };
}

/** The first of the changes that mends it, each tried by compiling the song again. */
function mend(
  facts: SongFacts,
  verdict: Verdict,
  late: Late | undefined,
  budget: { left: number },
): { edit: Edit; fix: Remedy } | null {
  const { run } = facts;
  const size = run!.compiled.events.length;
  if (budget.left < size) return null;
  // What the worst unit of the cue is missing, and a tenth of a millisecond: what is shown rounded should be enough.
  const worst = run!.dry.verdicts.reduce(
    (most, v) => (v.cueId === verdict.cueId && v.outcome === 'late' ? Math.max(most, v.offset ?? 0) : most),
    verdict.offset ?? 0,
  );
  const millis = Math.ceil(worst / 100 + 1) / 10;
  const { cueId, unitId, due } = verdict;
  for (const { edit, remedy } of remedies(facts, { cueId, unitId, due, millis, late: late?.cause ?? null })) {
    if (budget.left < size) return null;
    budget.left -= size;
    if (mends(facts, verdict.cueId, edit, run!.dry.verdicts)) return { edit, fix: remedy };
  }
  return null;
}

const misses = (v: Verdict): boolean => v.outcome === 'late' || v.outcome === 'never';

/** Whether what a cue wants is late nowhere after an edit, relayed units included, and whether fewer changes miss than before. */
function mends({ show, song }: SongFacts, cueId: string, edit: Edit, before: readonly Verdict[]): boolean {
  const after = applyEdit(show, edit);
  const changed = indexShow(after).songs.get(song.id)!;
  const compiled = compileSong(after, changed);
  // Cheap to know, and enough to turn most down.
  if (compiled.lates.some((l) => l.cueId === cueId && l.late > millisToMicros(show.tolerance.after))) return false;
  const { verdicts } = proofRun(rigSpec(after), compiled.events, songWants(after, changed), after.tolerance);
  // What never gets there for another reason, a wrong channel, is not for this to mend.
  const never = new Set(before.filter((v) => v.outcome === 'never').map((v) => `${v.cueId} ${v.unitId}`));
  const own = verdicts.filter((v) => v.cueId === cueId && misses(v) && !never.has(`${v.cueId} ${v.unitId}`));
  return own.length === 0 && verdicts.filter(misses).length < before.filter(misses).length;
}
