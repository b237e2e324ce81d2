import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { OPENING_CUE, moments } from './moments';
import { songWants, toneAims } from './aims';
import { aimOf } from './partAims';
import { indexShow, messageCue, microsAt, type Show, type Song, songTime } from '../show';
import { rigSpec, routeTo } from './rigOf';

const show = demoShow();
const song = show.songs[0]!;
const unit = (id: string) => indexShow(show).units.get(id)!;
const tone = (id: string) => indexShow(show).tones.get(id)!;
const withSong = (change: Partial<Song>): [Show, Song] => {
  const changed = { ...song, ...change };
  return [{ ...show, songs: [changed, ...show.songs.slice(1)] }, changed];
};

describe('what a tone wants', () => {
  it('is what it names, with slots by their place', () => {
    const part = tone('fog-lead').parts[0]!;
    expect(aimOf(unit('quillback'), part)).toEqual({ slot: 47, variant: 2, controls: { delay: 1, 'delay-input': 1 } });
    expect(aimOf(unit('quillback'), { ...part, slotId: null, variant: null })).toEqual({
      controls: { delay: 1, 'delay-input': 1 },
    });
    expect(aimOf(unit('quillback'), { ...part, slotId: 'gone' }).slot).toBeUndefined();
  });

  it('leaves effects on, cut off, or ringing with only their input closed', () => {
    const part = { ...tone('fog-lead').parts[0]!, controls: [] };
    const how = (end: 'on' | 'cut' | 'ring') =>
      aimOf(unit('quillback'), { ...part, effects: [{ effectId: 'delay', how: end }] }).controls;
    expect(how('on')).toEqual({ delay: 1, 'delay-input': 1 });
    expect(how('ring')).toEqual({ delay: 1, 'delay-input': 0 });
    expect(how('cut')).toEqual({ delay: 0 });
    const noInput = {
      ...unit('quillback').profile,
      effects: [{ id: 'delay', name: 'Delay', cut: 'delay', ring: null }],
    };
    const cutOnly = { ...unit('quillback'), profile: noInput };
    expect(aimOf(cutOnly, { ...part, effects: [{ effectId: 'delay', how: 'ring' }] }).controls).toEqual({ delay: 0 });
  });

  it('engages a unit whose presets only sound once that is sent', () => {
    const part = tone('fog-lead').parts.find((p) => p.unitId === 'thistle')!;
    expect(aimOf(unit('thistle'), part).controls).toEqual({ active: 1, feedback: 45, input: 1 });
    expect(aimOf(unit('thistle'), { ...part, slotId: null }).controls).toEqual({ feedback: 45 });
    const newer = { ...unit('thistle'), profile: unit('thistle').versions[0]! };
    expect(aimOf(newer, part).controls).toEqual({ feedback: 45 });
  });

  it('opens the input of an effect that is wanted on, whichever way it is said', () => {
    const part = { ...tone('fog-lead').parts[0]!, effects: [], controls: [{ controlId: 'delay', value: 1 }] };
    expect(aimOf(unit('quillback'), part).controls).toEqual({ delay: 1, 'delay-input': 1 });
    const closed = { ...part, controls: [...part.controls, { controlId: 'delay-input', value: 0 }] };
    expect(aimOf(unit('quillback'), closed).controls).toEqual({ delay: 1, 'delay-input': 0 });
    const off = { ...part, controls: [{ controlId: 'delay', value: 0 }] };
    expect(aimOf(unit('quillback'), off).controls).toEqual({ delay: 0 });
  });

  it('leaves out what no unit keeps: a tap is a move, not a sound', () => {
    const part = { ...tone('fog-lead').parts[0]!, effects: [], controls: [{ controlId: 'tap', value: 0 }] };
    expect(aimOf(unit('quillback'), part).controls).toEqual({});
  });

  it('follows a slot that moves, because it is meant by its id', () => {
    const moved = {
      ...unit('quillback'),
      slots: unit('quillback').slots.map((s) => (s.id === 'quillback-h6' ? { ...s, index: 0 } : s)),
    };
    expect(aimOf(moved, tone('fog-lead').parts[0]!).slot).toBe(0);
  });

  it('includes what relay rules bring to units that it does not name', () => {
    expect(toneAims(show, tone('fog-lead')).get('oxbow')).toEqual({ slot: 3, controls: {} });
    expect(toneAims(show, tone('ledger-echo')).get('oxbow')).toEqual({ slot: 2, controls: {} });
    // A tone that recalls nothing fires no rule that hangs on a slot.
    const only = {
      ...tone('ledger-echo'),
      parts: [{ unitId: 'quillback', slotId: null, variant: 3, controls: [], effects: [] }],
    };
    expect(toneAims(show, only).has('oxbow')).toBe(false);
  });

  it('is its own word where it names a unit that a rule would bring elsewhere', () => {
    const own = { unitId: 'oxbow', slotId: 'oxbow-state-1', variant: null, controls: [], effects: [] };
    const both = { ...tone('fog-lead'), parts: [...tone('fog-lead').parts, own] };
    expect(toneAims(show, both).get('oxbow')).toEqual({ slot: 0, controls: {} });
  });

  it('carries on through rules of the next unit, and comes to an end in a circle', () => {
    const back = { id: 'back', when: { slotId: null, variant: null }, toUnitId: 'quillback', toSlotId: 'quillback-a1' };
    const circle: Show = { ...show, units: show.units.map((u) => (u.id === 'oxbow' ? { ...u, relays: [back] } : u)) };
    expect([...toneAims(circle, tone('fog-lead')).keys()]).toContain('oxbow');
  });
});

describe('the cues of a song', () => {
  it('come in the order of their places, the opening first', () => {
    const [s, mixed] = withSong({ cues: song.cues.toReversed(), sweeps: [], taps: [] });
    expect(moments(s, mixed).map((c) => c.id)).toEqual([OPENING_CUE, ...song.cues.map((c) => c.id)]);
  });

  it('leave out what is muted and what the show has no tone for', () => {
    const [first, second, ...rest] = song.cues as [Song['cues'][0], Song['cues'][0], ...Song['cues']];
    const lost = { ...second, action: { kind: 'tone', toneId: 'gone', reload: false } as const };
    const [s, changed] = withSong({
      opening: 'own',
      openingToneId: null,
      cues: [{ ...first, muted: true }, lost, ...rest],
      sweeps: [],
      taps: [],
    });
    expect(moments(s, changed).map((c) => c.id)).toEqual(rest.map((c) => c.id));
  });

  it('want each thing at its due time: place and shift', () => {
    const [first] = song.cues as [Song['cues'][0]];
    const [s, changed] = withSong({
      opening: 'own',
      openingToneId: null,
      sweeps: [],
      taps: [],
      cues: [{ ...first, shift: -20 }, messageCue('raw', 0, 'tarn', 'f8')],
    });
    const wants = songWants(s, changed);
    expect(wants[0]).toMatchObject({
      cueId: 'raw',
      unitId: 'tarn',
      due: 0,
      landing: 'sent',
      aim: { kind: 'bytes', bytes: [0xf8] },
    });
    const due = microsAt(songTime(changed), first.at) - 20_000;
    expect(wants.filter((w) => w.cueId === first.id).every((w) => Math.abs(w.due - due) < 1e-3)).toBe(true);
  });
});

describe('the rig as the wires know it', () => {
  it('has no ports that are switched off, and relay rules as messages', () => {
    const spec = rigSpec({ ...show, ports: show.ports.map((p) => ({ ...p, active: p.id === 'rack' })) });
    expect(spec.ports).toMatchObject([{ id: 'rack', cable: 'din', softThru: false, delay: 0 }]);
    expect(rigSpec(show).units[0]!.relays[0]).toEqual({
      slot: 2,
      variant: null,
      toUnit: 'oxbow',
      messages: [[0xc2, 0]],
    });
  });

  it('leaves out rules whose slots are lost', () => {
    const units = show.units.map((u) => (u.id === 'oxbow' ? { ...u, slots: [] } : u));
    expect(rigSpec({ ...show, units }).units[0]!.relays).toEqual([]);
  });

  it('is made once for the same units and ports', () => {
    expect(rigSpec(show)).toBe(rigSpec({ ...show, title: 'Other' }));
  });

  it('reaches a unit by its port, or through units that pass on', () => {
    expect(routeTo(show, unit('quillback'))).toEqual({ portId: 'rack', hops: 0, through: [] });
    expect(routeTo(show, unit('oxbow'))).toBeUndefined();
    const input = { from: 'unit', unitId: 'quillback', thru: true } as const;
    expect(routeTo(show, { ...unit('oxbow'), input })).toEqual({
      portId: 'rack',
      hops: 1,
      through: [unit('quillback')],
    });
    expect(routeTo(show, { ...unit('oxbow'), input: null })).toBeUndefined();
    expect(routeTo(show, { ...unit('oxbow'), input: { from: 'unit', unitId: 'gone', thru: true } })).toBeUndefined();
  });
});
