import { timesFrom, exactly } from '../addressing';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { rigSpec } from '../meaning';
import {
  applyEdit,
  microsAt,
  newPart,
  newSong,
  newTone,
  setClock,
  songTime,
  toneCue,
  type Show,
  type Song,
} from '../show';
import { SimulatedRig } from '../simulate';
import { barAt } from '../time';
import { expectSame } from '../testing/expectSame';
import { randomShow } from '../testing/randomShow';
import { modelerProfile, testShow, testUnit } from '../testing/rigs';
import { runs } from '../testing/runs';
import { CATCH_UP_CUE, stateAt } from './catchUp';
import { lineInto, loopIn, loopRound } from './loop';
import { playLine } from './playLine';

const demo = demoShow();
const song = demo.songs[0]!;
const bar = (n: number) => barAt(songTime(song).bars, n).tick;

/** A rig that played from the start of a loop until its end, and so many rounds more; with the seam behind them, or without. */
function looped(show: Show, made: Song, from: number, to: number, rounds: number, seam: boolean): SimulatedRig {
  const rig = new SimulatedRig(rigSpec(show));
  const line = lineInto(show, made, playLine(show, made, from, {}), { from, to });
  const period = line.round!.to - line.round!.from;
  const all = [...line.events];
  for (let k = 1; k <= rounds; k++) all.push(...line.round!.events.map((e) => ({ ...e, at: e.at + k * period })));
  if (seam) {
    const back = line.round!.events.filter((e) => e.cueId === CATCH_UP_CUE);
    all.push(...back.map((e) => ({ ...e, at: e.at + (rounds + 1) * period })));
  }
  all.sort((a, b) => a.at - b.at);
  for (const e of all) rig.send(e.portId, e.at, e.bytes);
  rig.settle();
  return rig;
}

/** A random show with a stretch of its song that has a beat at its end in which nothing is due. */
const stretches = randomShow({ gap: 1920 }).chain(({ show, song: made }) =>
  fc.tuple(fc.nat(made.cues.length - 1), fc.nat(made.cues.length - 1)).map(([a, b]) => {
    const [first, last] = a < b ? [a, b] : [b, a];
    const from = made.cues[first]!.at;
    return { show, song: made, from, to: made.cues[last]!.at + 1919 };
  }),
);

describe('a loop', () => {
  it('brings the rig back at its seam to the state in which the stretch begins, and leaves each round as the first', () => {
    fc.assert(
      fc.property(stretches, fc.nat(3), ({ show, song: made, from, to }, rounds) => {
        fc.pre(to < songTime(made).end);
        // A switch that only turns over, in a state that nobody knows, comes out either way.
        fc.pre(!show.tones.some((t) => t.parts.some((p) => p.controls.some((c) => c.controlId === 'turn'))));
        expectSame(stateAt(show, made, to - 1), looped(show, made, from, to, rounds, false).state());
        expectSame(stateAt(show, made, from), looped(show, made, from, to, rounds, true).state());
      }),
      runs(41, 40),
    );
  });

  it('calls a preset in every round that nobody knew where it begins: it brings along in each what it brought in the first', () => {
    const unit = demo.units.find((u) => u.id === 'tarn')!;
    const mix = newTone('mix', 'Mix', [newPart('tarn', { controls: [{ controlId: 'mix', value: 80 }] })]);
    const preset = newTone('preset', 'Preset', [newPart('tarn', { slotId: unit.slots[0]!.id })]);
    const made: Song = {
      ...newSong('s', 'S'),
      cues: [toneCue('a', 0, 'mix'), toneCue('b', 1920, 'preset')],
    };
    const show: Show = { ...demo, tones: [mix, preset], songs: [made], openingToneId: null };
    for (const rounds of [0, 1, 2]) {
      expectSame(stateAt(show, made, 3839), looped(show, made, 0, 3840, rounds, false).state());
    }
  });

  it('is complete at its seam: no unit loads, and each is as the song has it there', () => {
    const [from, to] = [bar(5), bar(13)];
    const line = lineInto(demo, song, playLine(demo, song, from, {}), { from, to });
    const { round } = line;
    const rig = new SimulatedRig(rigSpec(demo));
    const period = round!.to - round!.from;
    const all = [...line.events, ...round!.events.map((e) => ({ ...e, at: e.at + period }))];
    for (const e of all.toSorted((a, b) => a.at - b.at)) rig.send(e.portId, e.at, e.bytes);
    rig.advance(round!.to);
    expect(round!.events.some((e) => e.cueId === CATCH_UP_CUE)).toBe(true);
    expectSame(stateAt(demo, song, from), rig.state());
  });

  it('says which unit is not back at its seam, and by how much, as a rig that plays it shows', () => {
    const slow = testUnit('u0', 1, {
      ...modelerProfile,
      times: timesFrom({ recall: 180, variant: 12, control: 5, settle: 40 }, exactly),
    });
    const on = (id: string, slot: number) => newTone(id, id, [newPart('u0', { slotId: `u0-s${slot}` })]);
    // The last change lies 104 ms before the end of the stretch: the first preset cannot be there again on its beat.
    const made: Song = {
      ...newSong('s', 'S', { bars: 4 }),
      cues: [toneCue('a', 0, 'one'), toneCue('b', 3840 - 200, 'two')],
    };
    const show: Show = { ...testShow([slow]), tones: [on('one', 9), on('two', 18)], songs: [made] };
    const { seam, from, to } = loopRound(show, made, { from: 0, to: 3840 });
    expect(seam.map((l) => l.unitId)).toEqual(['u0']);
    const line = lineInto(show, made, playLine(show, made, 0, {}), { from: 0, to: 3840 });
    const rig = new SimulatedRig(rigSpec(show));
    const all = [...line.events, ...line.round!.events.map((e) => ({ ...e, at: e.at + to - from }))];
    for (const e of all.toSorted((a, b) => a.at - b.at)) rig.send(e.portId, e.at, e.bytes);
    rig.settle();
    const back = rig.trace.find((t) => t.kind === 'changed' && t.at > to - 1000 && t.state.slot === 9);
    expect(back!.at - to).toBeCloseTo(seam[0]!.late, 3);
    expect(loopRound(show, made, { from: 0, to: 7680 }).seam).toEqual([]);
  });

  it('has nothing of what lies behind its end, also not what would leave ahead of it', () => {
    const { events } = loopRound(demo, song, { from: bar(5), to: bar(13) });
    const ids = new Set(events.map((e) => e.cueId));
    for (const cue of song.cues) expect(ids.has(cue.id)).toBe(cue.at > bar(5) && cue.at < bar(13));
    expect(events.every((e) => e.at < microsAt(songTime(song), bar(13)))).toBe(true);
    expect(events.map((e) => e.at)).toEqual(events.map((e) => e.at).toSorted((a, b) => a - b));
  });

  it('takes what follows a clock back with stop, position and continue, and goes on without a gap', () => {
    const show = applyEdit(demo, setClock(demo, song.id, 'rack', 'clock')!);
    const made = show.songs[0]!;
    const [from, to] = [bar(5), bar(7)];
    const { events, from: begin, to: end } = loopRound(show, made, { from, to });
    const ticks = events.filter((e) => e.bytes[0] === 0xf8);
    expect(ticks).toHaveLength(((to - from) / 960) * 24);
    const heads = events.filter((e) => [0xfc, 0xf2, 0xfb].includes(e.bytes[0]!));
    expect(heads.map((e) => e.bytes[0])).toEqual([0xfc, 0xf2, 0xfb]);
    expect(heads.at(-1)!.at).toBeLessThan(ticks[0]!.at);
    const gaps = ticks.slice(1).map((e, i) => e.at - ticks[i]!.at);
    const across = ticks[0]!.at + (end - begin) - ticks.at(-1)!.at;
    expect(Math.abs(across - gaps[5]!)).toBeLessThan(2000);
  });

  it('ends where the song does, and is none where nothing of it is left', () => {
    const { end } = songTime(song);
    expect(loopIn(song, { from: 0, to: end * 2 })).toEqual({ from: 0, to: end });
    expect(loopIn(song, { from: end, to: end * 2 })).toBeNull();
    expect(loopIn(song, { from: 960, to: 960 })).toBeNull();
    const behind = playLine(demo, song, bar(13), {});
    expect(lineInto(demo, song, behind, { from: bar(5), to: bar(13) })).toBe(behind);
  });
});
