import { z } from 'zod';
import { profileSchema, type AddressPlan, type Control, type Profile } from '../addressing';

/** A generic kind of unit to start a map from. All are invented. */
export const libraryEntrySchema = z.strictObject({
  id: z.string().min(1).max(64),
  /** What kind of unit it is, in a few words. */
  about: z.string().max(200),
  profile: profileSchema,
});

export const librarySchema = z.array(libraryEntrySchema);

export interface LibraryEntry {
  readonly id: string;
  readonly about: string;
  readonly profile: Profile;
}

const onOff = (id: string, name: string, number: number): Control => ({
  id,
  name,
  encoding: { kind: 'set-switch', number, on: 127, off: 0, onFrom: 64 },
  rest: 0,
});

const percent = (id: string, name: string, number: number, rest: number): Control => ({
  id,
  name,
  encoding: { kind: 'continuous', number, from: 0, to: 127, low: 0, high: 100, unit: '%', curve: 'linear' },
  rest,
});

const decibels = (id: string, name: string, number: number, low: number, high: number): Control => ({
  id,
  name,
  encoding: { kind: 'continuous', number, from: 0, to: 127, low, high, unit: 'dB', curve: 'linear' },
  rest: 0,
});

const oneGroup = (count: number, digits: AddressPlan['groups'][number]['digits']): AddressPlan['groups'] => [
  { name: 'all', count, digits },
];

const numbered = (count: number): string[] => Array.from({ length: count }, (_, i) => String(i + 1));

const letterModeler: Profile = {
  name: 'Modeler with letter banks',
  firmware: '1.0',
  plan: {
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
  },
  variants: {
    word: 'scene',
    names: numbered(8),
    encoding: { kind: 'index', number: 85, base: 0, step: 1, count: 8 },
  },
  controls: [
    onOff('drive', 'Drive', 50),
    onOff('delay', 'Delay', 52),
    percent('delay-mix', 'Delay mix', 53, 30),
    onOff('tremolo', 'Tremolo', 54),
    decibels('level', 'Output level', 55, -30, 6),
  ],
  times: { recall: 180, variant: 12, control: 5, settle: 40 },
  whileSettling: 'ignore',
  recallLoads: { variant: true, controls: true },
  silentInGap: true,
};

const digitModeler: Profile = {
  ...letterModeler,
  name: 'Modeler with three digits',
  plan: {
    groups: oneGroup(384, [{ kind: 'number', start: 0, count: 384, width: 3 }]),
    perBank: 128,
    bank: { send: 'msb', when: 'always' },
    table: null,
  },
  times: { recall: 90, variant: 8, control: 4, settle: 30 },
};

const storedAmplifier: Profile = {
  name: 'Valve amplifier with stored states',
  firmware: '',
  plan: {
    groups: oneGroup(16, [
      { kind: 'text', text: 'state ' },
      { kind: 'number', start: 1, count: 16, width: 1 },
    ]),
    perBank: 128,
    bank: { send: 'none', when: 'differs' },
    table: null,
  },
  variants: null,
  controls: [onOff('loop', 'Effects loop', 60), onOff('boost', 'Solo boost', 61)],
  times: { recall: 60, variant: 0, control: 10, settle: 20 },
  whileSettling: 'queue',
  recallLoads: { variant: false, controls: true },
  silentInGap: false,
};

const bassProcessor: Profile = {
  name: 'Bass processor with snapshots',
  firmware: '2.1',
  plan: {
    groups: oneGroup(128, [
      { kind: 'number', start: 1, count: 32, width: 2 },
      { kind: 'letter', from: 'A', count: 4 },
    ]),
    perBank: 128,
    bank: { send: 'none', when: 'differs' },
    table: null,
  },
  variants: {
    word: 'snapshot',
    names: numbered(4),
    encoding: { kind: 'index', number: 34, base: 0, step: 1, count: 4 },
  },
  controls: [onOff('fuzz', 'Fuzz', 20), onOff('octave', 'Octave', 21), percent('blend', 'Blend', 22, 50)],
  times: { recall: 95, variant: 20, control: 6, settle: 30 },
  whileSettling: 'ignore',
  recallLoads: { variant: true, controls: true },
  silentInGap: true,
};

const reverb: Profile = {
  name: 'Reverb with three digits',
  firmware: '1.4',
  plan: {
    groups: oneGroup(384, [{ kind: 'number', start: 0, count: 384, width: 3 }]),
    perBank: 128,
    bank: { send: 'msb', when: 'always' },
    table: null,
  },
  variants: null,
  controls: [onOff('active', 'Reverb', 70), percent('mix', 'Mix', 71, 25)],
  times: { recall: 140, variant: 0, control: 6, settle: 25 },
  whileSettling: 'queue',
  recallLoads: { variant: false, controls: true },
  silentInGap: false,
};

const positionDelay: Profile = {
  name: 'Delay with bank and position',
  firmware: '1.0',
  plan: {
    groups: oneGroup(384, [
      { kind: 'number', start: 1, count: 48, width: 2 },
      { kind: 'text', text: '-' },
      { kind: 'number', start: 1, count: 8, width: 1 },
    ]),
    perBank: 128,
    bank: { send: 'msb', when: 'differs' },
    table: null,
  },
  variants: null,
  controls: [onOff('active', 'Delay', 24), percent('feedback', 'Feedback', 25, 20)],
  times: { recall: 70, variant: 0, control: 5, settle: 20 },
  whileSettling: 'queue',
  recallLoads: { variant: false, controls: true },
  silentInGap: false,
};

const lights: Profile = {
  name: 'Lights, a bank a song',
  firmware: '3.0',
  plan: {
    groups: oneGroup(512, [
      { kind: 'text', text: 'bank ' },
      { kind: 'number', start: 1, count: 16, width: 1 },
      { kind: 'text', text: ' look ' },
      { kind: 'number', start: 1, count: 32, width: 2 },
    ]),
    perBank: 32,
    bank: { send: 'lsb', when: 'always' },
    table: null,
  },
  variants: null,
  controls: [onOff('blackout', 'Blackout', 90), percent('master', 'Master', 91, 100)],
  times: { recall: 30, variant: 0, control: 2, settle: 5 },
  whileSettling: 'queue',
  recallLoads: { variant: false, controls: false },
  silentInGap: false,
};

const programsOnly: Profile = {
  name: 'Unit with programs 1 to 128',
  firmware: '',
  plan: {
    groups: oneGroup(128, [{ kind: 'number', start: 1, count: 128, width: 3 }]),
    perBank: 128,
    bank: { send: 'none', when: 'differs' },
    table: null,
  },
  variants: null,
  controls: [],
  times: { recall: 0, variant: 0, control: 0, settle: 0 },
  whileSettling: 'queue',
  recallLoads: { variant: false, controls: false },
  silentInGap: false,
};

export const LIBRARY: readonly LibraryEntry[] = [
  {
    id: 'letter-modeler',
    about: 'Amp modeler: user banks A-T and factory banks A-J of six, eight scenes',
    profile: letterModeler,
  },
  { id: 'digit-modeler', about: 'Amp modeler: presets 000-383, eight scenes', profile: digitModeler },
  {
    id: 'stored-amplifier',
    about: 'Valve amplifier: sixteen stored states, called by program number',
    profile: storedAmplifier,
  },
  { id: 'bass-processor', about: 'Bass processor: presets 01A-32D, four snapshots', profile: bassProcessor },
  { id: 'reverb', about: 'Reverb: presets 000-383', profile: reverb },
  { id: 'position-delay', about: 'Delay: banks 01-48 with eight positions', profile: positionDelay },
  { id: 'lights', about: 'Lights: sixteen banks of 32 looks', profile: lights },
  { id: 'programs-only', about: 'Anything that only knows programs, counted from 1', profile: programsOnly },
];

/** A library profile by id. Throws when the library has none. */
export function libraryProfile(id: string): Profile {
  const entry = LIBRARY.find((e) => e.id === id);
  if (!entry) throw new RangeError(`the library has no profile "${id}"`);
  return entry.profile;
}
