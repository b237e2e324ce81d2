import { beforeAll, describe, expect, it, vi } from 'vitest';
import { demoShow } from '../../core/demo';
import { libraryProfile } from '../../core/library';
import type { AppState } from './store';
import { slotNumber, variantNumber } from './numbers';

// The store remembers the counting in the browser; here a browser is stood in for.
beforeAll(() => {
  const kept = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => kept.set(k, v),
  });
});

describe('numbers', () => {
  const letters = libraryProfile('letter-modeler').plan;
  const bass = libraryProfile('bass-processor').plan;

  it('count from 0, from 1, or as the unit labels them, and mean the same slot', () => {
    expect((['zero', 'one', 'label'] as const).map((c) => slotNumber(letters, 40, c))).toEqual([
      '0·040',
      '1·041',
      'G5',
    ]);
    expect((['zero', 'one', 'label'] as const).map((c) => slotNumber(letters, 131, c))).toEqual([
      '1·003 (131)',
      '2·004 (132)',
      'factory B6',
    ]);
    expect((['zero', 'one', 'label'] as const).map((c) => slotNumber(bass, 46, c))).toEqual(['046', '047', '12C']);
    expect(slotNumber({ ...bass, table: [] }, 46, 'zero')).toBe('no program');
  });

  it('count variants the same way', () => {
    const names = ['Dry', 'Body', 'Bite'];
    expect((['zero', 'one', 'label'] as const).map((c) => variantNumber(names, 2, c))).toEqual(['2', '3', 'Bite']);
    expect(variantNumber(names, 7, 'label')).toBe('8');
  });
});

describe('marks', () => {
  const show = demoShow();
  const song = show.songs[0]!;
  const cues = ['opening', ...song.cues.map((c) => c.id)];
  const proof = (lantern: 'lit' | 'cracked') => ({ lantern, verdicts: [] });
  const state = (change: Partial<AppState> = {}): AppState =>
    ({
      fingerprints: { [song.id]: Object.fromEntries(cues.map((c) => [c, `fingerprint of ${c}`])) },
      proofs: Object.fromEntries(cues.map((c) => [`fingerprint of ${c}`, proof('lit')])),
      ...change,
    }) as AppState;

  it('of a song are lit when all its cues are, and follow the fingerprint', async () => {
    const { songMark } = await import('./marks');
    expect(songMark(state(), song)).toBe('lit');
    const edited = state();
    const fingerprints = { [song.id]: { ...edited.fingerprints[song.id], 'slack-tide-cue-3': 'another' } };
    expect(songMark(state({ fingerprints }), song)).toBe('hollow');
    expect(songMark(state({ fingerprints, proofs: { ...edited.proofs, another: proof('cracked') } }), song)).toBe(
      'cracked',
    );
    expect(songMark(state({ proofs: {} }), song)).toBe('hollow');
  });

  it('of a song leave muted cues out', async () => {
    const { songMark } = await import('./marks');
    const { 'fingerprint of slack-tide-cue-3': _, ...proofs } = state().proofs;
    const muted = { ...song, cues: song.cues.map((c) => (c.id === 'slack-tide-cue-3' ? { ...c, muted: true } : c)) };
    expect(songMark(state({ proofs }), song)).toBe('hollow');
    expect(songMark(state({ proofs }), muted)).toBe('lit');
  });

  it('of a tone sum up every place where it is used', async () => {
    const { toneMark } = await import('./marks');
    // Undertow is in other songs too, which nobody ran.
    expect(toneMark(state(), show, 'undertow')).toBe('hollow');
    expect(toneMark(state(), { ...show, songs: [song] }, 'undertow')).toBe('lit');
    expect(toneMark(state(), { ...show, songs: [song] }, 'rope-burn')).toBe('hollow');
  });

  it('of a show are those of the songs in its set', async () => {
    const { showMark } = await import('./marks');
    expect(showMark(state(), show)).toBe('hollow');
    expect(showMark(state(), { ...show, set: show.set.slice(0, 1) })).toBe('lit');
    expect(showMark(state(), { ...show, set: [] })).toBe('hollow');
  });
});

describe('the counting', () => {
  it('is remembered', async () => {
    const { setCounting, useApp } = await import('./store');
    expect(useApp.getState().counting).toBe('label');
    setCounting('one');
    expect(useApp.getState().counting).toBe('one');
    expect(localStorage.getItem('hollow-lantern.counting')).toBe('one');
  });
});
