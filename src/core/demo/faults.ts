import { newControl, onOff, type Control } from '../addressing';
import {
  actionCue,
  messageCue,
  newPart,
  newPort,
  newSection,
  newSlot,
  newSong,
  newTone,
  newUnit,
  toneCue,
  type Cue,
  type Show,
  type Song,
  type Sweep,
  type Tone,
  type Unit,
} from '../show';
import { TICKS_PER_QUARTER } from '../time';
import { demoShow } from './demoShow';
import { slotId } from './units';

/** Something that goes wrong in real rigs, built into a show. */
export interface Fault {
  /** The code of the finding that it is for. */
  readonly code: string;
  readonly about: string;
  readonly into: (show: Show) => Show;
}

const BAR = 4 * TICKS_PER_QUARTER;

const withUnit =
  (id: string, change: (u: Unit, show: Show) => Partial<Unit>) =>
  (show: Show): Show => ({
    ...show,
    units: show.units.map((u) => (u.id === id ? { ...u, ...change(u, show) } : u)),
  });

const withControls = (id: string, change: (c: readonly Control[]) => readonly Control[]) =>
  withUnit(id, (u) => ({ profile: { ...u.profile, controls: change(u.profile.controls) } }));

const addUnit = (show: Show, unit: Unit): Show => ({ ...show, units: [...show.units, unit] });

const unitOf = (show: Show, id: string): Unit => show.units.find((u) => u.id === id)!;

/** A song of its own for a fault, at the end of the book and the set. */
const inNewSong =
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
      set: [...show.set, { id: `set-${id}`, songId: id }],
    };
  };

const control = (id: string, at: number, unitId: string, controlId: string, value: number): Cue =>
  actionCue(id, at, { kind: 'control', unitId, controlId, value });

const sweep = (id: string, from: number, to: number, rest: Partial<Sweep> = {}): Sweep => ({
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
const flood = (unitId: string, at: number, count: number): Cue[] =>
  Array.from({ length: count }, (_, i) => ({
    ...messageCue(`flood-${i}`, at, unitId, `f07d${'55'.repeat(1000)}f7`),
    landing: 'complete' as const,
  }));

const locate = newControl('locate', 'Locate', {
  kind: 'exclusive',
  template: 'F0 7D 01 vv F7',
  low: 0,
  high: 127,
  checksum: null,
});

/** What the checks have to find, one fault a code. Together they make the faulty copy of the demo. */
export const FAULTS: readonly Fault[] = [
  {
    code: 'rig.channel-differs',
    about: 'The reverb is set to another channel than the map sends on.',
    into: withUnit('wick', () => ({ listens: 9 })),
  },
  {
    code: 'rig.channel-shared',
    about: 'A spare harmoniser hangs on the same cable and listens to everything.',
    into: (show) =>
      addUnit(
        show,
        newUnit('twin', 'Spare Harrow', 'SH', unitOf(show, 'harrow').profile, {
          channel: 6,
          listens: 'all',
          input: { from: 'port', portId: 'board' },
        }),
      ),
  },
  {
    code: 'rig.exclusive-shared',
    about: 'Two units on one cable obey the same system exclusive message.',
    into: (show) => withControls('thistle', (c) => [...c, locate])(withControls('harrow', (c) => [...c, locate])(show)),
  },
  {
    code: 'rig.no-port',
    about: 'A lamp that nobody plugged in.',
    into: (show) =>
      addUnit(show, newUnit('lost-lamp', 'Lost Lamp', 'LL', unitOf(show, 'wick').profile, { channel: 11 })),
  },
  {
    code: 'rig.port-off',
    about: 'A unit on a port that is switched off.',
    into: (show) =>
      addUnit(
        { ...show, ports: [...show.ports, newPort('old-port', 'Old port', 'din', { active: false })] },
        newUnit('old-box', 'Old Box', 'OB', unitOf(show, 'marram').profile, {
          channel: 12,
          input: { from: 'port', portId: 'old-port' },
        }),
      ),
  },
  {
    code: 'rig.port-unused',
    about: 'A port that is on for nothing.',
    into: (show) => ({ ...show, ports: [...show.ports, newPort('spare-port', 'Spare port', 'din')] }),
  },
  {
    code: 'rig.socket-shared',
    about: 'Two cables in one 5-pin socket, and no splitter.',
    into: (show) => ({ ...show, ports: show.ports.map((p) => (p.id === 'rack' ? { ...p, splitter: false } : p)) }),
  },
  {
    code: 'rig.loop',
    about: 'A box between two computers passes everything on, and so does its port.',
    into: (show) =>
      addUnit(
        { ...show, ports: [...show.ports, newPort('ring', 'Ring', 'usb', { softThru: true })] },
        newUnit('ring-box', 'Ring Box', 'RB', unitOf(show, 'marram').profile, {
          channel: 13,
          input: { from: 'port', portId: 'ring' },
          returns: { portId: 'ring', thru: true },
        }),
      ),
  },
  {
    code: 'rig.relay-cycle',
    about: 'The amplifier tells the modeler what the modeler told it.',
    into: withUnit('oxbow', (_, show) => ({
      relays: [
        {
          id: 'back',
          when: { slotId: null, variant: 7 },
          toUnitId: 'quillback',
          toSlotId: unitOf(show, 'quillback').slots[0]!.id,
        },
      ],
    })),
  },
  {
    code: 'map.two-on-one',
    about: 'Two functions of the reverb on one number.',
    into: withControls('tarn', (c) => [...c, newControl('size', 'Size', onOff(70))]),
  },
  {
    code: 'map.reserved-number',
    about: 'A function on a number that has a fixed meaning.',
    into: withControls('wick', (c) => [...c, newControl('strobe', 'Strobe', onOff(121))]),
  },
  {
    code: 'map.house-differs',
    about: 'A tuner on another number than everywhere else.',
    into: withControls('marram', (c) => c.map((x) => (x.id === 'tuner' ? { ...x, encoding: onOff(12) } : x))),
  },
  {
    code: 'map.generic-name',
    about: 'A control with the general name of its number.',
    into: withControls('wick', (c) => [...c, newControl('portamento', 'Portamento', onOff(65))]),
  },
  {
    code: 'map.state-undescribed',
    about: 'Nobody wrote down how the amplifier is set where the modeler sends it.',
    into: withUnit('oxbow', (u) => ({ slots: u.slots.map((s) => ({ ...s, panel: [] })) })),
  },
  {
    code: 'map.no-program',
    about: "A preset that the spare's own table has no program for.",
    into: (show) => {
      const harrow = unitOf(show, 'harrow').profile;
      const unit = newUnit(
        'table',
        'Table Harrow',
        'TH',
        { ...harrow, plan: { ...harrow.plan, table: [{ bank: 0, program: 0, index: 0 }] } },
        {
          channel: 14,
          input: { from: 'port', portId: 'lamps' },
          slots: [newSlot('table-5', 5, 'Far away')],
        },
      );
      const tone = newTone('far-away', 'Far Away', [newPart('table', { slotId: 'table-5' })]);
      return { ...addUnit(show, unit), tones: [...show.tones, tone] };
    },
  },
  {
    code: 'map.slot-lost',
    about: 'A preset that tones want went out of the list.',
    into: withUnit('marram', (u) => ({
      slots: u.slots.filter((s) => s.id !== slotId('marram', '12C')),
      lostSlots: [{ id: slotId('marram', '12C'), name: 'Undertow Fuzz', lastIndex: 46 }],
    })),
  },
  {
    code: 'map.read-only',
    about: 'States that relay rules call, in an amplifier in which nothing can be stored any more.',
    into: withUnit('oxbow', (u) => {
      const { plan } = u.profile;
      const groups = plan.groups.map((g) => ({ ...g, readOnly: true }));
      return { profile: { ...u.profile, plan: { ...plan, groups } } };
    }),
  },
  {
    code: 'map.slot-unnamed',
    about: 'A preset in use of which nobody wrote down what it is.',
    into: withUnit('quillback', (u) => ({
      slots: u.slots.map((s) => (s.id === slotId('quillback', 'C1') ? { ...s, name: '' } : s)),
    })),
  },
  {
    code: 'tone.flip-unknown',
    about: 'A tone that wants a switch in a state, where it only turns over.',
    into: (show) => {
      const bare = withUnit('tarn', (u) => ({ slots: u.slots.map((s) => ({ ...s, startControls: [] })) }))(show);
      const part = newPart('tarn', { slotId: slotId('tarn', '014'), controls: [{ controlId: 'hold', value: 1 }] });
      return { ...bare, tones: [...bare.tones, newTone('held', 'Held', [part])] };
    },
  },
  {
    code: 'tone.told-elsewhere',
    about: 'A tone that wants the amplifier elsewhere than the modeler has it go.',
    into: (show) => {
      const parts = [
        newPart('quillback', { slotId: slotId('quillback', 'H6') }),
        newPart('oxbow', { slotId: unitOf(show, 'oxbow').slots[0]!.id }),
      ];
      return { ...show, tones: [...show.tones, newTone('stray-amp', 'Stray Amp', parts)] };
    },
  },
  {
    code: 'tone.only-told',
    about: 'A tone that sets a control of a unit that only relay rules reach.',
    into: (show) => {
      const loose = withControls('oxbow', (c) => [...c, newControl('presence', 'Presence', onOff(20))])(show);
      const parts = [newPart('oxbow', { controls: [{ controlId: 'presence', value: 1 }] })];
      return { ...loose, tones: [...loose.tones, newTone('out-of-reach', 'Out of Reach', parts)] };
    },
  },
  {
    code: 'song.tone-differs',
    about: 'A tone that is one thing before another tone and another after it.',
    into: inNewSong(
      'not-again',
      'Not Again',
      () => ({
        cues: [
          toneCue('na-1', 4 * BAR, 'fuzz-less'),
          toneCue('na-2', 8 * BAR, 'fuzz-full'),
          toneCue('na-3', 12 * BAR, 'fuzz-less'),
        ],
      }),
      [
        newTone('fuzz-less', 'Fuzzless', [newPart('marram', { variant: 1 })]),
        newTone('fuzz-full', 'Full Fuzz', [
          newPart('marram', { variant: 2, controls: [{ controlId: 'fuzz', value: 1 }] }),
        ]),
      ],
    ),
  },
  {
    code: 'song.late',
    about: 'The solo comes a sixteenth after the change before it: the modeler has not loaded that one yet.',
    into: inNewSong('early-gull', 'Early Gull', () => ({
      cues: [toneCue('eg-1', 8 * BAR, 'rope-burn'), toneCue('eg-2', 8 * BAR + 120, 'fog-lead')],
    })),
  },
  {
    code: 'song.early',
    about: 'A flood of data keeps a cable busy, so that what is due then has to go long before.',
    into: inNewSong('spring-tide', 'Spring Tide', () => ({
      cues: [toneCue('st-1', 8 * BAR, 'fog-lead'), ...flood('marram', 8 * BAR, 4)],
    })),
  },
  {
    code: 'song.never',
    about: 'A preset whose slot is called on a unit that listens elsewhere.',
    into: inNewSong('deaf-lamp', 'Deaf Lamp', () => ({ cues: [toneCue('dl-1', 4 * BAR, 'lamp-choir')] }), [
      newTone('lamp-choir', 'Lamp Choir', [newPart('wick', { slotId: slotId('wick', 'bank 1 look 05') })]),
    ]),
  },
  {
    code: 'song.inside-settle',
    about: 'Two relay rules fire at once: the second program meets a unit that still loads the first.',
    into: (show) => {
      const deaf = withUnit('oxbow', (u) => ({ profile: { ...u.profile, whileSettling: 'ignore' as const } }))(show);
      return withUnit('quillback', (u) => ({
        relays: [
          {
            id: 'first',
            when: { slotId: slotId('quillback', 'C1'), variant: null },
            toUnitId: 'oxbow',
            toSlotId: unitOf(show, 'oxbow').slots[3]!.id,
          },
          ...u.relays,
        ],
      }))(deaf);
    },
  },
  {
    code: 'song.outside',
    about: 'A change behind the last bar.',
    into: inNewSong('long-pier', 'Long Pier', () => ({ cues: [toneCue('lp-1', 30 * BAR, 'undertow')] })),
  },
  {
    code: 'song.tones-clash',
    about: 'Two tones on one beat want different presets of one unit.',
    into: inNewSong('two-tides', 'Two Tides', () => ({
      cues: [toneCue('tt-1', 8 * BAR, 'harbour-clean'), toneCue('tt-2', 8 * BAR, 'still-water')],
    })),
  },
  {
    code: 'song.sweeps-overlap',
    about: 'Two sweeps of one control at once.',
    into: inNewSong('cross-sea', 'Cross Sea', () => ({
      sweeps: [sweep('cs-1', 4 * BAR, 8 * BAR), sweep('cs-2', 6 * BAR, 10 * BAR)],
    })),
  },
  {
    code: 'song.selector-ramp',
    about: 'A line drawn through a selector.',
    into: inNewSong('slipway', 'Slipway', () => ({
      cues: [0, 1, 2, 3].map((v) => control(`sl-${v}`, 4 * BAR + v * 60, 'harrow', 'interval', v)),
    })),
  },
  {
    code: 'song.other-channel',
    about: 'A message kept from a file speaks on another channel.',
    into: inNewSong('wrong-door', 'Wrong Door', () => ({ cues: [messageCue('wd-1', 4 * BAR, 'marram', 'c005')] })),
  },
  {
    code: 'song.not-understood',
    about: 'A message kept from a file means nothing to its unit.',
    into: inNewSong('odd-bell', 'Odd Bell', () => ({ cues: [messageCue('ob-1', 4 * BAR, 'marram', 'e40040')] })),
  },
  {
    code: 'song.no-such-slot',
    about: 'A program that the unit has no slot for.',
    into: inNewSong('past-the-end', 'Past the End', () => ({
      cues: [messageCue('pe-1', 4 * BAR, 'harrow', 'c57f')],
    })),
  },
  {
    code: 'song.bank-unknown',
    about: 'A program without a bank in front, and nothing before it.',
    into: inNewSong('no-bank', 'No Bank', () => ({
      openingToneId: null,
      cues: [messageCue('nb-1', 4 * BAR, 'quillback', 'c005')],
    })),
  },
  {
    code: 'song.flip-unknown',
    about: 'A switch that only turns over, in a song that opens with nothing.',
    into: inNewSong('turned-over', 'Turned Over', () => ({
      openingToneId: null,
      cues: [control('to-1', 4 * BAR, 'tarn', 'hold', 1)],
    })),
  },
  {
    code: 'song.no-opening',
    about: 'A song that leaves the rig as the song before left it.',
    into: inNewSong('cold-start', 'Cold Start', () => ({
      openingToneId: null,
      cues: [toneCue('co-1', 4 * BAR, 'undertow')],
    })),
  },
  {
    code: 'song.port-full',
    about: 'More data than half a cable takes in a second.',
    into: inNewSong('full-boat', 'Full Boat', () => ({ cues: flood('marram', 12 * BAR, 2) })),
  },
  {
    code: 'song.off-rest',
    about: 'A sweep that leaves the blend where it ended.',
    into: inNewSong('half-way', 'Half Way', () => ({ sweeps: [sweep('hw-1', 4 * BAR, 6 * BAR, { after: 'hold' })] })),
  },
  {
    code: 'song.tempo-missed',
    about: 'A tempo that lasts for two beats only: no unit can take it from taps.',
    into: inNewSong('short-breath', 'Short Breath', () => ({
      tempo: [
        { at: 0, bpm: 100, beat: 1, rampTo: null },
        { at: 8 * BAR, bpm: 140, beat: 1, rampTo: null },
        { at: 8 * BAR + 2 * TICKS_PER_QUARTER, bpm: 100, beat: 1, rampTo: null },
      ],
      taps: [{ id: 'sb-taps', unitId: 'thistle', controlId: 'tap', count: 4 }],
    })),
  },
  {
    code: 'song.trail-cut',
    about: 'A delay that should ring out, in a unit that falls silent to load the next preset.',
    into: inNewSong(
      'long-bell',
      'Long Bell',
      () => ({ cues: [toneCue('lb-1', 4 * BAR, 'ringing'), toneCue('lb-2', 8 * BAR, 'rung-out')] }),
      [
        newTone('ringing', 'Ringing', [
          newPart('quillback', { slotId: slotId('quillback', 'C1'), effects: [{ effectId: 'delay', how: 'on' }] }),
        ]),
        newTone('rung-out', 'Rung Out', [
          newPart('quillback', { slotId: slotId('quillback', 'A3'), effects: [{ effectId: 'delay', how: 'ring' }] }),
        ]),
      ],
    ),
  },
  {
    code: 'song.effect-left',
    about: 'An effect that goes on with a sweep and never off.',
    into: inNewSong('left-lit', 'Left Lit', () => ({
      cues: [control('ll-1', 4 * BAR, 'marram', 'fuzz', 1)],
      sweeps: [sweep('ll-2', 4 * BAR, 6 * BAR)],
    })),
  },
  {
    code: 'song.duplicate',
    about: 'The same change twice.',
    into: inNewSong('twice-told', 'Twice Told', () => ({
      cues: [toneCue('tw-1', 4 * BAR, 'fog-lead'), toneCue('tw-2', 4 * BAR, 'fog-lead')],
    })),
  },
  {
    code: 'song.no-change',
    about: 'A change to what is on already.',
    into: inNewSong('still-still', 'Still Still', () => ({ cues: [toneCue('ss-1', 4 * BAR, 'still-water')] })),
  },
  {
    code: 'song.section-state',
    about: 'Who skips the middle part keeps the octave on.',
    into: inNewSong(
      'skipped',
      'Skipped',
      () => ({
        sections: [newSection('sk-a', 'Rise', 1), newSection('sk-b', 'Crest', 9), newSection('sk-c', 'Ebb', 17)],
        cues: [
          control('sk-1', 2 * BAR, 'marram', 'octave', 1),
          control('sk-2', 10 * BAR, 'marram', 'octave', 0),
          toneCue('sk-3', 16 * BAR, 'bass-two'),
        ],
      }),
      [newTone('bass-two', 'Bass Two', [newPart('marram', { variant: 2 })])],
    ),
  },
];

/** The demo with all faults in it. */
export const faultyDemo = (): Show => ({
  ...FAULTS.reduce((show, fault) => fault.into(show), demoShow()),
  id: 'winter-pier-faulty',
  title: 'Winter Pier Residency, with faults',
});
