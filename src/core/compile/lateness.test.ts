import { describe, expect, it } from 'vitest';
import { newSong, newTone, toneCue, type Show, type Song } from '../show';
import { modelerProfile, testShow, testUnit } from '../testing/rigs';
import { compileSong, type CompiledSong } from './compileSong';

/** One modeler on a 5-pin port: recall 180 ms, settle 40, variant 12, control 5. */
const units = [testUnit('u0', 1, modelerProfile), testUnit('u1', 2, modelerProfile)];
const slot = (unitId: string, n: number) => ({
  unitId,
  slotId: `${unitId}-s${n}`,
  variant: null,
  controls: [],
  effects: [],
});

function compiled(change: Partial<Song>, tones: Show['tones']): CompiledSong {
  const song = { ...newSong('s', 'S', { bpm: 60 }), ...change };
  return compileSong({ ...testShow(units, 'din'), tones, songs: [song] }, song);
}

const tones = [
  newTone('a', 'A', [slot('u0', 9)]),
  newTone('b', 'B', [slot('u0', 18)]),
  newTone('c', 'C', [slot('u1', 9)]),
];

describe('lateness', () => {
  it('is nothing where everything has its time', () => {
    expect(compiled({ cues: [toneCue('x', 960, 'a'), toneCue('y', 1920, 'b')] }, tones).lates).toEqual([]);
  });

  it('says when the song starts too soon', () => {
    const { lates } = compiled({ preRoll: 100, openingToneId: 'a' }, tones);
    expect(lates).toHaveLength(1);
    const [late] = lates;
    expect(late).toMatchObject({ cueId: 'opening', unitId: 'u0', cause: { kind: 'start', has: 100_000 } });
    expect(late!.cause).toHaveProperty('needs');
    // What it needs beyond what it has is what it is late by.
    if (late!.cause.kind === 'start') expect(late!.cause.needs - late!.cause.has).toBeCloseTo(late!.late, 3);
  });

  it('waits for a change that is sent on its beat: its sound is heard before the next takes its place', () => {
    // Half a second after the first beat of it, a preset that takes 180 ms has time; a quarter of one is too short.
    const sent = toneCue('x', 960, 'a', { landing: 'sent' });
    const enough = compiled({ cues: [sent, toneCue('y', 960 + 480, 'b')] }, tones);
    expect(enough.lates).toEqual([]);
    const short = compiled({ cues: [sent, toneCue('y', 960 + 240, 'b')] }, tones);
    expect(short.lates.map((l) => [l.cueId, l.cause.kind])).toEqual([['y', 'previous']]);
    // Both come in the end, one after the other.
    const [x, y] = ['x', 'y'].map((id) => short.forecasts.find((f) => f.cueId === id)!.complete);
    expect(y! - x!).toBeGreaterThan(180_000);
  });

  it('says when the change before is too near, and which it is', () => {
    // 48 ticks at 60 are 50 ms.
    const { lates } = compiled({ cues: [toneCue('x', 960, 'a'), toneCue('y', 1008, 'b')] }, tones);
    expect(lates.map((l) => l.cueId)).toContain('y');
    const late = lates.find((l) => l.cueId === 'y')!;
    expect(late.cause).toMatchObject({ kind: 'previous', cueId: 'x' });
    if (late.cause.kind === 'previous') expect(late.cause.has).toBeCloseTo(50_000, 6);
  });

  it('says when the cable is busy, and with whom', () => {
    const message = (id: string) => ({
      ...toneCue(id, 960, 'c'),
      landing: 'sent' as const,
      action: { kind: 'message' as const, unitId: 'u1', bytes: `f0${'01'.repeat(120)}f7` },
    });
    // 40 ms of system exclusive leave on the beat; a change that is to be sent on it has to wait.
    const { lates } = compiled({ cues: [message('m'), { ...toneCue('x', 960, 'a'), landing: 'sent' }] }, tones);
    expect(lates.some((l) => l.cause.kind === 'cable' && l.cause.others.length > 0)).toBe(true);
  });
});
