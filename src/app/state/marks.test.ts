import { inOrder, songEntries } from '../../core/show';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import type { Proofs } from './proofs';
import { showMark, songMark, toneMark } from './marks';

describe('marks', () => {
  const show = demoShow();
  const song = show.songs[0]!;
  const cues = ['opening', ...song.cues.map((c) => c.id)];
  const proof = (lantern: 'lit' | 'cracked') => ({ lantern, verdicts: [] });
  const state = (change: Partial<Proofs> = {}): Proofs =>
    ({
      fingerprints: { [song.id]: Object.fromEntries(cues.map((c) => [c, `fingerprint of ${c}`])) },
      proofs: { [song.id]: Object.fromEntries(cues.map((c) => [`fingerprint of ${c}`, proof('lit')])) },
      ...change,
    }) as Proofs;

  it('of a song are lit when all its cues are, and follow the fingerprint', () => {
    expect(songMark(state(), song)).toBe('lit');
    const edited = state();
    const fingerprints = { [song.id]: { ...edited.fingerprints[song.id], 'slack-tide-cue-3': 'another' } };
    expect(songMark(state({ fingerprints }), song)).toBe('hollow');
    const proofs = { [song.id]: { ...edited.proofs[song.id], another: proof('cracked') } };
    expect(songMark(state({ fingerprints, proofs }), song)).toBe('cracked');
    expect(songMark(state({ proofs: {} }), song)).toBe('hollow');
  });

  it('of a song leave muted cues out', () => {
    const { 'fingerprint of slack-tide-cue-3': _, ...rest } = state().proofs[song.id]!;
    const proofs = { [song.id]: rest };
    const muted = { ...song, cues: song.cues.map((c) => (c.id === 'slack-tide-cue-3' ? { ...c, muted: true } : c)) };
    expect(songMark(state({ proofs }), song)).toBe('hollow');
    expect(songMark(state({ proofs }), muted)).toBe('lit');
  });

  it('of a tone sum up every place where it is used', () => {
    // Undertow is in other songs too, which nobody ran.
    expect(toneMark(state(), show, 'undertow')).toBe('hollow');
    expect(toneMark(state(), { ...show, songs: [song] }, 'undertow')).toBe('lit');
    expect(toneMark(state(), { ...show, songs: [song] }, 'rope-burn')).toBe('hollow');
  });

  it('of a show are those of the songs in its set', () => {
    expect(showMark(state(), show)).toBe('hollow');
    expect(showMark(state(), { ...show, ...inOrder([songEntries(show)[0]!.songId]) })).toBe('lit');
    expect(showMark(state(), { ...show, ...inOrder([]) })).toBe('hollow');
  });
});
