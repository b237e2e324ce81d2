import { newControl, newProfile, plainPlan, type Profile, timesFrom } from '../addressing';
import { decibels, numbered, options, percent, tap, toggle, type LibraryEntry } from './entry';

const loaded = { variant: true, controls: true } as const;

const letterModeler: Profile = newProfile(
  'Modeler with letter banks',
  {
    groups: [
      {
        name: 'user',
        readOnly: false,
        count: 120,
        digits: [
          { kind: 'letter', from: 'A', count: 20 },
          { kind: 'number', start: 1, count: 6, width: 1 },
        ],
      },
      {
        name: 'factory',
        readOnly: true,
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
  },
  {
    firmware: '1.0',
    variants: {
      word: 'scene',
      names: numbered(8),
      encoding: { kind: 'index', number: 85, base: 0, step: 1, count: 8 },
    },
    controls: [
      toggle('drive', 'Drive', 50),
      options('drive-channel', 'Drive channel', 51, ['A', 'B', 'C', 'D']),
      toggle('delay', 'Delay', 52),
      percent('delay-mix', 'Delay mix', 53, 30),
      toggle('tremolo', 'Tremolo', 54),
      decibels('level', 'Output level', 55, -30, 6),
      toggle('delay-input', 'Delay input', 56),
      newControl(
        'wah',
        'Wah sweep',
        {
          kind: 'continuous',
          number: 57,
          from: 0,
          to: 127,
          low: 350,
          high: 2200,
          unit: 'Hz',
          curve: 'logarithmic',
          points: [],
        },
        { rest: 350 },
      ),
      toggle('tuner', 'Tuner', 58),
      tap('tap', 59),
    ],
    effects: [{ id: 'delay', name: 'Delay', cut: 'delay', ring: 'delay-input' }],
    times: timesFrom({ recall: 180, variant: 12, control: 5, settle: 40 }),
    whileSettling: 'ignore',
    recallLoads: loaded,
    silentInGap: true,
  },
);

const digitModeler: Profile = {
  ...letterModeler,
  name: 'Modeler with three digits',
  plan: plainPlan(384, [{ kind: 'number', start: 0, count: 384, width: 3 }], { send: 'msb', when: 'always' }),
  times: timesFrom({ recall: 90, variant: 8, control: 4, settle: 30 }),
};

const tableModeler: Profile = newProfile(
  'Modeler with a program table',
  {
    ...plainPlan(
      99,
      [
        { kind: 'text', text: 'P' },
        { kind: 'number', start: 1, count: 99, width: 2 },
      ],
      { send: 'none', when: 'differs' },
    ),
    table: Array.from({ length: 99 }, (_, i) => ({ bank: 0, program: i, index: i })),
  },
  {
    firmware: '2.0',
    // The programs past its table call scenes.
    variants: { word: 'scene', names: numbered(4), encoding: { kind: 'program', first: 120, count: 4 } },
    controls: [
      toggle('block-1', 'Block 1', 40),
      toggle('block-2', 'Block 2', 41),
      newControl('gain', 'Gain', {
        kind: 'nrpn',
        number: 1025,
        fine: true,
        from: 0,
        to: 16383,
        low: 0,
        high: 10,
        unit: '',
        curve: 'linear',
        points: [],
      }),
      newControl('solo', 'Solo while held', { kind: 'momentary', number: 42, press: 127, release: 0 }, { rest: 0 }),
      tap('tap', 64),
    ],
    times: timesFrom({ recall: 60, variant: 6, control: 3, settle: 20 }),
    whileSettling: 'queue',
    recallLoads: loaded,
  },
);

const bassProcessor: Profile = newProfile(
  'Bass processor with snapshots',
  plainPlan(128, [
    { kind: 'number', start: 1, count: 32, width: 2 },
    { kind: 'letter', from: 'A', count: 4 },
  ]),
  {
    firmware: '2.1',
    variants: {
      word: 'snapshot',
      names: numbered(4),
      encoding: { kind: 'index', number: 34, base: 0, step: 1, count: 4 },
    },
    controls: [
      toggle('fuzz', 'Fuzz', 20),
      toggle('octave', 'Octave', 21),
      percent('blend', 'Blend', 22, 50),
      newControl('cut', 'Low cut', {
        kind: 'continuous',
        number: 23,
        from: 0,
        to: 127,
        low: 20,
        high: 400,
        unit: 'Hz',
        curve: 'table',
        points: [20, 40, 80, 150, 400],
      }),
      toggle('tuner', 'Tuner', 25),
    ],
    times: timesFrom({ recall: 95, variant: 20, control: 6, settle: 30 }),
    whileSettling: 'ignore',
    recallLoads: loaded,
    silentInGap: true,
  },
);

export const MODELERS: readonly LibraryEntry[] = [
  {
    id: 'letter-modeler',
    about: 'Amp modeler: user banks A-T and factory banks A-J of six, eight scenes',
    profile: letterModeler,
    versions: [],
  },
  {
    id: 'digit-modeler',
    about: 'Amp modeler: presets 000-383, eight scenes',
    profile: digitModeler,
    versions: [],
  },
  {
    id: 'table-modeler',
    about: 'Amp modeler: a program table of its own, scenes called by programs',
    profile: tableModeler,
    versions: [],
  },
  {
    id: 'bass-processor',
    about: 'Bass processor: presets 01A-32D, four snapshots',
    profile: bassProcessor,
    versions: [],
  },
];
