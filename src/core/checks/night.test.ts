import { describe, expect, it } from 'vitest';
import { findingSentence } from '../../wording';
import { demoShow } from '../demo';
import { applyEdit, checkShow, newUnit, type Reaction, type Show, type SongEntry } from '../show';
import { checkRig, type Finding } from './';
import { tonightOf } from '../tonight';

const demo = demoShow();

const reaction = (
  id: string,
  does: Reaction['does'],
  hears: Partial<Reaction['hears']> = {},
  rest: Partial<Reaction> = {},
): Reaction => ({
  id,
  name: '',
  on: true,
  songId: null,
  hears: { portId: 'pads', kind: 'note', channel: 10, number: 36, low: 1, high: 127, ...hears },
  swallow: true,
  does,
  ...rest,
});
const STOP: Reaction['does'] = { kind: 'session', act: 'stop' };
const to = (portId: string, rest: Partial<Extract<Reaction['does'], { kind: 'message' }>> = {}): Reaction['does'] => ({
  kind: 'message',
  portId,
  channel: null,
  number: null,
  curve: { from: 0, to: 127, bend: 'straight' },
  ...rest,
});
const withReactions = (reactions: readonly Reaction[], from: Show = demo): Show => ({ ...from, reactions });
const night = (show: Show): readonly Finding[] => {
  expect(checkShow(show)).toEqual([]);
  return checkRig(tonightOf(show)).filter(
    (f) => f.code.startsWith('night') || f.code.startsWith('rig.firm') || f.code === 'rig.other-unit',
  );
};
const said = (show: Show): string[] => night(show).map(findingSentence);

/** The demo whose songs wait for messages; null for none. */
const launched = (...bytes: readonly (string | null)[]): Show => ({
  ...demo,
  sets: demo.sets.map((s) => {
    let i = 0;
    const entries = s.entries.map((e): typeof e => {
      const wants = e.kind === 'song' ? bytes[i++] : undefined;
      return wants ? { ...(e as SongEntry), launch: { portId: 'pads', bytes: wants, does: 'start' } } : e;
    });
    return { ...s, entries };
  }),
});

/** The demo with a unit on a port whose bytes come back to another. */
const looped: Show = {
  ...demo,
  units: [
    ...demo.units,
    newUnit('echo', 'Echo', 'EC', demo.units.find((u) => u.id === 'tarn')!.profile, {
      input: { from: 'port', portId: 'lamps' },
      channel: 16,
      listens: 16,
      returns: { portId: 'pads', thru: true },
    }),
  ],
};

describe('launches', () => {
  it('of two songs by one message are found, once', () => {
    const [first, second, third] = demo.songs.map((s) => s.title);
    expect(said(launched('C005', 'C006', 'C005'))).toEqual([
      `${first} and ${third} of Evening at the pier wait for the same message: only ${first} is started by it.`,
    ]);
    expect(said(launched('C005', 'C006'))).toEqual([]);
    expect(second).toBeDefined();
  });

  it('that a reaction swallows are found', () => {
    const show = withReactions([reaction('r', STOP, { kind: 'program', channel: 1, number: 5 })], launched('C005'));
    expect(said(show)).toEqual([expect.stringContaining('Reaction 1 swallows the message that')]);
    const passing = withReactions([{ ...show.reactions[0]!, swallow: false }], show);
    expect(said(passing)).toEqual([]);
    expect(said(withReactions([{ ...show.reactions[0]!, songId: demo.songs[0]!.id }], show))).toEqual([]);
    // A note that is struck is one with a velocity.
    expect(said(withReactions([reaction('r', STOP)], launched('9924')))).toHaveLength(1);
  });
});

describe('a reaction', () => {
  it('whose message comes back fires itself; switching it off is the fix', () => {
    const show = withReactions([reaction('r', to('lamps'))], looped);
    const [found] = night(show);
    expect(findingSentence(found!)).toBe('What reaction 1 sends comes back, and sets it off again without end.');
    expect(said(applyEdit(show, found!.fix!))).toEqual([]);
    expect(said(withReactions([reaction('r', to('rack'))], looped))).toEqual([]);
    expect(said(withReactions([reaction('r', to('lamps', { number: 37 }))], looped))).toEqual([]);
  });

  it('fires itself by way of others', () => {
    const there = reaction('there', to('lamps', { number: 37 }));
    const back = reaction('back', to('lamps', { number: 36 }), { number: 37 });
    expect(said(withReactions([there, back], looped))).toEqual([
      'What reaction 1 sends comes back by way of others, and sets it off again without end.',
      'What reaction 2 sends comes back by way of others, and sets it off again without end.',
    ]);
  });

  it('that sets a control whose message comes back fires itself', () => {
    const tarn = looped.units.find((u) => u.id === 'echo')!;
    const mix = tarn.profile.controls.find((c) => c.id === 'mix')!;
    const number = mix.encoding.kind === 'continuous' ? mix.encoding.number : 0;
    const does = {
      kind: 'control',
      unitId: 'echo',
      controlId: 'mix',
      curve: { from: 0, to: 100, bend: 'straight' },
    } as const;
    const show = withReactions([reaction('r', does, { kind: 'control', channel: 16, number, low: 0 })], looped);
    expect(said(show)).toHaveLength(1);
  });

  it('that never hears anything is found, with the one that swallows it', () => {
    const narrow = reaction('narrow', STOP);
    const wide = reaction('wide', STOP, { number: null, channel: null });
    expect(said(withReactions([wide, narrow]))).toEqual([
      'Reaction 1 swallows all that reaction 2 waits for: it never acts.',
    ]);
    expect(said(withReactions([narrow, wide]))).toEqual([]);
    expect(said(withReactions([{ ...wide, swallow: false }, narrow]))).toEqual([]);
    expect(said(withReactions([{ ...wide, songId: demo.songs[0]!.id }, narrow]))).toEqual([]);
    expect(said(withReactions([reaction('half', STOP, { high: 64 }), narrow]))).toEqual([]);
  });
});

describe('a trigger that also sounds', () => {
  const thru: Show = { ...demo, ports: demo.ports.map((p) => (p.id === 'rack' ? { ...p, softThru: true } : p)) };

  it('is found where its note is passed on, and is to go no further', () => {
    const show = withReactions([reaction('r', STOP, { portId: 'rack', channel: 1 }, { swallow: false })], thru);
    const found = night(show).find((f) => f.code === 'night.trigger-sounds')!;
    expect(findingSentence(found)).toContain(
      'The note that sets off reaction 1 also reaches Quillback, as it is passed on',
    );
    expect(said(applyEdit(show, found.fix!))).toEqual([]);
  });

  it('is found where a unit hangs behind the controller', () => {
    const wired: Show = {
      ...demo,
      units: demo.units.map((u) =>
        u.id === 'tarn' ? { ...u, input: { from: 'unit', unitId: 'pebble', thru: false }, listens: 'all' } : u,
      ),
    };
    const only = (show: Show) =>
      night(show)
        .filter((f) => f.code === 'night.trigger-sounds')
        .map(findingSentence);
    expect(only(withReactions([reaction('r', STOP)], wired))).toEqual([
      'The note that sets off reaction 1 also reaches Tarn, wired behind the controller: it may sound.',
    ]);
    const song = demo.songs[0]!.title;
    expect(only({ ...wired, sets: launched('9924').sets })).toEqual([
      `The note that starts ${song} also reaches Tarn, wired behind the controller: it may sound.`,
    ]);
  });
});

describe('a unit that answered', () => {
  const answered = (change: Partial<NonNullable<Show['units'][0]['answered']>>): Show => ({
    ...demo,
    units: demo.units.map((u) => (u.id === 'thistle' ? { ...u, answered: { ...u.profile.identity!, ...change } } : u)),
  });

  it('as its map is made for is well', () => {
    expect(said(answered({}))).toEqual([]);
  });

  it('with other firmware is found, and its map goes over to it where it has one', () => {
    const show = answered({ version: '03000000' });
    const [found] = night(show);
    expect(findingSentence(found!)).toMatch(
      /^Thistle Echo answered with version 03000000, but its map is for 02040000/,
    );
    expect(said(applyEdit(show, found!.fix!))).toEqual([]);
    expect(night(answered({ version: '09000000' }))[0]!.fix).toBeNull();
  });

  it('as another unit is found', () => {
    expect(said(answered({ family: '0F00' }))).toEqual([
      expect.stringContaining('Something else answered as Thistle Echo: 7D 0F00 0000 in place of'),
    ]);
  });
});
