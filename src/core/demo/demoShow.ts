import { emptyShow, newPlayer, newPort, type Reaction, type Show, songEntry, newSet } from '../show';
import { demoFeet } from './feet';
import { SHOW_OPENING, demoSongs } from './songs';
import { demoTones } from './tones';
import { demoUnits, house } from './units';

/** So many songs are played before the break. */
const FIRST_HALF = 4;

const entries = demoSongs.map((s, i) =>
  // The bell goes on into the arithmetic: the rig waits on still water in between.
  songEntry(`set-${i + 1}`, s.id, i === 2 ? { follow: 'on', pause: 4, bridgeToneId: SHOW_OPENING } : {}),
);

const treadle = demoUnits.find((u) => u.id === 'treadle')!;

/** What a switch of the foot controller does when it is pressed. */
function pressed(id: string, name: string, switchId: string, does: Reaction['does']): Reaction {
  const { encoding, channel } = treadle.profile.senders.find((s) => s.id === switchId)!;
  const number = 'number' in encoding ? encoding.number : 0;
  const hears = { portId: 'feet', kind: 'control', channel, number, low: 64, high: 127 } as const;
  return { id, name, on: true, songId: null, hears, swallow: true, does };
}

/** The mended demo show: everything in it lands. */
export function demoShow(): Show {
  return {
    ...emptyShow('winter-pier', 'Winter Pier Residency'),
    notes: 'Tidewater Almanac, instrumental, an evening at the end of the pier.',
    players: [
      newPlayer('ines', 'Ines', 'baritone guitar'),
      newPlayer('okoro', 'Okoro', 'six-string bass'),
      newPlayer('maude', 'Maude', 'electric harp and lights'),
    ],
    ports: [
      newPort('rack', 'Rack', 'din', { splitter: true, spare: 'The grey cable in the lid' }),
      newPort('board', 'Board', 'din'),
      newPort('harp', 'Harp side', 'din'),
      newPort('lamps', 'Lamps', 'usb', { spare: 'House lights by hand' }),
      newPort('feet', 'Feet', 'usb'),
      newPort('pads', 'Pads', 'usb'),
    ],
    units: demoUnits,
    house,
    tones: demoTones,
    openingToneId: SHOW_OPENING,
    core: ['harbour-clean', 'ledger-rhythm', 'ledger-echo', 'undertow', 'fog-lead', 'still-water'],
    moves: [
      { id: 'tuner-on', name: 'Tuner on', notes: '', steps: [{ unitId: 'quillback', controlId: 'tuner', value: 1 }] },
      {
        id: 'loop-record',
        name: 'Loop: record',
        notes: '',
        steps: [{ unitId: 'thistle', controlId: 'looper', value: 0 }],
      },
      { id: 'loop-stop', name: 'Loop: stop', notes: '', steps: [{ unitId: 'thistle', controlId: 'looper', value: 2 }] },
      { id: 'four-taps', name: 'Four taps', notes: '', steps: [{ unitId: 'thistle', controlId: 'tap', value: 4 }] },
    ],
    songs: demoSongs,
    reactions: [
      pressed('step', 'Next change', 'switch-10', { kind: 'session', act: 'next-change' }),
      pressed('step-back', 'Change before', 'switch-9', { kind: 'session', act: 'previous-change' }),
      pressed('fog', 'Fog Lead at once', 'switch-1', { kind: 'tone', toneId: 'fog-lead' }),
    ],
    feet: demoFeet,
    sets: [
      newSet('residency', 'Evening at the pier', {
        onStage: 20 * 60 + 30,
        entries: [
          ...entries.slice(0, FIRST_HALF),
          { kind: 'break', id: 'break', title: 'Tea on the pier', minutes: 20 },
          ...entries.slice(FIRST_HALF),
        ],
      }),
    ],
    setId: 'residency',
  };
}
