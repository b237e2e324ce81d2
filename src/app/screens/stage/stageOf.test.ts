import { describe, expect, it } from 'vitest';
import { demoShow } from '../../../core/demo';
import { actionCue, applyEdit, muteCues, songTime, toneCue } from '../../../core/show';
import { namedStops, partsOf, stageOf, tonesOf } from './stageOf';

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

  it('has every stop: what comes beside a tone is named, alone and together with it', () => {
    const mix = { kind: 'control', unitId: 'tarn', controlId: 'mix', value: 40 } as const;
    const [one, two] = [show.tones[0]!, show.tones[1]!];
    const cues = [
      toneCue('a', 3840, one.id),
      actionCue('b', 7680, mix),
      actionCue('c', 11_520, mix),
      toneCue('d', 11_520, two.id),
      actionCue('e', 15_360, { kind: 'move', moveId: show.moves[0]!.id }),
    ];
    const short = { ...song, cues, sweeps: [] };
    const own = { ...show, songs: [short, ...show.songs.slice(1)] };
    const names = namedStops(own, short).filter((p) => [3840, 7680, 11_520, 15_360].includes(p.at));
    expect(names.map((p) => [p.name, p.tone])).toEqual([
      [one.name, true],
      ['Tarn Mix 40 %', false],
      [`${two.name} · Tarn Mix 40 %`, true],
      [show.moves[0]!.name, false],
    ]);
    const at = stageOf(own, short, 7680);
    expect([at.now?.tone.id, at.beside?.name, at.next?.at]).toEqual([one.id, 'Tarn Mix 40 %', 11_520]);
    expect(stageOf(own, short, 11_520).beside).toBeUndefined();
  });
});
