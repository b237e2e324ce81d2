import { fitsRange, isContinuous, slotCount, type Control, type Profile } from '../addressing';
import {
  indexShow,
  matchSlots,
  openingOf,
  songsOfSet,
  usedSlots,
  type Show,
  type Slot,
  type TonePart,
  type Tonight,
  type Unit,
} from '../show';

/** Another unit in the place of one of the show. */
export type OtherUnit = Extract<Tonight, { readonly how: 'other' }>;

/** What of the other unit stands for what of ours; null where nothing does. */
export interface OtherMatch {
  /** By the id of our slot: those that tones, rules and pages use. */
  readonly slots: ReadonlyMap<string, Slot | null>;
  /** By our variant, counted from 0. */
  readonly variants: ReadonlyMap<number, number | null>;
  /** By the id of our control. */
  readonly controls: ReadonlyMap<string, Control | null>;
}

const plain = (name: string): string => name.trim().toLowerCase().replace(/\s+/g, ' ');

/** The other unit as it is chosen: with nothing said of what stands for what beyond its names. */
export const otherUnitOf = (
  unitId: string,
  from: Pick<Unit, 'name' | 'profile' | 'slots' | 'channel'>,
  portId: string | null,
): OtherUnit => ({
  how: 'other',
  unitId,
  name: from.name,
  profile: from.profile,
  slots: [...from.slots],
  channel: from.channel,
  portId,
  matches: { slots: {}, variants: {}, controls: {} },
});

/**
 * What stands for what: what somebody said, else what has the same name; a control also what follows the same shared
 * number. Of slots only those that something uses. A name that is there more than once stands for none: it is asked.
 */
export function matchOther(show: Show, unit: Unit, other: OtherUnit): OtherMatch {
  const { matches } = other;
  const used = usedSlots(show, unit.id);
  const ours = unit.slots.filter((s) => used.has(s.id));
  const byId = new Map(other.slots.map((s) => [s.id, s]));
  const found = matchSlots(ours, other.slots);
  const named = new Map(found.matches.flatMap((m) => (m.how === 'same-name' ? [[m.slotId, m.after]] : [])));
  const slots = new Map(
    ours.map((slot): [string, Slot | null] => {
      const said = matches.slots[slot.id];
      if (said !== undefined) return [slot.id, said === null ? null : (byId.get(said) ?? null)];
      const at = named.get(slot.id)?.index;
      return [slot.id, at === undefined ? null : (other.slots.find((s) => s.index === at) ?? null)];
    }),
  );
  const theirNames = other.profile.variants?.names ?? [];
  const variants = new Map(
    (unit.profile.variants?.names ?? []).map((name, i): [number, number | null] => {
      const said = matches.variants[String(i)];
      if (said !== undefined) return [i, said !== null && said < theirNames.length ? said : null];
      return [i, only(theirNames.flatMap((n, at) => (name.trim() !== '' && plain(n) === plain(name) ? [at] : [])))];
    }),
  );
  const controls = new Map(
    unit.profile.controls.map((control): [string, Control | null] => {
      const said = matches.controls[control.id];
      if (said !== undefined) return [control.id, other.profile.controls.find((c) => c.id === said) ?? null];
      const shared =
        control.houseId === null ? [] : other.profile.controls.filter((c) => c.houseId === control.houseId);
      return [
        control.id,
        only(shared) ?? only(other.profile.controls.filter((c) => plain(c.name) === plain(control.name))),
      ];
    }),
  );
  return { slots, variants, controls };
}

const only = <T>(found: readonly T[]): T | null => (found.length === 1 ? found[0]! : null);

/** Ids of the other unit's controls as the show calls them tonight: a control that stands for ours has our id. */
function idsTonight({ controls }: OtherMatch, profile: Profile): ReadonlyMap<string, string> {
  const ids = new Map<string, string>();
  for (const [ours, theirs] of controls) if (theirs && !ids.has(theirs.id)) ids.set(theirs.id, ours);
  const taken = new Set(controls.keys());
  // What stands for nothing must not be taken for ours because it has the same id.
  for (const { id } of profile.controls) if (!ids.has(id)) ids.set(id, taken.has(id) ? `other ${id}` : id);
  return ids;
}

/** Our unit as the other one is in its place: its map, with our ids for what stands for ours. */
export function asOther(unit: Unit, other: OtherUnit, match: OtherMatch): Unit {
  const ids = idsTonight(match, other.profile);
  const idOf = (id: string): string => ids.get(id) ?? id;
  const { profile } = other;
  const own: Profile = {
    ...profile,
    controls: profile.controls.map((c) => ({ ...c, id: idOf(c.id) })),
    engage: profile.engage === null ? null : idOf(profile.engage),
    effects: profile.effects.map((e) => ({
      ...e,
      id: effectFor(unit.profile, e.name) ?? e.id,
      cut: idOf(e.cut),
      ring: e.ring === null ? null : idOf(e.ring),
    })),
  };
  const tonight = (slot: Slot, id: string): Slot => ({
    ...slot,
    id,
    startControls: slot.startControls.map((c) => ({ ...c, controlId: idOf(c.controlId) })),
  });
  const beyond = slotCount(profile.plan);
  const stands = [...match.slots].map(([id, theirs]): Slot => {
    if (theirs) return tonight(theirs, id);
    // A preset that the other unit has not got: a place behind its last, which no message calls.
    const ours = unit.slots.find((s) => s.id === id)!;
    return { ...ours, index: beyond + ours.index, startVariant: null, startControls: [], panel: [], recall: null };
  });
  const used = new Set(stands.map((s) => s.index));
  const others = other.slots.filter((s) => !used.has(s.index)).map((s) => tonight(s, `other ${s.id}`));
  return {
    ...unit,
    name: other.name,
    profile: own,
    versions: [],
    slots: [...stands, ...others].sort((a, b) => a.index - b.index),
    lostSlots: [],
    // It knows nothing of what ours calls on others.
    relays: [],
    channel: other.channel,
    listens: other.channel,
    answered: null,
    ...(other.portId === null ? {} : { input: { from: 'port', portId: other.portId } }),
  };
}

const effectFor = ({ effects }: Profile, name: string): string | undefined =>
  effects.find((e) => plain(e.name) === plain(name))?.id;

/** Something that a tone wants and that the other unit has not got. */
export interface NoMatch {
  readonly what: 'slot' | 'variant' | 'control' | 'effect';
  /** As our unit calls it. */
  readonly name: string;
}

/** What of a tone's part has nothing in the other unit that stands for it, or that does not take its value. */
export function noMatches(unit: Unit, part: TonePart, other: OtherUnit, match: OtherMatch): readonly NoMatch[] {
  const none: NoMatch[] = [];
  const slot = part.slotId === null ? undefined : unit.slots.find((s) => s.id === part.slotId);
  if (slot && match.slots.get(slot.id) === null) none.push({ what: 'slot', name: slot.name });
  if (part.variant !== null && (match.variants.get(part.variant) ?? null) === null) {
    none.push({ what: 'variant', name: unit.profile.variants?.names[part.variant] ?? String(part.variant + 1) });
  }
  for (const { controlId, value } of part.controls) {
    const theirs = match.controls.get(controlId);
    if (theirs && fitsRange(theirs.encoding, value)) continue;
    none.push({ what: 'control', name: unit.profile.controls.find((c) => c.id === controlId)?.name ?? controlId });
  }
  for (const { effectId } of part.effects) {
    const ours = unit.profile.effects.find((e) => e.id === effectId);
    if (ours && !other.profile.effects.some((e) => plain(e.name) === plain(ours.name))) {
      none.push({ what: 'effect', name: ours.name });
    }
  }
  return none;
}

/** No control is called so: what wants it never comes. */
export const NOTHING_STANDS = 'nothing stands for it';

/** A tone's part as it is wanted of the other unit: what nothing stands for is still wanted, and never comes. */
export function partTonight(unit: Unit, part: TonePart, other: OtherUnit, match: OtherMatch): TonePart {
  const missing = noMatches(unit, part, other, match);
  const variant = part.variant === null ? null : (match.variants.get(part.variant) ?? null);
  const controls = part.controls.filter(({ controlId, value }) => {
    const theirs = match.controls.get(controlId);
    return theirs && fitsRange(theirs.encoding, value);
  });
  const effects = part.effects.filter(({ effectId }) => {
    const ours = unit.profile.effects.find((e) => e.id === effectId);
    return ours && other.profile.effects.some((e) => plain(e.name) === plain(ours.name));
  });
  // A slot that nothing stands for lies beyond the other's last.
  const lacks = missing.some((m) => m.what !== 'slot');
  const wanted = lacks ? [...controls, { controlId: NOTHING_STANDS, value: 1 }] : controls;
  return { ...part, variant, controls: wanted, effects };
}

/** What of a unit's controls is there tonight, for moves and songs that use them. */
export const stillThere = (match: OtherMatch) => ({
  unit: false,
  value: (controlId: string, value: number): boolean => {
    const theirs = match.controls.get(controlId);
    return Boolean(theirs && fitsRange(theirs.encoding, value));
  },
  swept: (controlId: string): boolean => {
    const theirs = match.controls.get(controlId);
    return Boolean(theirs && isContinuous(theirs.encoding));
  },
});

/** A song of the set, and how many of its cues want something that nothing stands for tonight. */
export interface LackingSong {
  readonly songId: string;
  readonly cues: number;
}

/** The songs of a set in which cues want what another unit has not got. */
export function lackingSongs(show: Show, other: OtherUnit): readonly LackingSong[] {
  const { units, tones } = indexShow(show);
  const unit = units.get(other.unitId);
  if (!unit) return [];
  const match = matchOther(show, unit, other);
  const lacks = new Set(
    [...tones.values()]
      .filter((t) => t.parts.some((p) => p.unitId === unit.id && noMatches(unit, p, other, match).length > 0))
      .map((t) => t.id),
  );
  return [...new Set(songsOfSet(show))].flatMap((song) => {
    const placed = song.cues.filter(({ action }) => action.kind === 'tone' && lacks.has(action.toneId)).length;
    const cues = placed + (lacks.has(openingOf(show, song) ?? '') ? 1 : 0);
    return cues > 0 ? [{ songId: song.id, cues }] : [];
  });
}
