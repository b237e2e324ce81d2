import { stateAt } from '../../../core/compile';
import type { RigState, UnitState } from '../../../core/rig';
import { type Show, type Song, type Unit } from '../../../core/show';
import type { Ticks } from '../../../core/time';
import { stateWords } from '../../../wording';
import { tonesOf } from './stageOf';

/** What the rig is truly on, where that is not what the stage shows: in one line; null where it is. */
export function rigNow(show: Show, song: Song, shown: Ticks, rig: RigState, playerId: string | null): string | null {
  const units = show.units.filter((u) => playerId === null || u.playerId === playerId);
  const off = differing(units, stateAt(show, song, shown), rig);
  if (off.length === 0) return null;
  if (units.every((u) => (rig[u.id]?.slot ?? null) === null)) return 'What the rig is on is not known yet.';
  // A tone of the song that it is on as a whole says it best.
  const tone = tonesOf(show, song).findLast(
    ({ at }) => at !== shown && differing(units, stateAt(show, song, at), rig).length === 0,
  );
  if (tone) return `The rig is on ${tone.tone.name}.`;
  const named = off.slice(0, MOST).map((u) => `${u.name}: ${nowWords(u, rig[u.id])}`);
  const more = off.length > MOST ? `, and ${off.length - MOST} more` : '';
  return `The rig is elsewhere: ${named.join(', ')}${more}.`;
}

/** So many units are named in one line. */
const MOST = 3;

const nowWords = (unit: Unit, state: UnitState | undefined): string =>
  !state || state.slot === null ? 'not known' : stateWords(unit.profile, state);

/** Units that are on another preset or variant than is wanted of them. */
function differing(units: readonly Unit[], wanted: RigState, rig: RigState): readonly Unit[] {
  return units.filter((unit) => {
    const [want, is] = [wanted[unit.id], rig[unit.id]];
    if (!want || want.slot === null) return false;
    if (is?.slot !== want.slot) return true;
    return typeof want.variant === 'number' && is.variant !== want.variant;
  });
}
