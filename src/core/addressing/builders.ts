import type { Encoding } from './encodings/registry';
import type { AddressPlan } from './plan';
import type { Control, Profile } from './profile';

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

/** One group of slots, programs only. */
export const plainPlan = (
  count: number,
  digits: AddressPlan['groups'][number]['digits'],
  bank: AddressPlan['bank'] = { send: 'none', when: 'differs' },
): AddressPlan => ({ groups: [{ name: 'all', count, digits }], perBank: 128, bank, table: null });

/** A profile with nothing in it but its plan: programs are recalled at once and bring nothing along. */
export const newProfile = (name: string, plan: AddressPlan, rest: Partial<Profile> = {}): Profile => ({
  name,
  firmware: '',
  plan,
  variants: null,
  controls: [],
  effects: [],
  engage: null,
  panel: [],
  senders: [],
  times: { recall: 0, variant: 0, control: 0, settle: 0 },
  whileSettling: 'queue',
  recallLoads: { variant: false, controls: false },
  silentInGap: false,
  ...rest,
});
