import { describe, expect, it } from 'vitest';
import { demoShow } from '../core/demo';
import {
  applyEdit,
  changeCue,
  nameSlot,
  placeCue,
  renameTone,
  setTolerance,
  setUnitField,
  toneCue,
  type Show,
  inOrder,
  indexShow,
} from '../core/show';
import { Prover } from './prover';
import { ShowMirror, updateOf } from './showMirror';

const show = demoShow();
const song = show.songs[0]!;

describe('a show on its way to a worker', () => {
  it('arrives whole, then only as what changed', () => {
    const mirror = new ShowMirror();
    expect(() => mirror.show).toThrow('before it was sent a show');
    mirror.update(structuredClone(updateOf(undefined, show)));
    expect(mirror.show).toEqual(show);
    const kept = indexShow(mirror.show).songs.get('fog-bell');
    const after = applyEdit(show, placeCue(show, song.id, toneCue('new', 960, 'undertow'))!);
    const update = updateOf(show, after);
    expect(update.frame).toBeNull();
    expect(update.songs.map((s) => s.id)).toEqual([song.id]);
    mirror.update(structuredClone(update));
    expect(mirror.show).toEqual(after);
    expect(indexShow(mirror.show).songs.get('fog-bell')).toBe(kept);
  });

  it('forgets songs that are gone', () => {
    const mirror = new ShowMirror();
    mirror.update(updateOf(undefined, show));
    const less: Show = { ...show, songs: show.songs.slice(1), ...inOrder([]) };
    mirror.update(updateOf(show, less));
    expect(mirror.show).toEqual(less);
    expect(indexShow(mirror.show).songs.get(song.id)).toBeUndefined();
  });
});

describe('proofs', () => {
  const prover = (s: Show): Prover => {
    const p = new Prover('engine');
    p.update(updateOf(undefined, s));
    return p;
  };
  const fingerprints = (s: Show) => prover(s).fingerprints(song.id);
  const changedBy = (after: Show): string[] => {
    const a = fingerprints(show);
    const b = fingerprints(after);
    return Object.keys(b).filter((cue) => a[cue] !== b[cue]);
  };

  it('light every cue of the demo', () => {
    const { proofs, fingerprints, problems } = prover(show).prove(song.id, true);
    expect(problems).toEqual([]);
    expect(Object.keys(fingerprints)).toHaveLength(song.cues.length + song.sweeps.length + song.taps.length + 1);
    expect(Object.values(proofs).every((p) => p.lantern === 'lit')).toBe(true);
  });

  it('stay good for what an edit does not touch', () => {
    const moved = applyEdit(show, changeCue(show, song.id, 'slack-tide-cue-3', { shift: 5 })!);
    // The cue itself, and the next, whose change follows it on the same units.
    expect(changedBy(moved)).toEqual(['slack-tide-cue-3', 'slack-tide-cue-4']);
    expect(changedBy(applyEdit(show, renameTone(show, 'undertow', 'Rip')!))).toEqual([]);
    expect(changedBy(applyEdit(show, nameSlot(show, 'quillback', 2, 'Other name', 'x')!))).toEqual([]);
  });

  it('are void when something else counts as on time, and follow it', () => {
    const strict = applyEdit(show, setTolerance(show, { after: 2, before: 0 })!);
    expect(changedBy(strict)).toHaveLength(Object.keys(fingerprints(show)).length);
    const late = applyEdit(show, changeCue(show, song.id, 'slack-tide-cue-3', { at: song.cues[2]!.at + 30 })!);
    const near = applyEdit(late, placeCue(late, song.id, toneCue('near', song.cues[2]!.at, 'fog-lead'))!);
    const lantern = (s: Show): string | undefined => {
      const { proofs, fingerprints } = prover(s).prove(song.id, true);
      return proofs[fingerprints['slack-tide-cue-3']!]?.lantern;
    };
    expect(lantern(near)).toBe('cracked');
    expect(lantern(applyEdit(near, setTolerance(near, { after: 1000, before: 250 })!))).toBe('lit');
    expect(setTolerance(show, { after: -1, before: 0 })).toBeNull();
    expect(setTolerance(show, { ...show.tolerance })).toBeNull();
  });

  it('are void for every cue of a unit that changes', () => {
    const deaf = applyEdit(show, setUnitField(show, 'tarn', 'listens', 9)!);
    expect(changedBy(deaf)).toEqual(expect.arrayContaining(['opening', 'slack-tide-cue-1', 'slack-tide-cue-2']));
    expect(changedBy(deaf)).not.toContain('slack-tide-cue-3');
    const { proofs, fingerprints } = prover(deaf).prove(song.id, true);
    expect(proofs[fingerprints['slack-tide-cue-1']!]!.lantern).toBe('cracked');
    expect(proofs[fingerprints['slack-tide-cue-3']!]!.lantern).toBe('lit');
  });

  it('are empty for a song that is not there', () => {
    expect(prover(show).prove('none', true)).toMatchObject({
      songId: 'none',
      proofs: {},
      fingerprints: {},
      problems: [],
    });
  });
});
