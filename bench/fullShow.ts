import { exactly } from '../src/core/addressing';
import {
  newSong,
  newTone,
  newUnit,
  toneCue,
  emptyShow,
  type Show,
  type Song,
  type Tone,
  type Unit,
} from '../src/core/show';
import { LIBRARY } from '../src/core/library';

/** A pseudo-random number generator of its own, so that every run measures the same show. */
export function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

/** A show of `units` units on three ports, one song with `cues` cues that each change `touched` of them. */
export function fullShow(units: number, cues: number, seed = 1, touched = 3): { show: Show; song: Song } {
  const random = seeded(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const kinds = LIBRARY.filter((e) => e.id !== 'programs-only');
  const rig: Unit[] = Array.from({ length: units }, (_, i) =>
    newUnit(`u${i}`, `Unit ${i}`, `U${i % 10}`, kinds[i % kinds.length]!.profile, {
      channel: (i % 16) + 1,
      input: { from: 'port', portId: `p${i % 3}` },
      slots: Array.from({ length: 16 }, (_, k) => ({
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
  const tones: Tone[] = Array.from({ length: 40 }, (_, t) =>
    newTone(
      `t${t}`,
      `Tone ${t}`,
      Array.from({ length: touched }, (_, k) => k)
        .map((k) => {
          const unit = rig[(t * 3 + k * 5) % rig.length]!;
          const { variants, controls } = unit.profile;
          const switched = controls.find((c) => c.encoding.kind === 'set-switch');
          return {
            unitId: unit.id,
            slotId: pick(unit.slots).id,
            variant: variants ? Math.floor(random() * variants.names.length) : null,
            controls: switched ? [{ controlId: switched.id, value: Math.round(random()) }] : [],
            effects: [],
          };
        })
        .filter((p, i, all) => all.findIndex((q) => q.unitId === p.unitId) === i),
    ),
  );
  const list = Array.from({ length: cues }, (_, i) => toneCue(`c${i}`, (i + 1) * 960 * 2, pick(tones).id));
  const song: Song = { ...newSong('song', 'Song', { bars: Math.ceil(cues / 2) + 2 }), cues: list };
  const ports = [0, 1, 2].map((i) => ({
    id: `p${i}`,
    name: `Port ${i}`,
    cable: i === 2 ? ('usb' as const) : ('din' as const),
    active: true,
    softThru: false,
    splitter: true,
    spare: '',
    delay: exactly(0),
    known: { out: '', in: '' },
  }));
  return { show: { ...emptyShow('bench', 'Bench'), ports, units: rig, tones, songs: [song] }, song };
}
