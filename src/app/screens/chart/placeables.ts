import { decodeMessage, fromHex } from '../../../core/midi';
import { fitsRange, keepsOf, valueRange, type Control } from '../../../core/addressing';
import type { Cue, Show } from '../../../core/show';
import { cueWords, valueWords } from '../../../wording';
import type { Found } from '../../components/Find';

/** Something that can be placed on the chart, found by a part of its name. */
export interface Placeable extends Found {
  readonly action: Cue['action'];
}

/** More than are in sight at once are found by typing on. */
const FOUND_LIMIT = 16;

/** Names that begin with a text first, then those that hold it. */
function best<T extends { readonly name: string }>(list: readonly T[], text: string): T[] {
  const starts = list.filter((t) => t.name.toLowerCase().startsWith(text));
  return [...starts, ...list.filter((t) => !starts.includes(t) && t.name.toLowerCase().includes(text))];
}

/**
 * Tones, moves, and controls with a value typed behind their name ("tarn mix 40",
 * "harmony on"), and bytes behind a unit's name, best first.
 */
export function placeables(show: Show, text: string): Placeable[] {
  const wanted = text.trim().toLowerCase();
  const tones = best(show.tones, wanted).map((t): Placeable => ({
    id: `tone ${t.id}`,
    name: t.name,
    aside: `${t.parts.length} ${t.parts.length === 1 ? 'unit' : 'units'}`,
    action: { kind: 'tone', toneId: t.id, reload: false },
  }));
  const moves = best(show.moves, wanted).map((m): Placeable => ({
    id: `move ${m.id}`,
    name: m.name,
    aside: 'move',
    action: { kind: 'move', moveId: m.id },
  }));
  return [...tones, ...moves, ...controlsNamed(show, wanted), ...bytesNamed(show, wanted)].slice(0, FOUND_LIMIT);
}

function controlsNamed(show: Show, wanted: string): Placeable[] {
  const [, name, value] = /^(.+?)\s+(\S+)$/.exec(wanted) ?? [];
  if (name === undefined || value === undefined) return [];
  return show.units.flatMap((unit) =>
    unit.profile.controls.flatMap((control): Placeable[] => {
      if (!`${unit.name} ${control.name}`.toLowerCase().includes(name)) return [];
      const found = valueNamed(control, value);
      if (found === undefined) return [];
      const action = { kind: 'control', unitId: unit.id, controlId: control.id, value: found } as const;
      const words = valueWords(control, found);
      return [
        { id: `control ${unit.id} ${control.id} ${found}`, name: `${control.name} ${words}`, aside: unit.name, action },
      ];
    }),
  );
}

/** A message as its bytes, behind a unit's name: "tarn b2 14 7f". */
function bytesNamed(show: Show, wanted: string): Placeable[] {
  const [, name, hex] = /^(.+?)\s+([89a-f][0-9a-f](?:\s*[0-9a-f]{2})*)$/.exec(wanted) ?? [];
  const bytes = fromHex((hex ?? '').replaceAll(/\s/g, ''));
  if (name === undefined || !bytes || !decodeMessage(bytes)) return [];
  return show.units
    .filter((u) => u.name.toLowerCase().includes(name))
    .map((unit): Placeable => {
      const text = bytes.map((b) => b.toString(16).padStart(2, '0')).join('');
      const action = { kind: 'message', unitId: unit.id, bytes: text } as const;
      return { id: `message ${unit.id} ${text}`, name: cueWords(show, action), aside: unit.name, action };
    });
}

/** A control's value as somebody types it: a figure, "on" or "off", or the start of an option's name. */
function valueNamed(control: Control, text: string): number | undefined {
  const { encoding, options } = control;
  if (keepsOf(encoding) === 'nothing') return undefined;
  const option = options.findIndex((o) => o !== '' && o.toLowerCase().startsWith(text));
  const { low } = valueRange(encoding);
  const figure = Number(text.replace(',', '.').replace(/(%|db|ms|hz)$/, ''));
  const value = option >= 0 ? low + option : text === 'on' ? 1 : text === 'off' ? 0 : figure;
  return Number.isFinite(value) && fitsRange(encoding, value) ? value : undefined;
}
