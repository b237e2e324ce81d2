import { indexOfLabel, labelOf } from '../../addressing';
import { madeOf, type MadeNames } from '../../cells';
import type { Read } from '../../problems';
import { LIMITS, newSlot, slotsById, type Show, type Slot, type Tone, type TonePart, type Unit } from '../../show';
import { madeLabel } from '../madeLabel';
import {
  asMeant,
  byName,
  nameIn,
  readPairs,
  readTable,
  theOne,
  writePairs,
  writeTable,
  writtenName,
  type SayOf,
  type TableRow,
} from './table';
import { valueCell, valueOfCell, variantCell, variantOfCell } from './values';

const COLUMNS = ['Tone', 'Unit', 'Preset', 'Preset name', 'Variant', 'Controls', 'Effects', 'Notes'] as const;

/** The tones as a table: a line for each unit that a tone says something of. */
export function writeToneTable(show: Show): string {
  const units = new Map(show.units.map((u) => [u.id, u]));
  const toneName = writtenName(show.tones, (t) => t.name);
  const unitName = writtenName(show.units, (u) => u.name);
  const rows = show.tones.flatMap((tone) => {
    const name = toneName(tone);
    if (tone.parts.length === 0) return [[name, '', '', '', '', '', '', tone.notes]];
    return tone.parts.map((part, i) => [
      name,
      unitName(units.get(part.unitId)),
      ...partCells(units.get(part.unitId)!, part),
      i === 0 ? tone.notes : '',
    ]);
  });
  return writeTable(COLUMNS, rows);
}

function partCells(unit: Unit, { slotId, variant, controls, effects }: TonePart): string[] {
  const slot = slotId === null ? undefined : slotsById(unit).get(slotId);
  const { plan } = unit.profile;
  const controlName = writtenName(unit.profile.controls, (c) => c.name);
  const effectName = writtenName(unit.profile.effects, (e) => e.name);
  return [
    slot ? labelOf(plan, slot.index) : '',
    slot?.name ?? (slotId === null ? '' : (unit.lostSlots.find((s) => s.id === slotId)?.name ?? '')),
    variantCell(unit, variant),
    writePairs(
      controls.flatMap(({ controlId, value }) => {
        const control = unit.profile.controls.find((c) => c.id === controlId);
        return control ? [[controlName(control), valueCell(control, value)] as const] : [];
      }),
    ),
    writePairs(
      effects.flatMap(({ effectId, how }) => {
        const effect = unit.profile.effects.find((e) => e.id === effectId);
        return effect ? [[effectName(effect), how] as const] : [];
      }),
    ),
  ];
}

/**
 * The show with the tones that a table names, new ones and changed ones; others stay as they are. A preset is found by its
 * place, or by its name where no place stands; a place without a preset gets one.
 */
export function readToneTable(show: Show, text: string, newId: () => string, made: MadeNames = 'ask'): Read<Show> {
  return readTable(text, COLUMNS, ['Tone'], made, (rows, say) => {
    const placed = new Map<string, Slot[]>();
    const read = new Map<string, { name: string; notes: string; parts: TonePart[] }>();
    for (const row of rows) {
      const name = nameIn(show.tones, (t) => t.name, 'Tone', row, say);
      if (name === undefined) continue;
      if (name === '' || name.length > LIMITS.title) {
        say(row, 'Tone', 'csv.value', { found: name, expected: [`1 to ${LIMITS.title} letters`] });
        continue;
      }
      const key = name.trim().toLowerCase();
      const tone = read.get(key) ?? { name, notes: '', parts: [] };
      read.set(key, tone);
      tone.notes ||= row.cells['Notes']!.slice(0, LIMITS.notes);
      if (row.cells['Unit'] === '') continue;
      const part = partOf(show, row, placed, newId, say);
      if (!part) continue;
      if (tone.parts.some((p) => p.unitId === part.unitId)) {
        say(row, 'Unit', 'csv.twice', { what: row.cells['Unit']!, name });
      } else tone.parts.push(part);
    }
    const mine = byName(show.tones, (t) => t.name);
    for (const [key, tone] of read) {
      if (mine(tone.name).length < 2) continue;
      const row = rows.find((r) => r.cells['Tone']!.trim().toLowerCase() === key)!;
      say(row, 'Tone', 'csv.many', { of: '', what: 'tone', name: tone.name, count: mine(tone.name).length });
    }
    const toneName = writtenName(show.tones, (t) => t.name);
    const changed = show.tones.map((t): Tone => {
      const now = read.get(toneName(t).trim().toLowerCase());
      return now ? { ...t, notes: now.notes || t.notes, parts: now.parts } : t;
    });
    const fresh = [...read.values()].filter((t) => mine(t.name).length === 0);
    const tones = [...changed, ...fresh.map((t): Tone => ({ id: newId(), ...t }))];
    const over = rows.at(-1);
    if (tones.length > LIMITS.tones && over) say(over, null, 'csv.too-long', { limit: LIMITS.tones });
    const units = show.units.map((u) => {
      const slots = placed.get(u.id);
      return slots ? { ...u, slots: [...u.slots, ...slots].toSorted((a, b) => a.index - b.index) } : u;
    });
    return { ...show, units, tones };
  });
}

function partOf(
  show: Show,
  row: TableRow,
  placed: Map<string, Slot[]>,
  newId: () => string,
  say: SayOf,
): TonePart | undefined {
  const { cells } = row;
  const unit = theOne(show.units, (u) => u.name, 'unit', 'Unit', row, say);
  if (!unit) return undefined;
  const { controls, effects } = unit.profile;
  const variant = variantIn(unit, row, say);
  if (variant === undefined) {
    const expected = unit.profile.variants ? unit.profile.variants.names.filter((n) => n !== '') : ['nothing'];
    say(row, 'Variant', 'csv.value', { found: cells['Variant']!, expected });
  }
  const slotId = presetOf(unit, row, placed, newId, say);
  const set = pairsOf(row, 'Controls', controls, say).flatMap(([control, value]) => {
    const figure = valueOfCell(control, value);
    if (figure === undefined) say(row, 'Controls', 'csv.no-value', { control: control.name, found: value });
    return figure === undefined ? [] : [{ controlId: control.id, value: figure }];
  });
  const ring = pairsOf(row, 'Effects', effects, say).flatMap(([effect, value]) => {
    const how = (['on', 'cut', 'ring'] as const).find((h) => h === value.toLowerCase());
    if (!how) say(row, 'Effects', 'csv.value', { found: value, expected: ['on', 'cut', 'ring'] });
    return how ? [{ effectId: effect.id, how }] : [];
  });
  return { unitId: unit.id, slotId, variant: variant ?? null, controls: set, effects: ring };
}

/** The variant that a line says: null for none, undefined for one that is not there. */
function variantIn(unit: Unit, row: TableRow, say: SayOf): number | null | undefined {
  const cell = row.cells['Variant']!;
  if (cell === '') return null;
  const found = variantOfCell(unit, cell);
  if (found !== undefined) return found;
  const text = asMeant(cell, madeOf(unit.profile.variants?.names ?? [])(cell), 'Variant', row, say);
  return text === undefined ? null : variantOfCell(unit, text);
}

/** Named things and what a cell says of each. */
function pairsOf<T extends { readonly name: string }>(
  row: TableRow,
  column: 'Controls' | 'Effects',
  list: readonly T[],
  say: SayOf,
): (readonly [T, string])[] {
  const pairs = readPairs(row.cells[column]!);
  if (!pairs) {
    say(row, column, 'csv.value', { found: row.cells[column]!, expected: ['name=value; name=value'] });
    return [];
  }
  const seen = new Set<T>();
  return pairs.flatMap(([name, value]) => {
    const found = byName(list, (x) => x.name)(name);
    const one = found.length === 1 ? found[0]! : undefined;
    const what = column === 'Controls' ? 'control' : 'effect';
    if (!one) say(row, column, 'csv.no-such', { of: row.cells['Unit']!, what, name });
    else if (seen.has(one)) say(row, column, 'csv.twice', { what: name, name: row.cells['Unit']! });
    if (!one || seen.has(one)) return [];
    seen.add(one);
    return [[one, value] as const];
  });
}

function presetOf(
  unit: Unit,
  row: TableRow,
  placed: Map<string, Slot[]>,
  newId: () => string,
  say: SayOf,
): string | null {
  const { Preset: label, 'Preset name': name } = row.cells;
  if (label === '' && name === '') return null;
  const fresh = placed.get(unit.id) ?? [];
  if (label === '') {
    const slots: readonly { readonly id: string; readonly name: string }[] =
      fresh.length === 0 && unit.lostSlots.length === 0 ? unit.slots : [...unit.slots, ...unit.lostSlots, ...fresh];
    return theOne(slots, (s) => s.name, 'preset', 'Preset name', row, say, unit.name)?.id ?? null;
  }
  const { plan } = unit.profile;
  const text =
    indexOfLabel(plan, label!) === undefined ? asMeant(label!, madeLabel(plan, label!), 'Preset', row, say) : label!;
  if (text === undefined) return null;
  const index = indexOfLabel(plan, text);
  if (index === undefined) {
    say(row, 'Preset', 'csv.no-such', { of: unit.name, what: 'place', name: label! });
    return null;
  }
  const there = [...unit.slots, ...fresh].find((s) => s.index === index);
  const meant = there && name !== '' ? nameIn([there], (s) => s.name, 'Preset name', row, say) : name;
  if (meant === undefined) return null;
  if (there && meant !== '' && there.name.trim().toLowerCase() !== meant.toLowerCase()) {
    // The place has another name now: which of the two is meant, only a person knows.
    say(row, 'Preset name', 'csv.other-name', { unit: unit.name, label: label!, found: name!, there: there.name });
    return null;
  }
  if (there) return there.id;
  const slot = newSlot(newId(), index, name!);
  placed.set(unit.id, [...fresh, slot]);
  return slot.id;
}
