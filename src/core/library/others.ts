import { linear, newControl, newProfile, plainPlan, type Profile, type Sender } from '../addressing';
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
    times: { recall: 60, variant: 0, control: 10, settle: 20 },
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
    times: { recall: 30, variant: 0, control: 2, settle: 5 },
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
    times: { recall: 120, variant: 0, control: 4, settle: 30 },
  },
);

const programsOnly: Profile = newProfile(
  'Unit with programs 1 to 128',
  plainPlan(128, [{ kind: 'number', start: 1, count: 128, width: 3 }]),
);

const footSwitch = (i: number): Sender => ({
  id: `switch-${i + 1}`,
  name: `Switch ${i + 1}`,
  channel: 16,
  encoding: { kind: 'momentary', number: 102 + i, press: 127, release: 0 },
});

const pedal = (id: string, name: string, number: number): Sender => ({
  id,
  name,
  channel: 16,
  encoding: linear(number, 0, 100, '%'),
});

const footController: Profile = newProfile(
  'Foot controller with ten switches',
  plainPlan(
    32,
    [
      { kind: 'text', text: 'page ' },
      { kind: 'number', start: 1, count: 32, width: 2 },
    ],
    { send: 'none', when: 'differs' },
  ),
  {
    firmware: '1.2',
    senders: [
      ...Array.from({ length: 10 }, (_, i) => footSwitch(i)),
      pedal('pedal-1', 'Pedal 1', 11),
      pedal('pedal-2', 'Pedal 2', 4),
    ],
    times: { recall: 10, variant: 0, control: 0, settle: 0 },
  },
);

const padController: Profile = newProfile(
  'Small pad controller',
  plainPlan(8, [
    { kind: 'text', text: 'set ' },
    { kind: 'number', start: 1, count: 8, width: 1 },
  ]),
  {
    senders: [
      ...Array.from({ length: 4 }, (_, i): Sender => ({
        id: `pad-${i + 1}`,
        name: `Pad ${i + 1}`,
        channel: 15,
        encoding: { kind: 'note', first: 48 + i, count: 1, velocity: 112 },
      })),
      {
        id: 'button-1',
        name: 'Button 1',
        channel: 15,
        encoding: { kind: 'program', first: 100, count: 1 },
      },
    ],
  },
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
    id: 'foot-controller',
    about: 'Foot controller: ten switches, two pedals, 32 pages',
    profile: footController,
    versions: [],
  },
  { id: 'pad-controller', about: 'Pad controller: four pads, a button', profile: padController, versions: [] },
  {
    id: 'programs-only',
    about: 'Anything that only knows programs, counted from 1',
    profile: programsOnly,
    versions: [],
  },
];
