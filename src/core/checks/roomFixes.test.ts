import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exactly, type Profile } from '../addressing';
import { compileSong } from '../compile';
import { rigSpec, songWants } from '../meaning';
import {
  applyEdit,
  checkShow,
  newPart,
  newPort,
  newSong,
  newTone,
  toneCue,
  type Cue,
  type Show,
  type Song,
  type Unit,
} from '../show';
import { leastOf, proofRun, roomOf, worstOfEach } from '../simulate';
import { randomShow } from '../testing/randomShow';
import { modelerProfile, testShow, testUnit } from '../testing/rigs';
import { runs } from '../testing/runs';
import { tonightOf } from '../tonight';
import { roomFixes } from './roomFixes';

const BAR = 3840;
/** A bar lasts 2 s: so many ticks of a millisecond. */
const MILLI = 1.92;

const slow: Profile = {
  ...modelerProfile,
  times: { ...modelerProfile.times, recall: exactly(180), settle: exactly(180) },
};

/** A rig with margins of 5 ms and guards of 3, and a song of it. */
function rigged(units: readonly Unit[], song: Partial<Song>, more: Partial<Show> = {}): Show {
  const base = testShow(units);
  const tones = units.flatMap((u) => [
    newTone(`${u.id}-low`, `${u.name} low`, [newPart(u.id, { slotId: `${u.id}-s0` })]),
    newTone(`${u.id}-high`, `${u.name} high`, [newPart(u.id, { slotId: `${u.id}-s9`, variant: 1 })]),
  ]);
  return {
    ...base,
    margin: 5,
    guard: 3,
    tones,
    songs: [{ ...newSong('s', 'S', { bars: 8 }), openingToneId: 'u-low', ...song }],
    ...more,
  };
}

/** What is offered for a cue on the unit `u`, with the room that it has in a run of its own after the edit. */
function offered(show: Show, cueId: string, unitId = 'u') {
  const change = { cueId, unitId };
  return roomFixes(tonightOf(show), show.songs[0]!, change).map((fix) => {
    const after = applyEdit(show, fix.edit);
    expect(checkShow(after)).toEqual([]);
    const song = after.songs[0]!;
    const { verdicts } = proofRun(rigSpec(after), compileSong(after, song).events, songWants(after, song));
    const verdict = worstOfEach(verdicts).find((v) => v.cueId === cueId && v.unitId === unitId)!;
    if (fix.remedy.how === 'leave') {
      expect(verdict).toBeUndefined();
      return `leave ${fix.remedy.name}`;
    }
    expect(verdict.outcome).toBe('on-time');
    expect(roomOf(verdict)).toBeCloseTo(fix.room, 0);
    return `${fix.remedy.how} ${fix.remedy.millis} ${fix.remedy.name}: ${(leastOf(verdict.margin!) / 1000).toFixed(1)}`;
  });
}

describe('what gives a change more room', () => {
  it('is to leave earlier, where nothing stands in the way', () => {
    const u = testUnit('u', 1, modelerProfile, { name: 'Tarn' });
    const show = rigged([u], { cues: [toneCue('c', 4 * BAR, 'u-high')] });
    // 7 ms before: 5 of margin and the 2 that count as on time.
    expect(offered(show, 'c')[0]).toBe('earlier 10 Tarn: 12.0');
  });

  it('is to let it settle for longer, where what follows a recall would be lost', () => {
    const u = testUnit('u', 1, slow, { name: 'Tarn' });
    const show = rigged([u], { cues: [toneCue('c', 4 * BAR, 'u-high')] });
    expect(offered(show, 'c')).toContain('guard 10 Tarn: 7.0');
  });

  it('is to come a little later, where the change before it stands too near', () => {
    const u = testUnit('u', 1, modelerProfile);
    const cues = [toneCue('b', 4 * BAR, 'u-high'), toneCue('c', 4 * BAR + Math.round(182 * MILLI), 'u-low')];
    const show = rigged([u], { cues });
    const [first] = offered(show, 'c');
    expect(first).toMatch(/^shift \d+ : \d/);
  });

  it('is another port, where many units change on one cable within a few milliseconds', () => {
    const ids = ['u', 'v', 'w', 'x', 'y', 'z'];
    const units = ids.map((id, i) => testUnit(id, i + 1, modelerProfile));
    const controls = (value: number) => ['delay', 'mix'].map((controlId) => ({ controlId, value }));
    const all = (name: string, slot: number, value: number) =>
      newTone(
        name,
        name,
        ids.map((id) => newPart(id, { slotId: `${id}-s${slot}`, variant: 1, controls: controls(value) })),
      );
    const cues = [toneCue('b', 4 * BAR, 'low'), toneCue('c', 4 * BAR + Math.round(186 * MILLI), 'high')];
    const tones = [all('low', 0, 0), all('high', 9, 1)];
    const show = rigged(units, { cues, openingToneId: null }, { tones });
    const free = { ...show, ports: [...show.ports, newPort('p2', 'Board', 'din')] };
    expect(offered(free, 'c', 'z')).toEqual(['shift 1 : 5.1', 'port 1 Board: 7.0']);
    // A port that something is on already is no way out.
    expect(offered(show, 'c', 'z')).toEqual(['shift 1 : 5.1']);
  });

  it('is a variant of the preset that is on, called like what is wanted', () => {
    const names = ['Clean', 'Lead', '3', '4', '5', '6', '7', '8'];
    const named = { ...modelerProfile, variants: { ...modelerProfile.variants!, names } };
    const u = testUnit('u', 1, named, { name: 'Tarn' });
    // 60 ms after a change: a preset that takes 180 comes late, a scene of 12 does not.
    const cues = [toneCue('b', 4 * BAR, 'u-low'), toneCue('c', 4 * BAR + Math.round(60 * MILLI), 'u-high')];
    const show = rigged([u], { cues, openingToneId: 'u-high' });
    const says = offered(show, 'c');
    expect(says.some((s) => s.startsWith('variant') && s.includes('scene Lead'))).toBe(true);
    // The gentlest first: what comes later at all is a move of 100 ms and more.
    expect(says.length).toBeLessThanOrEqual(3);
  });

  it('is the beat itself, where a preset cannot be there on it', () => {
    const u = testUnit('u', 1, modelerProfile);
    const cues = [toneCue('b', 4 * BAR, 'u-high'), toneCue('c', 4 * BAR + Math.round(60 * MILLI), 'u-low')];
    const says = offered(rigged([u], { cues }), 'c').map((s) => s.split(' ')[0]);
    expect(says).toEqual(['shift', 'sent']);
  });

  it('is the beat before, or one unit less, where a change misses: what somebody who knows the music may take', () => {
    const u = testUnit('u', 1, modelerProfile, { name: 'Tarn' });
    const close = 4 * BAR + 960 - Math.round(60 * MILLI);
    const cues = [toneCue('b', close, 'u-high'), toneCue('c', 4 * BAR + 960, 'mid')];
    const withMid = (of: readonly Cue[]): Show => {
      const base = rigged([u], { cues: [...of] });
      return { ...base, tones: [...base.tones, newTone('mid', 'Mid', [newPart('u', { slotId: 'u-s0', variant: 1 })])] };
    };
    const says = (show: Show) => offered(show, 'c').map((s) => s.split(' ').slice(0, 3).join(' '));
    const [, , third] = offered(withMid(cues), 'c');
    expect(third).toMatch(/^before \d+ 5\|1: /);
    // A beat that something stands on already is no way out.
    const taken = [toneCue('a', 4 * BAR, 'u-low'), ...cues];
    expect(says(withMid(taken)).some((s) => s.startsWith('before'))).toBe(false);
    const v = testUnit('v', 2, modelerProfile, { name: 'Harrow' });
    const both = newTone('both', 'Both', [newPart('u', { slotId: 'u-s0' }), newPart('v', { slotId: 'v-s0' })]);
    const base = rigged([u, v], {});
    const two = [toneCue('b', 4 * BAR, 'u-high'), toneCue('c', 4 * BAR + Math.round(60 * MILLI), 'both')];
    const show = { ...base, tones: [...base.tones, both], songs: [{ ...base.songs[0]!, cues: two }] };
    const [way] = roomFixes(tonightOf(show), show.songs[0]!, { cueId: 'c', unitId: 'u' }).slice(-1);
    expect(way!.remedy).toMatchObject({ how: 'leave', name: 'Tarn' });
    const after = applyEdit(show, way!.edit);
    const cue = after.songs[0]!.cues.find((c) => c.id === 'c')!;
    const tone = after.tones.find((t) => cue.action.kind === 'tone' && t.id === cue.action.toneId)!;
    expect(tone).toMatchObject({ name: 'Both without Tarn', parts: [{ unitId: 'v' }] });
    expect(after.tones.find((t) => t.id === 'both')).toBe(both);
  });

  it('is to have the unit that tells it leave earlier, where a unit is told', () => {
    const told = testUnit('u', 2, modelerProfile, {
      name: 'Oxbow',
      input: { from: 'unit', unitId: 'v', thru: false },
    });
    const relays = [{ id: 'r', when: { slotId: 'v-s9', variant: null }, toUnitId: 'u', toSlotId: 'u-s9' }];
    const teller = testUnit('v', 1, modelerProfile, { name: 'Tarn', relays });
    const show = rigged(
      [teller, told],
      { cues: [toneCue('c', 4 * BAR, 'told')], openingToneId: null },
      {
        tones: [newTone('told', 'Told', [newPart('v', { slotId: 'v-s9' }), newPart('u', { slotId: 'u-s9' })])],
      },
    );
    expect(offered(show, 'c')[0]).toBe('earlier 10 Tarn: 6.0');
  });

  it('is nothing for a change that is not there', () => {
    const u = testUnit('u', 1, modelerProfile);
    expect(offered(rigged([u], {}), 'gone')).toEqual([]);
  });
});

describe('what is offered on random crowded shows', () => {
  it('helps, is at most three, and takes nothing from other changes', () => {
    let count = 0;
    fc.assert(
      fc.property(
        randomShow({ gap: 480, twoPorts: true, crowded: true }),
        fc.nat(),
        ({ show: plain, song: drawn }, which) => {
          const show = { ...plain, margin: 5, guard: 3 };
          const run = (of: Show) => {
            const song = of.songs.find((s) => s.id === drawn.id)!;
            const { events } = compileSong(of, song);
            return worstOfEach(proofRun(rigSpec(of), events, songWants(of, song), of.tolerance).verdicts);
          };
          const before = run(show);
          fc.pre(before.length > 0);
          const change = before[which % before.length]!;
          const fixes = roomFixes(
            tonightOf(show),
            show.songs.find((s) => s.id === drawn.id)!,
            change,
          );
          expect(fixes.length).toBeLessThanOrEqual(3);
          for (const { edit, room, remedy } of fixes) {
            count += 1;
            const after = run(applyEdit(show, edit));
            const own = after.find((v) => v.cueId === change.cueId && v.unitId === change.unitId);
            // A unit that is left as it is has nothing to land.
            expect(own?.outcome ?? remedy.how).toBe(own ? 'on-time' : 'leave');
            if (own) expect(roomOf(own)).toBe(room);
            const missed = new Set(before.filter((v) => v.outcome !== 'on-time').map((v) => v.cueId + v.unitId));
            const misses = after.filter((v) => v.outcome !== 'on-time' && !missed.has(v.cueId + v.unitId));
            expect(misses.filter((v) => before.some((b) => b.cueId + b.unitId === v.cueId + v.unitId))).toEqual([]);
          }
        },
      ),
      runs(4141, 30),
    );
    expect(count).toBeGreaterThan(0);
  });
});
