import { newControl, newProfile, plainPlan, type Profile, timesFrom, guess } from '../addressing';
import { options, percent, tap, toggle, type LibraryEntry } from './entry';

const reverb: Profile = newProfile(
  'Reverb with three digits',
  plainPlan(384, [{ kind: 'number', start: 0, count: 384, width: 3 }], { send: 'msb', when: 'always' }),
  {
    firmware: '1.4',
    controls: [
      toggle('active', 'Reverb', 70),
      percent('mix', 'Mix', 71, 25),
      newControl('hold', 'Hold', { kind: 'flip', number: 72, send: 127, only: null }, { rest: 0 }),
      toggle('input', 'Input', 73),
    ],
    effects: [{ id: 'reverb', name: 'Reverb', cut: 'active', ring: 'input' }],
    times: timesFrom({ recall: 140, variant: 0, control: 6, settle: 25 }),
    recallLoads: { variant: false, controls: true },
  },
);

const positionDelay: Profile = newProfile(
  'Delay with bank and position',
  plainPlan(
    384,
    [
      { kind: 'number', start: 1, count: 48, width: 2 },
      { kind: 'text', text: '-' },
      { kind: 'number', start: 1, count: 8, width: 1 },
    ],
    { send: 'msb', when: 'differs' },
  ),
  {
    firmware: '2.4',
    controls: [
      toggle('active', 'Engage', 24),
      percent('feedback', 'Feedback', 26, 20),
      toggle('input', 'Input', 27),
      newControl(
        'looper',
        'Looper',
        { kind: 'note', first: 60, count: 6, velocity: 100 },
        { options: ['record', 'play', 'stop', 'undo', 'reverse', 'half speed'] },
      ),
      tap('tap', 93),
    ],
    effects: [{ id: 'delay', name: 'Delay', cut: 'active', ring: 'input' }],
    engage: 'active',
    times: timesFrom({ recall: 70, variant: 0, control: 5, settle: 20 }),
    recallLoads: { variant: false, controls: true },
  },
);

const harmoniser: Profile = newProfile(
  'Harmoniser',
  plainPlan(100, [{ kind: 'number', start: 1, count: 100, width: 3 }]),
  {
    firmware: '1.1',
    variants: null,
    controls: [
      toggle('active', 'Harmony', 30),
      newControl(
        'interval',
        'Interval',
        { kind: 'zones', number: 31, count: 5 },
        { options: ['octave below', 'fourth below', 'third', 'fifth', 'octave'], rest: 2 },
      ),
      newControl(
        'key',
        'Key',
        { kind: 'table', number: 35, values: [0, 9, 18, 27, 36, 45, 54, 63, 72, 81, 90, 99] },
        { options: ['C', 'C sharp', 'D', 'E flat', 'E', 'F', 'F sharp', 'G', 'A flat', 'A', 'B flat', 'B'], rest: 0 },
      ),
      newControl(
        'detune',
        'Detune',
        {
          kind: 'fourteen-bit',
          number: 16,
          from: 0,
          to: 16383,
          low: -50,
          high: 50,
          unit: 'cent',
          curve: 'linear',
          points: [],
        },
        { rest: 0 },
      ),
    ],
    times: timesFrom({ recall: 420, variant: 0, control: 8, settle: 60 }),
    whileSettling: 'ignore',
    recallLoads: { variant: false, controls: true },
  },
);

const looper: Profile = newProfile(
  'Looper',
  plainPlan(
    99,
    [
      { kind: 'text', text: 'loop ' },
      { kind: 'number', start: 1, count: 99, width: 2 },
    ],
    { send: 'none', when: 'differs' },
  ),
  {
    firmware: '1.0',
    controls: [
      newControl(
        'transport',
        'Transport',
        { kind: 'note', first: 36, count: 4, velocity: 127 },
        { options: ['record', 'play', 'stop', 'clear'] },
      ),
      options('speed', 'Speed', 80, ['normal', 'half', 'double']),
      toggle('reverse', 'Reverse', 81),
      tap('tap', 82),
    ],
    times: timesFrom({ recall: 20, variant: 0, control: 3, settle: 5 }),
  },
);

export const EFFECTS: readonly LibraryEntry[] = [
  { id: 'reverb', about: 'Reverb: presets 000-383, hold that only turns over', profile: reverb, versions: [] },
  {
    id: 'position-delay',
    about: 'Delay: banks 01-48 with eight positions, recall then engage, looper by notes',
    profile: positionDelay,
    // From firmware 3 on a recall also engages.
    versions: [
      { ...positionDelay, firmware: '3.0', engage: null, times: { ...positionDelay.times, recall: guess(55) } },
    ],
  },
  {
    id: 'harmoniser',
    about: 'Harmoniser: presets 001-100, intervals by zones, slow to recall',
    profile: harmoniser,
    versions: [],
  },
  { id: 'looper', about: 'Looper: 99 loops, transport by notes', profile: looper, versions: [] },
];
