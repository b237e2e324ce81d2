import { z } from 'zod';
import { identitySchema, profileSchema, timeSchema, type Deep } from '../addressing';
import { CODE_RATES } from '../clock';
import { feetSchema, type doingSchema } from './feetSchema';
import { LIMITS, RANGES } from './limits';
import {
  COLOURS,
  SESSION_ACTS,
  SOURCES,
  colourSchema,
  id,
  notes,
  sessionActSchema,
  title,
  turnSchema,
  within,
} from './shapes';

export { COLOURS, SESSION_ACTS, SOURCES };
export type { ColourName, Source, Turn } from './shapes';

export const SHOW_FORMAT = 'hollow-lantern-show';
export const SHOW_VERSION = 11;

const ticks = z.number().min(-LIMITS.ticks).max(LIMITS.ticks);
const channel = z.int().min(1).max(16);

export const playerSchema = z.strictObject({
  id,
  name: title,
  part: z.string().max(LIMITS.title),
  colour: colourSchema,
});

export const portSchema = z.strictObject({
  id,
  name: title,
  cable: z.enum(['din', 'usb']),
  /** A port that is switched off neither sends nor receives. */
  active: z.boolean(),
  /** The computer sends what arrives on the port out again. */
  softThru: z.boolean(),
  /** A splitter hangs in its out socket, so that several cables may leave it. */
  splitter: z.boolean(),
  /** What is used instead when it fails, for the patch sheet. */
  spare: z.string().max(200),
  /** What the interface, the cable and the computer add to the time of the cable itself. */
  delay: timeSchema,
  /** What the real ports were called that it was bound to last, as a hint to another computer; empty where none was. */
  known: z.strictObject({ out: z.string().max(LIMITS.title), in: z.string().max(LIMITS.title) }),
});

export const slotSchema = z.strictObject({
  id,
  /** Place on the plan's line; tones refer to the slot by `id`, so that it may move. */
  index: z.int().min(0),
  name: z.string().max(LIMITS.title),
  /** The variant that the preset starts with, where somebody wrote it down. */
  startVariant: z.int().min(0).nullable(),
  /** Controls as the preset has them, where somebody wrote it down. */
  startControls: z.array(z.strictObject({ controlId: id, value: z.number() })).max(512),
  /** How the unit's panel stands in this stored state. */
  panel: z.array(z.strictObject({ name: z.string().min(1).max(40), setting: z.string().max(60) })).max(32),
  /** From a program change to its sound, where that is not the unit's usual time. */
  recall: timeSchema.nullable(),
});

export const relaySchema = z.strictObject({
  id,
  when: z.strictObject({ slotId: id.nullable(), variant: z.int().min(0).nullable() }),
  toUnitId: id,
  toSlotId: id,
});

export const unitSchema = z.strictObject({
  id,
  name: title,
  monogram: z.string().min(1).max(3),
  playerId: id.nullable(),
  /** What its in port is fed by: a port of the rig, or the out port of the unit before it. */
  input: z
    .discriminatedUnion('from', [
      z.strictObject({ from: z.literal('port'), portId: id }),
      z.strictObject({ from: z.literal('unit'), unitId: id, thru: z.boolean() }),
    ])
    .nullable(),
  /** The channel that the map sends on. */
  channel,
  /** The channel set on the unit itself; the two ends have to agree. */
  listens: z.union([channel, z.literal('all')]),
  /** A cable from its out port back to the in side of a port; with `thru`, of all that it receives. */
  returns: z.strictObject({ portId: id, thru: z.boolean() }).nullable(),
  /** A splitter hangs in the socket that feeds the units behind it. */
  splitter: z.boolean(),
  /** What is used instead when it fails, for the patch sheet. */
  spare: z.string().max(200),
  /** What the real unit said of itself when it was asked last; null where it was never asked. */
  answered: identitySchema.nullable(),
  profile: profileSchema,
  /** What the same unit is like with other firmware. */
  versions: z.array(profileSchema).max(32),
  slots: z.array(slotSchema).max(LIMITS.slots),
  /** Slots that the unit's preset list has no longer, but that something refers to. */
  lostSlots: z
    .array(z.strictObject({ id, name: z.string().max(LIMITS.title), lastIndex: z.int().min(0) }))
    .max(LIMITS.slots),
  relays: z.array(relaySchema).max(4096),
  /** Milliseconds before their beat that its changes land, and that its settling is waited for beyond the worst; null for the show's. */
  margin: within(RANGES.marginMillis).nullable(),
  guard: within(RANGES.guardMillis).nullable(),
});

export const tonePartSchema = z.strictObject({
  unitId: id,
  slotId: id.nullable(),
  variant: z.int().min(0).nullable(),
  controls: z.array(z.strictObject({ controlId: id, value: z.number() })).max(512),
  /** How effects are left: on, cut off, or ringing out with only their input closed. */
  effects: z.array(z.strictObject({ effectId: id, how: z.enum(['on', 'cut', 'ring']) })).max(128),
});

/** One function, one control number, on every unit where the number can be chosen. */
export const houseNumberSchema = z.strictObject({ id, name: title, number: z.int().min(0).max(127) });

export const toneSchema = z.strictObject({
  id,
  name: title,
  notes,
  parts: z.array(tonePartSchema).max(256),
});

/** A line of text at a place, which sends nothing. */
export const remarkSchema = z.strictObject({
  id,
  at: ticks,
  text: z.string().min(1).max(LIMITS.remark),
  /** Whether the stage shows it. */
  onStage: z.boolean(),
});

export const cueSchema = z.strictObject({
  id,
  at: ticks,
  /** Milliseconds that the cue lands after (or, negative, before) its place. */
  shift: within(RANGES.shiftMillis),
  /** Whether the change is complete on its beat, or sent on its beat. */
  landing: z.enum(['complete', 'sent']),
  muted: z.boolean(),
  action: z.discriminatedUnion('kind', [
    z.strictObject({
      kind: z.literal('tone'),
      toneId: id,
      /** Recall presets that are on already. */
      reload: z.boolean(),
    }),
    /** A named action. */
    z.strictObject({ kind: z.literal('move'), moveId: id }),
    /** One control set to a value, without a name of its own. */
    z.strictObject({ kind: z.literal('control'), unitId: id, controlId: id, value: z.number() }),
    /** Bytes as they stand, for what the map has no name for. */
    z.strictObject({
      kind: z.literal('message'),
      unitId: id,
      bytes: z
        .string()
        .max(2 * LIMITS.dumpBytes)
        .regex(/^([0-9a-f]{2})+$/),
    }),
  ]),
});

/** A named action with no state to hold: tuner on, looper record, four taps. */
export const moveSchema = z.strictObject({
  id,
  name: title,
  notes,
  /** In order. For a control that is tapped, `value` is how many taps, a beat of the song apart. */
  steps: z
    .array(z.strictObject({ unitId: id, controlId: id, value: z.number() }))
    .min(1)
    .max(64),
});

/** A continuous control over a stretch of time. */
export const sweepSchema = z.strictObject({
  id,
  unitId: id,
  controlId: id,
  from: ticks.min(0),
  to: ticks.min(0),
  muted: z.boolean(),
  shape: z.discriminatedUnion('kind', [
    /** Straight lines through points; `at` counts from the start of the sweep. */
    z.strictObject({
      kind: z.literal('line'),
      points: z
        .array(z.strictObject({ at: ticks.min(0), value: z.number() }))
        .min(2)
        .max(4000),
    }),
    /** A wave locked to the beat, of `period` ticks, that begins at its low end (a falling one at its high end). */
    z.strictObject({
      kind: z.literal('wave'),
      form: z.enum(['rise', 'fall', 'triangle', 'sine', 'steps']),
      low: z.number(),
      high: z.number(),
      period: ticks.min(60),
      /** Steps in a period, for a stepped wave. */
      steps: z.int().min(2).max(64),
    }),
  ]),
  /** The effect's own switch: on when the sweep starts, off when it ends. */
  switchId: id.nullable(),
  /** Milliseconds between its values, at least. */
  spacing: within(RANGES.spacingMillis),
  /** What becomes of the control afterwards: to its rest, or left where it is. */
  after: z.enum(['rest', 'hold']),
});

/** Taps on the beat that give a unit the tempo: at the start, and after each change of it. */
export const tempoTapsSchema = z.strictObject({
  id,
  unitId: id,
  controlId: id,
  count: z.int().min(2).max(16),
});

export const tempoMarkSchema = z.strictObject({
  at: ticks.min(0),
  bpm: z.number().min(1).max(60e6),
  /** Quarters in the beat that `bpm` counts: 1.5 is a dotted quarter. */
  beat: z.number().min(0.0625).max(8),
  /** Tempo reached at the next mark, in a straight line; null is a step. */
  rampTo: z.number().min(1).max(60e6).nullable(),
});

export const metreMarkSchema = z.strictObject({
  bar: z.int().min(1),
  beats: z.int().min(1).max(255),
  unit: z.union([1, 2, 4, 8, 16, 32, 64, 128].map((n) => z.literal(n))),
});

/** What is heard in the ears ahead of something: a word, a pattern of tones or a sound of one's own, and a count. */
export const callSchema = z.strictObject({
  /** `count` is the count alone. */
  how: z.enum(['voice', 'tones', 'sound', 'count']),
  /** What is said; empty is the name of what it goes ahead of. */
  text: z.string().max(200),
  pattern: z.enum(['rise', 'fall', 'twice', 'thrice']),
  /** The sound of one's own, of `audio`. */
  audioId: id.nullable(),
  /** Beats of the metre that it begins ahead. */
  ahead: z.int().min(1).max(64),
  /** Bars right ahead of it whose beats are counted; 0 for none. */
  count: z.int().min(0).max(LIMITS.countBars),
});

/** A call ahead of a bar, whether a section begins there or not. */
export const barCallSchema = z.strictObject({ id, bar: z.int().min(1), call: callSchema });

export const sectionSchema = z.strictObject({
  id,
  name: title,
  bar: z.int().min(0),
  call: callSchema.nullable(),
});

/** A recording that plays along: a backing track for the house, a guide that is only programmed against, or the part of a player who may be missing. */
export const trackSchema = z.strictObject({
  id,
  audioId: id,
  role: z.enum(['backing', 'guide', 'part']),
  /** Whose part it is: heard where the set says that the player is missing. */
  playerId: id.nullable(),
  /** What it is of, where that goes out by a way of its own; null for the way of its role. */
  stemId: id.nullable(),
  /** Where its first sample is heard, and milliseconds after that (or, negative, before). */
  at: ticks.min(0),
  offset: within(RANGES.offsetMillis),
  /** Decibels. */
  gain: within(RANGES.gain),
  muted: z.boolean(),
});

/** A sound file. The show names it; its bytes lie beside the show, under the id. */
export const audioSchema = z.strictObject({
  id,
  name: title,
  /** Media type, as in `audio/wav`. */
  type: z.string().max(80),
  /** Length in seconds. */
  length: z.number().positive().max(86400),
  /** Size in bytes. */
  size: z.int().min(1),
});

/** What recordings are of, in any song: "Drums", "Keys". It has outputs and a level of its own. */
export const stemSchema = z.strictObject({ id, name: title });

/** What somebody hears in their ears: of which sources (one of `SOURCES`, or a stem), at which level in decibels; of all others nothing. */
export const earSchema = z.strictObject({
  id,
  name: title,
  hears: z.array(z.strictObject({ of: id, gain: within(RANGES.gain) })).max(LIMITS.stems + SOURCES.length),
});

/** What a song is heard of, and how loud: decibels beside what each recording has of its own. */
export const levelsSchema = z.strictObject({
  click: within(RANGES.gain),
  calls: within(RANGES.gain),
  backing: within(RANGES.gain),
  guide: within(RANGES.gain),
});

export const songSchema = z.strictObject({
  id,
  title,
  notes,
  /** Length in whole bars, the pickup not counted. */
  bars: z.int().min(1).max(LIMITS.bars),
  pickup: ticks.min(0).max(LIMITS.pickup),
  /** Milliseconds before the start in which the opening may already be sent. */
  preRoll: within(RANGES.preRollMillis),
  tempo: z.array(tempoMarkSchema).min(1).max(1000000),
  metre: z.array(metreMarkSchema).min(1).max(100000),
  printed: z.array(z.strictObject({ bar: z.int().min(0), number: z.int() })).max(1000),
  sections: z.array(sectionSchema).max(LIMITS.sections),
  /** Calls ahead of bars, in their order, beside those of sections. */
  calls: z.array(barCallSchema).max(LIMITS.calls),
  /** Whether it opens with the tone that all songs open with, or with one of its own (null for none). */
  opening: z.enum(['show', 'own']),
  openingToneId: id.nullable(),
  /** Lines of text at places of the song, in their order. */
  remarks: z.array(remarkSchema).max(LIMITS.remarks),
  cues: z.array(cueSchema).max(LIMITS.cues),
  sweeps: z.array(sweepSchema).max(LIMITS.sweeps),
  taps: z.array(tempoTapsSchema).max(64),
  /** Ports that get MIDI clock, with start, stop and song position. */
  clocks: z.array(z.strictObject({ id, portId: id })).max(64),
  click: z.strictObject({
    on: z.boolean(),
    /** Bars of click before the place that is played from. */
    countIn: z.int().min(0).max(8),
    /** Clicks in a beat. */
    parts: z.int().min(1).max(4),
  }),
  /** What announces the song before it starts, ahead of the count-in. */
  announce: callSchema.nullable(),
  tracks: z.array(trackSchema).max(32),
  /** Other songs begin as a copy of this one. */
  pattern: z.boolean(),
  /** It has no clock: whoever plays steps through its changes. */
  stepped: z.boolean(),
  /** It has no end: behind its last bar click and count go on until it is stopped. */
  open: z.boolean(),
  /** The port whose MIDI clock it follows; null where it keeps its own time. */
  followsPortId: id.nullable(),
  /** The time code at its start, as it is written; null where time code does not lead it. */
  code: z
    .string()
    .regex(/^\d{2}:\d{2}:\d{2}[:;]\d{2}$/)
    .nullable(),
  levels: levelsSchema,
});

/** A message that starts a song of the set or queues it, from a port of the rig: its first bytes, as many as tell it apart. */
const launchSchema = z.strictObject({
  portId: id,
  /** Two digits a byte: a program change, a note that is struck, or a control with its value. */
  bytes: z.string().regex(/^[0-9A-F]{4}(?:[0-9A-F]{2})?$/),
  does: z.enum(['start', 'queue']),
});

/** What stands in a running order: a song, a break, or a note for whoever runs the show. */
export const setEntrySchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('song'),
    id,
    songId: id,
    /** At its end: it waits to be told, or the next song goes on by itself; at once, that is without its count-in. */
    follow: z.enum(['wait', 'on', 'at-once']),
    /** Seconds from its end until the next one, where that goes on by itself. */
    pause: within(RANGES.pauseSeconds),
    /** The tone that the rig goes to at its end, until the next song opens. */
    bridgeToneId: id.nullable(),
    launch: launchSchema.nullable(),
  }),
  z.strictObject({ kind: z.literal('break'), id, title, minutes: within(RANGES.breakMinutes) }),
  z.strictObject({ kind: z.literal('note'), id, text: title }),
  /** A recording between songs, or before the first: no silence all night. It goes away when the next song begins. */
  z.strictObject({
    kind: z.literal('sound'),
    id,
    audioId: id,
    gain: within(RANGES.gain),
    /** From its end to its start again; else it plays once. */
    loops: z.boolean(),
    /** By itself when what stands before it has ended, or when somebody presses for it. */
    begins: z.enum(['after', 'press']),
    /** Seconds in which it goes away under the count-in of the next song. */
    fade: within(RANGES.fadeSeconds),
  }),
]);

/**
 * Another unit in the place of one of the show, for a night: its own map, on a channel and a port of its own. What it
 * has under the name of ours stands for ours; where names differ, somebody said what does, or (null) that nothing does.
 */
const otherUnitSchema = z.strictObject({
  how: z.literal('other'),
  unitId: id,
  name: title,
  profile: profileSchema,
  slots: z.array(slotSchema).max(LIMITS.slots),
  channel,
  /** The port that it hangs on; null for where ours hangs. */
  portId: id.nullable(),
  matches: z.strictObject({
    /** By the id of our slot, the id of its slot. */
    slots: z.record(id, id.nullable()),
    /** By our variant, counted from 0, its variant. */
    variants: z.record(z.string().regex(/^\d{1,3}$/), z.int().min(0).nullable()),
    /** By the id of our control, the id of its control. */
    controls: z.record(id, id.nullable()),
  }),
});

/** A running order. */
export const setSchema = z.strictObject({
  id,
  title,
  /** Minutes after midnight at which the first entry begins; null where nobody said. */
  onStage: z.int().min(0).max(1439).nullable(),
  /** Seconds that are reckoned between songs that wait. */
  between: within(RANGES.betweenSeconds),
  /** Whether the change after a song's last goes on to the next song; else it never leaves the song. */
  runsOn: z.boolean(),
  entries: z.array(setEntrySchema).max(LIMITS.songs),
  /** Players who are not there: their parts are added to the backing. */
  missing: z.array(id).max(LIMITS.players),
  /** Units that are off for the night, or replaced by a spare with a channel, and perhaps firmware, of its own. */
  tonight: z
    .array(
      z.discriminatedUnion('how', [
        z.strictObject({ how: z.literal('off'), unitId: id }),
        z.strictObject({ how: z.literal('spare'), unitId: id, channel, firmware: z.string().max(24) }),
        otherUnitSchema,
      ]),
    )
    .max(LIMITS.units),
});

const data = z.int().min(0).max(127);

/** What has to arrive for a reaction: from a port (null: from any), of a kind, on a channel (null: on any), with a value in a range. */
const hearsSchema = z.strictObject({
  portId: id.nullable(),
  kind: z.enum(['note', 'control', 'program', 'pressure', 'bend']),
  channel: channel.nullable(),
  /** Note, control number or program; null for any. */
  number: data.nullable(),
  /** Velocity or value, of a bend its upper seven bits; a program has none. */
  low: data,
  high: data,
});

/** How a value that arrives becomes another: from the range that is heard to a range, along a straight or a bent line. */
const curveSchema = z.strictObject({
  from: z.number(),
  to: z.number(),
  bend: z.enum(['straight', 'slow', 'fast']),
});

/** "When this arrives, do that." They are gone through in their order. */
export const reactionSchema = z.strictObject({
  id,
  name: z.string().max(LIMITS.title),
  on: z.boolean(),
  /** The song that it is for; null for always, whatever plays. */
  songId: id.nullable(),
  hears: hearsSchema,
  /** What arrived goes no further: neither to what stands below, nor out again. */
  swallow: z.boolean(),
  does: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('session'), act: sessionActSchema }),
    z.strictObject({ kind: z.literal('song'), songId: id, how: z.enum(['start', 'queue', 'select']) }),
    z.strictObject({ kind: z.literal('tone'), toneId: id }),
    z.strictObject({ kind: z.literal('move'), moveId: id }),
    z.strictObject({ kind: z.literal('sample'), audioId: id, gain: within(RANGES.gain) }),
    /** Moves the level of a source, in decibels, from one end of what is heard to the other; at the least it is silent. */
    z.strictObject({ kind: z.literal('level'), of: id, from: within(RANGES.gain), to: within(RANGES.gain) }),
    z.strictObject({ kind: z.literal('turn'), of: id, how: turnSchema }),
    /** Lets the part of a player into the backing, as when they are missing. */
    z.strictObject({ kind: z.literal('part'), playerId: id, how: turnSchema }),
    /** Sets a control of a unit along a curve, in the control's own figure. */
    z.strictObject({ kind: z.literal('control'), unitId: id, controlId: id, curve: curveSchema }),
    /** The same message with another channel or number (null: the same), its value along a curve. */
    z.strictObject({
      kind: z.literal('message'),
      portId: id,
      channel: channel.nullable(),
      number: data.nullable(),
      curve: curveSchema,
    }),
    /** A switch of a unit goes on when the value has been at or above one figure for a time, off when it has been at or below another. */
    z.strictObject({
      kind: z.literal('switch'),
      unitId: id,
      controlId: id,
      above: data,
      below: data,
      millis: within(RANGES.holdMillis),
    }),
  ]),
});

export const showSchema = z.strictObject({
  format: z.literal(SHOW_FORMAT),
  version: z.literal(SHOW_VERSION),
  id,
  title,
  notes,
  players: z.array(playerSchema).max(LIMITS.players),
  ports: z.array(portSchema).max(LIMITS.ports),
  units: z.array(unitSchema).max(LIMITS.units),
  house: z.array(houseNumberSchema).max(LIMITS.house),
  tones: z.array(toneSchema).max(LIMITS.tones),
  /** Time code: the port that it comes from, ports that are sent it, and its frames a second where we send it or type it. */
  timeCode: z.strictObject({ portId: id.nullable(), sends: z.array(id).max(LIMITS.ports), rate: z.enum(CODE_RATES) }),
  /** Milliseconds after and before its place that a change may land and still be on time. */
  tolerance: z.strictObject({ after: within(RANGES.lateMillis), before: within(RANGES.earlyMillis) }),
  /** Milliseconds before their beat that changes land, where there is room. */
  margin: within(RANGES.marginMillis),
  /** Milliseconds that the settling of a unit is waited for beyond the worst that is known, where there is room. */
  guard: within(RANGES.guardMillis),
  /** The tone that songs open with that have none of their own: every unit in a known state, whatever came before. */
  openingToneId: id.nullable(),
  /** Tones that every song leans on, in the order of the number keys. */
  core: z.array(id).max(9),
  audio: z.array(audioSchema).max(5000),
  /** What colours mean in this show, where somebody said so. */
  colours: z
    .array(z.strictObject({ colour: z.enum(COLOURS), means: z.string().min(1).max(LIMITS.name) }))
    .max(COLOURS.length),
  stems: z.array(stemSchema).max(LIMITS.stems),
  ears: z.array(earSchema).max(LIMITS.ears),
  moves: z.array(moveSchema).max(LIMITS.moves),
  songs: z.array(songSchema).max(LIMITS.songs),
  /** Findings that somebody looked at and let be: which, what it said then, and why. */
  accepted: z
    .array(z.strictObject({ key: z.string().min(1).max(400), says: z.string().max(4000), reason: z.string().max(400) }))
    .max(5000),
  reactions: z.array(reactionSchema).max(LIMITS.reactions),
  /** What is programmed into foot controllers. */
  feet: z.array(feetSchema).max(LIMITS.controllers),
  /** Running orders, and which of them is played from. Songs that are in none stay in the show. */
  sets: z.array(setSchema).min(1).max(LIMITS.sets),
  setId: id,
});

export type Show = Deep<z.infer<typeof showSchema>>;
export type ShowSet = Show['sets'][number];
export type SetEntry = ShowSet['entries'][number];
export type SongEntry = Extract<SetEntry, { kind: 'song' }>;
export type SoundEntry = Extract<SetEntry, { kind: 'sound' }>;
export type Player = Show['players'][number];
export type Port = Show['ports'][number];
export type Unit = Show['units'][number];
export type Slot = Unit['slots'][number];
export type Remark = Deep<z.infer<typeof remarkSchema>>;
export type HouseNumber = Show['house'][number];
export type Relay = Unit['relays'][number];
export type Tone = Show['tones'][number];
export type TonePart = Tone['parts'][number];
export type Song = Show['songs'][number];
export type Cue = Song['cues'][number];
export type Move = Show['moves'][number];
export type Sweep = Song['sweeps'][number];
export type TempoTaps = Song['taps'][number];
export type Section = Song['sections'][number];
export type Call = NonNullable<Section['call']>;
export type Track = Song['tracks'][number];
export type Levels = Song['levels'];
export type Stem = Show['stems'][number];
export type EarMix = Show['ears'][number];
export type Reaction = Show['reactions'][number];
export type SessionAct = (typeof SESSION_ACTS)[number];
export type Tonight = ShowSet['tonight'][number];
export type Audio = Show['audio'][number];
export type Feet = Show['feet'][number];
export type FootPage = Feet['pages'][number];
export type FootSwitch = FootPage['switches'][number];
export type FootPedal = FootPage['pedals'][number];
export type Doing = Deep<z.infer<typeof doingSchema>>;
export type MenuField = Feet['menus'][number];
