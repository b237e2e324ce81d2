import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { libraryProfile } from '../../library';
import {
  applyEdit,
  changeFeet,
  checkShow,
  feetOf,
  invertEdit,
  newFootSwitch,
  newUnit,
  pagesOf,
  putFootSwitches,
} from '../../show';
import { largeSet } from '../../testing/rigs';
import { runs } from '../../testing/runs';
import { reachOf } from '../fallback';
import { placeCost, placesOf, type PageAsk, type Place } from './problem';
import { proposePages, type PagePlan } from './proposePages';
import { propose, takeProposal, toneOn, tonesInUse } from './proposal';

/** A floor of switches, some songs, tones that stay where they are. */
const ask: fc.Arbitrary<PageAsk> = fc
  .record({
    columns: fc.integer({ min: 1, max: 5 }),
    rows: fc.integer({ min: 1, max: 2 }),
    songs: fc.array(fc.uniqueArray(fc.nat(11), { maxLength: 9 }), { minLength: 1, maxLength: 6 }),
    pins: fc.array(fc.tuple(fc.nat(9), fc.option(fc.nat(11), { nil: null })), { maxLength: 2 }),
    fixed: fc.array(fc.tuple(fc.nat(9), fc.option(fc.nat(11), { nil: null })), { maxLength: 2 }),
    pages: fc.integer({ min: 0, max: 14 }),
    turns: fc.constantFrom('jump' as const, 'jump' as const, 'step' as const, 'none' as const),
  })
  .map(({ columns, rows, songs, pins, fixed, pages, turns }) => {
    const places = placesOf({
      ...libraryProfile('foot-controller').controller!,
      switches: Array.from({ length: columns * rows }, (_, i) => ({
        id: `s${i}`,
        row: Math.floor(i / columns),
        column: i % columns,
      })),
    });
    const on = (list: readonly (readonly [number, number | null])[]) =>
      new Map(
        list
          .filter(([s]) => s < places.length)
          .map(([s, tone]): [string, string | null] => [`s${s}`, tone === null ? null : `t${tone}`]),
      );
    return {
      places,
      songs: songs.map((tones, i) => ({
        songId: `song${i}`,
        tones: tones.map((t) => `t${t}`),
        fixed: i === 0 ? on(fixed) : new Map<string, string | null>(),
      })),
      pins: on(pins),
      pages,
      turns,
    };
  });

const tonesOf = (plan: PagePlan, songId: string): string[] =>
  plan.pages
    .filter((p) => p.songId === songId || p.sharedWith.includes(songId))
    .flatMap((p) => p.tones.map((t) => t.toneId));

describe('a proposal of pages', () => {
  it('loses no tone: each is on a page of its song, or said to be left', () => {
    fc.assert(
      fc.property(ask, (a) => {
        const plan = proposePages(a);
        for (const { songId, tones } of a.songs) {
          const left = plan.left.filter((l) => l.songId === songId).map((l) => l.toneId);
          const placed = new Set(tonesOf(plan, songId));
          expect([...placed].filter((id) => left.includes(id) && !a.pins.size)).toEqual([]);
          for (const id of tones) expect(placed.has(id) || left.includes(id)).toBe(true);
        }
        expect(plan.pages.length).toBeLessThanOrEqual(a.pages);
      }),
      runs(1201, 400),
    );
  });

  it('leaves what is pinned where it is, and puts one thing on a switch', () => {
    fc.assert(
      fc.property(ask, (a) => {
        for (const page of proposePages(a).pages) {
          const song = a.songs.find((s) => s.songId === page.songId)!;
          const used = [...page.tones.map((t) => t.switchId), ...page.jumps.map((j) => j.switchId)];
          expect(new Set(used).size).toBe(used.length);
          // A tone stands once on a page, but where somebody put it twice.
          const by = page.tones.filter((t) => t.why !== 'pinned').map((t) => t.toneId);
          expect(new Set(by).size).toBe(by.length);
          const stands = new Set(page.tones.filter((t) => t.why === 'pinned').map((t) => t.toneId));
          expect(by.filter((id) => stands.has(id))).toEqual([]);
          const stays = new Map([...(page.part === 0 ? song.fixed : []), ...a.pins]);
          for (const [switchId, toneId] of stays) {
            expect(page.tones.find((t) => t.switchId === switchId)?.toneId ?? null).toBe(toneId);
            expect(page.jumps.some((j) => j.switchId === switchId)).toBe(false);
          }
        }
      }),
      runs(1202, 400),
    );
  });

  it('has tones of most songs in one place on every page, and every tone at most one jump away', () => {
    fc.assert(
      fc.property(ask, (a) => {
        const plan = proposePages(a);
        for (const id of plan.core) {
          const places = plan.pages.flatMap((p) => p.tones.filter((t) => t.toneId === id && t.why === 'core'));
          expect(new Set(places.map((t) => t.switchId)).size).toBeLessThanOrEqual(1);
        }
        for (const page of plan.pages.filter((p) => p.part > 0)) {
          for (const songId of [page.songId, ...page.sharedWith]) {
            const first = plan.pages.find((p) => p.songId === songId && p.part === 0)!;
            if (a.turns === 'jump') {
              expect(first.jumps.some((j) => j.to === page.key)).toBe(true);
              expect(page.jumps.some((j) => j.to === first.key)).toBe(true);
            } else expect(page.part).toBe(1);
          }
        }
      }),
      runs(1203, 400),
    );
  });

  it('costs as little as the best of all ways, tried one by one', () => {
    const small = ask.filter((a) => a.places.length <= 4 && a.pages >= a.songs.length);
    let tried = 0;
    fc.assert(
      fc.property(small, (a) => {
        const plan = proposePages(a);
        const one = plan.pages.every((p) => p.part === 0) && plan.left.length === 0;
        if (!one) return;
        tried += 1;
        expect(plan.cost.core + plan.cost.rest).toBe(bruteForce(a, plan.core));
      }),
      runs(1204, 600),
    );
    expect(tried).toBeGreaterThan(0);
  });

  it('runs in reading order, and goes for the middle at the feet where the order does not say', () => {
    const places = placesOf(libraryProfile('foot-controller').controller!);
    const near = places.filter((p) => p.order >= 5);
    expect(near.toSorted((x, y) => x.reach - y.reach)[0]!.id).toBe('switch-3');
    expect(places[0]).toMatchObject({ id: 'switch-6', order: 0 });
    const plan = proposePages({
      places,
      songs: [{ songId: 'a', tones: ['x', 'y', 'z'], fixed: new Map() }],
      pins: new Map(),
      pages: 1,
      turns: 'jump',
    });
    expect(plan.pages[0]!.tones.map((t) => t.switchId)).toEqual(['switch-6', 'switch-7', 'switch-8']);
    // A tone of every song that this one does not use is where it is nearest.
    expect(placeCost(places[7]!, 7)).toBeLessThan(placeCost(places[0]!, 0));
  });

  it('has a second page, one jump away, where a song has more tones than switches', () => {
    const places = placesOf(libraryProfile('foot-controller').controller!);
    const many = Array.from({ length: 16 }, (_, i) => `t${i}`);
    const base = { places, songs: [{ songId: 'a', tones: many, fixed: new Map() }], pins: new Map(), pages: 4 };
    const jumping = proposePages({ ...base, turns: 'jump' });
    expect(jumping.pages).toHaveLength(2);
    expect(jumping.left).toEqual([]);
    expect(jumping.pages[0]!.jumps).toEqual([{ switchId: 'switch-10', to: 'a/1' }]);
    expect(jumping.pages[1]!.jumps).toEqual([{ switchId: 'switch-10', to: 'a/0' }]);
    expect(proposePages({ ...base, turns: 'none' }).left).toHaveLength(6);
    expect(proposePages({ ...base, pages: 0, turns: 'jump' }).left).toHaveLength(16);
  });
});

/** The smallest sum of costs there is: every place of the shared tones, and with each every place of the others. */
function bruteForce(a: PageAsk, core: readonly string[]): number {
  const pinned = new Set(a.pins.values());
  const songs = a.songs.map((song) => {
    const fixed = new Map([...song.fixed].filter(([id]) => !a.pins.has(id)));
    const ranked = song.tones.filter((t) => !pinned.has(t) && ![...fixed.values()].includes(t));
    return { fixed, ranked };
  });
  const free = (except: ReadonlySet<string>): Place[] => a.places.filter((p) => !except.has(p.id));
  const taken = new Set([...a.pins.keys(), ...songs.flatMap((s) => [...s.fixed.keys()])]);
  let best = Infinity;
  // A shared tone that stays on one switch of some page stands there on all.
  const held = core.flatMap((toneId): [string, Place][] => {
    const ids = new Set(songs.flatMap((s) => [...s.fixed].flatMap(([id, tone]) => (tone === toneId ? [id] : []))));
    const place = a.places.find((p) => ids.size === 1 && ids.has(p.id));
    return place ? [[toneId, place]] : [];
  });
  const sure = new Map(held);
  const open = core.filter((t) => !sure.has(t));
  for (const found of ways(open, free(taken))) {
    const way = core.map((t) => sure.get(t) ?? found[open.indexOf(t)]!);
    const shared = core.map((t, i) => {
      const costs = songs.map(({ ranked }) => {
        const rank = ranked.indexOf(t);
        return rank < 0 ? way[i]!.reach : placeCost(way[i]!, rank);
      });
      return sum(costs);
    });
    const own = songs.map(({ fixed, ranked }) => {
      const tones = ranked.filter((t) => !core.includes(t));
      const left = free(new Set([...a.pins.keys(), ...fixed.keys(), ...way.map((p) => p.id)]));
      const costs = [...ways(tones, left)].map((w) => sum(tones.map((t, i) => placeCost(w[i]!, ranked.indexOf(t)))));
      return Math.min(...costs);
    });
    best = Math.min(best, sum(shared) + sum(own));
  }
  return best;
}

const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);

function* ways(tones: readonly string[], places: readonly Place[]): Generator<readonly Place[]> {
  if (tones.length === 0) yield [];
  else
    for (const place of places) {
      for (const way of ways(
        tones.slice(1),
        places.filter((p) => p !== place),
      ))
        yield [place, ...way];
    }
}

describe('a proposal for a show', () => {
  const show = demoShow();

  it('of the demo finds the pages as they are', () => {
    const proposal = propose(show, 'treadle')!;
    expect(proposal.moves).toEqual([]);
    expect(proposal.left).toEqual([]);
    expect(takeProposal(show, proposal, () => 'never')).toBeNull();
    expect(propose(show, 'quillback')).toBeNull();
  });

  it('makes pages from nothing that reach every tone of the set by one press, in the order of the set', () => {
    const bare = applyEdit(
      show,
      changeFeet(show, 'treadle', (f) => ({ ...f, pages: [] }))!,
    );
    const proposal = propose(bare, 'treadle')!;
    let n = 0;
    const edit = takeProposal(bare, proposal, () => `new-${n++}`)!;
    const after = applyEdit(bare, edit);
    expect(checkShow(after)).toEqual([]);
    expect(applyEdit(after, invertEdit(edit))).toEqual(bare);
    const songs = after.songs.filter((s) => s.id !== '');
    expect(reachOf(after, 'treadle', songs).map((r) => r.presses)).toEqual(
      reachOf(after, 'treadle', songs).map(() => 1),
    );
    expect(pagesOf(after, 'treadle').map((p) => p.songId)).toEqual(show.songs.map((s) => s.id));
    expect(propose(after, 'treadle')!.moves).toEqual([]);
  });

  it('moves round a pin, says what moved and why, and keeps what somebody put there by hand', () => {
    const page = pagesOf(show, 'treadle')[1]!;
    const pin = newFootSwitch('switch-6', [{ kind: 'tone', toneId: 'ledger-echo' }], { pinned: true });
    const own = newFootSwitch('switch-8', [{ kind: 'move', moveId: 'four-taps' }]);
    const pinned = applyEdit(show, putFootSwitches(show, 'treadle', page.id, [pin, own])!);
    const proposal = propose(pinned, 'treadle')!;
    expect(proposal.moves.length).toBeGreaterThan(0);
    const after = applyEdit(
      pinned,
      takeProposal(pinned, proposal, () => 'x')!,
    );
    const now = feetOf(after, 'treadle').pages.find((p) => p.id === page.id)!;
    expect(now.switches).toContainEqual(pin);
    expect(now.switches).toContainEqual(own);
    // Harbour Clean, which was there, is in another place now, the same on every page.
    const where = (toneId: string) =>
      new Set(
        pagesOf(after, 'treadle')
          .filter((p) => p.songId !== null)
          .map((p) => p.switches.find((s) => toneOn(s) === toneId)?.id),
      );
    expect(where('harbour-clean').size).toBe(1);
    expect(where('harbour-clean').has('switch-6')).toBe(false);
    expect(proposal.moves.some((m) => m.toneId === 'harbour-clean' && m.why === 'core')).toBe(true);
  });

  it('does not put a tone a second time on a page where it is pinned, and moves it to that place on the others', () => {
    const page = pagesOf(show, 'treadle')[1]!;
    const free = show.units
      .find((u) => u.id === 'treadle')!
      .profile.controller!.switches.find(
        (s) => !feetOf(show, 'treadle').everywhere.switches.some((e) => e.id === s.id),
      )!;
    const pin = newFootSwitch(free.id, [{ kind: 'tone', toneId: 'harbour-clean' }], { pinned: true });
    const pinned = applyEdit(show, putFootSwitches(show, 'treadle', page.id, [pin])!);
    const proposal = propose(pinned, 'treadle')!;
    for (const p of proposal.pages) {
      expect(p.tones.filter((t) => t.toneId === 'harbour-clean').map((t) => t.switchId)).toEqual([free.id]);
    }
    const first = proposal.pages.find((p) => p.songId === page.songId)!;
    expect(proposal.moves.filter((m) => m.songId === first.songId && m.toneId === 'harbour-clean')).toEqual([]);
    const after = applyEdit(
      pinned,
      takeProposal(pinned, proposal, () => 'x')!,
    );
    for (const p of pagesOf(after, 'treadle').filter((p) => p.songId !== null)) {
      expect(p.switches.filter((s) => toneOn(s) === 'harbour-clean').map((s) => s.id)).toEqual([free.id]);
    }
  });

  it('knows which tones a song uses, in the order of their first use', () => {
    const song = show.songs[0]!;
    expect(tonesInUse(show, song).slice(0, 3)).toEqual(['still-water', 'harbour-clean', 'ledger-rhythm']);
  });

  it('for twenty songs of twelve tones on ten switches places all of them', () => {
    const large = largeSet(newUnit('feet', 'Feet', 'FT', libraryProfile('foot-controller')), 20, 12);
    const plan = propose(large, 'feet')!;
    // 32 pages are fewer than two a song: second pages are shared.
    expect(plan.left).toEqual([]);
    expect(plan.pages.length).toBeLessThanOrEqual(32);
    let n = 0;
    const after = applyEdit(
      large,
      takeProposal(large, plan, () => `page-${n++}`)!,
    );
    expect(checkShow(after)).toEqual([]);
    const presses = reachOf(after, 'feet', after.songs).map((r) => r.presses);
    expect(presses.every((p) => p === 1 || p === 2 || p === 3)).toBe(true);
    expect(propose(after, 'feet')!.pages.map((p) => p.key)).toEqual(plan.pages.map((p) => p.key));
  });
});
