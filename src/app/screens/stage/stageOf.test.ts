import { describe, expect, it } from 'vitest';
import { demoShow } from '../../../core/demo';
import { muteCues, applyEdit, songTime } from '../../../core/show';
import { partsOf, stageOf, tonesOf } from './stageOf';

const show = demoShow();
const song = show.songs[0]!;
const first = song.cues[0]!;

describe('what is read on stage', () => {
  it('is the tone that is on and the one that comes, the opening first', () => {
    const opening = stageOf(show, song, 0);
    expect(opening.now!.tone.id).toBe(show.openingToneId);
    expect(opening.next!.at).toBe(first.at);
    const at = stageOf(show, song, first.at);
    expect(at.now!.at).toBe(first.at);
    expect(stageOf(show, song, first.at - 2).now!.tone.id).toBe(show.openingToneId);
    expect(stageOf(show, song, songTime(song).end).next).toBeUndefined();
  });

  it('leaves out what is muted', () => {
    const muted = applyEdit(show, muteCues(show, song.id, new Set([first.id]), true)!);
    expect(tonesOf(muted, muted.songs[0]!)).toHaveLength(tonesOf(show, song).length - 1);
  });

  it('has of a player what their units were told last, by whichever tone', () => {
    const all = tonesOf(show, song);
    for (const { id } of show.players) {
      const parts = partsOf(show, song, songTime(song).end, id);
      expect(parts.size).toBeGreaterThan(0);
      for (const [unitId, part] of parts) {
        expect(show.units.find((u) => u.id === unitId)!.playerId).toBe(id);
        expect(all.findLast((p) => p.tone.parts.some((x) => x.unitId === unitId))!.tone.parts).toContain(part);
      }
    }
  });
});
