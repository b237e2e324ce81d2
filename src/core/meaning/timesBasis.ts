import { TIMED, type TimeSource } from '../addressing';
import { indexShow, type Show, type Unit } from '../show';
import { routeTo } from './rigOf';

/** On what times of units a lantern stands: the units of a show by where their times are from. */
type TimesBasis = Readonly<Record<TimeSource, readonly Unit[]>>;

/** Where a unit's times are from: guesses where any of them is one, else typed where any was typed, else measured. */
function sourceOf({ profile, slots }: Unit): TimeSource {
  const sources = new Set<TimeSource>();
  for (const thing of TIMED) {
    // What takes no time, and what a unit has not, nobody has to measure.
    if (thing === 'thru' || (thing === 'variant' && !profile.variants)) continue;
    if (thing === 'control' && profile.controls.length === 0) continue;
    sources.add(profile.times[thing].source);
  }
  for (const { recall } of slots) if (recall) sources.add(recall.source);
  return sources.has('guess') ? 'guess' : sources.has('typed') ? 'typed' : 'measured';
}

/** Units that the tones of a show use, and those that their rules call, by where their times are from. */
export function timesBasis(show: Show): TimesBasis {
  const used = new Set(show.tones.flatMap((t) => t.parts.map((p) => p.unitId)));
  for (const id of used) for (const r of indexShow(show).units.get(id)?.relays ?? []) used.add(r.toUnitId);
  const basis: Record<TimeSource, Unit[]> = { guess: [], typed: [], measured: [] };
  for (const unit of show.units) {
    const isReached = routeTo(show, unit) !== undefined || unit.input?.from === 'unit';
    if (used.has(unit.id) && isReached) basis[sourceOf(unit)].push(unit);
  }
  return basis;
}
