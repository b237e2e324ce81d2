import { newCall, newSection, newSong, songTime, toneCue, type Cue, type Song, type Sweep } from '../show';
import { parsePosition, type Ticks } from '../time';

type Frame = Partial<Pick<Song, 'bars' | 'pickup' | 'tempo' | 'metre' | 'printed'>>;

type DemoSweep = Pick<Sweep, 'unitId' | 'controlId' | 'shape'> &
  Partial<Omit<Sweep, 'from' | 'to'>> & { readonly from: string; readonly to: string };

/** The tone that the show's songs open with, where they have none of their own. */
export const SHOW_OPENING = 'still-water';

/** A song from its sections (bar and name) and its cues (place and tone). */
function song(
  id: string,
  title: string,
  frame: Frame,
  openingToneId: string,
  sections: readonly (readonly [number, string])[],
  cues: readonly (readonly [place: string, toneId: string, rest?: Partial<Cue>])[],
  sweeps: readonly DemoSweep[] = [],
  remarks: readonly (readonly [place: string, text: string])[] = [],
): Song {
  const bare: Song = { ...newSong(id, title), ...frame };
  const { bars } = songTime(bare);
  const tickAt = (place: string): Ticks => {
    const at = parsePosition(bars, place, bare.bars);
    if (!at.ok) throw new Error(`${title}: ${place} is not a place in the song`);
    return at.ticks;
  };
  return {
    ...bare,
    ...(openingToneId === SHOW_OPENING ? { opening: 'show', openingToneId: null } : { opening: 'own', openingToneId }),
    click: { on: true, countIn: 0, parts: 1 },
    sections: sections.map(([bar, name], i) => ({
      ...newSection(`${id}-section-${i + 1}`, name, bar),
      // Solos are called in the ears: those are where everybody has to look up.
      call: name.toLowerCase().includes('solo') ? newCall() : null,
    })),
    remarks: remarks.map(([place, text], i) => ({
      id: `${id}-remark-${i + 1}`,
      at: tickAt(place),
      text,
      onStage: true,
    })),
    cues: cues.map(([place, toneId, rest], i) => toneCue(`${id}-cue-${i + 1}`, tickAt(place), toneId, rest)),
    sweeps: sweeps.map(({ from, to, ...rest }, i) => ({
      id: `${id}-sweep-${i + 1}`,
      from: tickAt(from),
      to: tickAt(to),
      muted: false,
      switchId: null,
      spacing: 10,
      after: 'rest',
      ...rest,
    })),
    taps: [{ id: `${id}-taps`, unitId: 'thistle', controlId: 'tap', count: 4 }],
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
    [
      {
        unitId: 'quillback',
        controlId: 'wah',
        from: '30',
        to: '33',
        shape: { kind: 'wave', form: 'sine', low: 350, high: 2200, period: 1920, steps: 8 },
      },
      {
        unitId: 'wick',
        controlId: 'master',
        from: '37',
        to: '41',
        shape: {
          kind: 'line',
          points: [
            { at: 0, value: 100 },
            { at: 3360, value: 35 },
            { at: 13440, value: 100 },
          ],
        },
      },
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
    [],
    [
      ['17', 'harp alone, no pulse'],
      ['33', 'count nine, breathe on seven'],
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
    'harbour-clean',
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
  song(
    'nine-fathoms',
    'Nine Fathoms',
    {
      bars: 36,
      tempo: [
        { at: 0, bpm: 72, beat: 1, rampTo: null },
        { at: 24 * 4 * 960, bpm: 72, beat: 1, rampTo: 60 },
        { at: 32 * 4 * 960, bpm: 60, beat: 1, rampTo: null },
      ],
    },
    'still-water',
    [
      [1, 'Sounding'],
      [13, 'Gulls'],
      [25, 'Under'],
    ],
    [
      ['5', 'undertow'],
      ['13', 'choir'],
      ['21', 'held-breath'],
      ['25', 'fog-lead'],
      ['33', 'still-water'],
    ],
  ),
  song(
    'lamp-round',
    'The Lamp Lighter’s Round',
    {
      bars: 48,
      tempo: [{ at: 0, bpm: 84, beat: 1.5, rampTo: null }],
      metre: [{ bar: 1, beats: 9, unit: 8 }],
    },
    'harbour-clean',
    [
      [1, 'First lamp'],
      [17, 'Second lamp'],
      [33, 'All lamps'],
    ],
    [
      ['9', 'ledger-rhythm'],
      ['17', 'choir'],
      ['25', 'harbour-clean'],
      ['33', 'fog-lead-wide'],
      ['41', 'harbour-clean'],
    ],
  ),
  song(
    'barnacle-hymn',
    'Barnacle Hymn',
    {
      bars: 32,
      pickup: 960,
      tempo: [{ at: 0, bpm: 66, beat: 1, rampTo: null }],
      metre: [{ bar: 1, beats: 3, unit: 4 }],
    },
    'still-water',
    [
      [1, 'Verse'],
      [17, 'Turned verse'],
    ],
    [
      ['9', 'harbour-clean'],
      ['17', 'rope-burn'],
      ['25', 'rope-burn-echo'],
      ['29', 'still-water'],
    ],
  ),
  song(
    'last-boat',
    'Last Boat at Ten',
    {
      bars: 56,
      tempo: [{ at: 0, bpm: 152, beat: 1, rampTo: null }],
      metre: [
        { bar: 1, beats: 5, unit: 4 },
        { bar: 41, beats: 4, unit: 4 },
      ],
    },
    'harbour-clean',
    [
      [1, 'Gangway'],
      [17, 'Engine'],
      [41, 'Open water'],
    ],
    [
      ['9', 'ledger-echo'],
      ['17', 'rope-burn'],
      ['33', 'undertow'],
      ['41', 'fog-lead'],
      ['49', 'ledger-rhythm'],
    ],
  ),
];
