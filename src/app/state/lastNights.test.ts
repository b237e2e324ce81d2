import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { Shelf } from '../persistence/db';
import { KEPT_NIGHTS, keepNight, loadNights } from '../persistence/nights';
import { createLastNights, leftOf, nearestFirst, nightOf, useLastNights, type PlayedNight } from './lastNights';

const at = (text: string): number => new Date(text).getTime();
const EVENING = at('2026-12-01T20:00:00');

let now = EVENING;
let kept: PlayedNight[] = [];
let margins: Readonly<Record<string, number>> = {};
const nights = createLastNights({
  store: useLastNights,
  now: () => now,
  show: () => ({ id: 'show', titleOf: (songId) => `Song ${songId}` }),
  marginOf: (songId, cueId, unitId) => margins[`${songId} ${cueId} ${unitId}`] ?? null,
  load: () => Promise.resolve([]),
  keep: (night) => kept.push(night),
});
const message = (songId: string, cueId: string, unitId: string, late: number | null, planned = 4_000_000) =>
  nights.left({ songId, cueId, unitId, planned }, late);
const stop = (follows = false) => nights.hear([{ kind: 'stopped', why: 'asked', follows }]);

beforeEach(async () => {
  now = EVENING;
  kept = [];
  margins = {};
  await nights.follow('show');
});

describe('a night that was played', () => {
  it('has each change with what was planned, the latest of its messages, and what it had left', () => {
    margins = { 'a c1 u': 7000, 'a c1 v': 3500 };
    message('a', 'c1', 'u', 0, 4_000_000);
    message('a', 'c1', 'u', 2.04, 4_001_000);
    message('a', 'c1', 'v', 3.3);
    message('a', 'c2', 'v', 0);
    stop();
    expect(kept).toHaveLength(1);
    expect(kept[0]).toMatchObject({ showId: 'show', id: '2026-12-01', songs: [{ title: 'Song a', messages: 4 }] });
    expect(kept[0]!.songs[0]!.changes).toEqual([
      { cueId: 'c1', unitId: 'u', planned: 4001, late: 2, margin: 7 },
      { cueId: 'c1', unitId: 'v', planned: 4000, late: 3.3, margin: 3.5 },
      { cueId: 'c2', unitId: 'v', planned: 4000, late: 0, margin: null },
    ]);
    const order = nearestFirst(kept[0]!.songs).map(({ change, left }) => [change.cueId + change.unitId, left]);
    expect(order.map(([id]) => id)).toEqual(['c1v', 'c1u', 'c2v']);
    expect(order[0]![1]).toBeCloseTo(0.2, 6);
    expect(order[2]![1]).toBeNull();
  });

  it('holds song after song; one that follows begins with its own first message', () => {
    message('a', 'c', 'u', 0);
    message('b', 'c', 'u', 0);
    // The first is said to be over when messages of the next have left already.
    stop(true);
    message('b', 'd', 'u', 0);
    stop();
    stop();
    expect(kept.at(-1)!.songs.map((s) => [s.songId, s.messages])).toEqual([
      ['a', 1],
      ['b', 2],
    ]);
    expect(useLastNights.getState().nights).toEqual([kept.at(-1)]);
  });

  it('goes on after midnight, until six in the morning', () => {
    expect(nightOf(at('2026-12-02T01:30:00'))).toBe('2026-12-01');
    expect(nightOf(at('2026-12-02T06:30:00'))).toBe('2026-12-02');
    message('a', 'c', 'u', 0);
    stop();
    now = at('2026-12-02T00:20:00');
    message('b', 'c', 'u', 0);
    stop();
    now = at('2026-12-02T20:00:00');
    message('a', 'c', 'u', 0);
    stop();
    expect(useLastNights.getState().nights.map((n) => [n.id, n.songs.length])).toEqual([
      ['2026-12-02', 1],
      ['2026-12-01', 2],
    ]);
  });

  it('has what never left first, and nothing where nothing was played on a real port', () => {
    stop();
    expect(kept).toEqual([]);
    margins = { 'a c u': 100, 'a d u': 9000 };
    message('a', 'c', 'u', 0.05);
    message('a', 'd', 'u', null);
    message('a', 'd', 'u', 5);
    stop();
    const [worst] = nearestFirst(kept[0]!.songs);
    expect(worst).toMatchObject({ change: { cueId: 'd', late: null }, left: Number.NEGATIVE_INFINITY });
    expect(leftOf({ late: 9, margin: 7 })).toBe(-2);
  });
});

describe('kept nights', () => {
  const night = (id: string, showId = 'show'): PlayedNight => ({ showId, id, songs: [] });

  it('are the newest, by show; a damaged row is left out', async () => {
    const shelf = new Shelf('nights');
    const days = Array.from({ length: KEPT_NIGHTS + 3 }, (_, i) => `2026-11-${String(i + 10)}`);
    for (const day of days.toReversed()) await keepNight(shelf, night(day));
    await keepNight(shelf, night('2026-11-01', 'other'));
    await shelf.nights.put({ showId: 'show', id: '2026-12-31', songs: 'none' } as never);
    expect((await loadNights(shelf, 'show')).map((n) => n.id)).toEqual(days.slice(3).toReversed());
    expect(await loadNights(shelf, 'other')).toHaveLength(1);
  });
});
