import { channelOf, controlChange, decodeMessage, noteOff, noteOn, programChange, type Bytes } from '../midi';
import type { Reaction, SessionAct, Show, Turn } from '../show';
import { millisToMicros, type Micros } from '../time';

/** A message that arrived, as reactions hear it. */
export interface Heard {
  readonly kind: Reaction['hears']['kind'];
  readonly channel: number;
  /** Note, control number or program; null for what has none. */
  readonly number: number | null;
  /** Velocity or value; null for a program. */
  readonly value: number | null;
  /** A note that ends. */
  readonly ends: boolean;
}

/** Why a reaction leaves a message alone: the first thing about it that does not fit. */
export type Miss = 'off' | 'song' | 'port' | 'kind' | 'channel' | 'number' | 'value' | 'same';

/** What comes of a message. */
export type Act =
  | { readonly kind: 'session'; readonly act: SessionAct }
  | { readonly kind: 'song'; readonly songId: string; readonly how: 'start' | 'queue' | 'select' }
  | { readonly kind: 'tone'; readonly toneId: string }
  | { readonly kind: 'move'; readonly moveId: string }
  | { readonly kind: 'sample'; readonly audioId: string; readonly gain: number }
  /** A fader that comes to a level, in decibels. */
  | { readonly kind: 'level'; readonly fader: string; readonly of: string; readonly gain: number }
  | { readonly kind: 'turn'; readonly of: string; readonly how: Turn }
  | { readonly kind: 'part'; readonly playerId: string; readonly how: Turn }
  | { readonly kind: 'set'; readonly unitId: string; readonly controlId: string; readonly value: number }
  | { readonly kind: 'send'; readonly portId: string; readonly bytes: Bytes };

/** One reaction that a message came by. */
export interface ReactionStep {
  readonly reactionId: string;
  /** Null where it took the message. */
  readonly miss: Miss | null;
  readonly acts: readonly Act[];
  /** The message went no further. */
  readonly stopped: boolean;
}

/** A switch that a pedal throws: how it stands, and since when the pedal wants it the other way. */
interface Thrown {
  readonly on: boolean;
  readonly since: Micros | null;
}

/** What reactions remember from one message to the next, by the id of the reaction. */
export interface Reacting {
  readonly values: ReadonlyMap<string, number>;
  readonly switches: ReadonlyMap<string, Thrown>;
  /** Notes that were swallowed when they began, so that their ends are too. */
  readonly held: ReadonlySet<string>;
  /** Controls that were moved since the tone that is on came. */
  readonly touched: ReadonlyMap<string, { readonly unitId: string; readonly controlId: string }>;
}

export const NOT_REACTED: Reacting = {
  values: new Map(),
  switches: new Map(),
  held: new Set(),
  touched: new Map(),
};

/** What reactions can hear of a message; null for what they do not. */
export function heardOf(bytes: Bytes): Heard | null {
  const message = decodeMessage(bytes);
  const channel = channelOf(bytes);
  if (!message || channel === undefined) return null;
  const heard = (kind: Heard['kind'], number: number | null, value: number | null, ends = false): Heard => ({
    kind,
    channel,
    number,
    value,
    ends,
  });
  switch (message.kind) {
    // MIDI 1.0: a note that is struck with velocity 0 ends.
    case 'note-on':
      return heard('note', message.note, message.velocity, message.velocity === 0);
    case 'note-off':
      return heard('note', message.note, 0, true);
    case 'control':
      return heard('control', message.control, message.value);
    case 'program':
      return heard('program', message.program, null);
    case 'channel-pressure':
      return heard('pressure', null, message.value);
    case 'pitch-bend':
      return heard('bend', null, message.value >> 7);
    default:
      return null;
  }
}

/** Whether what arrived is what a reaction waits for. */
function missOf({ on, songId, hears }: Reaction, playing: string | null, portId: string, heard: Heard): Miss | null {
  if (!on) return 'off';
  if (songId !== null && songId !== playing) return 'song';
  if (hears.portId !== null && hears.portId !== portId) return 'port';
  if (hears.kind !== heard.kind) return 'kind';
  if (hears.channel !== null && hears.channel !== heard.channel) return 'channel';
  if (hears.number !== null && hears.number !== heard.number) return 'number';
  const { value } = heard;
  if (value === null || heard.ends || follows(hears, value)) return null;
  return 'value';
}

const follows = ({ low, high }: Reaction['hears'], value: number): boolean => value >= low && value <= high;

/** Reactions whose value goes on: all others are a press. */
export const goesAlong = ({ kind }: Reaction['does']): boolean =>
  kind === 'control' || kind === 'message' || kind === 'switch' || kind === 'level';

const noteKey = (portId: string, { channel, number }: Heard): string => `${portId}/${channel}/${number}`;

/** Where something happens: which song is on, and when. */
export interface Around {
  readonly songId: string | null;
  readonly at: Micros;
}

export interface Reacted {
  readonly reacting: Reacting;
  readonly steps: readonly ReactionStep[];
  /** Nobody swallowed it. */
  readonly goesOn: boolean;
}

/** A message goes through the reactions in their order, until one swallows it. */
export function react(
  show: Pick<Show, 'reactions'>,
  reacting: Reacting,
  { songId, at }: Around,
  portId: string,
  bytes: Bytes,
): Reacted {
  const heard = heardOf(bytes);
  if (!heard || show.reactions.length === 0) return { reacting, steps: [], goesOn: true };
  const values = new Map(reacting.values);
  const switches = new Map(reacting.switches);
  const touched = new Map(reacting.touched);
  const held = new Set(reacting.held);
  const steps: ReactionStep[] = [];
  const key = noteKey(portId, heard);
  // The end of a note that was swallowed is swallowed with it, whatever has become of the reaction since.
  let goesOn = !(heard.ends && held.delete(key));
  for (const reaction of show.reactions) {
    const { id, does, swallow } = reaction;
    const miss = missOf(reaction, songId, portId, heard);
    if (miss !== null) {
      if (miss === 'value') {
        values.delete(id);
        // A switch that is let go: its press was swallowed, and so is that.
        if (swallow && !goesAlong(does)) goesOn = false;
      }
      steps.push({ reactionId: id, miss, acts: [], stopped: false });
      continue;
    }
    const acts = actsOf(reaction, heard, { values, switches, touched, at });
    const again = acts === null;
    steps.push({ reactionId: id, miss: again ? 'same' : null, acts: acts ?? [], stopped: swallow });
    if (!swallow) continue;
    if (heard.kind === 'note' && !heard.ends) held.add(key);
    goesOn = false;
    break;
  }
  return { reacting: { values, switches, touched, held }, steps, goesOn };
}

interface Memory {
  readonly values: Map<string, number>;
  readonly switches: Map<string, Thrown>;
  readonly touched: Map<string, { readonly unitId: string; readonly controlId: string }>;
  readonly at: Micros;
}

/** What a reaction does with a message that it takes; null where that is the same press still. */
function actsOf({ id, hears, does }: Reaction, heard: Heard, memory: Memory): readonly Act[] | null {
  const { values, switches, touched, at } = memory;
  const value = heard.value ?? hears.high;
  if (!goesAlong(does)) {
    if (heard.ends) return [];
    const before = values.get(id);
    values.set(id, value);
    // A pedal within the range goes on being pressed; a switch that sends the same value again is pressed anew.
    if (before !== undefined && before !== value && heard.kind !== 'note' && heard.kind !== 'program') return null;
  }
  switch (does.kind) {
    case 'session':
      return [{ kind: 'session', act: does.act }];
    case 'song':
      return [{ kind: 'song', songId: does.songId, how: does.how }];
    case 'tone':
      return [{ kind: 'tone', toneId: does.toneId }];
    case 'move':
      return [{ kind: 'move', moveId: does.moveId }];
    case 'sample':
      return [{ kind: 'sample', audioId: does.audioId, gain: does.gain }];
    case 'turn':
      return [{ kind: 'turn', of: does.of, how: does.how }];
    case 'part':
      return [{ kind: 'part', playerId: does.playerId, how: does.how }];
    case 'level': {
      if (heard.ends) return [];
      const { of, from, to } = does;
      return [{ kind: 'level', fader: id, of, gain: along(hears, { from, to, bend: 'straight' }, value) }];
    }
    case 'control': {
      if (heard.ends) return [];
      const { unitId, controlId } = does;
      touched.set(id, { unitId, controlId });
      return [{ kind: 'set', unitId, controlId, value: along(hears, does.curve, value) }];
    }
    case 'message':
      return [{ kind: 'send', portId: does.portId, bytes: changed(hears, does, heard) }];
    case 'switch': {
      if (heard.ends) return [];
      const { on } = switches.get(id) ?? { on: false };
      const wants = value >= does.above ? true : value <= does.below ? false : on;
      const since = wants === on ? null : (switches.get(id)?.since ?? at);
      switches.set(id, { on, since });
      if (does.millis > 0 || since === null) return [];
      return thrown(memory, id, does, wants);
    }
  }
}

type SwitchOf = Extract<Reaction['does'], { kind: 'switch' }>;

function thrown(
  { switches, touched }: Pick<Memory, 'switches' | 'touched'>,
  id: string,
  { unitId, controlId }: SwitchOf,
  on: boolean,
): readonly Act[] {
  switches.set(id, { on, since: null });
  if (on) touched.set(id, { unitId, controlId });
  return [{ kind: 'set', unitId, controlId, value: on ? 1 : 0 }];
}

/** A value along a curve, from the range that is heard to the range that is wanted. */
export function along({ low, high }: Reaction['hears'], { from, to, bend }: Curve, value: number): number {
  const share = high === low ? 1 : Math.max(0, Math.min(1, (value - low) / (high - low)));
  const bent = bend === 'slow' ? share * share : bend === 'fast' ? Math.sqrt(share) : share;
  return from + (to - from) * bent;
}

type Curve = Extract<Reaction['does'], { kind: 'control' }>['curve'];

const dataByte = (value: number): number => Math.max(0, Math.min(127, Math.round(value)));

/** The same message on another channel, with another number, its value along a curve. */
function changed(
  hears: Reaction['hears'],
  does: Extract<Reaction['does'], { kind: 'message' }>,
  { kind, channel: from, number: was, value: came, ends }: Heard,
): Bytes {
  const channel = does.channel ?? from;
  const number = does.number ?? was ?? 0;
  const value = came === null ? 0 : dataByte(along(hears, does.curve, came));
  switch (kind) {
    case 'note':
      // Struck with velocity 0 it would end.
      return ends ? noteOff(channel, number) : noteOn(channel, number, Math.max(1, value));
    case 'control':
      return controlChange(channel, number, value);
    case 'program':
      return programChange(channel, number);
    case 'pressure':
      return [0xd0 | (channel - 1), value];
    case 'bend':
      return [0xe0 | (channel - 1), 0, value];
  }
}

/** Switches that a pedal has wanted the other way for long enough. */
export function reactLater(
  show: Pick<Show, 'reactions'>,
  reacting: Reacting,
  now: Micros,
): { readonly reacting: Reacting; readonly acts: readonly Act[] } {
  let waits = false;
  for (const { since } of reacting.switches.values()) waits ||= since !== null;
  if (!waits) return { reacting, acts: [] };
  const switches = new Map(reacting.switches);
  const touched = new Map(reacting.touched);
  const acts = show.reactions.flatMap(({ id, does }) => {
    const { on, since } = switches.get(id) ?? { on: false, since: null };
    if (does.kind !== 'switch' || since === null || now - since < millisToMicros(does.millis)) return [];
    return thrown({ switches, touched }, id, does, !on);
  });
  return acts.length === 0 ? { reacting, acts } : { reacting: { ...reacting, switches, touched }, acts };
}

/** A tone came: what pedals have moved belongs to the tone before. Gives which controls that were. */
export function newTone(reacting: Reacting): {
  readonly reacting: Reacting;
  readonly touched: readonly { readonly unitId: string; readonly controlId: string }[];
} {
  if (reacting.touched.size === 0) return { reacting, touched: [] };
  return {
    reacting: { ...reacting, touched: new Map(), switches: new Map() },
    touched: [...reacting.touched.values()],
  };
}
