import { libraryProfile } from '../src/core/library';
import {
  LIMITS,
  emptyShow,
  inOrder,
  newPort,
  newSection,
  newSong,
  newSweep,
  newTone,
  newUnit,
  sweepable,
  toneCue,
  type Show,
  type Song,
  type Unit,
} from '../src/core/show';
import { writeSmf, type SmfEvent } from '../src/core/formats/smf';

const BEAT = 960;

/** Two units on two ports, and four tones of them. */
function small(): Show {
  const units = [0, 1].map((i): Unit =>
    newUnit(`u${i}`, `Unit ${i}`, `U${i}`, libraryProfile('letter-modeler'), {
      channel: i + 1,
      input: { from: 'port', portId: `p${i}` },
      slots: [0, 1, 2, 3].map((k) => ({
        id: `u${i}-${k}`,
        index: k,
        name: `Preset ${k}`,
        startVariant: null,
        startControls: [],
        recall: null,
        panel: [],
      })),
    }),
  );
  const tones = [0, 1, 2, 3].map((k) =>
    newTone(
      `t${k}`,
      `Tone ${k}`,
      units.map((u) => ({ unitId: u.id, slotId: `${u.id}-${k}`, variant: k, controls: [], effects: [] })),
    ),
  );
  return {
    ...emptyShow('limit', 'Limit'),
    ports: [0, 1].map((i) => newPort(`p${i}`, `Port ${i}`, 'din')),
    units,
    tones,
  };
}

const withSong = (show: Show, song: Partial<Song>, bars: number): Show => {
  const made: Song = { ...newSong('s', 'Song', { bars }), ...song };
  return { ...show, songs: [made], ...inOrder([made.id]) };
};

const cuesOf = (count: number, apart: number) =>
  Array.from({ length: count }, (_, i) => toneCue(`c${i}`, i * apart, `t${i % 4}`));

/** A show at each limit, or the bytes of a file. */
export const LIMIT_CASES: Readonly<Record<string, () => Show | Uint8Array>> = {
  [`${LIMITS.cues} cues of a song`]: () => withSong(small(), { cues: cuesOf(LIMITS.cues, BEAT) }, LIMITS.cues / 4 + 1),
  'as many on one tick': () => withSong(small(), { cues: cuesOf(LIMITS.cues, 0) }, 8),
  [`${LIMITS.sweeps} sweeps of a song`]: () => {
    const show = small();
    const all = sweepable(show);
    const sweeps = Array.from({ length: LIMITS.sweeps }, (_, i) => {
      const { unit, control } = all[i % all.length]!;
      return newSweep(`w${i}`, unit, control, i * 4 * BEAT, (i * 4 + 2) * BEAT);
    });
    return withSong(show, { sweeps }, LIMITS.sweeps + 1);
  },
  [`${LIMITS.bars} bars`]: () => withSong(small(), { cues: cuesOf(200, 4 * BEAT) }, LIMITS.bars),
  [`a clock of ${LIMITS.clockPulses} pulses`]: () =>
    withSong(small(), { clocks: [{ id: 'k', portId: 'p0' }], cues: cuesOf(200, 4 * BEAT) }, LIMITS.clockPulses / 96),
  'a clock at the highest tempo': () =>
    withSong(
      small(),
      {
        clocks: [{ id: 'k', portId: 'p0' }],
        tempo: [{ at: 0, bpm: 400, beat: 1, rampTo: null }],
        cues: cuesOf(200, BEAT),
      },
      LIMITS.clockPulses / 96,
    ),
  [`${LIMITS.sections} sections`]: () =>
    withSong(
      small(),
      { sections: Array.from({ length: LIMITS.sections }, (_, i) => newSection(`x${i}`, `Section ${i}`, i + 1)) },
      LIMITS.sections + 1,
    ),
  'relay rules that branch four by four': () => {
    const show = small();
    const profile = show.units[0]!.profile;
    const units = Array.from({ length: 21 }, (_, i) =>
      newUnit(`r${i}`, `Unit ${i}`, `R${i}`, profile, {
        channel: (i % 16) + 1,
        input:
          i === 0
            ? { from: 'port', portId: 'p0' }
            : { from: 'unit', unitId: `r${Math.floor((i - 1) / 4)}`, thru: false },
        slots: [0, 1].map((k) => ({
          id: `r${i}-${k}`,
          index: k,
          name: `P${k}`,
          startVariant: null,
          startControls: [],
          recall: null,
          panel: [],
        })),
        relays: [1, 2, 3, 4].flatMap((k) => {
          const to = i * 4 + k;
          return to < 21
            ? [0, 1].map((s) => ({
                id: `${i}/${k}/${s}`,
                when: { slotId: `r${i}-${s}`, variant: null },
                toUnitId: `r${to}`,
                toSlotId: `r${to}-${s}`,
              }))
            : [];
        }),
      }),
    );
    const tones = [0, 1].map((k) =>
      newTone(`t${k}`, `Tone ${k}`, [{ unitId: 'r0', slotId: `r0-${k}`, variant: null, controls: [], effects: [] }]),
    );
    const cues = Array.from({ length: 200 }, (_, i) => toneCue(`c${i}`, i * 8 * BEAT, `t${i % 2}`));
    return withSong({ ...show, units, tones }, { cues }, 402);
  },
  [`${LIMITS.tones} tones`]: () => {
    const show = small();
    const tones = Array.from({ length: LIMITS.tones }, (_, i) => ({
      ...show.tones[i % 4]!,
      id: `t${i}`,
      name: `Tone ${i}`,
    }));
    return withSong({ ...show, tones }, { cues: cuesOf(100, 4 * BEAT) }, 101);
  },
  [`${LIMITS.units} units`]: () => {
    const show = small();
    const units = Array.from({ length: LIMITS.units }, (_, i) => ({
      ...show.units[i % 2]!,
      id: `u${i}`,
      name: `Unit ${i}`,
      channel: (i % 16) + 1,
      slots: show.units[i % 2]!.slots.map((s) => ({ ...s, id: `u${i}-${s.index}` })),
    }));
    return withSong({ ...show, units }, { cues: cuesOf(100, 4 * BEAT) }, 101);
  },
  [`${LIMITS.songs} songs`]: () => {
    const show = small();
    const songs = Array.from({ length: LIMITS.songs }, (_, i) => ({
      ...newSong(`s${i}`, `Song ${i}`, { bars: 40 }),
      cues: cuesOf(20, 8 * BEAT),
    }));
    return { ...show, songs, ...inOrder(songs.map((s) => s.id)) };
  },
  '100000 tempo marks in a MIDI file': () =>
    writeSmf({
      format: 0,
      division: { kind: 'quarter', ticks: 480 },
      tracks: [
        {
          events: Array.from({ length: 100_000 }, (_, i): SmfEvent => ({
            kind: 'tempo',
            tick: i * 480,
            micros: 400_000 + (i % 7) * 1000,
          })),
          end: 48_000_000,
        },
      ],
    }),
};
