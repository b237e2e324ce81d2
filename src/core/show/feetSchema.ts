import { z } from 'zod';
import { TRIGGERS } from '../addressing';
import { LIMITS, RANGES } from './limits';
import { colourSchema, id, sessionActSchema, turnSchema, within } from './shapes';

const data = z.int().min(0).max(127);
const bytes = (most: number) =>
  z
    .string()
    .regex(/^([0-9a-f]{2})+$/)
    .max(most * 2);

/** Where a switch that turns pages goes. */
const pageToSchema = z.union([z.strictObject({ pageId: id }), z.enum(['next', 'previous'])]);

/** One thing that a switch does. Numbers of tones, moves and controls follow from the map. */
export const doingSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('tone'), toneId: id }),
  z.strictObject({ kind: z.literal('move'), moveId: id }),
  z.strictObject({ kind: z.literal('session'), act: sessionActSchema }),
  z.strictObject({ kind: z.literal('song'), songId: id, how: z.enum(['start', 'queue', 'select']) }),
  z.strictObject({ kind: z.literal('sample'), audioId: id, gain: within(RANGES.gain) }),
  z.strictObject({ kind: z.literal('turn'), of: id, how: turnSchema }),
  z.strictObject({ kind: z.literal('part'), playerId: id, how: turnSchema }),
  z.strictObject({ kind: z.literal('control'), unitId: id, controlId: id, value: z.number() }),
  /** Whole messages as they stand, for what the map has no name for. */
  z.strictObject({ kind: z.literal('message'), bytes: bytes(1000) }),
  z.strictObject({ kind: z.literal('page'), to: pageToSchema }),
]);

export const switchSchema = z.strictObject({
  /** The switch, as the controller's profile names it. */
  id,
  /** What stands on its display or strip; empty for the name of what it does. */
  name: z.string().max(LIMITS.name),
  doings: z.array(z.strictObject({ on: z.enum(TRIGGERS), does: doingSchema })).max(64),
  /** A proposal leaves it as it is. */
  pinned: z.boolean(),
  /** A colour that stands for something. */
  colour: colourSchema,
});

export const footPedalSchema = z.strictObject({
  /** The expression input, as the controller's profile names it. */
  id,
  does: z.discriminatedUnion('kind', [
    /** A control of a unit, from one figure of its own to another. */
    z.strictObject({ kind: z.literal('control'), unitId: id, controlId: id, from: z.number(), to: z.number() }),
    /** A control number as it stands. */
    z.strictObject({
      kind: z.literal('number'),
      channel: z.int().min(1).max(16),
      number: z.int().min(0).max(119),
      from: data,
      to: data,
    }),
  ]),
  bend: z.enum(['straight', 'slow', 'fast']),
});

const layerSchema = { switches: z.array(switchSchema).max(128), pedals: z.array(footPedalSchema).max(16) };

export const pageSchema = z.strictObject({
  /** The preset of the controller that is the page: its name and place are the preset's. */
  id,
  /** The song that it was made for, or null. */
  songId: id.nullable(),
  ...layerSchema,
});

/** In which order a controller that is programmed by hand asks for things. */
export const MENU_FIELDS = ['page', 'name', 'switch', 'trigger', 'kind', 'channel', 'number', 'value'] as const;

/** What is programmed into one controller. */
export const feetSchema = z.strictObject({
  /** The controller, a unit of the rig. */
  id,
  /** Each switch also sends a message that tells it apart from all others, for the computer to hear. */
  calls: z.boolean(),
  /** On every page, where a page has nothing else there. */
  everywhere: z.strictObject(layerSchema),
  pages: z.array(pageSchema).max(1024),
  /** Which plug goes where when the computer is gone: into a unit, from the controller or from another unit's thru. */
  boat: z.array(z.strictObject({ id, from: id })).max(LIMITS.units),
  menus: z.array(z.enum(MENU_FIELDS)).max(MENU_FIELDS.length),
  /** Exclusive files as they came, to be sent as they are. */
  dumps: z
    .array(z.strictObject({ id, name: z.string().min(1).max(LIMITS.title), bytes: bytes(LIMITS.dumpBytes) }))
    .max(32),
});
