import { describe, expect, it } from 'vitest';
import type { Margin, Reason, Verdict } from '../core/simulate';
import { modelerProfile } from '../core/testing/rigs';
import { marginWords, messageWords, stateWords, variantWords, verdictSentence } from './verdicts';

const unit = { name: 'Quillback', profile: modelerProfile };
const FAR = Number.POSITIVE_INFINITY;
const says = (outcome: Verdict['outcome'], offset: number | null, reason: Reason): string =>
  verdictSentence({ cueId: 'c', unitId: 'u', due: 0, outcome, offset, reason, margin: null }, unit);

describe('what a change bears', () => {
  it.each<[Margin, string]>([
    [
      { slower: 7000, slowerBecomes: 'late', later: 7000, laterBecomes: 'late', sooner: FAR },
      'up to 7.0 ms slower, then it is late',
    ],
    [
      { slower: 3500, slowerBecomes: 'lost', later: 3000, laterBecomes: 'late', sooner: 2100 },
      'up to 3.5 ms slower, then it is lost; messages up to 3.0 ms late, then it is late',
    ],
    [
      { slower: Number.POSITIVE_INFINITY, slowerBecomes: 'late', later: 2500, laterBecomes: 'lost', sooner: FAR },
      'messages up to 2.5 ms late, then it is lost',
    ],
    [{ slower: 2e6, slowerBecomes: 'late', later: 3e6, laterBecomes: 'late', sooner: FAR }, ''],
    [
      { slower: 7000, slowerBecomes: 'late', later: 7000, laterBecomes: 'late', sooner: 640 },
      'up to 7.0 ms slower, then it is late; messages up to 0.6 ms early, then it is lost',
    ],
  ])('%o is said', (margin, words) => {
    expect(marginWords({ margin })).toBe(words);
  });
});

describe('a verdict', () => {
  it.each<[Verdict['outcome'], number | null, Reason, string]>([
    ['on-time', 0, { kind: 'as-wanted' }, 'Quillback is there on time.'],
    ['on-time', 0, { kind: 'already' }, 'Quillback is like this already.'],
    ['on-time', 1900, { kind: 'as-wanted' }, 'Quillback is there on time, 1.9 ms after its beat.'],
    ['on-time', -120_000, { kind: 'as-wanted' }, 'Quillback is there on time, 120 ms before its beat.'],
    ['on-time', -30, { kind: 'as-wanted' }, 'Quillback is there on time.'],
    ['early', -300_000, { kind: 'too-early' }, 'Quillback changes 300 ms too early.'],
    [
      'late',
      81_640,
      { kind: 'arrived-late', arrived: -98_360, takes: 180 },
      'Quillback is 82 ms late: the change reached it 98 ms before the beat, and it takes 180 ms.',
    ],
    [
      'late',
      8000,
      { kind: 'arrived-late', arrived: 8000, takes: 0 },
      'Quillback is 8.0 ms late: the change reached it 8.0 ms after the beat.',
    ],
    ['never', null, { kind: 'nothing-arrived' }, 'Quillback never gets there: nothing arrived.'],
    ['never', null, { kind: 'replaced' }, 'Quillback never gets there: another change took its place.'],
    [
      'never',
      null,
      { kind: 'ignored', why: 'settling', bytes: [0xb0, 85, 2] },
      'Quillback never gets there: it ignored B0 55 02, because it was still settling after a recall.',
    ],
    [
      'never',
      null,
      { kind: 'other-state', state: { slot: 47, bank: 0, variant: 2, controls: {} } },
      'Quillback never gets there: it is on H6, scene 3 instead.',
    ],
    [
      'never',
      null,
      { kind: 'other-tempo', by: 'clock', wanted: 500_000, heard: 510_000, from: 24 },
      'Quillback never gets there: it takes the tempo to be 117.6 instead of 120.0.',
    ],
  ])('%s, %s', (outcome, offset, reason, sentence) => {
    expect(says(outcome, offset, reason)).toBe(sentence);
  });
});

describe('a state', () => {
  it('is said in the unit’s own writing, also where it is not known', () => {
    expect(stateWords(modelerProfile, { slot: 131, bank: 1, variant: 'stored', controls: {} })).toBe(
      'factory B6, scene as the preset stores it',
    );
    expect(stateWords(modelerProfile, { slot: null, bank: null, variant: null, controls: {} })).toBe(
      'an unknown slot, scene not known',
    );
    expect(stateWords({ ...modelerProfile, variants: null }, { slot: 0, bank: 0, variant: null, controls: {} })).toBe(
      'A1',
    );
    expect(variantWords({ ...modelerProfile, variants: null }, 3)).toBe('');
  });
});

describe('a message', () => {
  it.each([
    [[0xc4, 47], 'program 47 from 0, channel 5'],
    [[0xb0, 85, 2], 'control 85 = 2, channel 1'],
    [[0x9f, 60, 100], 'note 60 on, channel 16'],
    [[0x80, 60, 0], 'note 60 off, channel 1'],
    [[0xa0, 60, 9], 'pressure 9 on note 60, channel 1'],
    [[0xd1, 7], 'pressure 7, channel 2'],
    [[0xe0, 0, 64], 'pitch bend 0, channel 1'],
    [[0xf0, 0x7d, 1, 0xf7], 'system exclusive, 4 bytes'],
    [[0xf2, 1, 2], 'system message F2 01 02'],
    [[0x33], '1 bytes'],
  ])('%j is %s', (bytes, words) => {
    expect(messageWords(bytes)).toBe(words);
  });

  it('has its program counted as one counts', () => {
    expect(messageWords([0xc4, 47], 1)).toBe('program 48 from 1, channel 5');
    expect(messageWords([0xb0, 85, 2], 1)).toBe('control 85 = 2, channel 1');
  });
});
