import { describe, expect, it } from 'vitest';
import { newSong, newTone, toneCue, type Show, newSlot } from '../show';
import { rigSpec, songWants } from '../meaning';
import { modelerProfile, testShow, testUnit } from '../testing/rigs';
import { dryRun } from '../simulate';
import { compileSong } from './compileSong';

/** The worked example: due at 10.000 s, slot 47 with bank MSB, variant 3, delay on. */
function workedShow(): Show {
  const unit = testUnit('a', 1, modelerProfile, {
    slots: [newSlot('s47', 47, 'Fog Lead')],
  });
  const tone = newTone('t', 'Fog Lead', [
    { unitId: 'a', slotId: 's47', variant: 2, controls: [{ controlId: 'delay', value: 1 }], effects: [] },
  ]);
  return { ...testShow([unit]), tones: [tone] };
}

// 120 beats a minute: 20 quarters are 10 s.
const at10s = 20 * 960;

describe('compileSong', () => {
  it('sends the worked example to the microsecond', () => {
    const show = workedShow();
    const song = { ...newSong('x', 'X'), cues: [toneCue('c', at10s, 't')] };
    const { events, forecasts } = compileSong(show, song);
    expect(events.map((e) => [Math.round(e.at * 1000) / 1000, ...e.bytes])).toEqual([
      [9_818_400, 0xb0, 0, 0],
      [9_819_360, 0xc0, 47],
      [9_987_040, 0xb0, 85, 2],
      [9_994_040, 0xb0, 52, 127],
    ]);
    expect(forecasts).toHaveLength(1);
    expect(forecasts[0]!.complete).toBeCloseTo(10_000_000, 3);
  });

  it('says how late the worked example is when the song starts at 9.9 s', () => {
    const show = workedShow();
    const song = { ...newSong('x', 'X'), preRoll: 0, cues: [toneCue('c', 192, 't')] }; // due 100 ms after the start
    const { events, forecasts } = compileSong(show, song);
    expect(events[0]!.at).toBeCloseTo(0, 3);
    expect(forecasts[0]!.complete - forecasts[0]!.due).toBeCloseTo(81_600, 3);
  });

  it('forecasts what the simulated rig then does from the bytes', () => {
    const show = workedShow();
    const song = { ...newSong('x', 'X'), cues: [toneCue('c', at10s, 't')] };
    const { events } = compileSong(show, song);
    const { verdicts } = dryRun(rigSpec(show), events, songWants(show, song));
    expect(verdicts).toMatchObject([{ cueId: 'c', unitId: 'a', outcome: 'on-time' }]);
    expect(verdicts[0]!.offset).toBeCloseTo(0, 3);
  });
});
