import {
  linear,
  newControl,
  newProfile,
  onOff,
  type AddressPlan,
  type Profile,
  timesFrom,
  exactly,
} from '../addressing';
import {
  emptyShow,
  inOrder,
  newPort,
  newSlot,
  newSong,
  newTone,
  newUnit,
  toneCue,
  type Show,
  type Slot,
  type Unit,
} from '../show';

/** Letters A-T by 1-6 for the user, then A-J by 1-6 from the factory. */
export const letterPlan: AddressPlan = {
  groups: [
    {
      name: 'user',
      count: 120,
      readOnly: false,
      digits: [
        { kind: 'letter', from: 'A', count: 20 },
        { kind: 'number', start: 1, count: 6, width: 1 },
      ],
    },
    {
      name: 'factory',
      count: 60,
      readOnly: false,
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
export const modelerProfile: Profile = newProfile('Modeler', letterPlan, {
  firmware: '1.0',
  variants: {
    word: 'scene',
    names: ['1', '2', '3', '4', '5', '6', '7', '8'],
    encoding: { kind: 'index', number: 85, base: 0, step: 1, count: 8 },
  },
  controls: [
    newControl('delay', 'Delay', onOff(52), { rest: 0 }),
    newControl('mix', 'Delay mix', linear(53, 0, 100, '%'), { rest: 30 }),
  ],
  times: timesFrom({ recall: 180, variant: 12, control: 5, settle: 40 }, exactly),
  whileSettling: 'ignore',
  recallLoads: { variant: true, controls: true },
  silentInGap: true,
});

/** What every preset of a test unit stores of a switch that only turns over: nothing else would ever make it known. */
const starts = (profile: Profile): Partial<Slot> => ({
  startControls: profile.controls.filter((c) => c.encoding.kind === 'flip').map((c) => ({ controlId: c.id, value: 0 })),
});

/** Ninths of the plan's line, but for what a variant called by programs could be taken for. */
const NAMED = Array.from({ length: 20 }, (_, i) => i * 9).filter((index) => index < 120 || index > 127);

/** A unit with slots of both banks named after their index. */
export const testUnit = (id: string, channel: number, profile: Profile, rest: Partial<Unit> = {}): Unit => ({
  ...newUnit(id, id, id.slice(0, 2).toUpperCase(), profile, {
    channel,
    input: { from: 'port', portId: 'p1' },
    slots: NAMED.map((index) => newSlot(`${id}-s${index}`, index, `Preset ${index}`, starts(profile))),
  }),
  ...rest,
});

export const testShow = (units: readonly Unit[], cable: 'din' | 'usb' = 'din', ports = 1): Show => ({
  ...emptyShow('test', 'Test'),
  // Leads by hand: what a plan adds to them has tests of its own.
  margin: 0,
  guard: 0,
  ports: Array.from({ length: ports }, (_, i) => newPort(`p${i + 1}`, `Port ${i + 1}`, cable)),
  units,
});

/** A set of so many songs of so many tones each, of which four are in all of them, beside a unit. */
export function largeSet(unit: Unit, songs: number, tones: number): Show {
  const shared = Array.from({ length: 4 }, (_, i) => newTone(`core-${i}`, `Core ${i}`));
  const own = Array.from({ length: songs * (tones - 4) }, (_, i) => newTone(`t${i}`, `Tone ${i}`));
  const list = Array.from({ length: songs }, (_, s) => ({
    ...newSong(`song-${s}`, `Song ${s}`, { bars: 64 }),
    cues: [...shared, ...own.slice(s * (tones - 4), (s + 1) * (tones - 4))].map((t, i) =>
      toneCue(`c${i}`, i * 7680, t.id),
    ),
  }));
  return { ...testShow([unit]), tones: [...shared, ...own], songs: list, ...inOrder(list.map((s) => s.id)) };
}
