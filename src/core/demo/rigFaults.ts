import { newControl, onOff } from '../addressing';
import { newPart, newPort, newSlot, newTone, newUnit, toneCue, type Reaction } from '../show';
import { slotId } from './units';

import { type Fault, BAR, withUnit, withControls, addUnit, unitOf, inNewSong, locate } from './faultParts';

/** Something that is pressed on the pads. */
const pressed = (id: string, kind: Reaction['hears']['kind'], number: number, does: Reaction['does']): Reaction => ({
  id,
  name: '',
  on: true,
  songId: null,
  hears: { portId: 'pads', kind, channel: 10, number, low: kind === 'note' ? 1 : 0, high: 127 },
  swallow: true,
  does,
});

/** Faults of the rig, its map and its tones, and of what arrives. */
export const RIG_FAULTS: readonly Fault[] = [
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
    code: 'rig.firmware-differs',
    about: 'A delay that somebody has brought to another firmware.',
    into: withUnit('thistle', (u) => ({ answered: { ...u.profile.identity!, version: '03000000' } })),
  },
  {
    code: 'rig.other-unit',
    about: 'Another box stands where the harmoniser was.',
    into: withUnit('harrow', (u) => ({ answered: { ...u.profile.identity!, family: '7F7F' } })),
  },
  {
    code: 'night.code-overlap',
    about: 'A song whose place in the time code lies within another one.',
    into: (show) => ({
      ...show,
      timeCode: { portId: 'pads', sends: show.timeCode.sends, rate: '25' },
      songs: show.songs.map((s, i) => (i < 2 ? { ...s, code: ['01:00:00:00', '01:01:00:00'][i]! } : s)),
    }),
  },
  {
    code: 'night.code-loop',
    about: 'Time code that goes out where it comes in.',
    into: (show) => ({ ...show, timeCode: { portId: 'pads', sends: ['pads'], rate: '25' } }),
  },
  {
    code: 'night.launch-shared',
    about: 'Two songs that one pad starts.',
    into: (show) => ({
      ...show,
      sets: show.sets.map((s) => ({
        ...s,
        entries: s.entries.map((e, i) =>
          e.kind === 'song' && i < 2 ? { ...e, launch: { portId: 'pads', bytes: 'C901', does: 'start' } } : e,
        ),
      })),
    }),
  },
  {
    code: 'night.launch-unheard',
    about: 'A reaction that takes a song its message.',
    into: (show) => ({
      ...show,
      sets: show.sets.map((s) => ({
        ...s,
        entries: s.entries.map((e, i) =>
          e.kind === 'song' && i === 3 ? { ...e, launch: { portId: 'pads', bytes: 'C902', does: 'start' } } : e,
        ),
      })),
      reactions: [...show.reactions, pressed('taken', 'program', 2, { kind: 'session', act: 'panic' })],
    }),
  },
  {
    code: 'night.reaction-unheard',
    about: 'A reaction below one that swallows everything.',
    into: (show) => ({
      ...show,
      reactions: [
        ...show.reactions,
        pressed('above', 'program', 3, { kind: 'session', act: 'panic' }),
        pressed('below', 'program', 3, { kind: 'session', act: 'stop' }),
      ],
    }),
  },
  {
    code: 'night.trigger-sounds',
    about: 'A pad whose note is passed on to the units of its port.',
    into: (show) => {
      const open = addUnit(
        { ...show, ports: [...show.ports, newPort('keys', 'Keys', 'usb', { softThru: true })] },
        newUnit('organ', 'Pier Organ', 'PO', unitOf(show, 'tarn').profile, {
          channel: 10,
          listens: 10,
          input: { from: 'port', portId: 'keys' },
        }),
      );
      const heard = pressed('organ-pad', 'note', 40, { kind: 'session', act: 'next-change' });
      return {
        ...open,
        reactions: [...open.reactions, { ...heard, hears: { ...heard.hears, portId: 'keys' }, swallow: false }],
      };
    },
  },
  {
    code: 'night.fires-itself',
    about: 'A reaction whose own message comes back to it.',
    into: (show) => {
      const open = addUnit(
        { ...show, ports: [...show.ports, newPort('echo', 'Echo line', 'usb')] },
        newUnit('repeater', 'Repeater', 'RP', unitOf(show, 'tarn').profile, {
          channel: 14,
          listens: 14,
          input: { from: 'port', portId: 'echo' },
          returns: { portId: 'echo', thru: true },
        }),
      );
      const again = pressed('again', 'control', 85, {
        kind: 'message',
        portId: 'echo',
        channel: null,
        number: null,
        curve: { from: 0, to: 127, bend: 'straight' },
      });
      return { ...open, reactions: [...open.reactions, { ...again, hears: { ...again.hears, portId: 'echo' } }] };
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
];
