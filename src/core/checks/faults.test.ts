import { describe, expect, it } from 'vitest';
import { findingSentence, fixWords } from '../../wording';
import { compileSong } from '../compile';
import { FAULTS, demoShow, faultyDemo } from '../demo';
import { applyEdit, checkShow, messageCue, newSong, newSweep, type Show } from '../show';
import { rigSpec, songWants } from '../meaning';
import { dryRun } from '../simulate';
import { SONG_CHECKS, checkRig, checkSong, type Finding } from './';
import { tonightOf } from '../tonight';

/** All findings of a show, with a dry run of every song that is not the same as in another. */
function all(show: Show, sameAs?: Show): Finding[] {
  const spec = rigSpec(show);
  const songs = show.songs.filter((s) => show.units !== sameAs?.units || !sameAs.songs.includes(s));
  return [
    ...checkRig(tonightOf(show)),
    ...songs.flatMap((song) => {
      const compiled = compileSong(show, song);
      return checkSong(tonightOf(show), song, { compiled, dry: dryRun(spec, compiled.events, songWants(show, song)) });
    }),
  ];
}

const demo = demoShow();
const codes = (list: readonly Finding[]): Set<string> => new Set(list.map((f) => f.code));

describe('findings', () => {
  it('are none in the mended demo', () => {
    expect(all(demo).map(findingSentence)).toEqual([]);
  });

  it('are all in the faulty one, which is still a sound show', () => {
    const faulty = faultyDemo();
    expect(checkShow(faulty)).toEqual([]);
    const found = codes(all(faulty));
    expect(FAULTS.map((f) => f.code).filter((code) => !found.has(code))).toEqual([]);
  });

  it('have a fault each', () => {
    expect(new Set(FAULTS.map((f) => f.code)).size).toBe(FAULTS.length);
    expect(SONG_CHECKS.length).toBeGreaterThan(10);
  });

  it('say why a change is late, and move it by just what is missing', () => {
    const show = FAULTS.find((f) => f.code === 'song.late')!.into(demo);
    const late = all(show, demo).find((f) => f.code === 'song.late' && f.data.unit === 'Quillback');
    if (late?.code !== 'song.late') throw new Error('not found');
    // A sixteenth at 100 quarters a minute is 75 ms; the modeler takes longer.
    expect(late.data.cause).toMatchObject({ kind: 'previous' });
    expect(findingSentence(late)).toMatch(
      /^Early Gull, .*Quillback is .* ms late, because it takes .* only 75 ms earlier\.$/,
    );
    expect(late.data.fix).toMatchObject({ how: 'shift' });
    const worst = Math.max(...all(show, demo).map((f) => (f.code === 'song.late' ? f.data.millis : 0)));
    expect(late.data.fix!.millis - worst).toBeLessThan(0.3);
    expect(fixWords(late)).toMatch(/^Move it .* ms later$/);
    const mended = applyEdit(show, late.fix!);
    expect(all(mended, demo).filter((f) => f.code === 'song.late')).toEqual([]);
  });

  it('thin a sweep that leaves no room for a long message', () => {
    const Q = 960;
    const marram = demo.units.find((u) => u.id === 'marram')!;
    const blend = marram.profile.controls.find((c) => c.id === 'blend')!;
    const song = {
      ...newSong('crowded', 'Crowded', { bpm: 100, bars: 12 }),
      openingToneId: 'still-water',
      sweeps: [newSweep('s', marram, blend, 8 * Q, 12 * Q)],
      cues: [{ ...messageCue('long', 10 * Q, 'quillback', `f07d${'11'.repeat(120)}f7`), landing: 'complete' as const }],
    };
    const show: Show = { ...demo, songs: [...demo.songs, song] };
    const late = all(show, demo).find((f) => f.code === 'song.late' && f.data.fix?.how === 'thinner');
    if (late?.code !== 'song.late') throw new Error('not found');
    expect(late.data.cause).toMatchObject({ kind: 'cable' });
    expect(fixWords(late)).toMatch(/^Thin the sweep: a value every .* ms$/);
    expect(all(applyEdit(show, late.fix!), demo).filter((f) => f.code === 'song.late')).toEqual([]);
  });

  it.each(FAULTS.map((f) => [f.code, f] as const))(
    'find %s alone, say it, and mend it where there is a fix',
    (code, fault) => {
      // The lamp that never changes is deaf only together with its channel.
      const base = code === 'song.never' ? FAULTS[0]!.into(demo) : demo;
      let show = fault.into(base);
      expect(checkShow(show)).toEqual([]);
      const found = all(show, base).filter((f) => f.code === code);
      expect(found.length).toBeGreaterThan(0);
      for (const f of found) {
        expect(findingSentence(f)).toMatch(/^["A-Z].*\.$/);
        expect(findingSentence(f)).not.toMatch(/undefined|NaN|\[object/);
      }
      // A fix at a time, until none is left that has one.
      for (let rounds = 0; rounds < 12; rounds++) {
        const left = all(show, base).filter((f) => f.code === code && f.fix !== null);
        if (left.length === 0) break;
        expect(fixWords(left[0]!)).not.toBe('');
        const before = left.length;
        show = applyEdit(show, left[0]!.fix!);
        expect(checkShow(show)).toEqual([]);
        expect(all(show, base).filter((f) => f.code === code && f.fix !== null).length).toBeLessThan(before);
      }
    },
  );
});
