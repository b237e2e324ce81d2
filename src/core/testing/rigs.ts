import type { AddressPlan, Profile } from '../addressing';
import { emptyShow, newUnit, type Show, type Unit } from '../show';

/** Letters A-T by 1-6 for the user, then A-J by 1-6 from the factory. */
export const letterPlan: AddressPlan = {
  groups: [
    {
      name: 'user',
      count: 120,
      digits: [
        { kind: 'letter', from: 'A', count: 20 },
        { kind: 'number', start: 1, count: 6, width: 1 },
      ],
    },
    {
      name: 'factory',
      count: 60,
      digits: [
        { kind: 'text', text: 'factory ' },
        { kind: 'letter', from: 'A', count: 10 },
        { kind: 'number', start: 1, count: 6, width: 1 },
      ],
    },
  ],
  perBank: 128,
  bank: { send: 'msb', when: 'differs' },
  table: null,
};

/** The unit of the worked example: recall 180 ms, settle 40, variant 12, control 5. */
export const modelerProfile: Profile = {
  name: 'Modeler',
  firmware: '1.0',
  plan: letterPlan,
  variants: {
    word: 'scene',
    names: ['1', '2', '3', '4', '5', '6', '7', '8'],
    encoding: { kind: 'index', number: 85, base: 0, step: 1, count: 8 },
  },
  controls: [
    {
      id: 'delay',
      name: 'Delay',
      encoding: { kind: 'set-switch', number: 52, on: 127, off: 0, onFrom: 64 },
      rest: 0,
    },
    {
      id: 'mix',
      name: 'Delay mix',
      encoding: {
        kind: 'continuous',
        number: 53,
        from: 0,
        to: 127,
        low: 0,
        high: 100,
        unit: '%',
        curve: 'linear',
      },
      rest: 30,
    },
  ],
  times: { recall: 180, variant: 12, control: 5, settle: 40 },
  whileSettling: 'ignore',
  recallLoads: { variant: true, controls: true },
  silentInGap: true,
};

/** A unit with every slot of its plan named after its index. */
export const testUnit = (id: string, channel: number, profile: Profile, rest: Partial<Unit> = {}): Unit => ({
  ...newUnit(id, id, id.slice(0, 2).toUpperCase(), profile, {
    channel,
    input: { from: 'port', portId: 'p1' },
    slots: Array.from({ length: 12 }, (_, i) => ({
      id: `${id}-s${i * 9}`,
      index: i * 9,
      name: `Preset ${i * 9}`,
      startVariant: null,
    })),
  }),
  ...rest,
});

export const testShow = (units: readonly Unit[], cable: 'din' | 'usb' = 'din'): Show => ({
  ...emptyShow('test', 'Test'),
  ports: [{ id: 'p1', name: 'Port 1', cable, active: true }],
  units,
});
