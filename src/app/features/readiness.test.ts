import { describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { applyEdit, setMissing, setTonight, songsOfSet } from '../../core/show';
import { readiness, type ReadyFacts } from './readiness';

const show = demoShow();
const bound = { standIn: false, out: { key: 'o', name: 'Box', maker: '', twins: 1, place: 0 }, in: null };
const ready: ReadyFacts = {
  uses: Object.fromEntries(show.ports.map((p) => [p.id, bound])),
  lost: [],
  refusing: [],
  markOf: () => 'lit',
  findings: 0,
  ways: {},
  muted: 0,
  sound: null,
};
const texts = (facts: Partial<ReadyFacts>, of = show): readonly string[] =>
  readiness(of, { ...ready, ...facts }).map((l) => l.text);
const guesses = texts({});

describe('what is not ready for a show', () => {
  it('is what stands on guesses, where all else is well', () => {
    expect(guesses).toHaveLength(1);
    expect(guesses[0]).toMatch(/^Times of .+ are guesses\.$/);
  });

  it('are ports without a real one, those that are gone, and those that take nothing', () => {
    const { rack: _, ...others } = ready.uses;
    const name = show.ports.find((p) => p.id === 'rack')!.name;
    expect(texts({ uses: others })[0]).toBe(`${name}: only stand-ins hear it, no real port is chosen.`);
    expect(texts({ lost: ['rack'] })[0]).toBe(`${name}: the real port is not connected.`);
    expect(texts({ refusing: ['rack'] })[0]).toBe(`${name}: the real port takes no messages.`);
  });

  it('are songs that fail or are not proven, and open findings', () => {
    const [first, second] = songsOfSet(show);
    const marks = new Map([
      [first!.id, 'cracked'],
      [second!.id, 'hollow'],
    ] as const);
    expect(texts({ markOf: (id) => marks.get(id) ?? 'lit', findings: 2 }).slice(0, 3)).toEqual([
      `Something does not land in ${first!.title}.`,
      '1 song is not proven.',
      '2 findings are open.',
    ]);
  });

  it('is practice, which the start itself ends', () => {
    const lines = readiness(show, { ...ready, ways: { [show.songs[0]!.id]: { speed: 0.7, loop: null } }, muted: 1 });
    expect(lines.filter((l) => l.mends).map((l) => l.text)).toEqual([
      `Practice is on in ${show.songs[0]!.title}: the start ends it.`,
      'Lanes are muted or heard alone: the start ends that.',
    ]);
    expect(texts({ ways: { [show.songs[0]!.id]: { speed: 1, loop: null } } })).toEqual(guesses);
  });

  it('is what differs tonight, and sound that does not run', () => {
    const away = applyEdit(show, setMissing(show, show.players[0]!.id, true)!);
    const tonight = applyEdit(away, setTonight(away, 'tarn', { how: 'off', unitId: 'tarn' })!);
    const lines = texts({ sound: 'No sound.' }, tonight);
    expect(lines).toContain(`Missing tonight: ${show.players[0]!.name}.`);
    expect(lines).toContain('Off tonight: Tarn.');
    expect(lines.find((l) => l.startsWith('Tarn: '))).toMatch(/left out\.$/);
    expect(lines.at(-1)).toBe('No sound.');
  });

  it('is a set without a song', () => {
    const none = { ...show, sets: show.sets.map((s) => ({ ...s, entries: [] })) };
    expect(texts({}, none)[0]).toMatch(/has no song\.$/);
  });
});
