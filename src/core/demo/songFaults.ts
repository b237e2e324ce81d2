import { guess } from '../addressing';
import { messageCue, newPart, newSection, newSlot, newTone, newUnit, toneCue } from '../show';
import { TICKS_PER_QUARTER } from '../time';
import { slotId } from './units';

import { addUnit, type Fault, BAR, withUnit, unitOf, inNewSong, control, sweep, flood } from './faultParts';

/** Faults of songs, each in a song of its own. */
export const SONG_FAULTS: readonly Fault[] = [
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
    code: 'song.two-leads',
    about: 'A song that time code leads, and a clock too.',
    into: (show) => ({
      ...show,
      timeCode: { ...show.timeCode, portId: 'pads' },
      songs: show.songs.map((s, i) => (i === 2 ? { ...s, code: '01:20:00:00', followsPortId: 'pads' } : s)),
    }),
  },
  {
    code: 'song.code-early',
    about: 'A song at the very start of the time code.',
    into: (show) => ({
      ...show,
      timeCode: { ...show.timeCode, portId: 'pads' },
      songs: show.songs.map((s, i) => (i === 3 ? { ...s, code: '00:00:00:00' } : s)),
    }),
  },
  {
    code: 'song.code-unread',
    about: 'A place in the time code that its rate has not.',
    into: (show) => ({
      ...show,
      timeCode: { ...show.timeCode, portId: 'pads', rate: '25' },
      songs: show.songs.map((s, i) => (i === 4 ? { ...s, code: '01:30:00:29' } : s)),
    }),
  },
  {
    code: 'song.clock-too-long',
    about: 'A clock through a song of eleven hours.',
    into: inNewSong('endless-swell', 'Endless Swell', () => ({
      bars: 20_000,
      clocks: [{ id: 'es-1', portId: 'rack' }],
    })),
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
    code: 'song.stored-between',
    about: 'A modeler that takes no scene for longer than it needs to load: the preset sounds in its stored one first.',
    into: (show) => {
      const { profile } = unitOf(show, 'marram');
      const slow = { ...profile, times: { ...profile.times, settle: guess(profile.times.recall.typical + 70) } };
      const skiff = newUnit('skiff', 'Skiff', 'SK', slow, {
        channel: 12,
        listens: 12,
        input: { from: 'port', portId: 'board' },
        slots: [newSlot('skiff-first', 0, 'Slack Water'), newSlot('skiff-second', 1, 'Wide Water')],
      });
      const tone = newTone('wide-water', 'Wide Water', [newPart('skiff', { slotId: 'skiff-second', variant: 2 })]);
      return inNewSong('slow-scene', 'Slow Scene', () => ({ cues: [toneCue('sl-1', 4 * BAR, 'wide-water')] }), [tone])(
        addUnit(show, skiff),
      );
    },
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
