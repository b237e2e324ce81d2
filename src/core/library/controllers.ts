import {
  linear,
  newProfile,
  plainPlan,
  type Controller,
  type DumpForm,
  type Profile,
  type Sender,
  timesFrom,
} from '../addressing';
import type { LibraryEntry } from './entry';

const sender = (id: string, name: string, channel: number, encoding: Sender['encoding']): Sender => ({
  id,
  name,
  channel,
  encoding,
});

/** Switches that each send a control number of their own, as long as nothing is programmed. */
const switches = (count: number, channel: number, first: number): Sender[] =>
  Array.from({ length: count }, (_, i) =>
    sender(`switch-${i + 1}`, `Switch ${i + 1}`, channel, {
      kind: 'momentary',
      number: first + i,
      press: 127,
      release: 0,
    }),
  );

const pedal = (nth: number, channel: number, number: number): Sender =>
  sender(`pedal-${nth}`, `Pedal ${nth}`, channel, linear(number, 0, 100, '%'));

/** Switches in rows of so many, the first at the feet on the left, as they are counted. */
const inRows = (count: number, columns: number): Controller['switches'] => {
  const rows = Math.ceil(count / columns);
  return Array.from({ length: count }, (_, i) => ({
    id: `switch-${i + 1}`,
    row: rows - 1 - Math.floor(i / columns),
    column: i % columns,
  }));
};

const pages = (word: string, count: number) =>
  plainPlan(
    count,
    [
      { kind: 'text', text: `${word} ` },
      { kind: 'number', start: 1, count, width: count > 9 ? 2 : 1 },
    ],
    { send: 'none', when: 'differs' },
  );

const tenSwitches: Profile = newProfile('Foot controller with ten switches', pages('page', 32), {
  firmware: '1.2',
  senders: [...switches(10, 16, 102), pedal(1, 16, 11), pedal(2, 16, 4)],
  times: timesFrom({ recall: 10, variant: 0, control: 0, settle: 0 }),
  controller: {
    switches: inRows(10, 5),
    pedals: ['pedal-1', 'pedal-2'],
    triggers: ['press', 'again', 'release', 'long', 'double'],
    holds: { program: 8, control: 24, note: 4, exclusive: 2, all: 32 },
    jumps: 'with-messages',
    stepsPages: false,
    display: { length: 12, letters: 'plain' },
    lights: true,
    call: { kind: 'control', channel: 16, first: 20 },
    takes: 'transfer',
    before: ['Hold switches 1 and 5 until the display shows LISTEN.'],
    after: ['Leave it alone until the display shows KEPT; then it is on its first page.'],
    memory: null,
    pitch: 62,
  },
});

/** Four small switches: a message a page, as it stands, with an exclusive or. */
const fourMemory: DumpForm = {
  head: 'f07d4634',
  ask: 'f07d46347ff7',
  perPage: true,
  packing: 'none',
  checksum: 'xor',
  pages: { at: 0, size: 64, count: 8 },
  name: null,
  switches: { at: 0, size: 16, count: 4 },
  switchName: null,
  actions: [
    { trigger: 'press', messages: { at: 0, size: 4, count: 2 } },
    { trigger: 'long', messages: { at: 8, size: 4, count: 2 } },
  ],
  message: {
    kind: { at: 0, none: 0, program: 1, control: 2, note: null },
    channel: { at: 1, first: 0 },
    number: { at: 2 },
    value: { at: 3 },
  },
  pedals: null,
};

/** With displays: all pages in one message of packed bytes, names and pedals among them. */
const displayMemory: DumpForm = {
  head: 'f07d4c44',
  ask: 'f07d4c447ff7',
  perPage: false,
  packing: 'eighth-low',
  checksum: 'missing',
  // Behind eight bytes of its own settings.
  pages: { at: 8, size: 672, count: 60 },
  name: { at: 0, length: 16, pad: 32 },
  switches: { at: 16, size: 40, count: 16 },
  switchName: { at: 0, length: 16, pad: 32 },
  actions: [
    { trigger: 'press', messages: { at: 16, size: 4, count: 4 } },
    { trigger: 'long', messages: { at: 32, size: 4, count: 2 } },
  ],
  message: {
    kind: { at: 0, none: 255, program: 192, control: 176, note: 144 },
    channel: { at: 1, first: 1 },
    number: { at: 2 },
    value: { at: 3 },
  },
  pedals: { row: { at: 656, size: 4, count: 4 }, channel: { at: 0, first: 1 }, number: 1, from: 2, to: 3, unused: 255 },
};

/** Pads: halves of bytes, what is pressed and let go, no names. */
const padMemory: DumpForm = {
  head: 'f07d5041',
  ask: '',
  perPage: false,
  packing: 'halves-high',
  checksum: 'sum',
  pages: { at: 0, size: 40, count: 8 },
  name: null,
  switches: { at: 0, size: 8, count: 5 },
  switchName: null,
  actions: [
    { trigger: 'press', messages: { at: 0, size: 4, count: 1 } },
    { trigger: 'release', messages: { at: 4, size: 4, count: 1 } },
  ],
  message: {
    kind: { at: 3, none: 0, program: 3, control: 2, note: 1 },
    channel: { at: 2, first: 0 },
    number: { at: 0 },
    value: { at: 1 },
  },
  pedals: null,
};

const fourSwitches: Profile = newProfile('Four small switches', pages('bank', 8), {
  firmware: '1.0',
  senders: switches(4, 14, 80),
  controller: {
    switches: inRows(4, 4),
    pedals: [],
    triggers: ['press', 'long'],
    holds: { program: 2, control: 2, note: 0, exclusive: 0, all: 2 },
    jumps: 'none',
    stepsPages: true,
    display: { length: 0, letters: 'none' },
    lights: true,
    call: { kind: 'control', channel: 14, first: 102 },
    takes: 'nothing',
    before: [],
    after: [],
    memory: fourMemory,
    pitch: 48,
  },
});

const withDisplays: Profile = newProfile('Large foot controller with a display at each switch', pages('page', 60), {
  firmware: '2.1',
  senders: [...switches(16, 12, 102), ...[1, 2, 3, 4].map((n) => pedal(n, 12, 10 + n))],
  times: timesFrom({ recall: 15, variant: 0, control: 0, settle: 0 }),
  controller: {
    switches: inRows(16, 8),
    pedals: ['pedal-1', 'pedal-2', 'pedal-3', 'pedal-4'],
    triggers: ['press', 'again', 'release', 'long', 'double'],
    holds: { program: 16, control: 48, note: 16, exclusive: 8, all: 64 },
    jumps: 'with-messages',
    stepsPages: true,
    display: { length: 16, letters: 'any' },
    lights: true,
    call: { kind: 'control', channel: 12, first: 14 },
    takes: 'transfer',
    before: ['Open its menu and choose "Receive".'],
    after: ['Close its menu.'],
    memory: displayMemory,
    pitch: 75,
  },
});

const pads: Profile = newProfile('Small pad controller', pages('set', 8), {
  senders: [
    ...Array.from({ length: 4 }, (_, i) =>
      sender(`pad-${i + 1}`, `Pad ${i + 1}`, 15, { kind: 'note', first: 48 + i, count: 1, velocity: 112 }),
    ),
    sender('button-1', 'Button 1', 15, { kind: 'program', first: 100, count: 1 }),
  ],
  controller: {
    switches: [
      { id: 'pad-1', row: 1, column: 0 },
      { id: 'pad-2', row: 1, column: 1 },
      { id: 'pad-3', row: 0, column: 0 },
      { id: 'pad-4', row: 0, column: 1 },
      { id: 'button-1', row: 1, column: 2 },
    ],
    pedals: [],
    triggers: ['press', 'release'],
    holds: { program: 1, control: 1, note: 1, exclusive: 0, all: 1 },
    jumps: 'none',
    stepsPages: false,
    display: { length: 0, letters: 'none' },
    lights: false,
    call: { kind: 'note', channel: 15, first: 60 },
    takes: 'transfer',
    before: ['Hold its button while it is plugged in.'],
    after: [],
    memory: padMemory,
    pitch: 38,
  },
});

const noteStrip: Profile = newProfile('Strip of eight switches that send notes', pages('strip', 1), {
  firmware: '1.0',
  senders: Array.from({ length: 8 }, (_, i) =>
    sender(`switch-${i + 1}`, `Switch ${i + 1}`, 13, { kind: 'note', first: 36 + i, count: 1, velocity: 127 }),
  ),
  controller: {
    switches: inRows(8, 8),
    pedals: [],
    triggers: ['press', 'release'],
    holds: { program: 0, control: 0, note: 1, exclusive: 0, all: 1 },
    jumps: 'none',
    stepsPages: false,
    display: { length: 0, letters: 'none' },
    lights: false,
    call: { kind: 'note', channel: 13, first: 36 },
    takes: 'nothing',
    before: [],
    after: [],
    memory: null,
    pitch: 55,
  },
});

export const CONTROLLERS: readonly LibraryEntry[] = [
  {
    id: 'foot-controller',
    about: 'Foot controller: ten switches, two pedals, 32 pages',
    profile: tenSwitches,
    versions: [],
  },
  { id: 'pad-controller', about: 'Pad controller: four pads, a button', profile: pads, versions: [] },
  {
    id: 'four-switches',
    about: 'Foot controller: four small switches, eight banks, programmed by hand',
    profile: fourSwitches,
    versions: [],
  },
  {
    id: 'display-controller',
    about: 'Foot controller: sixteen switches with displays, four pedals, 60 pages',
    profile: withDisplays,
    versions: [],
  },
  {
    id: 'note-strip',
    about: 'Strip of eight switches that send notes, nothing else',
    profile: noteStrip,
    versions: [],
  },
];
