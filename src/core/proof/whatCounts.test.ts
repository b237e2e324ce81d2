import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exactly } from '../addressing';
import { compileSong, fingerprints } from '../compile';
import { demoShow } from '../demo';
import { groupBy } from '../groups';
import { rigSpec, sameToWires, songWants, surroundingsOf } from '../meaning';
import { applyEdit, changeCue, checkShow, showSchema, type Show } from '../show';
import { proofRun } from '../simulate';
import { randomShow } from '../testing/randomShow';
import { runs } from '../testing/runs';

/** What is put in the place of a value, one after the other: the nearest other ones of its kind. */
function others(value: unknown): readonly unknown[] {
  if (typeof value === 'number') return [value + 1, value + 40, value / 2];
  if (typeof value === 'boolean') return [!value];
  if (value === null) return [7, exactly(400)];
  return [];
}

type Path = readonly (string | number)[];

/** All places of a document that hold a number, a truth or nothing. */
function leaves(value: unknown, path: Path = []): Path[] {
  if (typeof value !== 'object' || value === null) return others(value).length > 0 ? [path] : [];
  return Object.entries(value).flatMap(([key, inner]) =>
    leaves(inner, [...path, Array.isArray(value) ? Number(key) : key]),
  );
}

function withLeaf(value: unknown, [key, ...rest]: Path, leaf: (old: unknown) => unknown): unknown {
  if (key === undefined) return leaf(value);
  const inner = withLeaf((value as Record<string, unknown>)[key], rest, leaf);
  if (Array.isArray(value)) return value.with(Number(key), inner);
  return { ...(value as object), [key]: inner };
}

/** What a show's only song sends, how each of its changes lands, and the fingerprints of its cues. */
function outcome(show: Show) {
  const song = show.songs[0]!;
  const compiled = compileSong(show, song);
  const wants = songWants(show, song);
  const { verdicts } = proofRun(rigSpec(show), compiled.events, wants, show.tolerance);
  const sent = compiled.events.map(({ at, bytes, portId }) => [at, [...bytes], portId]);
  const cues = groupBy(
    verdicts.map(({ cueId, outcome: how, offset, margin }) => ({ cueId, how, offset, margin })),
    (v) => v.cueId,
  );
  const landed = new Map([...cues].map(([cueId, list]) => [cueId, JSON.stringify(list)]));
  const how = new Map([...cues].map(([cueId, list]) => [cueId, list.map((v) => v.how).join()]));
  return {
    text: JSON.stringify([sent, [...landed]]),
    landed,
    how,
    prints: fingerprints(show, compiled, wants, 'engine'),
  };
}

/** So many units of the demo show: a modeler, an amplifier that it tells, what hangs behind them. */
const PLAYED = 4;

/** A part of the demo show: one short song, and of its rig what that song plays. */
function smallShow(): Show {
  const demo = demoShow();
  const song = demo.songs[0]!;
  const cues = song.cues.slice(0, 3);
  const used = new Set(cues.flatMap((c) => (c.action.kind === 'tone' ? [c.action.toneId] : [])));
  const tones = demo.tones.filter((t) => used.has(t.id) || t.id === demo.openingToneId);
  const slots = new Set(tones.flatMap((t) => t.parts.flatMap((p) => p.slotId ?? [])));
  for (const unit of demo.units) for (const r of unit.relays) slots.add(r.toSlotId).add(r.when.slotId ?? '');
  const units = demo.units
    .slice(0, PLAYED)
    .map((u) => ({ ...u, slots: u.slots.filter((s) => slots.has(s.id)), relays: u.relays.slice(0, 4) }));
  const known = new Set(units.map((u) => u.id));
  const frame = {
    reactions: [],
    feet: [],
    moves: [],
    core: [],
    sets: demo.sets.slice(0, 1).map((s) => ({ ...s, entries: [] })),
  };
  const small = { ...song, cues, sweeps: song.sweeps.slice(0, 1), taps: song.taps.slice(0, 1) };
  return {
    ...demo,
    ...frame,
    setId: demo.sets[0]!.id,
    songs: [small],
    tones: tones.map((t) => ({ ...t, parts: t.parts.filter((p) => known.has(p.unitId)) })),
    units,
  };
}

describe('a song under other surroundings', () => {
  const show = smallShow();
  const [song] = show.songs;
  const before = outcome(show);
  const under = surroundingsOf(show);
  const frame = { ...show, songs: [] };
  const isGood = (next: Show): boolean => showSchema.safeParse(next).success && checkShow(next).length === 0;
  /** What is no show at all is not asked about. */
  const seemsSame = (next: Show): boolean => {
    try {
      return sameToWires(song!, under, surroundingsOf(next));
    } catch {
      return false;
    }
  };

  /** The show with one value of its rig, its map or its frame changed: each in turn, in a few ways. */
  function* changed(only?: RegExp): Generator<{ readonly what: string; readonly next: Show }> {
    for (const path of leaves(frame)) {
      if (only && !only.test(path.join('.'))) continue;
      const old = path.reduce<unknown>((at, key) => (at as Record<string, unknown>)[key], frame);
      for (const other of others(old)) {
        const next = { ...(withLeaf(frame, path, () => other) as Show), songs: show.songs };
        yield { what: `${path.join('.')}: ${JSON.stringify(other)}`, next };
      }
    }
  }

  it('is a show that could be opened', () => {
    expect(checkShow(show)).toEqual([]);
    expect(before.landed.size).toBeGreaterThan(3);
  });

  it('is known to come out otherwise, whichever value it hangs on', () => {
    const unseen: string[] = [];
    let looked = 0;
    for (const { what, next } of changed()) {
      if (!seemsSame(next) || !isGood(next)) continue;
      looked += 1;
      if (outcome(next).text !== before.text) unseen.push(what);
    }
    expect(unseen).toEqual([]);
    expect(looked).toBeGreaterThan(50);
  });

  it('has another fingerprint of each cue that lands otherwise, or with another margin', () => {
    const unseen: string[] = [];
    let otherwise = 0;
    for (const { what, next } of changed(
      /^(ports|tolerance|margin|guard|units\.\d\.(margin|guard|channel|listens|profile\.times))/,
    )) {
      if (!isGood(next)) continue;
      const after = outcome(next);
      for (const [cueId, text] of after.landed) {
        if (text === before.landed.get(cueId)) continue;
        otherwise += 1;
        if (after.prints.get(cueId) === before.prints.get(cueId)) unseen.push(`${what}, ${cueId}`);
      }
    }
    expect(unseen).toEqual([]);
    expect(otherwise).toBeGreaterThan(100);
  });
});

describe('an edit of one cue', () => {
  it('gives every cue another fingerprint that comes to be late, lost or in time by it', () => {
    let otherwise = 0;
    fc.assert(
      fc.property(
        randomShow({ gap: 96, twoPorts: true, crowded: true }),
        fc.nat(11),
        fc.integer({ min: 1, max: 300 }),
        ({ show: drawn, song: of }, at, shift) => {
          const show = { ...drawn, margin: 5, guard: 3, songs: [of] };
          const cue = of.cues[at % of.cues.length]!;
          const edit = changeCue(show, of.id, cue.id, { shift });
          if (!edit) return;
          const [before, after] = [outcome(show), outcome(applyEdit(show, edit))];
          for (const [cueId, text] of after.how) {
            if (text === before.how.get(cueId)) continue;
            otherwise += 1;
            expect(after.prints.get(cueId), `${cue.id} shifted, ${cueId} lands otherwise`).not.toBe(
              before.prints.get(cueId),
            );
          }
        },
      ),
      runs(4242, 60),
    );
    expect(otherwise).toBeGreaterThan(0);
  });
});
