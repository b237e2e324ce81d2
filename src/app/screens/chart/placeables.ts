import { decodeMessage, fromHex } from '../../../core/midi';
import { fitsRange, valueRange, type Control, isTap } from '../../../core/addressing';
import {
  directName,
  directTone,
  indexShow,
  knownDirect,
  type Cue,
  type Direct,
  type Edit,
  type Show,
  type Unit,
} from '../../../core/show';
import { cueWords, valueWords } from '../../../wording';
import type { Found } from '../../widgets/Find';
import { slotNumber, slotOfNumber } from '../../state/numbers';
import type { Counting } from '../../state/store';

/** Something that can be placed on the chart, found by a part of its name. */
export interface Placeable extends Found {
  /** What it does, or the preset or variant that a tone is made of behind the scenes. */
  readonly does: Cue['action'] | Direct;
}

/** What a cue is to do, and the edits that have to be made with it. */
export interface Wanted {
  readonly action: Cue['action'];
  readonly edits: readonly Edit[];
  /** What it is called. */
  readonly name: string;
}

/** The action of what can be placed, with the tone that it needs. Null where there is no room for another tone. */
export function wantedOf(show: Show, does: Placeable['does'], newId: () => string): Wanted | null {
  if ('kind' in does) return { action: does, edits: [], name: cueWords(show, does) };
  const tone = directTone(show, does, newId);
  return tone && { action: { kind: 'tone', toneId: tone.toneId, reload: false }, edits: tone.edits, name: tone.name };
}

/** More than are in sight at once are found by typing on. */
const FOUND_LIMIT = 16;

const named = (show: Show): Placeable[] => [
  ...show.tones.map((t): Placeable => ({
    id: `tone ${t.id}`,
    name: t.name,
    aside: `${t.parts.length} ${t.parts.length === 1 ? 'unit' : 'units'}`,
    does: { kind: 'tone', toneId: t.id, reload: false },
  })),
  ...show.moves.map((m): Placeable => ({
    id: `move ${m.id}`,
    name: m.name,
    aside: 'move',
    does: { kind: 'move', moveId: m.id },
  })),
];

/**
 * Tones and moves by a part of their name; presets by their label, their number in the counting that is
 * shown, or a part of their name, and variants, of a unit that may be named before ("H6", "qb 48", "quillback
 * h6 wide"); controls with a value behind their name ("tarn mix 40", "harmony on"); bytes behind a unit's
 * name. Best first: what is called just so, then what begins with the text, then what may be meant by it: a bare
 * figure or scene of some unit, a name that holds it.
 */
export function placeables(show: Show, text: string, counting: Counting): Placeable[] {
  const wanted = text.trim().toLowerCase();
  const all = named(show);
  const equals = all.filter((p) => p.name.toLowerCase() === wanted);
  const starts = all.filter((p) => p.name.toLowerCase().startsWith(wanted));
  const holds = all.filter((p) => !starts.includes(p) && p.name.toLowerCase().includes(wanted));
  const directs = wanted === '' ? null : directsNamed(show, wanted, counting);
  const found = [
    ...equals,
    ...(directs?.exact ?? []),
    ...starts,
    ...(directs?.bare ?? []),
    ...holds,
    ...(directs?.like ?? []),
    ...controlsNamed(show, wanted),
    ...bytesNamed(show, wanted),
  ];
  return [...new Map(found.map((p) => [p.id, p])).values()].slice(0, FOUND_LIMIT);
}

/** What is left of a text behind a unit's name or letters, nothing where it is just that; null where it does not begin with them. */
function behind(unit: Unit, text: string): string | null {
  for (const name of [unit.name, unit.monogram]) {
    const start = name.toLowerCase();
    if (text === start) return '';
    if (text.startsWith(`${start} `)) return text.slice(start.length).trim();
  }
  return null;
}

/** Presets and variants of units: those written just so, those of a bare figure or variant, those that have the text in their name. */
function directsNamed(show: Show, wanted: string, counting: Counting): Readonly<Record<Hit[0], readonly Placeable[]>> {
  const hits = show.units.flatMap((unit) => {
    const own = behind(unit, wanted);
    return directsOf(unit, own ?? wanted, counting, own !== null).map((hit) => ({ unit, hit }));
  });
  // More are not shown: what a hundred units have need not be looked up.
  const placed = (list: Hit[0]): readonly Placeable[] =>
    hits
      .filter(({ hit }) => hit[0] === list)
      .slice(0, FOUND_LIMIT)
      .map(({ unit, hit: [, index, variant] }) =>
        directPlaceable(show, unit, { unitId: unit.id, index, variant }, counting),
      );
  return { exact: placed('exact'), bare: placed('bare'), like: placed('like') };
}

type Hit = readonly [list: 'exact' | 'bare' | 'like', index: number | null, variant: number | null];

/** What a text means on one unit. `own`: the unit was named before it. */
function directsOf(unit: Unit, text: string, counting: Counting, own: boolean): readonly Hit[] {
  const { plan, variants } = unit.profile;
  // A figure is counted as it is shown: as a label it may be another preset.
  const place = (t: string): number | undefined =>
    slotOfNumber(plan, t, counting) ?? unit.slots.find((s) => s.name.toLowerCase() === t)?.index;
  // Its name alone: what one can go on to type behind it.
  if (text === '') return unit.slots.filter((s) => s.name !== '').map((s): Hit => ['like', s.index, null]);
  const hits: Hit[] = [];
  const index = place(text);
  if (index !== undefined) hits.push([own || /\D/.test(text) ? 'exact' : 'bare', index, null]);
  for (const [variant, name] of (variants?.names ?? []).entries()) {
    const names = [
      name.toLowerCase(),
      `${variants!.word} ${name}`.toLowerCase(),
      `${variants!.word} ${variant + 1}`.toLowerCase(),
    ];
    if (names.includes(text)) hits.push([own ? 'exact' : 'bare', null, variant]);
    else if (own && names.some((n) => n.startsWith(text))) hits.push(['like', null, variant]);
    // A preset and a variant of it, one behind the other.
    for (const n of names) {
      const preset = n !== '' && text.endsWith(` ${n}`) ? place(text.slice(0, -n.length).trim()) : undefined;
      if (preset !== undefined) hits.push(['exact', preset, variant]);
    }
  }
  for (const slot of unit.slots) {
    if (slot.name !== '' && slot.index !== index && slot.name.toLowerCase().includes(text))
      hits.push(['like', slot.index, null]);
  }
  return hits;
}

/** The tone that is there already, or the preset or variant that one is made of. */
function directPlaceable(show: Show, unit: Unit, direct: Direct, counting: Counting): Placeable {
  const { index, variant } = direct;
  const tone = knownDirect(show, direct);
  const number = index === null ? '' : ` ${slotNumber(unit.profile.plan, index, counting)}`;
  const aside = `${unit.name}${number}`;
  if (tone)
    return { id: `tone ${tone.id}`, name: tone.name, aside, does: { kind: 'tone', toneId: tone.id, reload: false } };
  return { id: `direct ${unit.id} ${index} ${variant}`, name: directName(unit, direct), aside, does: direct };
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
        {
          id: `control ${unit.id} ${control.id} ${found}`,
          name: `${control.name} ${words}`,
          aside: unit.name,
          does: action,
        },
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
      return { id: `message ${unit.id} ${text}`, name: cueWords(show, action), aside: unit.name, does: action };
    });
}

/** Another value for what a cue sets, typed by itself: "40", "off". */
export function valuesNamed(show: Show, action: Cue['action'], text: string): Placeable[] {
  if (action.kind !== 'control' || text.trim() === '') return [];
  const unit = indexShow(show).units.get(action.unitId);
  const control = unit?.profile.controls.find((c) => c.id === action.controlId);
  const value = control && valueNamed(control, text.trim().toLowerCase());
  if (!unit || !control || value === undefined) return [];
  const id = `control ${unit.id} ${control.id} ${value}`;
  return [{ id, name: `${control.name} ${valueWords(control, value)}`, aside: unit.name, does: { ...action, value } }];
}

/** A control's value as somebody types it: a figure, "on" or "off", or the start of an option's name. */
function valueNamed(control: Control, text: string): number | undefined {
  const { encoding, options } = control;
  if (isTap(encoding)) return undefined;
  const option = options.findIndex((o) => o !== '' && o.toLowerCase().startsWith(text));
  const { low } = valueRange(encoding);
  const figure = Number(text.replace(',', '.').replace(/(%|db|ms|hz)$/, ''));
  const value = option >= 0 ? low + option : text === 'on' ? 1 : text === 'off' ? 0 : figure;
  return Number.isFinite(value) && fitsRange(encoding, value) ? value : undefined;
}
