import { newFeet, newFootPage, newFootSwitch, type Doing, type Feet, type FootSwitch } from '../show';
import { slotId } from './units';

const tone = (switchId: string, toneId: string): FootSwitch => newFootSwitch(switchId, [{ kind: 'tone', toneId }]);
const does = (switchId: string, first: Doing, rest: Partial<FootSwitch> = {}): FootSwitch =>
  newFootSwitch(switchId, [first], rest);
const page = (label: string): string => slotId('treadle', label);

/** Pressed it steps through the song, held it turns the page. */
const turning = (switchId: string, act: 'next-change' | 'previous-change', to: 'next' | 'previous'): FootSwitch => ({
  ...newFootSwitch(switchId, []),
  doings: [
    { on: 'press', does: { kind: 'session', act } },
    { on: 'long', does: { kind: 'page', to } },
  ],
});

/** The tones that all songs lean on, in the same place on every page. */
const CORE: readonly FootSwitch[] = [
  tone('switch-1', 'fog-lead'),
  tone('switch-2', 'ledger-rhythm'),
  tone('switch-3', 'undertow'),
  tone('switch-4', 'rope-burn'),
  tone('switch-6', 'harbour-clean'),
  tone('switch-7', 'still-water'),
];

/** Each song's own tones, on the switches that are left. */
const SONGS: readonly (readonly [label: string, songId: string, eight: string, five?: string])[] = [
  ['page 02', 'slack-tide', 'ledger-echo', 'fog-lead-wide'],
  ['page 03', 'rope-ledger', 'rope-burn-echo'],
  ['page 04', 'fog-bell', 'fog-lead-wide', 'rope-burn-echo'],
  ['page 05', 'gull-arithmetic', 'ledger-echo'],
  ['page 06', 'nine-fathoms', 'choir', 'held-breath'],
  ['page 07', 'lamp-round', 'choir', 'fog-lead-wide'],
  ['page 08', 'barnacle-hymn', 'rope-burn-echo'],
  ['page 09', 'last-boat', 'ledger-echo'],
];

const treadle: Feet = newFeet('treadle', {
  everywhere: {
    switches: [turning('switch-9', 'previous-change', 'previous'), turning('switch-10', 'next-change', 'next')],
    pedals: [
      {
        id: 'pedal-1',
        does: { kind: 'control', unitId: 'thistle', controlId: 'feedback', from: 0, to: 60 },
        bend: 'straight',
      },
    ],
  },
  pages: [
    newFootPage(page('page 01'), {
      switches: [...CORE, does('switch-8', { kind: 'page', to: { pageId: page('page 02') } }, { name: 'Songs' })],
    }),
    ...SONGS.map(([label, songId, eight, five]) =>
      newFootPage(page(label), {
        songId,
        switches: [...CORE, tone('switch-8', eight), ...(five === undefined ? [] : [tone('switch-5', five)])],
      }),
    ),
  ],
  // One 5-pin cable after the other, from the controller to the amplifier's modeler, which tells the amplifier.
  boat: [
    { id: 'harrow', from: 'treadle' },
    { id: 'tarn', from: 'thistle' },
    { id: 'marram', from: 'tarn' },
    { id: 'wick', from: 'marram' },
    { id: 'quillback', from: 'wick' },
  ],
});

/** What has to be at hand whatever the song, away from the feet: nobody hits it by accident. */
const pebble: Feet = newFeet('pebble', {
  pages: [
    newFootPage(slotId('pebble', 'set 1'), {
      switches: [
        does('pad-1', { kind: 'move', moveId: 'tuner-on' }),
        does('pad-2', { kind: 'tone', toneId: 'still-water' }),
        does('pad-4', { kind: 'move', moveId: 'loop-stop' }),
        does('button-1', { kind: 'session', act: 'panic' }),
      ],
    }),
  ],
});

export const demoFeet: readonly Feet[] = [treadle, pebble];
