import { expectation, short, type Issue } from '../expectation';
import { encodingSchema, newControl, valueRange, type Control, type Encoding } from '../../addressing';
import { applyEdit, changeProfile, indexShow, type Show, type Unit } from '../../show';
import type { MadeNames } from '../../cells';
import type { Read } from '../../problems';
import { byName, nameIn, readTable, writeTable, type SayOf, type TableRow } from './table';

const COLUMNS = ['Control', 'Kind', 'Number', 'Settings', 'Options', 'Rest'] as const;
const OPTION_LIMIT = 128;
const NAME_LIMIT = 60;

/**
 * The controls of a unit as a table. Kind and settings are those of the show file's schema: `on=127; off=0`. Options stand in
 * their order, parted by ` | `.
 */
export function writeControlTable({ profile }: Unit): string {
  const rows = profile.controls.map(({ name, encoding, options, rest }) => {
    const { kind, ...fields } = encoding as Encoding & { readonly number?: number };
    const settings = Object.entries(fields).filter(([key]) => key !== 'number');
    return [
      name,
      kind,
      fields.number === undefined ? '' : String(fields.number),
      settings.map(([key, value]) => `${key}=${JSON.stringify(value)}`).join('; '),
      options.map((o) => o.replaceAll('|', '/')).join(' | '),
      rest === null ? '' : String(rest),
    ];
  });
  return writeTable(COLUMNS, rows);
}

/**
 * The show with a unit's controls as a table has them: those that it names are changed or new, others stay. A control that is
 * changed keeps its place in tones as far as its values allow.
 */
export function readControlTable(
  show: Show,
  unitId: string,
  text: string,
  newId: () => string,
  made: MadeNames = 'ask',
): Read<Show> {
  const unit = indexShow(show).units.get(unitId)!;
  const { profile } = unit;
  const refused: { readonly problems: Read<Show>['problems'] }[] = [];
  const read = readTable(text, COLUMNS, ['Control', 'Kind'], made, (rows, say, _, warn) => {
    const now = new Map<string, Control>();
    for (const row of rows) {
      const control = controlOf(row, profile.controls, newId, say);
      if (!control) continue;
      tellOfNumber(profile.controls, control, row, warn);
      const key = control.name.toLowerCase();
      if (now.has(key)) say(row, 'Control', 'csv.twice', { what: control.name, name: unit.name });
      now.set(key, control);
    }
    const ids = new Set([...now.values()].map((c) => c.id));
    const kept = profile.controls.map((c) => [...now.values()].find((n) => n.id === c.id) ?? c);
    const fresh = [...now.values()].filter((c) => !profile.controls.some((k) => k.id === c.id));
    if (ids.size === 0) return show;
    const change = changeProfile(show, unitId, { ...profile, controls: [...kept, ...fresh] });
    if (change.ok) return change.edit ? applyEdit(show, change.edit) : show;
    refused.push(change);
    return show;
  });
  const [first] = refused;
  return first && read.value ? { value: undefined, problems: first.problems } : read;
}

/** Says whose number a new control takes. */
function tellOfNumber(controls: readonly Control[], control: Control, row: TableRow, warn: SayOf): void {
  if (controls.some((c) => c.id === control.id)) return;
  const { encoding } = control;
  const number = 'number' in encoding ? encoding.number : undefined;
  // Numbers that several share already are shared on purpose.
  const on = controls.filter(
    (c) => 'number' in c.encoding && c.encoding.number === number && c.encoding.kind === encoding.kind,
  );
  if (number !== undefined && on.length === 1) {
    warn(row, 'Number', 'csv.number-taken', { control: control.name, other: on[0]!.name, number });
  }
}

/** What stands at a path of plain data; undefined for nothing. */
const valueAt = (path: readonly PropertyKey[], data: unknown): unknown =>
  path.reduce<unknown>((at, step) => (at as Readonly<Record<PropertyKey, unknown>> | undefined)?.[step], data);

function controlOf(row: TableRow, controls: readonly Control[], newId: () => string, say: SayOf): Control | undefined {
  const name = nameIn(controls, (c) => c.name, 'Control', row, say);
  if (name === undefined) return undefined;
  const { Number: number, Settings: settings = '', Options: options = '', Rest: rest } = row.cells;
  if (name === '' || name.length > NAME_LIMIT) {
    say(row, 'Control', 'csv.value', { found: name, expected: [`1 to ${NAME_LIMIT} letters`] });
    return undefined;
  }
  const found = byName(controls, (c) => c.name)(name);
  if (found.length > 1) say(row, 'Control', 'csv.many', { of: '', what: 'control', name, count: found.length });
  const fields = fieldsOf(settings);
  if (!fields) {
    say(row, 'Settings', 'csv.value', { found: settings, expected: ['name=value; name=value'] });
    return undefined;
  }
  const numbered = number === '' ? {} : { number: Number(number) };
  const parsed = encodingSchema.safeParse({ kind: row.cells['Kind']!.toLowerCase(), ...numbered, ...fields });
  if (!parsed.success) {
    const [issue] = parsed.error.issues as [Issue];
    const [part] = issue.path;
    const column = part === undefined || part === 'kind' ? 'Kind' : part === 'number' ? 'Number' : 'Settings';
    say(row, column, 'csv.control', {
      control: name,
      part: String(part ?? 'kind'),
      expected: expectation(issue),
      found: short(part === undefined ? row.cells['Kind'] : valueAt(issue.path, { ...numbered, ...fields })),
    });
    return undefined;
  }
  const encoding = parsed.data as Encoding;
  const names = options === '' ? [] : options.split('|').map((o) => o.trim());
  if (names.length > OPTION_LIMIT || names.some((n) => n.length > NAME_LIMIT)) {
    say(row, 'Options', 'csv.value', {
      found: options.slice(0, 80),
      expected: [`${OPTION_LIMIT} names of ${NAME_LIMIT} letters`],
    });
    return undefined;
  }
  const { low, high } = valueRange(encoding);
  const figure = rest === '' ? null : Number(rest!.replace(',', '.'));
  if (figure !== null && !(figure >= Math.min(low, high) && figure <= Math.max(low, high))) {
    say(row, 'Rest', 'csv.value', { found: rest!, expected: [`${low} to ${high}`] });
    return undefined;
  }
  const base = found[0] ?? newControl(newId(), name, encoding);
  return { ...base, name, encoding, options: names, rest: figure };
}

/** The settings of a cell, each value as JSON; undefined where it is not written like that. */
function fieldsOf(text: string): Readonly<Record<string, unknown>> | undefined {
  const fields: Record<string, unknown> = {};
  if (text === '') return fields;
  // A semicolon within a value's quotes or brackets parts nothing.
  for (const part of text.match(/(?:"(?:\\.|[^"\\])*"|\[[^\]]*\]|\{[^}]*\}|[^;])+/g) ?? []) {
    const at = part.indexOf('=');
    const key = part.slice(0, at).trim();
    if (at < 1 || !/^[a-zA-Z]+$/.test(key)) return undefined;
    try {
      fields[key] = JSON.parse(part.slice(at + 1));
    } catch {
      return undefined;
    }
  }
  return fields;
}
