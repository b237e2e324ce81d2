import { z } from 'zod';
import { NOWHERE, problem, type Place, type Problem, type Read } from '../../problems';
import { emptyShow, type HouseNumber, type Unit } from '../../show';
import { parseJson, readShowData } from '../show-file';
import { UNIT_FORMAT, type UnitParts } from './format';

export interface UnitFile {
  readonly unit: Unit;
  /** Shared control numbers that its controls follow. */
  readonly house: readonly HouseNumber[];
}

const fileSchema = z.looseObject({
  version: z.unknown(),
  unit: z.looseObject({}),
  house: z.array(z.unknown()),
});

/** Reads one unit's map from the text of a file. Anything wrong refuses it whole, with the place in it. */
export function readUnitFile(text: string): Read<UnitFile> {
  const json = parseJson(text);
  if (json.value === undefined) return { value: undefined, problems: json.problems };
  const { data } = json.value;
  const format = (data as { format?: unknown } | null)?.format;
  if (format !== UNIT_FORMAT) {
    const found = typeof format === 'string' ? `"${format.slice(0, 60)}"` : 'none';
    return { value: undefined, problems: [problem('unit.not-a-unit', 'error', NOWHERE, { found })] };
  }
  const parsed = fileSchema.safeParse(data);
  if (!parsed.success) {
    const { path } = parsed.error.issues[0]!;
    const place: Place = { in: 'show', path: path.map((p) => (typeof p === 'number' ? p : String(p))) };
    const expected = path[0] === 'house' ? 'a list' : 'an object';
    return {
      value: undefined,
      problems: [problem('show.shape', 'error', place, { expected, found: 'something else' })],
    };
  }
  // A unit's file is read as a show with one unit in it, so that older ones are brought up to date the same way.
  const { version, unit, house } = parsed.data;
  const read = readShowData({ ...emptyShow('unit', 'Unit'), version, house, units: [{ ...unit, ...AROUND }] });
  if (!read.value) return { value: undefined, problems: read.problems.map(inside) };
  const [only] = read.value.units;
  return { value: { unit: only!, house: read.value.house }, problems: read.problems.map(inside) };
}

/** What a unit has around its map, and a file of its own does not say. */
const AROUND: Omit<Unit, keyof UnitParts> = {
  id: 'unit',
  playerId: null,
  input: null,
  channel: 1,
  listens: 1,
  returns: null,
  splitter: false,
  spare: '',
  answered: null,
  lostSlots: [],
  relays: [],
  margin: null,
  guard: null,
};

/** A problem's place in the file, instead of in the show around it. */
function inside(p: Problem): Problem {
  if (p.place.in !== 'show' || p.place.path[0] !== 'units') return p;
  return { ...p, place: { in: 'show', path: ['unit', ...p.place.path.slice(2)] } };
}
