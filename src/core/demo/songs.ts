import { newSong, songTime, toneCue, type Cue, type Section, type Song } from '../show';
import { parsePosition } from '../time';

type Frame = Partial<Pick<Song, 'bars' | 'pickup' | 'tempo' | 'metre' | 'printed'>>;

/** A song from its sections (bar and name) and its cues (place and tone). */
function song(
  id: string,
  title: string,
  frame: Frame,
  openingToneId: string,
  sections: readonly (readonly [number, string])[],
  cues: readonly (readonly [place: string, toneId: string, rest?: Partial<Cue>])[],
): Song {
  const bare: Song = { ...newSong(id, title), ...frame };
  const { bars } = songTime(bare);
  return {
    ...bare,
    openingToneId,
    sections: sections.map(([bar, name], i): Section => ({ id: `${id}-section-${i + 1}`, name, bar })),
    cues: cues.map(([place, toneId, rest], i) => {
      const at = parsePosition(bars, place, bare.bars);
      if (!at.ok) throw new Error(`${title}: ${place} is not a place in the song`);
      return toneCue(`${id}-cue-${i + 1}`, at.ticks, toneId, rest);
    }),
  };
}

export const demoSongs: readonly Song[] = [
  song(
    'slack-tide',
    'Slack Tide in Seven',
    {
      bars: 44,
      tempo: [{ at: 0, bpm: 126, beat: 1, rampTo: null }],
      metre: [
        { bar: 1, beats: 7, unit: 8 },
        { bar: 29, beats: 4, unit: 4 },
        { bar: 37, beats: 7, unit: 8 },
      ],
    },
    'still-water',
    [
      [1, 'Walk on'],
      [9, 'Slack water'],
      [21, 'Turn'],
      [29, 'Lamp solo'],
      [37, 'Home'],
    ],
    [
      ['5', 'harbour-clean'],
      ['9', 'ledger-rhythm'],
      ['13|4', 'ledger-echo'],
      ['21', 'undertow'],
      ['25', 'ledger-rhythm'],
      ['29', 'fog-lead'],
      ['33|3', 'fog-lead-wide'],
      ['37', 'harbour-clean'],
      ['43', 'still-water'],
    ],
  ),
  song(
    'rope-ledger',
    'The Rope Ledger',
    {
      bars: 36,
      pickup: 960,
      tempo: [
        { at: 0, bpm: 96, beat: 1, rampTo: null },
        { at: 960 + 8 * 4800, bpm: 96, beat: 1, rampTo: 144 },
        { at: 960 + 8 * 4800 + 12 * 960, bpm: 144, beat: 1, rampTo: null },
        { at: 960 + 28 * 4800, bpm: 96, beat: 1, rampTo: null },
      ],
      metre: [{ bar: 1, beats: 5, unit: 4 }],
      printed: [{ bar: 29, number: 1 }],
    },
    'harbour-clean',
    [
      [0, 'Pickup'],
      [1, 'Ledger'],
      [9, 'Haul'],
      [17, 'Knots'],
      [29, 'Coda'],
    ],
    [
      ['5', 'ledger-rhythm'],
      ['9', 'rope-burn'],
      ['13|3', 'rope-burn-echo'],
      ['17', 'ledger-rhythm'],
      ['21', 'undertow'],
      ['25', 'fog-lead'],
      ['1(2)', 'still-water'],
    ],
  ),
  song(
    'fog-bell',
    'Fog Bell',
    {
      bars: 48,
      tempo: [{ at: 0, bpm: 84, beat: 1.5, rampTo: null }],
      metre: [
        { bar: 1, beats: 6, unit: 8 },
        { bar: 33, beats: 9, unit: 8 },
        { bar: 41, beats: 6, unit: 8 },
      ],
    },
    'still-water',
    [
      [1, 'Bell'],
      [17, 'Fog'],
      [33, 'Nine men out'],
      [41, 'Bell again'],
    ],
    [
      ['9', 'harbour-clean'],
      ['17', 'undertow'],
      ['25', 'fog-lead'],
      ['29|4', 'fog-lead-wide'],
      ['33', 'rope-burn'],
      ['37', 'rope-burn-echo'],
      ['41', 'still-water'],
    ],
  ),
  song(
    'gull-arithmetic',
    'Gull Arithmetic',
    {
      bars: 32,
      tempo: [{ at: 0, bpm: 132, beat: 1, rampTo: null }],
      metre: [
        { bar: 1, beats: 11, unit: 8 },
        { bar: 17, beats: 4, unit: 4 },
      ],
    },
    'ledger-rhythm',
    [
      [1, 'Sums'],
      [9, 'Carry the one'],
      [17, 'Remainder'],
      [25, 'Sums again'],
    ],
    [
      ['5|7', 'ledger-echo'],
      ['9', 'rope-burn'],
      ['17', 'harbour-clean'],
      ['21', 'fog-lead'],
      ['25', 'ledger-rhythm'],
      ['32', 'still-water'],
    ],
  ),
];
