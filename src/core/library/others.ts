import { newControl, newProfile, plainPlan, type Profile, timesFrom } from '../addressing';
import { percent, toggle, type LibraryEntry } from './entry';

const storedAmplifier: Profile = newProfile(
  'Valve amplifier with stored states',
  plainPlan(16, [
    { kind: 'text', text: 'state ' },
    { kind: 'number', start: 1, count: 16, width: 1 },
  ]),
  {
    controls: [toggle('loop', 'Effects loop', 60), toggle('boost', 'Solo boost', 61)],
    panel: ['channel', 'EQ', 'loop', 'reverb'],
    times: timesFrom({ recall: 60, variant: 0, control: 10, settle: 20 }),
    recallLoads: { variant: false, controls: true },
  },
);

const lights: Profile = newProfile(
  'Lights, a bank a song',
  {
    ...plainPlan(
      512,
      [
        { kind: 'text', text: 'bank ' },
        { kind: 'number', start: 1, count: 16, width: 1 },
        { kind: 'text', text: ' look ' },
        { kind: 'number', start: 1, count: 32, width: 2 },
      ],
      { send: 'lsb', when: 'always' },
    ),
    perBank: 32,
  },
  {
    firmware: '3.0',
    controls: [toggle('blackout', 'Blackout', 90), percent('master', 'Master', 91, 100)],
    times: timesFrom({ recall: 30, variant: 0, control: 2, settle: 5 }),
  },
);

const playback: Profile = newProfile(
  'Playback machine',
  plainPlan(
    99,
    [
      { kind: 'text', text: 'track ' },
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
        // MIDI machine control: stop is 1, play is 2.
        { kind: 'exclusive', template: 'F0 7F 7F 06 vv F7', low: 1, high: 2, checksum: null },
        { options: ['stop', 'play'] },
      ),
      newControl(
        'click',
        'Click level',
        {
          kind: 'exclusive',
          template: 'F0 7D 22 01 vv ss F7',
          low: 0,
          high: 100,
          checksum: { kind: 'sum', from: 2, to: 4 },
        },
        { rest: 80 },
      ),
      percent('backing', 'Backing level', 12, 100),
    ],
    times: timesFrom({ recall: 120, variant: 0, control: 4, settle: 30 }),
  },
);

const programsOnly: Profile = newProfile(
  'Unit with programs 1 to 128',
  plainPlan(128, [{ kind: 'number', start: 1, count: 128, width: 3 }]),
);

export const OTHERS: readonly LibraryEntry[] = [
  {
    id: 'stored-amplifier',
    about: 'Valve amplifier: sixteen stored states, called by program number',
    profile: storedAmplifier,
    versions: [],
  },
  { id: 'lights', about: 'Lights: sixteen banks of 32 looks', profile: lights, versions: [] },
  {
    id: 'playback',
    about: 'Playback machine: 99 tracks, transport by system exclusive',
    profile: playback,
    versions: [],
  },
  {
    id: 'programs-only',
    about: 'Anything that only knows programs, counted from 1',
    profile: programsOnly,
    versions: [],
  },
];
