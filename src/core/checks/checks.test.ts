import { describe, expect, it } from 'vitest';
import { findingSentence, fixWords } from '../../wording';
import { newControl, onOff, type Control } from '../addressing';
import { demoShow } from '../demo';
import { applyEdit, checkShow, newPart, newPort, newTone, newUnit, setTonight, type Show, type Unit } from '../show';
import { RIG_CHECKS, checkRig, type FindingCode } from './';
import { modelerProfile, testUnit } from '../testing/rigs';
import { otherUnitOf, tonightOf } from '../tonight';

const show = demoShow();

const withUnit = (id: string, change: (u: Unit) => Partial<Unit>, from: Show = show): Show => ({
  ...from,
  units: from.units.map((u) => (u.id === id ? { ...u, ...change(u) } : u)),
});
const withControls = (id: string, change: (c: readonly Control[]) => readonly Control[]): Show =>
  withUnit(id, (u) => ({ profile: { ...u.profile, controls: change(u.profile.controls) } }));
const firstPort = show.ports[0]!.id;
const relayed = show.units.find((u) => u.relays.length > 0)!;

/** A show with each fault, and what is said of it. */
const FAULTS: readonly (readonly [FindingCode, Show, string])[] = [
  [
    'rig.channel-differs',
    withUnit('tarn', () => ({ listens: 9 })),
    'Tarn is sent to on channel 7, but listens on 9: it will do nothing at all.',
  ],
  [
    'rig.channel-shared',
    {
      ...show,
      units: [
        ...show.units,
        newUnit('u', 'Twin', 'TW', show.units[0]!.profile, {
          channel: show.units[0]!.channel,
          listens: 'all',
          input: { from: 'port', portId: firstPort },
        }),
      ],
    },
    'Twin also hears what is sent to',
  ],
  [
    'rig.exclusive-shared',
    (() => {
      const playing = newControl('x', 'Locate', {
        kind: 'exclusive',
        template: 'F0 7D 01 vv F7',
        low: 0,
        high: 127,
        checksum: null,
      });
      const first = withControls('quillback', (c) => [...c, playing]);
      const port = first.units[0]!.input;
      return withUnit(
        'tarn',
        (u) => ({ input: port, profile: { ...u.profile, controls: [...u.profile.controls, playing] } }),
        first,
      );
    })(),
    'also obeys the system exclusive message of',
  ],
  [
    'rig.left-out',
    (() => {
      const thistle = show.units.find((u) => u.id === 'thistle')!;
      const bare = { ...thistle.profile, controls: [], effects: [], engage: null };
      const other = otherUnitOf('thistle', { ...thistle, name: 'Field Box', profile: bare }, null);
      return applyEdit(show, setTonight(show, 'thistle', other)!);
    })(),
    'Field Box has no',
  ],
  ['rig.no-port', withUnit('tarn', () => ({ input: null })), 'Tarn has no cable from a port, so nothing reaches it.'],
  [
    'rig.port-off',
    { ...show, ports: show.ports.map((p) => (p.id === firstPort ? { ...p, active: false } : p)) },
    'which is switched off.',
  ],
  [
    'rig.port-unused',
    { ...show, ports: [...show.ports, newPort('p9', 'Spare port', 'din')] },
    'No cable is in Spare port',
  ],
  [
    'rig.loop',
    {
      ...withUnit('quillback', () => ({
        returns: { portId: firstPort, thru: true },
        input: { from: 'port', portId: firstPort },
      })),
      ports: show.ports.map((p) => (p.id === firstPort ? { ...p, softThru: true } : p)),
    },
    'A message can go round and round:',
  ],
  [
    'rig.relay-cycle',
    withUnit('oxbow', () => ({
      relays: [
        { id: 'back', when: { slotId: null, variant: null }, toUnitId: relayed.id, toSlotId: relayed.slots[0]!.id },
      ],
    })),
    'Relay rules set each other off in a circle: Quillback → Oxbow Forty → Quillback.',
  ],
  [
    'map.two-on-one',
    withControls('tarn', (c) => [...c, newControl('x', 'Size', onOff(71))]),
    'Mix and Size of Tarn are both on control 71: whatever is sent moves both.',
  ],
  [
    'map.reserved-number',
    withControls('tarn', (c) => [...c, newControl('x', 'Size', onOff(121))]),
    'Size of Tarn is on control 121, which has a fixed meaning in MIDI.',
  ],
  [
    'map.house-differs',
    withControls('quillback', (c) => c.map((x) => (x.houseId === 'house-tuner' ? { ...x, encoding: onOff(12) } : x))),
    'is on control 12; the shared control number of Tuner is 68.',
  ],
  [
    'map.generic-name',
    withControls('tarn', (c) => [...c, newControl('x', 'Portamento', onOff(65))]),
    '"Portamento" is MIDI\'s general name of control 65, not what Tarn does with it.',
  ],
  [
    'map.state-undescribed',
    withUnit('oxbow', (u) => ({ slots: u.slots.map((s) => ({ ...s, panel: [] })) })),
    'nobody wrote down how its panel stands there',
  ],
  [
    'map.read-only',
    withUnit('oxbow', (u) => {
      const groups = u.profile.plan.groups.map((g) => ({ ...g, readOnly: true }));
      return { profile: { ...u.profile, plan: { ...u.profile.plan, groups } } };
    }),
    'Oxbow Forty can store nothing in its group',
  ],
  [
    'map.no-program',
    withUnit('quillback', (u) => ({
      profile: { ...u.profile, plan: { ...u.profile.plan, table: [{ bank: 0, program: 0, index: 0 }] } },
    })),
    "No program of Quillback's own table calls",
  ],
  [
    'map.slot-lost',
    withUnit('quillback', (u) => ({
      slots: u.slots.filter((s) => s.id !== 'quillback-h6'),
      lostSlots: [{ id: 'quillback-h6', name: 'Fog Lead', lastIndex: 47 }],
    })),
    '"Fog Lead" is no longer in Quillback\'s preset list; 2 tones want it.',
  ],
  [
    'map.slot-unnamed',
    withUnit('quillback', (u) => ({
      slots: u.slots.map((s) => (s.id === 'quillback-h6' ? { ...s, name: ' ' } : s)),
    })),
    'H6 of Quillback is used, but nobody wrote down what is in it.',
  ],
  [
    'rig.socket-shared',
    { ...show, ports: show.ports.map((p) => ({ ...p, splitter: false })) },
    'Rack is one 5-pin socket, but 2 cables leave it (Quillback and Marram).',
  ],
  [
    'tone.told-elsewhere',
    {
      ...show,
      tones: show.tones.map((t) =>
        t.id === 'fog-lead'
          ? {
              ...t,
              parts: [...t.parts, newPart('oxbow', { slotId: show.units.find((u) => u.id === 'oxbow')!.slots[0]!.id })],
            }
          : t,
      ),
    },
    'Fog Lead wants Oxbow Forty on',
  ],
  [
    'tone.only-told',
    {
      ...withControls('oxbow', (c) => [...c, newControl('x', 'Presence', onOff(20))]),
      tones: [...show.tones, newTone('p', 'P', [newPart('oxbow', { controls: [{ controlId: 'x', value: 1 }] })])],
    },
    'P sets Presence of Oxbow Forty, but nothing can be sent there: Quillback can only call its presets.',
  ],
  [
    'tone.flip-unknown',
    {
      ...withUnit('tarn', (u) => ({ slots: u.slots.map((s) => ({ ...s, startControls: [] })) })),
      tones: show.tones.map((t) => ({
        ...t,
        parts: t.parts.map((p) =>
          p.unitId === 'tarn' && p.slotId !== null ? { ...p, controls: [{ controlId: 'hold', value: 1 }] } : p,
        ),
      })),
    },
    'but it only turns over, and nobody wrote down how the preset stores it.',
  ],
];

describe('checks of the rig', () => {
  it('have nothing to say of the demo', () => {
    expect(checkRig(tonightOf(show))).toEqual([]);
  });

  it('each have a fault to find', () => {
    expect(new Set(FAULTS.map(([code]) => code)).size).toBe(FAULTS.length);
    // Two checks have two findings each: no cable or a port that is off, another state or one that nothing can set.
    expect(FAULTS.length).toBe(RIG_CHECKS.length + 2);
  });

  it.each(FAULTS)('find %s, say it, and mend it where there is a fix', (code, faulty, words) => {
    expect(checkShow(faulty)).toEqual([]);
    const found = checkRig(tonightOf(faulty)).filter((f) => f.code === code);
    expect(found.length).toBeGreaterThan(0);
    expect(found.map(findingSentence).join('\n')).toContain(words);
    if (found[0]!.fix === null) return;
    expect(fixWords(found[0]!)).not.toBe('');
    let mended = faulty;
    for (let left = found; left.length > 0; left = checkRig(tonightOf(mended)).filter((f) => f.code === code)) {
      const before = left.length;
      mended = applyEdit(mended, left[0]!.fix!);
      expect(checkRig(tonightOf(mended)).filter((f) => f.code === code).length).toBeLessThan(before);
    }
    expect(checkShow(mended)).toEqual([]);
  });

  it('put the gravest first', () => {
    const two = {
      ...withUnit('tarn', () => ({ listens: 9 as const })),
      ports: [...show.ports, newPort('p9', 'Spare', 'din')],
    };
    expect(checkRig(tonightOf(two)).map((f) => f.severity)).toEqual(['error', 'note']);
  });

  it('call a unit without a cable unfinished until something is wanted of it', () => {
    const unit = testUnit('fresh', 9, modelerProfile, { input: null });
    const fresh = { ...show, units: [...show.units, unit] };
    const severity = (of: Show) => checkRig(tonightOf(of)).find((f) => f.code === 'rig.no-port')?.severity;
    expect(severity(fresh)).toBe('note');
    const tone = newTone('t', 'T', [newPart('fresh', { variant: 1 })]);
    expect(severity({ ...fresh, tones: [...show.tones, tone] })).toBe('error');
    const [song, ...rest] = show.songs;
    const cue = { ...song!.cues[0]!, id: 'x', action: { kind: 'message', unitId: 'fresh', bytes: 'c005' } as const };
    expect(severity({ ...fresh, songs: [{ ...song!, cues: [cue] }, ...rest] })).toBe('error');
  });

  it('leave a unit alone that only sends, or that is brought along', () => {
    const loose = withUnit('pebble', () => ({ input: null }));
    expect(checkRig(tonightOf(loose)).filter((f) => f.code === 'rig.no-port')).toEqual([]);
  });
});
