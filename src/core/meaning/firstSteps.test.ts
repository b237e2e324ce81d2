import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { emptyShow, newPort, newSlot, newSong, newTone, newUnit, toneCue, type Show } from '../show';
import { FIRST_STEPS, firstSteps } from './firstSteps';

const demo = demoShow();
const { profile } = demo.units[0]!;
const steps = (show: Show, lit = false): readonly string[] => [...firstSteps(show, () => lit)];

describe('the way to the first lit lantern', () => {
  it('begins with nothing done, and is gone one step after the other', () => {
    let show = emptyShow('s', 'New');
    expect(steps(show)).toEqual([]);
    show = { ...show, units: [newUnit('u', 'Unit', 'UN', profile)] };
    // A unit that no port reaches is not wired yet.
    expect(steps(show)).toEqual([]);
    const input = { from: 'port', portId: 'p' } as const;
    show = { ...show, ports: [newPort('p', 'Port', 'din')], units: [newUnit('u', 'Unit', 'UN', profile, { input })] };
    expect(steps(show)).toEqual(['wire']);
    show = { ...show, units: show.units.map((u) => ({ ...u, slots: [newSlot('s', 0, 'Clean')] })) };
    expect(steps(show)).toEqual(['wire', 'preset']);
    show = { ...show, tones: [{ ...newTone('t', 'Clean'), parts: [] }] };
    expect(steps(show)).toEqual(['wire', 'preset']);
    show = { ...show, tones: [{ ...newTone('t', 'Clean'), parts: [demo.tones[0]!.parts[0]!] }] };
    expect(steps(show)).toEqual(['wire', 'preset', 'tone']);
    const song = newSong('x', 'Song');
    show = { ...show, songs: [song] };
    expect(steps(show, true)).toEqual(['wire', 'preset', 'tone', 'song']);
    show = { ...show, songs: [{ ...song, cues: [toneCue('c', 0, 't')] }] };
    expect(steps(show)).toEqual(['wire', 'preset', 'tone', 'song']);
    expect(steps(show, true)).toEqual(FIRST_STEPS);
  });

  it('is behind the demo show', () => {
    expect(steps(demo, true)).toEqual(FIRST_STEPS);
  });
});
