import { exactly, timesFrom } from './times';
import { isContinuous, withRoomFor, type Encoding } from './encodings/registry';
import type { AddressPlan } from './plan';
import { VARIANT_LIMIT, type Control, type Controller, type Profile, type Sender, type Variants } from './profile';

/** A control with nothing said but its name and encoding. */
export const newControl = (id: string, name: string, encoding: Encoding, rest: Partial<Control> = {}): Control => ({
  id,
  name,
  encoding,
  rest: null,
  options: [],
  houseId: null,
  ...rest,
});

/** A figure on a straight line over all values of a control number. */
export const linear = (number: number, low: number, high: number, unit: string): Encoding => ({
  kind: 'continuous',
  number,
  from: 0,
  to: 127,
  low,
  high,
  unit,
  curve: 'linear',
  points: [],
});

/** A switch that is on from 64. */
export const onOff = (number: number): Encoding => ({ kind: 'set-switch', number, on: 127, off: 0, onFrom: 64 });

/**
 * A foot controller of what a unit sends: its switches in rows of five, the first at the feet on the left, its pedals. What one switch
 * holds is what most do; the rest is for whoever knows it.
 */
export function newController(senders: readonly Sender[]): Controller | null {
  const switches = senders.filter((s) => !isContinuous(s.encoding)).slice(0, 80);
  if (switches.length === 0) return null;
  const rows = Math.ceil(switches.length / 5);
  return {
    switches: switches.map(({ id }, i) => ({ id, row: rows - 1 - Math.floor(i / 5), column: i % 5 })),
    pedals: senders
      .filter((s) => isContinuous(s.encoding))
      .slice(0, 16)
      .map((s) => s.id),
    triggers: ['press', 'release'],
    holds: { program: 4, control: 8, note: 4, exclusive: 0, all: 16 },
    jumps: 'with-messages',
    stepsPages: false,
    display: { length: 0, letters: 'none' },
    lights: true,
    call: { kind: 'control', channel: switches[0]!.channel, first: 20 },
    takes: 'nothing',
    before: [],
    after: [],
    memory: null,
    pitch: 60,
  };
}

/** One group of slots, programs only. */
export const plainPlan = (
  count: number,
  digits: AddressPlan['groups'][number]['digits'],
  bank: AddressPlan['bank'] = { send: 'none', when: 'differs' },
): AddressPlan => ({ groups: [{ name: 'all', count, digits, readOnly: false }], perBank: 128, bank, table: null });

/** A profile with nothing in it but its plan: programs are recalled at once and bring nothing along. */
export const newProfile = (name: string, plan: AddressPlan, rest: Partial<Profile> = {}): Profile => ({
  name,
  firmware: '',
  identity: null,
  plan,
  variants: null,
  controls: [],
  effects: [],
  engage: null,
  panel: [],
  senders: [],
  controller: null,
  times: timesFrom({ recall: 0, variant: 0, control: 0, settle: 0 }, exactly),
  whileSettling: 'queue',
  recallLoads: { variant: false, controls: false },
  silentInGap: false,
  silence: { usual: true, bytes: '' },
  ...rest,
});

/**
 * An encoding of another kind with as much of the old one as the two share: the number, the
 * count of options, the scale. Values that a kind needs and nothing says are the usual ones.
 */
export function encodingOfKind(kind: Encoding['kind'], from: Encoding, pair = 16): Encoding {
  if (kind === from.kind) return from;
  const number = 'number' in from && from.number < 128 ? from.number : 'first' in from ? from.first : 20;
  const count = 'count' in from ? Math.max(2, from.count) : 'values' in from ? Math.max(2, from.values.length) : 4;
  const figure =
    'curve' in from
      ? { low: from.low, high: from.high, unit: from.unit, curve: from.curve, points: from.points }
      : ({ low: 0, high: 100, unit: '%', curve: 'linear', points: [] } as const);
  switch (kind) {
    case 'index':
      return { kind, number, base: 0, step: 1, count };
    case 'zones':
      return { kind, number, count };
    case 'table':
      return { kind, number, values: Array.from({ length: Math.min(count, 128) }, (_, i) => i) };
    case 'set-switch':
      return { kind, number, on: 127, off: 0, onFrom: 64 };
    case 'flip':
      return { kind, number, send: 127, only: null };
    case 'momentary':
      return { kind, number, press: 127, release: 0 };
    case 'tap':
      return { kind, number, values: [127] };
    case 'continuous':
      return { kind, number, from: 0, to: 127, ...figure };
    case 'fourteen-bit':
      return { kind, number: pair, from: 0, to: 16383, ...figure };
    case 'nrpn':
      return { kind, number, fine: true, from: 0, to: 16383, ...figure };
    case 'note':
    case 'program': {
      const options = Math.min(count, 128 - number);
      return kind === 'note'
        ? { kind, first: number, count: options, velocity: 100 }
        : { kind, first: number, count: options };
    }
    case 'note-table':
    case 'program-table': {
      const first = Math.min(number, 128 - Math.min(count, 128));
      const values =
        'values' in from && from.kind !== 'tap'
          ? [...from.values]
          : Array.from({ length: Math.min(count, 128) }, (_, i) => first + i);
      return kind === 'note-table' ? { kind, values, velocity: 100 } : { kind, values };
    }
    case 'exclusive':
      return { kind, template: 'F0 7D 00 vv F7', low: 0, high: 127, checksum: null };
  }
}

/** Variants with one more, named by its number; null where there are as many as there can be. */
export function withVariant(variants: Variants): Variants | null {
  const names = [...variants.names, String(variants.names.length + 1)];
  return names.length > VARIANT_LIMIT
    ? null
    : { ...variants, names, encoding: withRoomFor(variants.encoding, names.length) };
}
