import { indexOfLabel, measured, typed, type Control, type Encoding, type Profile } from '../addressing';
import { libraryEntry, libraryProfile } from '../library';
import { newSlot, newUnit, type Slot, type Unit } from '../show';

/** The id of a slot of the demo: its unit and its label. */
export const slotId = (unitId: string, label: string): string =>
  `${unitId}-${label.toLowerCase().replaceAll(' ', '-')}`;

/** Slots from the labels that the unit writes, each with its name. */
function slots(
  unitId: string,
  profile: Profile,
  names: readonly (readonly [label: string, name: string, rest?: Partial<Slot>])[],
): Slot[] {
  return names.map(([label, name, rest]) => {
    const index = indexOfLabel(profile.plan, label);
    if (index === undefined) throw new Error(`${unitId} has no slot ${label}`);
    return newSlot(slotId(unitId, label), index, name, rest);
  });
}

/** The functions that have one number on every unit where it can be chosen. */
export const house = [
  { id: 'house-tuner', name: 'Tuner', number: 68 },
  { id: 'house-tap', name: 'Tap tempo', number: 93 },
] as const;

/** The same profile with some of its controls on shared control numbers. */
function onHouse(profile: Profile, ids: Readonly<Record<string, (typeof house)[number]['id']>>): Profile {
  const controls = profile.controls.map((control): Control => {
    const houseId = ids[control.id];
    const found = house.find((h) => h.id === houseId);
    if (!found) return control;
    return { ...control, houseId: found.id, encoding: { ...control.encoding, number: found.number } as Encoding };
  });
  return { ...profile, controls };
}

/** The day on which the trio's units were measured. */
const MEASURED = '2026-11-14';

/** Times of a profile of which some were measured or typed; the rest are the library's guesses. */
const known = (profile: Profile, times: Partial<Profile['times']>): Profile => ({
  ...profile,
  times: { ...profile.times, ...times },
});

const quillbackProfile: Profile = known(
  {
    ...onHouse(libraryProfile('letter-modeler'), { tuner: 'house-tuner', tap: 'house-tap' }),
    name: 'Quillback',
    variants: {
      word: 'scene',
      names: ['Dry', 'Body', 'Bite', 'Wide', 'Swell', 'Thin', 'Ring', 'Room'],
      encoding: { kind: 'index', number: 85, base: 0, step: 1, count: 8 },
    },
  },
  {
    recall: measured([178.5, 180, 181.2, 180, 179.4, 183.1], MEASURED),
    settle: typed(40, 44, MEASURED),
    variant: measured([12, 11.6, 12.9, 12, 12.3], MEASURED),
    control: measured([5, 4.8, 5.4, 5, 5.1], MEASURED),
  },
);
const oxbowProfile: Profile = { ...libraryProfile('stored-amplifier'), name: 'Oxbow Forty' };
const thistleEntry = libraryEntry('position-delay');
const thistleProfile: Profile = { ...thistleEntry.profile, name: 'Thistle Echo' };
const harrowProfile: Profile = { ...libraryProfile('harmoniser'), name: 'Harrow' };
const marramProfile: Profile = {
  ...onHouse(libraryProfile('bass-processor'), { tuner: 'house-tuner' }),
  name: 'Marram',
};
const tarnLibrary = libraryProfile('reverb');
const tarnProfile: Profile = known(
  { ...tarnLibrary, name: 'Tarn' },
  {
    recall: typed(tarnLibrary.times.recall.typical, tarnLibrary.times.recall.typical + 12, MEASURED),
    settle: typed(tarnLibrary.times.settle.typical, null, MEASURED),
    control: typed(tarnLibrary.times.control.typical, null, MEASURED),
  },
);
const wickProfile: Profile = { ...libraryProfile('lights'), name: 'Wick Four' };
const treadleProfile: Profile = { ...libraryProfile('foot-controller'), name: 'Treadle Ten' };
const pebbleProfile: Profile = { ...libraryProfile('pad-controller'), name: 'Pebble' };

const panel = (channel: string, eq: string, loop: string, reverb: string): Partial<Slot> => ({
  panel: [
    { name: 'channel', setting: channel },
    { name: 'EQ', setting: eq },
    { name: 'loop', setting: loop },
    { name: 'reverb', setting: reverb },
  ],
});

const oxbow: Unit = newUnit('oxbow', 'Oxbow Forty', 'OX', oxbowProfile, {
  playerId: 'ines',
  input: { from: 'unit', unitId: 'quillback', thru: false },
  channel: 3,
  spare: 'Clean channel by hand, drive from Quillback',
  slots: slots('oxbow', oxbowProfile, [
    ['state 1', 'Clean channel, loop off', panel('clean', 'flat', 'off', '3')],
    ['state 2', 'Clean channel, loop on', panel('clean', 'bright', 'on', '5')],
    ['state 3', 'Drive channel, loop off', panel('drive', 'dark', 'off', '2')],
    ['state 4', 'Drive channel, loop on, boost', panel('drive', 'middle', 'on', '4')],
  ]),
});

const relay = (id: string, label: string, variant: number | null, state: number): Unit['relays'][number] => ({
  id,
  when: { slotId: slotId('quillback', label), variant },
  toUnitId: 'oxbow',
  toSlotId: slotId('oxbow', `state ${state}`),
});

const quillback: Unit = newUnit('quillback', 'Quillback', 'QB', quillbackProfile, {
  playerId: 'ines',
  input: { from: 'port', portId: 'rack' },
  channel: 1,
  spare: 'Pebble’s small preamplifier and Oxbow by hand',
  slots: slots('quillback', quillbackProfile, [
    ['A1', 'Tuner Drop'],
    ['A2', 'Line Check'],
    ['A3', 'Harbour Clean'],
    ['A4', 'Harbour Tremolo'],
    ['A5', 'Plank Acoustic'],
    ['A6', 'Plank Slide'],
    ['B1', 'Ledger Rhythm'],
    ['B2', 'Ledger Echo'],
    ['B3', 'Winch Crunch'],
    ['B4', 'Rope Burn'],
    ['B5', 'Rope Burn Low'],
    ['B6', 'Tar Barrel'],
    ['C1', 'Undertow Baritone'],
    ['C2', 'Undertow Swell'],
    ['C3', 'Shingle'],
    ['D1', 'Glass Float'],
    ['D2', 'Bell Buoy'],
    ['E4', 'Gull Harmonics'],
    ['F1', 'Nine Fathoms'],
    ['G5', 'Salt Organ'],
    ['H5', 'Fog Bank'],
    ['H6', 'Fog Lead', { recall: measured([191, 193.6, 192.4], MEASURED) }],
    ['J2', 'Lantern Lead'],
    ['M1', 'Noise of Chains'],
    ['T6', 'Silence'],
    ['factory A1', 'Show Room Clean'],
    ['factory B6', 'Show Room Lead'],
  ]),
  relays: [
    relay('relay-1', 'A3', null, 1),
    relay('relay-2', 'B1', null, 3),
    relay('relay-3', 'B4', null, 3),
    relay('relay-4', 'C1', null, 2),
    relay('relay-5', 'H6', null, 4),
  ],
});

const harrow: Unit = newUnit('harrow', 'Harrow', 'HA', harrowProfile, {
  playerId: 'ines',
  input: { from: 'port', portId: 'board' },
  channel: 6,
  slots: slots('harrow', harrowProfile, [
    ['001', 'Straight Through'],
    ['007', 'Fifth Above'],
    ['012', 'Choir of Gulls'],
    ['040', 'Octave Keel'],
  ]),
});

const thistle: Unit = newUnit('thistle', 'Thistle Echo', 'TE', thistleProfile, {
  playerId: 'ines',
  input: { from: 'unit', unitId: 'harrow', thru: true },
  channel: 8,
  versions: thistleEntry.versions.map((v) => ({ ...v, name: 'Thistle Echo' })),
  slots: slots('thistle', thistleProfile, [
    ['01-1', 'Short Plank'],
    ['01-2', 'Dotted Oars'],
    ['01-3', 'Harbour Wall'],
    ['12-3', 'Long Bell'],
  ]),
});

const marram: Unit = newUnit('marram', 'Marram', 'MA', marramProfile, {
  playerId: 'okoro',
  input: { from: 'port', portId: 'rack' },
  channel: 5,
  slots: slots('marram', marramProfile, [
    ['01A', 'Six String Plain'],
    ['01B', 'Six String Felt'],
    ['02A', 'Keel'],
    ['02B', 'Keel Octave'],
    ['12C', 'Undertow Fuzz'],
  ]),
});

const tarn: Unit = newUnit('tarn', 'Tarn', 'TA', tarnProfile, {
  playerId: 'maude',
  input: { from: 'port', portId: 'harp' },
  channel: 7,
  slots: slots('tarn', tarnProfile, [
    ['000', 'Dry Boards', { startControls: [{ controlId: 'hold', value: 0 }] }],
    ['014', 'Boathouse', { startControls: [{ controlId: 'hold', value: 0 }] }],
    ['122', 'Sea Cave', { startControls: [{ controlId: 'hold', value: 0 }] }],
    ['300', 'Whole Bay', { startControls: [{ controlId: 'hold', value: 0 }] }],
  ]),
});

const wick: Unit = newUnit('wick', 'Wick Four', 'WF', wickProfile, {
  playerId: 'maude',
  input: { from: 'port', portId: 'lamps' },
  channel: 10,
  slots: slots('wick', wickProfile, [
    ['bank 1 look 01', 'Dim amber'],
    ['bank 1 look 02', 'Low water blue'],
    ['bank 1 look 05', 'Side lamps'],
    ['bank 2 look 01', 'Fog white'],
    ['bank 2 look 08', 'Single lamp'],
  ]),
});

const treadle: Unit = newUnit('treadle', 'Treadle Ten', 'TT', treadleProfile, {
  playerId: 'ines',
  input: { from: 'port', portId: 'feet' },
  channel: 16,
  returns: { portId: 'feet', thru: false },
  slots: slots('treadle', treadleProfile, [
    ['page 01', 'Core sounds'],
    ['page 02', 'Slack Tide'],
    ['page 03', 'Rope Ledger'],
    ['page 04', 'Fog Bell'],
    ['page 05', 'Gull Arithmetic'],
    ['page 06', 'Nine Fathoms'],
    ['page 07', 'Lamp Lighter'],
    ['page 08', 'Barnacle Hymn'],
    ['page 09', 'Last Boat'],
  ]),
});

const pebble: Unit = newUnit('pebble', 'Pebble', 'PE', pebbleProfile, {
  playerId: 'maude',
  channel: 15,
  returns: { portId: 'pads', thru: false },
  slots: slots('pebble', pebbleProfile, [['set 1', 'At hand']]),
});

/** The rig of the trio, in the order in which its lamps stand. */
export const demoUnits: readonly Unit[] = [quillback, oxbow, harrow, thistle, marram, tarn, wick, treadle, pebble];
