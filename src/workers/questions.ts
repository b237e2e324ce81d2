import { z } from 'zod';
import { CODE_RATES } from '../core/clock';
import { SHEET_COUNTINGS, SHEET_KINDS, SHEET_USES } from '../core/sheets';

const id = z.string().min(1);
const time = z.number().nonnegative();
const byte = z.int().min(0).max(255);
const aim = z.object({
  slot: z.int().nonnegative().optional(),
  variant: z.int().nonnegative().optional(),
  controls: z.record(z.string(), z.number()),
});
const ids = z.array(id);
const seed = z.int().nonnegative();
const by = z.union([z.literal(1), z.literal(-1)]);
const envelope = z.looseObject({
  frame: z.looseObject({ id }).nullable(),
  songs: z.array(z.looseObject({ id })),
  order: ids,
});
const sheets = z.object({ kind: z.enum(SHEET_KINDS), counting: z.enum(SHEET_COUNTINGS), use: z.enum(SHEET_USES) });
const paper = z.looseObject({ paper: z.enum(['a4', 'letter']) });
const played = z.looseObject({ songId: id, at: z.number(), until: z.number().nullable(), struck: z.boolean() });
const loop = z.object({ songId: id, from: time, to: time }).nullable();

/**
 * What a worker may be asked, by name, as the arguments have to be. A show's contents passed the show's own schema when it
 * was read; of an update only its outer shape is looked at again, because looking at all of it after every edit takes time.
 */
const QUESTIONS: Readonly<Record<string, z.ZodType<readonly unknown[]>>> = {
  update: z.tuple([envelope]),
  now: z.tuple([]),
  fingerprints: z.tuple([id]),
  prove: z.tuple([id, z.boolean()]),
  nights: z.tuple([id, seed, seed, z.int().positive()]),
  night: z.tuple([id, seed, seed]),
  room: z.tuple([id, id, id]),
  match: z.tuple([id, z.array(z.object({ index: z.int().nonnegative(), name: z.string() }))]),
  propose: z.tuple([id]),
  rehearseAll: z.tuple([id, ids]),
  rehearse: z.tuple([id, id]),
  sheets: z.tuple([sheets]),
  sheet: z.tuple([sheets, id]),
  wholeSheets: z.tuple([sheets]),
  sheetTable: z.tuple([sheets, ids]),
  unprintable: z.tuple([sheets]),
  letters: z.tuple([z.string().max(65536), ids]),
  pdf: z.tuple([sheets, ids, paper]),
  pack: z.tuple([paper, z.map(id, z.instanceof(Uint8Array)).nullable()]),
  file: z.tuple([z.looseObject({ kind: z.enum(['show', 'midi', 'part', 'unit', 'names', 'table']) })]),
  play: z.tuple([id, time, id.nullable(), z.object({ speed: z.number().positive(), loop }).nullable()]),
  select: z.tuple([id, time, id.nullable()]),
  stand: z.tuple([id, time]),
  goSong: z.tuple([by]),
  chooseSong: z.tuple([by]),
  goChange: z.tuple([by]),
  queue: z.tuple([id.nullable()]),
  back: z.tuple([]),
  audience: z.tuple([id.nullable(), z.array(played)]),
  remember: z.tuple([
    z.object({
      night: id.nullable(),
      history: z.array(played),
      songId: id.nullable(),
      entryId: id.nullable(),
      place: time,
      queued: id.nullable(),
    }),
  ]),
  tone: z.tuple([id]),
  panic: z.tuple([]),
  stop: z.tuple([]),
  bindPorts: z.tuple([z.array(z.object({ portId: id, standIn: z.boolean(), real: z.boolean() }))]),
  unsteady: z.tuple([z.boolean()]),
  port: z.tuple([id, z.boolean()]),
  arrived: z.tuple([z.array(z.object({ portId: id, at: z.number(), bytes: z.array(byte) }))]),
  send: z.tuple([id, z.array(byte).min(1)]),
  listenOnly: z.tuple([z.boolean()]),
  standInMachine: z.tuple([
    id,
    z.discriminatedUnion('kind', [
      z.object({
        kind: z.literal('play'),
        place: time,
        rate: z.enum(CODE_RATES),
        speed: z.number().min(-100).max(100),
        jitter: z.number().min(0).max(100_000),
      }),
      z.object({ kind: z.literal('stop') }),
      z.object({ kind: z.literal('drop-out'), length: z.number().min(0) }),
    ]),
  ]),
  beLed: z.tuple([z.boolean()]),
  pair: z.tuple([
    z
      .object({
        first: z.boolean(),
        leads: z.boolean(),
      })
      .nullable(),
  ]),
  turnsBox: z.tuple([z.object({ portId: id, bytes: z.array(byte) }).nullable()]),
  pairRoad: z.tuple([z.enum(['cut', 'gone', 'open'])]),
  pairAwake: z.tuple([z.boolean()]),
  pairHears: z.tuple([z.string().max(64 << 20)]),
  lead: z.tuple([]),
  standInClock: z.tuple([id, z.number().min(1).max(1000).nullable()]),
  speed: z.tuple([z.number().positive()]),
  countIn: z.tuple([z.boolean()]),
  loop: z.tuple([loop]),
  lanes: z.tuple([ids, ids]),
  audition: z.tuple([id, aim]),
  walk: z.tuple([z.object({ unitId: id, aims: z.array(aim), everyMillis: z.number().positive() })]),
  stopWalk: z.tuple([]),
  teach: z.tuple([z.object({ unitId: id, messages: z.array(z.array(byte)) })]),
  stopTeaching: z.tuple([]),
  touch: z.tuple([id, id, z.number()]),
  foot: z.tuple([
    id,
    z.discriminatedUnion('kind', [
      z.object({ kind: z.enum(['press', 'release']), senderId: id }),
      z.object({ kind: z.literal('pedal'), senderId: id, share: z.number().min(0).max(1) }),
      z.object({ kind: z.literal('step'), by }),
    ]),
  ]),
  playOut: z.tuple([id, z.array(z.array(byte))]),
  loadFoot: z.tuple([id, z.array(byte).nullable()]),
  footFaults: z.tuple([
    id,
    z.object({ how: z.enum(['lose', 'damage', 'double', 'delay']), every: z.int().min(1).max(10_000) }).nullable(),
  ]),
  transfer: z.tuple([
    id,
    z.discriminatedUnion('kind', [
      z.object({ kind: z.literal('write'), bytes: z.array(byte) }),
      z.object({ kind: z.literal('read') }),
    ]),
  ]),
  stopTransfer: z.tuple([]),
  record: z.tuple([z.object({ unitId: id, senderId: id }).nullable()]),
  recorded: z.tuple([]),
};

/** The same worker behind a door: what it is asked in another shape than it knows is refused by name, and not tried. */
export function guarded<W extends object>(worker: W): W {
  return new Proxy(worker, {
    get(target, name) {
      const own: unknown = Reflect.get(target, name);
      const shape = typeof name === 'string' ? QUESTIONS[name] : undefined;
      if (typeof own !== 'function' || !shape) return own;
      return (...args: unknown[]): unknown => {
        const read = shape.safeParse(args);
        if (!read.success) throw new TypeError(`${String(name)}: ${z.prettifyError(read.error)}`);
        return own.apply(target, args);
      };
    },
  });
}
