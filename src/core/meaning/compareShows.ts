import { labelOf } from '../addressing';
import { feetOf, setOf, sharing, type Show, type Song, type Unit } from '../show';
import { sendsAlike, surroundingsOf } from './surroundings';

/** What can come and go in a show. */
type Kind = 'unit' | 'tone' | 'move' | 'song' | 'set' | 'player' | 'port' | 'reaction' | 'page';

/** Something in which one state of a show differs from another, from the first to the second. */
export type ShowDifference =
  | {
      readonly what: 'added' | 'removed';
      readonly of: Kind;
      readonly name: string;
    }
  | {
      readonly what: 'renamed';
      readonly of: 'unit' | 'tone' | 'move' | 'song' | 'set' | 'port' | 'player';
      readonly from: string;
      readonly to: string;
    }
  | { readonly what: 'tone'; readonly name: string; readonly units: readonly string[] }
  | { readonly what: 'move'; readonly name: string }
  | {
      readonly what: 'preset';
      readonly unit: string;
      readonly name: string;
      readonly from: string;
      readonly to: string;
    }
  | { readonly what: 'channel'; readonly unit: string; readonly from: number; readonly to: number }
  | { readonly what: 'control'; readonly unit: string; readonly name: string }
  | {
      readonly what: 'controls';
      readonly unit: string;
      readonly added: readonly string[];
      readonly removed: readonly string[];
    }
  /** Something else of a unit: its labels, times, cables … */
  | { readonly what: 'unit'; readonly unit: string }
  | {
      readonly what: 'song';
      readonly name: string;
      /** How many cues are new, gone, and other than they were. */
      readonly added: number;
      readonly removed: number;
      readonly changed: number;
      /** The units are sent something else, or at other times. */
      readonly sounds: boolean;
      /** Tempo, metre, sections, remarks or length differ. */
      readonly frame: boolean;
    }
  | { readonly what: 'set' }
  | { readonly what: 'page'; readonly unit: string; readonly name: string };

type Named = { readonly id: string; readonly name: string };

const text = (value: unknown): string => JSON.stringify(value);

/** In what two states of a show differ, in the order of the work: the rig, its map, tones, songs, set, pages. */
export function compareShows(before: Show, other: Show): readonly ShowDifference[] {
  // What is the same becomes the same object: a state that was read from a file may have its keys in another order.
  const after = sharing(before, other);
  const titled = (list: readonly { readonly id: string; readonly title: string }[]): readonly Named[] =>
    list.map((s) => ({ id: s.id, name: s.title }));
  return [
    ...comings('player', before.players, after.players),
    ...comings('port', before.ports, after.ports),
    ...comings('unit', before.units, after.units),
    ...both(before.units, after.units).flatMap(([a, b]) => {
      // A page that comes or goes is told as a page.
      const pages = new Set([...feetOf(before, a.id).pages, ...feetOf(after, b.id).pages].map((p) => p.id));
      return unitDifferences(a, b, pages);
    }),
    ...comings('tone', before.tones, after.tones),
    ...both(before.tones, after.tones).flatMap(([a, b]): ShowDifference[] => {
      if (text(a.parts) === text(b.parts)) return [];
      const units = [...new Set([...a.parts, ...b.parts].map((p) => p.unitId))].filter(
        (id) => text(a.parts.find((p) => p.unitId === id)) !== text(b.parts.find((p) => p.unitId === id)),
      );
      const names = units.map((id) => [...after.units, ...before.units].find((u) => u.id === id)?.name ?? '');
      return [{ what: 'tone', name: b.name, units: names }];
    }),
    ...comings('move', before.moves, after.moves),
    ...both(before.moves, after.moves).flatMap(([a, b]): ShowDifference[] =>
      text(a.steps) === text(b.steps) ? [] : [{ what: 'move', name: b.name }],
    ),
    ...comings('song', titled(before.songs), titled(after.songs)),
    ...songDifferences(before, after),
    ...comings('set', titled(before.sets), titled(after.sets)),
    ...(text(setOf(before)) === text(setOf(after)) ? [] : [{ what: 'set' } as const]),
    ...pageDifferences(before, after),
    ...comings('reaction', nameless(before.reactions), nameless(after.reactions)).filter((d) => d.what !== 'renamed'),
  ];
}

const nameless = (list: Show['reactions']): readonly Named[] =>
  list.map(({ id, name }, i) => ({ id, name: name || String(i + 1) }));

function both<T extends { readonly id: string }>(
  before: readonly T[],
  after: readonly T[],
): readonly (readonly [T, T])[] {
  const old = new Map(before.map((x) => [x.id, x]));
  return after.flatMap((b) => {
    const a = old.get(b.id);
    return a && a !== b ? [[a, b] as const] : [];
  });
}

/** What came, went, and is called otherwise. */
function comings(of: Kind, before: readonly Named[], after: readonly Named[]): readonly ShowDifference[] {
  const old = new Map(before.map((x) => [x.id, x]));
  const now = new Set(after.map((x) => x.id));
  return [
    ...before.filter((x) => !now.has(x.id)).map((x) => ({ what: 'removed', of, name: x.name }) as const),
    ...after.flatMap((x): ShowDifference[] => {
      const was = old.get(x.id);
      if (!was) return [{ what: 'added', of, name: x.name }];
      if (was.name === x.name || of === 'reaction' || of === 'page') return [];
      return [{ what: 'renamed', of, from: was.name, to: x.name }];
    }),
  ];
}

function unitDifferences(a: Unit, b: Unit, pages: ReadonlySet<string>): ShowDifference[] {
  const found: ShowDifference[] = [];
  if (a.channel !== b.channel) found.push({ what: 'channel', unit: b.name, from: a.channel, to: b.channel });
  const placed = (u: Unit): ReadonlyMap<string, string> =>
    new Map(u.slots.map((s) => [s.id, `${labelOf(u.profile.plan, s.index)} ${s.name}`.trim()]));
  const [was, is] = [placed(a), placed(b)];
  for (const { id, name } of a.slots) {
    if (!is.has(id) && !pages.has(id)) found.push({ what: 'preset', unit: b.name, name, from: was.get(id)!, to: '' });
  }
  for (const { id, name } of b.slots) {
    const before = was.get(id);
    if (before === undefined && pages.has(id)) continue;
    if (before !== is.get(id)) found.push({ what: 'preset', unit: b.name, name, from: before ?? '', to: is.get(id)! });
  }
  const controls = new Map(a.profile.controls.map((c) => [c.id, c]));
  const kept = new Set(b.profile.controls.map((c) => c.id));
  const added = b.profile.controls.filter((c) => !controls.has(c.id)).map((c) => c.name);
  const removed = a.profile.controls.filter((c) => !kept.has(c.id)).map((c) => c.name);
  if (added.length + removed.length > 0) found.push({ what: 'controls', unit: b.name, added, removed });
  for (const control of b.profile.controls) {
    const before = controls.get(control.id);
    if (before && text(before.encoding) !== text(control.encoding)) {
      found.push({ what: 'control', unit: b.name, name: control.name });
    }
  }
  // Whatever else it is: nothing that differs goes unsaid.
  const relayed = ({ slots, ...rest }: Unit): string =>
    text({ ...rest, name: b.name, slots: slots.filter((s) => !pages.has(s.id) || (was.has(s.id) && is.has(s.id))) });
  if (found.length === 0 && relayed(a) !== relayed(b)) found.push({ what: 'unit', unit: b.name });
  return found;
}

function songDifferences(before: Show, after: Show): ShowDifference[] {
  const [under, now] = [surroundingsOf(before), surroundingsOf(after)];
  const old = new Map(before.songs.map((s) => [s.id, s]));
  return after.songs.flatMap((song): ShowDifference[] => {
    const was = old.get(song.id);
    if (!was) return [];
    const sounds = soundsText(was) !== soundsText(song) || !sendsAlike(song, under, now);
    if (was === song && !sounds) return [];
    const cues = new Map(was.cues.map((c) => [c.id, c]));
    const added = song.cues.filter((c) => !cues.has(c.id)).length;
    const kept = song.cues.filter((c) => cues.has(c.id));
    const changed = kept.filter((c) => text(cues.get(c.id)) !== text(c)).length;
    const removed = was.cues.length - kept.length;
    const frame = frameText(was) !== frameText(song);
    if (!sounds && !frame && added + changed + removed === 0) return [];
    return [{ what: 'song', name: song.title, added, removed, changed, sounds, frame }];
  });
}

/** Of a song all that its units are sent by. */
const soundsText = ({
  tempo,
  metre,
  pickup,
  bars,
  opening,
  openingToneId,
  cues,
  sweeps,
  taps,
  clocks,
  preRoll,
}: Song): string => text([tempo, metre, pickup, bars, opening, openingToneId, cues, sweeps, taps, clocks, preRoll]);

const frameText = ({ tempo, metre, pickup, bars, printed, sections, calls, remarks }: Song): string =>
  text([tempo, metre, pickup, bars, printed, sections, calls, remarks]);

function pageDifferences(before: Show, after: Show): ShowDifference[] {
  return after.units
    .filter((u) => u.profile.controller !== null)
    .flatMap((unit): ShowDifference[] => {
      const [a, b] = [feetOf(before, unit.id), feetOf(after, unit.id)];
      const nameOf = (id: string): string =>
        [...after.units, ...before.units].flatMap((u) => u.slots).find((s) => s.id === id)?.name ?? id;
      const named = (pages: typeof a.pages): readonly Named[] => pages.map((p) => ({ id: p.id, name: nameOf(p.id) }));
      const changed = both(a.pages, b.pages)
        .filter(([x, y]) => text(x) !== text(y))
        .map(([, y]) => ({ what: 'page', unit: unit.name, name: nameOf(y.id) }) as const);
      const all =
        text(a.everywhere) === text(b.everywhere) ? [] : [{ what: 'page', unit: unit.name, name: '' } as const];
      return [...comings('page', named(a.pages), named(b.pages)), ...all, ...changed];
    });
}
