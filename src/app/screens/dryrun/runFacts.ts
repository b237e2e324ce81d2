import { labelOf, type Profile } from '../../../core/addressing';
import { OPENING_CUE } from '../../../core/meaning';
import { indexShow, openingOf, type Show, type Song, songTime } from '../../../core/show';
import type { Verdict } from '../../../core/simulate';
import { formatPosition, microsToSeconds, secondsToTicks, type Micros, type Ticks } from '../../../core/time';
import { cueWords, sweepWords, variantWords } from '../../../wording';
import type { StateSpan } from '../../../core/proof';
import type { Run } from '../../state/proofs';

/** What a change belongs to, as the chart calls it. */
export function cueName(show: Show, song: Song, cueId: string): string {
  if (cueId === OPENING_CUE) {
    const tone = indexShow(show).tones.get(openingOf(show, song) ?? '');
    return tone ? `Opening: ${tone.name}` : 'Opening';
  }
  const cue = song.cues.find((c) => c.id === cueId);
  if (cue) return cueWords(show, cue.action);
  const sweep = song.sweeps.find((s) => s.id === cueId);
  if (sweep) return sweepWords(show, sweep);
  return song.taps.some((t) => t.id === cueId) ? 'Tempo taps' : 'a change that is gone';
}

/** The place in a song that is played at a time. */
export function tickOf(song: Song, at: Micros): Ticks {
  const time = songTime(song);
  return Math.max(0, Math.min(time.end - 1, Math.round(secondsToTicks(time.tempo, microsToSeconds(at)))));
}

export const placeOf = (song: Song, at: Micros): string =>
  formatPosition(songTime(song).bars, tickOf(song, at), song.bars);

/** A unit's state during a span, in its own writing. */
export function spanText(profile: Profile, { slot, variant }: Pick<StateSpan, 'slot' | 'variant'>): string {
  const label = slot === null ? '' : labelOf(profile.plan, slot);
  const word = profile.variants && typeof variant === 'number' ? profile.variants.names[variant] : undefined;
  const shown = word ?? (typeof variant === 'number' ? variantWords(profile, variant) : '');
  return [label, shown].filter((t) => t !== '').join(' · ');
}

/** Shorter than this, a unit is on its way and not on something else. */
const BRIEF: Micros = 20_000;

/**
 * Where a unit is heard on something else than is wanted of it, from when to when. Gaps are
 * not counted, nor what is on its way to the next change, `before` its due time.
 */
export function wrongSpans(
  { heard, wanted }: Run['picture']['units'][number],
  before: Micros,
): readonly { from: Micros; to: Micros }[] {
  const found: { from: Micros; to: Micros }[] = [];
  let first = 0;
  for (const want of wanted) {
    // Both are in the order of time, one span after the other.
    while (first < heard.length && heard[first]!.to <= want.from) first += 1;
    for (let k = first; k < heard.length && heard[k]!.from < want.to; k++) {
      const is = heard[k]!;
      const from = Math.max(want.from, is.from);
      const to = Math.min(want.to, is.to);
      if (is.gap || to - from < BRIEF || from >= want.to - before) continue;
      const slot = want.slot !== null && want.slot !== is.slot;
      const variant = typeof want.variant === 'number' && want.variant !== is.variant;
      if (!slot && !variant) continue;
      const last = found.at(-1);
      // Two that follow each other are one.
      if (last && from - last.to < 1) last.to = to;
      else found.push({ from, to });
    }
  }
  return found;
}

/** The stretch of time that a close look at a change takes in: from before its first byte to after it landed. */
export function closeSpan(run: Run, verdict: Verdict): readonly [from: Micros, to: Micros] {
  const unit = run.picture.units.find((u) => u.unitId === verdict.unitId);
  const done = verdict.due + (verdict.offset ?? 0);
  const near = (unit?.sent ?? []).filter((s) => s.at < done + 1 && s.at > verdict.due - 3e6);
  const gap = unit?.heard.find((s) => s.gap && s.to >= Math.min(done, verdict.due) - 1 && s.from <= verdict.due);
  const first = Math.min(verdict.due, gap?.from ?? verdict.due, near.at(-1)?.at ?? verdict.due);
  const last = Math.max(verdict.due, done);
  const room = Math.max(60_000, (last - first) * 0.3);
  return [first - room, last + room];
}
