import { fitsRange, valueRange, type Control } from '../../addressing';
import { problem, type Place, type Problem } from '../../problems';
import { SOURCES, type Unit } from '../schema';

export type PathPart = string | number;

/** A place in a show file, as a path of keys and indexes. */
export const at = (...path: PathPart[]): Place => ({ in: 'show', path });

export interface Known {
  readonly house: ReadonlySet<string>;
  readonly players: ReadonlySet<string>;
  readonly ports: ReadonlySet<string>;
  readonly units: ReadonlySet<string>;
  readonly tones: ReadonlySet<string>;
  readonly moves: ReadonlySet<string>;
  readonly songs: ReadonlySet<string>;
  readonly audio: ReadonlySet<string>;
  readonly stems: ReadonlySet<string>;
  readonly unitById: ReadonlyMap<string, Unit>;
  readonly slotIds: ReadonlyMap<string, ReadonlySet<string>>;
}

/** Each of some ids stands once: edits find what they are for by it. */
export function once(what: string, ids: readonly string[], ...path: PathPart[]): Problem[] {
  const seen = new Set<string>();
  const problems: Problem[] = [];
  for (const [i, id] of ids.entries()) {
    if (seen.has(id)) problems.push(problem('show.twice', 'error', at(...path, i), { what, id }));
    seen.add(id);
  }
  return problems;
}

/** Whether something is a source: one that every show has, or a stem of this one. */
export const isSource = (known: Known, of: string): boolean =>
  (SOURCES as readonly string[]).includes(of) || known.stems.has(of);

/** The problem of a reference that leads nowhere: `what` it should be, and the id that was found. */
export const missing = (what: string, id: string, ...path: PathPart[]): Problem =>
  problem('show.missing', 'error', at(...path), { what, id });

/** A variant that something names is one the unit has. */
export function checkVariant(unit: Unit, variant: number | null, ...path: PathPart[]): Problem[] {
  const { variants } = unit.profile;
  const count = variants?.names.length ?? 0;
  if (variant === null || variant < count) return [];
  const data = { unit: unit.name, word: variants?.word ?? 'variant', value: variant, count };
  return [problem('show.variant-range', 'error', at(...path), data)];
}

/** Values of a unit's controls, as a tone or a preset has them. */
export function checkValues(
  unit: Unit,
  values: readonly { readonly controlId: string; readonly value: number }[],
  ...path: PathPart[]
): Problem[] {
  const problems: Problem[] = [];
  for (const [c, { controlId, value }] of values.entries()) {
    const control = unit.profile.controls.find((x) => x.id === controlId);
    if (!control) problems.push(missing('control', controlId, ...path, c, 'controlId'));
    else if (!fitsRange(control.encoding, value)) {
      const { low, high } = valueRange(control.encoding);
      const data = { unit: unit.name, control: control.name, value, low, high };
      problems.push(problem('show.value-range', 'error', at(...path, c, 'value'), data));
    }
  }
  return problems;
}

interface OfControl {
  readonly unitId: string;
  readonly controlId: string;
}

/** The control that is named, or undefined where unit or control is missing. */
export const controlOf = (known: Known, { unitId, controlId }: OfControl): Control | undefined =>
  known.unitById.get(unitId)?.profile.controls.find((c) => c.id === controlId);

/** One value of one unit's control, outside of a tone. */
export function checkValue(set: OfControl & { readonly value: number }, known: Known, ...path: PathPart[]): Problem[] {
  const unit = known.unitById.get(set.unitId);
  if (!unit) return [missing('unit', set.unitId, ...path, 'unitId')];
  return checkValues(unit, [set], ...path);
}
