import { newControl, type Control } from '../addressing';
import {
  actionCue,
  messageCue,
  newSong,
  type Cue,
  type Show,
  type Song,
  type Sweep,
  type Tone,
  type Unit,
  songEntry,
} from '../show';
import { TICKS_PER_QUARTER } from '../time';

/** Something that goes wrong in real rigs, built into a show. */
export interface Fault {
  /** The code of the finding that it is for. */
  readonly code: string;
  readonly about: string;
  readonly into: (show: Show) => Show;
}

export const BAR = 4 * TICKS_PER_QUARTER;

/** A fault that changes one unit of the demo show. */
export const withUnit =
  (id: string, change: (u: Unit, show: Show) => Partial<Unit>) =>
  (show: Show): Show => ({
    ...show,
    units: show.units.map((u) => (u.id === id ? { ...u, ...change(u, show) } : u)),
  });

/** A fault that changes the controls of one unit. */
export const withControls = (id: string, change: (c: readonly Control[]) => readonly Control[]) =>
  withUnit(id, (u) => ({ profile: { ...u.profile, controls: change(u.profile.controls) } }));

/** The show with one more unit, at the end. */
export const addUnit = (show: Show, unit: Unit): Show => ({ ...show, units: [...show.units, unit] });

/** A unit of the demo show by its id, which has to be there. */
export const unitOf = (show: Show, id: string): Unit => show.units.find((u) => u.id === id)!;

/** A song of its own for a fault, at the end of the show and the set. */
export const inNewSong =
  (id: string, title: string, parts: (show: Show) => Partial<Song>, tones: readonly Tone[] = []) =>
  (show: Show): Show => {
    const song: Song = {
      ...newSong(id, title, { bpm: 100, bars: 24 }),
      openingToneId: 'still-water',
      click: { on: true, countIn: 0, parts: 1 },
      ...parts(show),
    };
    return {
      ...show,
      tones: [...show.tones, ...tones.filter((t) => !show.tones.some((x) => x.id === t.id))],
      songs: [...show.songs, song],
      sets: show.sets.map((s) => ({ ...s, entries: [...s.entries, songEntry(`set-${id}`, id)] })),
    };
  };

/** A cue that sets one control to a value. `at` is in ticks. */
export const control = (id: string, at: number, unitId: string, controlId: string, value: number): Cue =>
  actionCue(id, at, { kind: 'control', unitId, controlId, value });

/** A sweep of the demo's blend control. `from` and `to` are in ticks. */
export const sweep = (id: string, from: number, to: number, rest: Partial<Sweep> = {}): Sweep => ({
  id,
  unitId: 'marram',
  controlId: 'blend',
  from,
  to,
  muted: false,
  shape: { kind: 'wave', form: 'rise', low: 50, high: 90, period: to - from, steps: 8 },
  switchId: null,
  spacing: 10,
  after: 'rest',
  ...rest,
});

/** Long system exclusive messages, so many on one beat: they keep a 5-pin cable busy for a third of a second each. */
export const flood = (unitId: string, at: number, count: number): Cue[] =>
  Array.from({ length: count }, (_, i) => ({
    ...messageCue(`flood-${i}`, at, unitId, `f07d${'55'.repeat(1000)}f7`),
    landing: 'complete' as const,
  }));

export const locate = newControl('locate', 'Locate', {
  kind: 'exclusive',
  template: 'F0 7D 01 vv F7',
  low: 0,
  high: 127,
  checksum: null,
});
