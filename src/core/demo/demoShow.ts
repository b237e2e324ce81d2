import { indexOfLabel, type Profile } from '../addressing';
import { libraryProfile } from '../library';
import { emptyShow, newTone, newUnit, type Show, type Slot, type Tone, type TonePart, type Unit } from '../show';
import { demoSongs } from './songs';

/** Slots from the labels that the unit writes, each with its name. */
function slots(unitId: string, profile: Profile, names: readonly (readonly [label: string, name: string])[]): Slot[] {
  return names.map(([label, name]) => {
    const index = indexOfLabel(profile.plan, label);
    if (index === undefined) throw new Error(`${unitId} has no slot ${label}`);
    return { id: slotId(unitId, label), index, name, startVariant: null };
  });
}

const slotId = (unitId: string, label: string): string => `${unitId}-${label.toLowerCase().replaceAll(' ', '-')}`;

const quillbackProfile: Profile = {
  ...libraryProfile('letter-modeler'),
  name: 'Quillback',
  variants: {
    word: 'scene',
    names: ['Dry', 'Body', 'Bite', 'Wide', 'Swell', 'Thin', 'Ring', 'Room'],
    encoding: { kind: 'index', number: 85, base: 0, step: 1, count: 8 },
  },
};
const oxbowProfile: Profile = { ...libraryProfile('stored-amplifier'), name: 'Oxbow Forty' };
const marramProfile: Profile = { ...libraryProfile('bass-processor'), name: 'Marram' };
const tarnProfile: Profile = { ...libraryProfile('reverb'), name: 'Tarn' };
const wickProfile: Profile = { ...libraryProfile('lights'), name: 'Wick Four' };

const oxbow: Unit = newUnit('oxbow', 'Oxbow Forty', 'OX', oxbowProfile, {
  playerId: 'ines',
  input: { from: 'unit', unitId: 'quillback', thru: false },
  channel: 3,
  slots: slots('oxbow', oxbowProfile, [
    ['state 1', 'Clean channel, loop off'],
    ['state 2', 'Clean channel, loop on'],
    ['state 3', 'Drive channel, loop off'],
    ['state 4', 'Drive channel, loop on, boost'],
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
    ['H6', 'Fog Lead'],
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
    ['000', 'Dry Boards'],
    ['014', 'Boathouse'],
    ['122', 'Sea Cave'],
    ['300', 'Whole Bay'],
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

interface Part {
  readonly slot?: string;
  readonly variant?: number;
  readonly set?: Readonly<Record<string, number>>;
}

function tone(id: string, name: string, parts: Readonly<Record<string, Part>>, notes = ''): Tone {
  const list = Object.entries(parts).map(([unitId, part]): TonePart => ({
    unitId,
    slotId: part.slot === undefined ? null : slotId(unitId, part.slot),
    variant: part.variant ?? null,
    controls: Object.entries(part.set ?? {}).map(([controlId, value]) => ({ controlId, value })),
  }));
  return { ...newTone(id, name, list), notes };
}

const tones: readonly Tone[] = [
  tone(
    'still-water',
    'Still Water',
    {
      quillback: { slot: 'A3', variant: 0, set: { delay: 0 } },
      marram: { slot: '01A', variant: 0 },
      tarn: { slot: '014', set: { mix: 20 } },
      wick: { slot: 'bank 1 look 01' },
    },
    'Between songs and under talking.',
  ),
  tone('harbour-clean', 'Harbour Clean', {
    quillback: { slot: 'A3', variant: 1, set: { delay: 0 } },
    marram: { slot: '01A', variant: 1 },
    tarn: { slot: '014', set: { mix: 35 } },
    wick: { slot: 'bank 1 look 02' },
  }),
  tone('ledger-rhythm', 'Ledger Rhythm', {
    quillback: { slot: 'B1', variant: 1, set: { delay: 0 } },
    marram: { slot: '02A', variant: 0 },
    tarn: { slot: '000' },
    wick: { slot: 'bank 1 look 05' },
  }),
  tone('ledger-echo', 'Ledger Echo', {
    quillback: { slot: 'B1', variant: 3, set: { delay: 1, 'delay-mix': 45 } },
    marram: { variant: 2 },
  }),
  tone(
    'undertow',
    'Undertow',
    {
      quillback: { slot: 'C1', variant: 4 },
      marram: { slot: '12C', variant: 0, set: { fuzz: 1 } },
      tarn: { slot: '122' },
      wick: { slot: 'bank 1 look 02' },
    },
    'Baritone and bass an octave apart.',
  ),
  tone('rope-burn', 'Rope Burn', {
    quillback: { slot: 'B4', variant: 2, set: { drive: 1 } },
    marram: { slot: '02A', variant: 1, set: { fuzz: 0 } },
    tarn: { slot: '000' },
    wick: { slot: 'bank 1 look 05' },
  }),
  tone('rope-burn-echo', 'Rope Burn, Echo', {
    quillback: { slot: 'B4', variant: 3, set: { delay: 1, 'delay-mix': 30 } },
  }),
  tone(
    'fog-lead',
    'Fog Lead',
    {
      quillback: { slot: 'H6', variant: 2, set: { delay: 1 } },
      marram: { slot: '02B', variant: 0 },
      tarn: { slot: '300', set: { mix: 40 } },
      wick: { slot: 'bank 2 look 08' },
    },
    'The solo sound of the evening.',
  ),
  tone('fog-lead-wide', 'Fog Lead, Wide', {
    quillback: { slot: 'H6', variant: 3, set: { delay: 1, 'delay-mix': 60 } },
    wick: { slot: 'bank 2 look 01' },
  }),
];

/** The mended demo show: everything in it lands. */
export function demoShow(): Show {
  return {
    ...emptyShow('winter-pier', 'Winter Pier Residency'),
    notes: 'Tidewater Almanac, instrumental, an evening at the end of the pier.',
    players: [
      { id: 'ines', name: 'Ines', part: 'baritone guitar' },
      { id: 'okoro', name: 'Okoro', part: 'six-string bass' },
      { id: 'maude', name: 'Maude', part: 'electric harp and lights' },
    ],
    ports: [
      { id: 'rack', name: 'Rack', cable: 'din', active: true },
      { id: 'harp', name: 'Harp side', cable: 'din', active: true },
      { id: 'lamps', name: 'Lamps', cable: 'usb', active: true },
    ],
    units: [quillback, oxbow, marram, tarn, wick],
    tones,
    songs: demoSongs,
    set: demoSongs.map((s, i) => ({ id: `set-${i + 1}`, songId: s.id })),
  };
}
