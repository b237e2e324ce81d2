import { describe, expect, it } from 'vitest';
import { linear, newControl, onOff, type Profile } from '../addressing';
import type { Place } from '../problems';
import { modelerProfile } from '../testing/rigs';
import { profileProblems } from './profileProblems';

const place = (...path: (string | number)[]): Place => ({ in: 'show', path: ['units', 0, 'profile', ...path] });
const found = (change: Partial<Profile>) =>
  profileProblems('Sandbar', { ...modelerProfile, ...change }, place).map((p) => ({ code: p.code, place: p.place }));
const codes = (change: Partial<Profile>): string[] => found(change).map((p) => p.code);

describe('what is wrong with a profile by itself', () => {
  it('is nothing of one that is sound', () => {
    expect(found({})).toEqual([]);
  });

  it('has its plan, with the place', () => {
    const [group] = modelerProfile.plan.groups;
    const plan = { ...modelerProfile.plan, groups: [group!, group!] };
    const [first] = found({ plan });
    expect(first!.code).toMatch(/^plan\./);
    expect(first!.place).toEqual(place('plan'));
  });

  it('has encodings of variants, controls and switches, each by its name', () => {
    const wrong = { kind: 'table', number: 60, values: [1, 1] } as const;
    expect(codes({ controls: [newControl('a', 'Amp', wrong)] })[0]).toMatch(/^encoding\./);
    expect(codes({ senders: [{ id: 's', name: 'Pad', channel: 1, encoding: wrong }] as never })[0]).toMatch(
      /^encoding\./,
    );
    expect(codes({ variants: { word: 'scene', names: ['1', '2'], encoding: wrong } })[0]).toMatch(/^encoding\./);
  });

  it('lets a number that MIDI keeps for itself pass: that is a finding, and the show opens', () => {
    expect(codes({ controls: [newControl('a', 'Amp', onOff(120))] })).toEqual([]);
  });

  it('has a rest out of its control’s range, and none for what keeps no value', () => {
    const level = newControl('a', 'Level', linear(7, 0, 100, '%'));
    expect(found({ controls: [{ ...level, rest: 101 }] })).toEqual([
      { code: 'show.value-range', place: place('controls', 0, 'rest') },
    ]);
    expect(
      found({
        controls: [
          { ...level, rest: 100 },
          { ...level, id: 'b', rest: null },
        ],
      }),
    ).toEqual([]);
  });

  it('has variants that their encoding does not reach, or does not count from 0', () => {
    const names = ['1', '2', '3', '4'];
    const few = { kind: 'index', number: 85, base: 0, step: 1, count: 3 } as const;
    expect(found({ variants: { word: 'scene', names, encoding: few } })).toEqual([
      { code: 'show.variants-reach', place: place('variants') },
    ]);
    expect(codes({ variants: { word: 'scene', names: names.slice(0, 3), encoding: few } })).toEqual([]);
  });
});
