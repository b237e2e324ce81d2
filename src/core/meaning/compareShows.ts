import { labelOf } from '../addressing';
import { feetOf, sharing, type Feet, type Show, type Slot, type Song, type Unit } from '../show';
import { sendsAlike, surroundingsOf } from './surroundings';

/** What can come and go in a show, with the fields of each that are told in words of their own. */
const LISTS = {
  player: { list: 'players', told: ['id', 'name'] },
  port: { list: 'ports', told: ['id', 'name'] },
  unit: { list: 'units', told: ['id', 'name', 'channel', 'profile', 'slots'] },
  'house number': { list: 'house', told: ['id', 'name'] },
  tone: { list: 'tones', told: ['id', 'name', 'parts'] },
  recording: { list: 'audio', told: ['id', 'name'] },
  stem: { list: 'stems', told: ['id', 'name'] },
  'ear mix': { list: 'ears', told: ['id', 'name'] },
  move: { list: 'moves', told: ['id', 'name', 'steps'] },
  song: { list: 'songs', told: ['id', 'title', 'cues'] },
  set: { list: 'sets', told: ['id', 'title'] },
  reaction: { list: 'reactions', told: ['id'] },
} as const satisfies Readonly<Record<string, { readonly list: keyof Show; readonly told: readonly string[] }>>;

type ListKind = keyof typeof LISTS;
type Kind = ListKind | 'page';

type Member<K extends ListKind> = Show[(typeof LISTS)[K]['list']][number];

/** The fields of which it is said that they differ, by what has them: all that the show's schema has and no other words tell. */
export type ComparedFields = {
  readonly [K in ListKind]: Exclude<keyof Member<K>, (typeof LISTS)[K]['told'][number]> & string;
} & {
  readonly show: Exclude<keyof Show, ToldOfShow> & string;
  readonly profile: keyof Unit['profile'] & string;
  readonly preset: Exclude<keyof Slot, 'id' | 'index' | 'name'> & string;
  readonly feet: Exclude<keyof Feet, 'id' | 'pages' | 'everywhere'> & string;
};

type ToldOfShow = 'format' | 'version' | 'id' | 'feet' | (typeof LISTS)[ListKind]['list'];
/** Fields of the show itself that are told in words of their own, or are the same in all shows. */
const TOLD_OF_SHOW: readonly string[] = [
  'format',
  'version',
  'id',
  'feet',
  ...Object.values(LISTS).map(({ list }) => list),
] satisfies readonly ToldOfShow[];

/** Something in which one state of a show differs from another, from the first to the second. */
export type ShowDifference =
  | {
      readonly what: 'added' | 'removed';
      readonly of: Kind;
      readonly name: string;
    }
  | {
      readonly what: 'renamed';
      readonly of: Kind;
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
  /** Fields that no other words tell. `name` is empty for the show itself. */
  | {
      readonly what: 'fields';
      readonly of: keyof ComparedFields;
      readonly name: string;
      readonly fields: readonly string[];
    }
  /** The same things in another order. */
  | { readonly what: 'order'; readonly of: ListKind }
  | {
      readonly what: 'song';
      readonly name: string;
      /** How many cues are new, gone, and other than they were. */
      readonly added: number;
      readonly removed: number;
      readonly changed: number;
      /** The units are sent something else, or at other times. */
      readonly sounds: boolean;
      /** What else of it differs. */
      readonly fields: readonly ComparedFields['song'][];
    }
  | { readonly what: 'page'; readonly unit: string; readonly name: string };

type Named = { readonly id: string; readonly name: string };

const text = (value: unknown): string => JSON.stringify(value);

/** In what two states of a show differ, in the order of the work: the rig, its map, tones, songs, set, pages. */
export function compareShows(before: Show, other: Show): readonly ShowDifference[] {
  // What is the same becomes the same object: a state that was read from a file may have its keys in another order.
  const after = sharing(before, other);
  const of = (kind: ListKind): readonly ShowDifference[] => {
    const [a, b] = [membersOf(before, kind), membersOf(after, kind)];
    return [...comings(kind, a, b), ...(kind === 'song' ? [] : fieldsOf(kind, a, b)), ...orderOf(kind, a, b)];
  };
  return [
    ...fieldDifference('show', '', before, after, TOLD_OF_SHOW),
    ...of('player'),
    ...of('port'),
    ...of('unit'),
    ...both(before.units, after.units).flatMap(([a, b]) => {
      // A page that comes or goes is told as a page.
      const pages = new Set([...feetOf(before, a.id).pages, ...feetOf(after, b.id).pages].map((p) => p.id));
      return unitDifferences(a, b, pages);
    }),
    ...of('house number'),
    ...of('tone'),
    ...both(before.tones, after.tones).flatMap(([a, b]): ShowDifference[] => {
      if (text(a.parts) === text(b.parts)) return [];
      const units = [...new Set([...a.parts, ...b.parts].map((p) => p.unitId))].filter(
        (id) => text(a.parts.find((p) => p.unitId === id)) !== text(b.parts.find((p) => p.unitId === id)),
      );
      const names = units.map((id) => [...after.units, ...before.units].find((u) => u.id === id)?.name ?? '');
      return [{ what: 'tone', name: b.name, units: names }];
    }),
    ...of('move'),
    ...both(before.moves, after.moves).flatMap(([a, b]): ShowDifference[] =>
      text(a.steps) === text(b.steps) ? [] : [{ what: 'move', name: b.name }],
    ),
    ...of('recording'),
    ...of('stem'),
    ...of('ear mix'),
    ...of('song'),
    ...songDifferences(before, after),
    ...of('set'),
    ...pageDifferences(before, after),
    ...of('reaction'),
  ];
}

/** The members of a list of a show, each with what it is called. */
function membersOf(show: Show, kind: ListKind): readonly (Named & { readonly own: object })[] {
  return show[LISTS[kind].list].map((own, i) => ({
    id: own.id,
    name: 'title' in own ? own.title : own.name || String(i + 1),
    own,
  }));
}

/** Fields of something that differ and that no other words tell. */
function differing<T extends object>(a: T, b: T, told: readonly string[]): readonly string[] {
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].filter(
    (key) => !told.includes(key) && text(a[key as keyof T]) !== text(b[key as keyof T]),
  );
}

function fieldDifference<T extends object>(
  of: keyof ComparedFields,
  name: string,
  a: T,
  b: T,
  told: readonly string[],
): readonly ShowDifference[] {
  const fields = a === b ? [] : differing(a, b, told);
  return fields.length === 0 ? [] : [{ what: 'fields', of, name, fields }];
}

type Members = ReturnType<typeof membersOf>;

const fieldsOf = (kind: ListKind, before: Members, after: Members): readonly ShowDifference[] => {
  const old = new Map(before.map((m) => [m.id, m.own]));
  return after.flatMap(({ id, name, own }) => {
    const was = old.get(id);
    return was ? fieldDifference(kind, name, was, own, LISTS[kind].told) : [];
  });
};

/** What is in both stands in another order. */
function orderOf(of: ListKind, before: Members, after: Members): readonly ShowDifference[] {
  const [old, now] = [before, after].map((list) => new Set(list.map((m) => m.id)));
  const kept = (list: Members, others: ReadonlySet<string>): string =>
    text(list.filter((m) => others.has(m.id)).map((m) => m.id));
  return kept(before, now!) === kept(after, old!) ? [] : [{ what: 'order', of }];
}

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
  // Controls that came, went or have other numbers are told; what is left of them is said as one.
  const told = ({ profile }: Unit, other: ReadonlyMap<string, unknown>) => ({
    ...profile,
    controls: profile.controls.filter((c) => other.has(c.id)).map((c) => ({ ...c, encoding: null })),
  });
  const now = new Map(b.profile.controls.map((c) => [c.id, c]));
  found.push(...fieldDifference('profile', b.name, told(a, now), told(b, controls), []));
  for (const [x, y] of both(a.slots, b.slots)) {
    found.push(...fieldDifference('preset', `${b.name} ${is.get(y.id)!}`, x, y, ['id', 'index', 'name']));
  }
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
    const fields = differing(was, song, LISTS.song.told) as ComparedFields['song'][];
    if (!sounds && fields.length === 0 && added + changed + removed === 0) return [];
    return [{ what: 'song', name: song.title, added, removed, changed, sounds, fields }];
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
      const rest = fieldDifference('feet', unit.name, a, b, ['id', 'pages', 'everywhere']);
      return [...comings('page', named(a.pages), named(b.pages)), ...all, ...changed, ...rest];
    });
}
