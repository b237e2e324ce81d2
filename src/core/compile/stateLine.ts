import { addTo } from '../groups';
import { contextOf, moments, passMoment, StateFold } from '../meaning';
import type { RigState, UnitState } from '../rig';
import { songTime, type Show, type Song } from '../show';
import { microsToSeconds, secondsToTicks, type Ticks } from '../time';

/** A change of one unit that a cue brings, and the state it is in from there on. */
export interface StateChange {
  /** Where it is due: its place, with its shift. */
  readonly at: Ticks;
  readonly cueId: string;
  readonly state: UnitState;
}

/** Each unit's states along a song, by unit id, as the cues say it. */
export function stateLine(show: Show, song: Song): ReadonlyMap<string, readonly StateChange[]> {
  const context = contextOf(show);
  const { tempo } = songTime(song);
  const fold = new StateFold(context.units);
  const lines = new Map<string, StateChange[]>();
  let before: RigState = {};
  for (const cue of moments(show, song)) {
    passMoment(show, context, fold, cue, 'changes');
    // Sweeps and taps are drawn in a way of their own; they are no changes to name.
    if (cue.source === 'sweep' || cue.source === 'taps') continue;
    const after = fold.all();
    const at = cue.shift === 0 ? cue.at : secondsToTicks(tempo, microsToSeconds(cue.due));
    for (const [id, state] of Object.entries(after)) {
      if (before[id] === state) continue;
      addTo(lines, id, { at, cueId: cue.id, state });
    }
    before = after;
  }
  return lines;
}
