import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { UNKNOWN_STATE, type RigState } from '../rig';
import { microsAt, songTime } from '../show';
import { moments, rigSpec, songWants } from '../meaning';
import { SimulatedRig, dryRun, type Verdict } from '../simulate';
import { nominal } from '../simulate/judgeStates';
import { heldBefore, thrusTo } from '../simulate/unitLine';
import { randomShow, type RandomChoice } from '../testing/randomShow';
import { anyShow } from '../testing/varied';
import { catchUp, stateAt } from './catchUp';
import { compileSong } from './compileSong';
import { expectSame } from '../testing/expectSame';
import { runs } from '../testing/runs';

/** Songs with time between their cues, songs whose cues cross each other, and dense ones with bytes as they stand. */
const SONGS: readonly (readonly [string, RandomChoice, share: number])[] = [
  ['in order', { gap: 960 }, 1],
  ['crossing', { gap: 960, shifts: true }, 1],
  ['dense', { gap: 96, shifts: true }, 1],
  ['with bytes as they stand', { gap: 480, shifts: true, raw: true }, 1],
  ['sent down a chain', { gap: 1440, sentDownChain: true }, 1],
  ['three deep', { gap: 960, deep: true }, 0.3],
  ['three deep and crossing', { gap: 480, deep: true, shifts: true, crowded: true }, 0.3],
  ['crowded on two ports', { gap: 96, twoPorts: true, crowded: true }, 0.5],
];

describe('what the compiler promises', () => {
  it.each(SONGS)('is what the simulated rig does, to the microsecond: %s', (_, choice, share) => {
    fc.assert(
      fc.property(anyShow(choice), ({ show, song }) => {
        const compiled = compileSong(show, song);
        const rig = new SimulatedRig(rigSpec(show));
        for (const e of compiled.events) rig.send(e.portId, e.at, e.bytes);
        rig.settle();
        // System exclusive reaches every unit; one that it is not meant for may well be settling. What two
        // rules of one change call, the first of them settling, is the map's own word.
        const relayed = new Set(show.units.flatMap((u) => u.relays.map((r) => r.toUnitId)));
        const lost = rig.trace.filter(
          (t) => t.kind === 'ignored' && t.why === 'settling' && t.bytes[0] !== 0xf0 && !relayed.has(t.unitId),
        );
        expect(lost).toEqual([]);
        for (const promised of compiled.forecasts) {
          const change = rig.trace.find(
            (t) => t.kind === 'changed' && t.unitId === promised.unitId && Math.abs(t.at - promised.complete) < 1,
          );
          expect(change, `${promised.cueId} on ${promised.unitId}`).toBeDefined();
        }
      }),
      runs(31, 300 * share),
    );
  });

  it('is judged on time exactly where the forecast is', () => {
    fc.assert(
      fc.property(randomShow(1920), ({ show, song }) => {
        const compiled = compileSong(show, song);
        const { verdicts } = dryRun(rigSpec(show), compiled.events, songWants(show, song));
        for (const verdict of verdicts) {
          const cue = song.cues.find((c) => c.id === verdict.cueId)!;
          if (cue.landing === 'sent' || verdict.outcome === 'never' || verdict.reason.kind === 'already') continue;
          // A switch that only turns over, from a state that nobody knows, may come to be right by a later cue.
          const tone = show.tones.find((t) => cue.action.kind === 'tone' && t.id === cue.action.toneId);
          if (tone?.parts.some((p) => p.controls.some((c) => c.controlId === 'turn'))) continue;
          const promised = compiled.forecasts.find((f) => f.cueId === verdict.cueId && f.unitId === verdict.unitId);
          if (!promised) continue;
          const late = promised.complete - promised.due > 2000.02;
          expect(verdict.outcome === 'late', JSON.stringify({ verdict, promised })).toBe(late);
        }
      }),
      runs(32, 200),
    );
  });

  it.each(SONGS)('leaves the rig where the fold over the show says: %s', (_, choice, share) => {
    fc.assert(
      fc.property(anyShow(choice), ({ show, song }) => {
        const rig = new SimulatedRig(rigSpec(show));
        for (const e of compileSong(show, song).events) rig.send(e.portId, e.at, e.bytes);
        rig.settle();
        expectSame(stateAt(show, song, 1e9), rig.state());
      }),
      runs(33, 200 * share),
    );
  });

  it('is late by no more than is said, where messages are sent down a chain of units that tell each other', () => {
    fc.assert(
      fc.property(anyShow({ gap: 3840, sentDownChain: true }), ({ show, song }) => {
        fc.pre(!show.tones.some((t) => t.parts.some((p) => p.controls.some((c) => c.controlId === 'turn'))));
        const compiled = compileSong(show, song);
        const spec = rigSpec(show);
        const wants = songWants(show, song);
        const said = new Map<string, number>();
        for (const { cueId, late } of compiled.lates) said.set(cueId, Math.max(said.get(cueId) ?? 0, late));
        const excess = ({ cueId, unitId, offset }: Verdict): number => {
          const unit = spec.units.find((u) => u.id === unitId)!;
          const own = wants
            .filter((w) => w.cueId === cueId && w.unitId === unitId)
            .map((w) => nominal({ planned: unit, thrus: thrusTo(spec, unit), held: heldBefore(spec, unit) }, w));
          // Of what is wanted twice of a unit, a preset that it is told and values of its own, one takes longer.
          return offset! - Math.max(...own) - 2000 - (said.get(cueId) ?? 0);
        };
        const { verdicts } = dryRun(spec, compiled.events, wants);
        const bad = (v: Verdict): boolean =>
          v.outcome === 'never' ? !said.has(v.cueId) : v.outcome === 'late' && excess(v) > 0;
        expect(verdicts.filter(bad)).toEqual([]);
      }),
      runs(39, 40),
    );
  });

  it('is on time wherever nothing is said to be late, told units and reloads among them', () => {
    fc.assert(
      fc.property(anyShow({ gap: 1920, raw: true }), ({ show, song }) => {
        const compiled = compileSong(show, song);
        fc.pre(compiled.lates.length === 0);
        // A switch that only turns over may be in a state that nobody knows.
        fc.pre(!show.tones.some((t) => t.parts.some((p) => p.controls.some((c) => c.controlId === 'turn'))));
        const { verdicts } = dryRun(rigSpec(show), compiled.events, songWants(show, song));
        expect(verdicts.filter((v) => v.outcome === 'late' || v.outcome === 'never')).toEqual([]);
      }),
      runs(38, 200),
    );
  });
});

describe('catch-up', () => {
  // What is sent down a chain is caught up as what is complete on its beat: the same states.
  it.each(SONGS.filter(([, choice]) => !choice.sentDownChain))(
    'brings the rig to any place from any other, and from nowhere: %s',
    (_, choice, share) => {
      fc.assert(
        fc.property(anyShow(choice), fc.nat(), fc.option(fc.nat()), ({ show, song }, to, from) => {
          const place = song.cues[to % song.cues.length]!.at;
          const wanted = stateAt(show, song, place);
          // Where a program came before any bank, nobody knows which preset it called, nor what that told others.
          fc.pre(!show.units.some((u) => u.relays.length > 0 && wanted[u.id]?.slot === null));
          const rig = new SimulatedRig(rigSpec(show));
          let known: RigState = {};
          let now = 0;
          if (from !== null) {
            const start = song.cues[from % song.cues.length]!.at;
            const until = microsAt(songTime(song), start);
            const ids = new Set(
              moments(show, song)
                .filter((m) => m.due <= until + 1)
                .map((m) => m.id),
            );
            for (const e of compileSong(show, song).events) if (ids.has(e.cueId)) rig.send(e.portId, e.at, e.bytes);
            rig.settle();
            known = stateAt(show, song, start);
            now = until + 1e7;
          }
          const { events } = catchUp(show, known, wanted);
          for (const e of events) rig.send(e.portId, now + e.at, e.bytes);
          rig.settle();
          expectSame(wanted, rig.state());
        }),
        runs(34, 400 * share),
      );
    },
  );

  it('reaches a place from its checkpoints as by going through the whole song', () => {
    const withShifts = fc
      .tuple(randomShow(960), fc.array(fc.integer({ min: -900, max: 900 }), { minLength: 1, maxLength: 9 }))
      .map(([{ show, song }, shifts]) => {
        // Neighbours may change places in time.
        const cues = song.cues.map((c, i) => ({ ...c, shift: shifts[i % shifts.length]! }));
        const shifted = { ...song, cues };
        return { show: { ...show, songs: [shifted] }, song: shifted };
      });
    fc.assert(
      fc.property(
        withShifts,
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 12 }),
        (made, places) => {
          const { show, song } = made;
          const { end } = songTime(song);
          for (const place of [0, ...places, 1]) {
            const at = Math.floor(place * end);
            // Something known before the song has the whole of it gone through.
            const { ghost: _, ...slow } = stateAt(show, song, at, { ghost: UNKNOWN_STATE });
            expect(stateAt(show, song, at)).toEqual(slow);
          }
        },
      ),
      runs(35, 60),
    );
  });

  it('sends nothing from a place to itself', () => {
    fc.assert(
      fc.property(randomShow(960), ({ show, song }) => {
        const state = stateAt(show, song, song.cues.at(-1)!.at);
        expect(catchUp(show, state, state).events).toEqual([]);
      }),
      runs(35, 100),
    );
  });
});
