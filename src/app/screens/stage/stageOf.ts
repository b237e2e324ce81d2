import { OPENING_CUE, moments, stopsOf } from '../../../core/meaning';
import { indexShow, songTime, type Cue, type Show, type Song, type Tone, type TonePart } from '../../../core/show';
import { barOfTick, type Ticks } from '../../../core/time';
import { cueWords } from '../../../wording';

/** A tone as it stands in a song. */
export interface Placed {
  readonly at: Ticks;
  readonly tone: Tone;
}

/** The tones of a song in the order in which they come, its opening first; what is muted is left out. */
export function tonesOf(show: Show, song: Song): readonly Placed[] {
  const { tones } = indexShow(show);
  const placed = moments(show, song).flatMap(({ id, source, at, action }): Placed[] => {
    if (action.kind !== 'tone' || (source !== 'cue' && id !== OPENING_CUE)) return [];
    const tone = tones.get(action.toneId);
    return tone ? [{ at, tone }] : [];
  });
  return placed.filter((p) => p.at < songTime(song).end).sort((a, b) => a.at - b.at);
}

/** What each unit of a player was told last, up to a place of a song: by the tone that is on, or by one before it. */
export function partsOf(show: Show, song: Song, at: Ticks, playerId: string): ReadonlyMap<string, TonePart> {
  const own = new Set(show.units.filter((u) => u.playerId === playerId).map((u) => u.id));
  const parts = new Map<string, TonePart>();
  for (const { at: begins, tone } of tonesOf(show, song)) {
    if (begins > at + 1) break;
    for (const part of tone.parts) if (own.has(part.unitId)) parts.set(part.unitId, part);
  }
  return parts;
}

/** A place at which something changes, as the stage calls it: its tones first, then moves, values and messages. */
export interface NamedStop {
  readonly at: Ticks;
  readonly name: string;
  /** Whether a tone comes there, or only something besides the tone that is on. */
  readonly tone: boolean;
}

/** A cue in words; what is of one unit alone says whose it is. */
function stageWords(show: Show, { action }: Cue): string {
  const words = cueWords(show, action);
  const unit = 'unitId' in action ? indexShow(show).units.get(action.unitId) : undefined;
  return unit ? `${unit.name} ${words}` : words;
}

/** Every stop of a song: each press that goes on has something to show. */
export function namedStops(show: Show, song: Song): readonly NamedStop[] {
  const cues = new Map(song.cues.map((c) => [c.id, c]));
  const opening = tonesOf(show, song).find((p) => p.at === 0)?.tone.name ?? 'Start';
  return stopsOf(show, song).map(({ at, cueIds }) => {
    const there = cueIds.flatMap((id) => cues.get(id) ?? []);
    const named = [...there.filter((c) => c.action.kind === 'tone'), ...there.filter((c) => c.action.kind !== 'tone')];
    const tone = named[0]?.action.kind === 'tone';
    return { at, name: named.map((c) => stageWords(show, c)).join(' · ') || opening, tone: tone || at === 0 };
  });
}

/** So many bars a remark stays on stage. */
const REMARK_BARS = 4;

/** The remark that the stage shows at a place: from a bar before it, so that it can be read in time, for some bars. */
export function remarkAt(song: Song, at: Ticks): string | undefined {
  const { bars } = songTime(song);
  const here = barOfTick(bars, Math.max(0, at)).bar;
  return song.remarks.findLast((r) => {
    if (!r.onStage) return false;
    const { bar } = barOfTick(bars, r.at);
    return here >= bar - 1 && here < bar + REMARK_BARS;
  })?.text;
}

/** What is on at a place of a song: its tone, and what came since beside it; and what comes next. */
export function stageOf(
  show: Show,
  song: Song,
  at: Ticks,
): { readonly now: Placed | undefined; readonly beside: NamedStop | undefined; readonly next: NamedStop | undefined } {
  const stops = namedStops(show, song);
  const last = stops.findLast((p) => p.at <= at + 1);
  return {
    now: tonesOf(show, song).findLast((p) => p.at <= at + 1),
    beside: last && !last.tone ? last : undefined,
    next: stops.find((p) => p.at > at + 1),
  };
}
