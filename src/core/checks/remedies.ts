import type { Late } from '../compile';
import { OPENING_CUE, playedSweeps, routeTo } from '../meaning';
import {
  addTone,
  changeCue,
  freeName,
  indexShow,
  LIMITS,
  newTone,
  putSweep,
  RANGES,
  setSongField,
  setUnitField,
  setUnitRoom,
  SWEEP_SPACING,
  type Cue,
  type Edit,
  type Show,
  type Song,
  type Sweep,
  type TonePart,
  type Unit,
} from '../show';
import {
  barOfTick,
  formatPosition,
  secondsToTicks,
  microsToSeconds,
  TICKS_PER_QUARTER,
  type BarMap,
  type Micros,
  type Millis,
  type Ticks,
} from '../time';
import type { SongFacts } from './song/facts';

/**
 * What makes a change come sooner than it does, or gives it room:
 * - `pre-roll`: the song's first messages leave earlier before it begins.
 * - `earlier`: all changes of a unit leave earlier before they are due.
 * - `guard`: a unit's settling is waited for longer.
 * - `shift`: the change is due later.
 * - `thinner`: a sweep on the same cable sends fewer values.
 * - `port`: the unit goes on a port of its own.
 * - `variant`: a variant of the preset that is on, called like what is wanted, in place of another preset.
 * - `sent`: the message leaves on the beat, and the unit changes when it can.
 * - `before`: the change is due on the beat before.
 * - `leave`: the cue leaves the unit as it is.
 */
export interface Remedy {
  readonly how:
    'pre-roll' | 'earlier' | 'guard' | 'shift' | 'thinner' | 'port' | 'variant' | 'sent' | 'before' | 'leave';
  /** By how much, or how far apart values are. */
  readonly millis: Millis;
  /** The unit, port or variant that it is about; empty for none. */
  readonly name: string;
}

/** A remedy with the edit that it takes. Whether it helps has to be tried. */
export interface Candidate {
  readonly remedy: Remedy;
  readonly edit: Edit;
}

/** The change that needs something. */
export interface Ailing {
  readonly cueId: string;
  readonly unitId: string;
  readonly due: Micros;
  /** How much time it lacks. */
  readonly millis: Millis;
  /** Why it is late; null where it is not, and only has little room. */
  readonly late: Late['cause'] | null;
}

/** A sweep that runs so near to a change may keep its cable busy. */
const NEAR: Ticks = TICKS_PER_QUARTER / 2;

/** Everything that may help one change, the gentlest first. */
export function remedies(facts: SongFacts, ailing: Ailing): Candidate[] {
  const { show, song } = facts;
  const { millis, late, cueId } = ailing;
  const cue = song.cues.find((c) => c.id === cueId);
  const unit = indexShow(show).units.get(ailing.unitId);
  const found: Candidate[] = [];
  const offer = (how: Remedy['how'], edit: Edit | null, of: Partial<Remedy> = {}): void => {
    if (edit) found.push({ edit, remedy: { how, millis, name: '', ...of } });
  };
  const isFirst = late ? late.kind === 'start' : cueId === OPENING_CUE;
  const preRoll = Math.ceil(song.preRoll + millis);
  if (isFirst && preRoll <= RANGES.preRollMillis[1]) offer('pre-roll', setSongField(show, song.id, 'preRoll', preRoll));
  // What leaves as early as it can gains nothing by wanting to. What a unit is told comes with what tells it.
  for (const one of unit && !late ? [unit, ...tellersOf(show, unit)] : []) {
    for (const [how, field, wanted] of [
      ['earlier', 'margin', one.margin ?? show.margin],
      ['guard', 'guard', one.guard ?? show.guard],
    ] as const) {
      const more = Math.max(10, wanted * 2);
      offer(how, setUnitRoom(show, one.id, field, more), { millis: more, name: one.name });
    }
  }
  if (cue) offer('shift', changeCue(show, song.id, cue.id, { shift: cue.shift + millis }));
  const crowded = late ? late.kind === 'cable' : unit?.input?.from === 'port';
  const portId = late?.kind === 'cable' ? late.portId : unit && routeTo(show, unit)?.portId;
  if (crowded && portId !== undefined) {
    for (const sweep of sweepsNear(facts, portId, ailing.due)) {
      for (const times of [2, 4, 8]) {
        const spacing = Math.max(sweep.spacing, SWEEP_SPACING) * times;
        offer('thinner', putSweep(show, song.id, { ...sweep, spacing }), { millis: spacing });
      }
    }
  }
  if (crowded && unit) {
    const free = freePort(show, unit);
    if (free)
      offer('port', setUnitField(show, unit.id, 'input', { from: 'port', portId: free.id }), { name: free.name });
  }
  if (cue && unit) {
    const other = variantInstead(facts, cue, unit);
    if (other) offer('variant', other.edit, { name: other.name });
  }
  if (cue?.landing === 'complete') offer('sent', changeCue(show, song.id, cue.id, { landing: 'sent' }));
  return found;
}

/**
 * Ways for a change that misses, which one hears: it comes a beat early, or one unit does not change at all. The gentlest
 * first. Only somebody who knows the music takes one.
 */
export function musicalWays({ show, song, time }: SongFacts, { cueId, unitId, millis }: Ailing): Candidate[] {
  const cue = song.cues.find((c) => c.id === cueId);
  if (!cue) return [];
  const found: Candidate[] = [];
  const at = cue.at > 0 ? beatBefore(time.bars, cue.at) : 0;
  const early = at < cue.at && !song.cues.some((c) => c.at === at) ? changeCue(show, song.id, cueId, { at }) : null;
  if (early)
    found.push({ edit: early, remedy: { how: 'before', millis, name: formatPosition(time.bars, at, song.bars) } });
  const unit = indexShow(show).units.get(unitId);
  const left = unit && withoutUnit(show, song, cue, unit);
  if (left) found.push({ edit: left, remedy: { how: 'leave', millis, name: unit.name } });
  return found;
}

/** The last beat before a place. */
function beatBefore(bars: BarMap, at: Ticks): Ticks {
  const bar = barOfTick(bars, at - 1);
  // The pickup counts as the end of a full bar.
  const start = bar.tick - (bar.beats * bar.beatTicks - bar.length);
  return Math.max(0, start + Math.floor((at - 1 - start) / bar.beatTicks) * bar.beatTicks);
}

/** A cue with a tone of its own that leaves one unit as it is; null where it is no tone, or there would be nothing left. */
function withoutUnit(show: Show, song: Song, cue: Cue, unit: Unit): Edit | null {
  const { tones } = indexShow(show);
  const tone = cue.action.kind === 'tone' ? tones.get(cue.action.toneId) : undefined;
  const parts = tone?.parts.filter((p) => p.unitId !== unit.id) ?? [];
  if (!tone || parts.length === 0 || parts.length === tone.parts.length) return null;
  return ownTone(show, song, cue, `${tone.name} without ${unit.name}`, `${cue.id}-out-${unit.id}`, parts);
}

/** A cue that gets a tone of its own, since the one that it has may be placed elsewhere. */
function ownTone(
  show: Show,
  song: Song,
  cue: Cue,
  name: string,
  fullId: string,
  parts: readonly TonePart[],
): Edit | null {
  // The same question has the same answer: an id that hangs on what it is about.
  const id = fullId.slice(0, 64);
  if (show.tones.length >= LIMITS.tones || indexShow(show).tones.has(id)) return null;
  const taken = show.tones.map((t) => t.name);
  const own = newTone(id, freeName(name.slice(0, LIMITS.title), taken), parts);
  const place = changeCue(show, song.id, cue.id, { action: { kind: 'tone', toneId: id, reload: false } });
  return place && { kind: 'group', edits: [addTone(show, own), place] };
}

/** Sweeps that are on a port about a time. */
function sweepsNear({ show, song, time }: SongFacts, portId: string, due: Micros): readonly Sweep[] {
  const tick = secondsToTicks(time.tempo, microsToSeconds(due));
  return playedSweeps(show, song)
    .filter(({ sweep, unit }) => {
      const isNear = sweep.from <= tick + NEAR && sweep.to >= tick - NEAR;
      return isNear && routeTo(show, unit)?.portId === portId;
    })
    .map(({ sweep }) => sweep);
}

/** Units that tell a unit by relay rules, and those that tell them, the nearest first. */
function tellersOf(show: Show, unit: Unit): readonly Unit[] {
  const found = new Set([unit]);
  for (const told of found) for (const u of show.units) if (u.relays.some((r) => r.toUnitId === told.id)) found.add(u);
  found.delete(unit);
  return [...found];
}

/** A port that is on and has nothing on it yet. */
function freePort(show: Show, unit: Unit): Show['ports'][number] | undefined {
  const { input } = unit;
  if (input?.from !== 'port') return undefined;
  const taken = new Set(show.units.flatMap((u) => (u.input?.from === 'port' ? [u.input.portId] : [])));
  return show.ports.find((p) => p.active && p.id !== input.portId && !taken.has(p.id));
}

/** Whether two names say the same; a number alone is no name. */
const alike = (a: string, b: string): boolean =>
  !/^\d*$/.test(a.trim()) && a.trim().toLowerCase() === b.trim().toLowerCase();

/**
 * A variant of the preset that a unit is on, called like the variant or preset that a cue's tone wants: no preset has
 * to load then. The cue gets a tone of its own, since the old one may be placed elsewhere.
 */
function variantInstead({ show, song, passed }: SongFacts, cue: Cue, unit: Unit): { edit: Edit; name: string } | null {
  const { tones } = indexShow(show);
  const { variants } = unit.profile;
  const tone = cue.action.kind === 'tone' ? tones.get(cue.action.toneId) : undefined;
  const part = tone?.parts.find((p) => p.unitId === unit.id);
  if (!tone || !part || part.slotId === null || !variants) return null;
  const wanted = unit.slots.find((s) => s.id === part.slotId);
  const on = passed.find((p) => p.moment.id === cue.id)?.before[unit.id]?.slot ?? null;
  const loaded = unit.slots.find((s) => s.index === on);
  if (!wanted || !loaded || loaded.id === wanted.id) return null;
  const called = part.variant === null ? wanted.name : (variants.names[part.variant] ?? '');
  const variant = variants.names.findIndex((name) => alike(name, called));
  if (variant < 0) return null;
  const name = `${variants.word} ${variants.names[variant]}`;
  const parts = tone.parts.map((p) => (p === part ? { ...p, slotId: loaded.id, variant } : p));
  const edit = ownTone(show, song, cue, `${tone.name} (${name})`, `${cue.id}-${variant}-${unit.id}`, parts);
  return edit && { edit, name };
}
