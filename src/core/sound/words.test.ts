import { describe, expect, it } from 'vitest';
import { newCall } from '../show';
import { speakable, withoutSilence, wordOf, wordsOf, type Sound } from './';

const called = (text: string, how: 'voice' | 'tones' = 'voice'): Sound => ({
  kind: 'call',
  at: 0,
  call: newCall({ how }),
  text,
  gain: 0,
});
const counted = (beat: number, spoken = true): Sound => ({ kind: 'count', at: 0, beat, spoken, gain: 0 });

describe('what the voice says', () => {
  it('is plain letters, whatever was typed', () => {
    expect(speakable('The Lamp Lighter’s  Round')).toBe("The Lamp Lighter's Round");
    expect(speakable('Señal & Bö — zwei')).toBe('Senal and Bo , zwei');
    expect(speakable('')).toBe('');
    expect(speakable('… ♩ 海')).toBe('');
    expect(speakable('-o\u0000\n x')).toBe('-o x');
  });

  it('is each word once, in its order; tones say nothing', () => {
    const sounds = [
      called('Solo'),
      counted(1),
      counted(2),
      called('Home', 'tones'),
      counted(1),
      counted(3, false),
      called('Solo'),
    ];
    expect(wordsOf(sounds)).toEqual(['Solo', '1', '2']);
    expect(wordOf(called('Home', 'tones'))).toBe('');
    expect(wordOf({ kind: 'click', at: 0, level: 'bar', gain: 0 })).toBe('');
  });

  it('begins with its first sample: the silence around it is cut', () => {
    const said = Float32Array.from([0, 0.001, 0, 0.5, -0.8, 0, 0.3, 0.01, 0]);
    expect([...withoutSilence(said)].map((s) => Math.round(s * 10) / 10)).toEqual([0.5, -0.8, 0, 0.3]);
    expect(withoutSilence(new Float32Array(4))).toHaveLength(4);
    expect(withoutSilence(new Float32Array(0))).toHaveLength(0);
  });
});
