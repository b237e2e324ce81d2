import { describe, expect, it } from 'vitest';
import { ask } from '../core/ask';
import { demoShow } from '../core/demo';
import { answerWords } from './answers';

const show = demoShow();
const says = (question: string): string => {
  const [answer] = ask(show, question, { songId: 'slack-tide' });
  const { head, says: what } = answerWords(show, answer!);
  return `${head} | ${what}`;
};

describe('an answer in words', () => {
  it.each([
    ['9', /^9\|1 of Slack Tide in Seven: Ledger Rhythm \| QB B1, scene Body · OX state 3 · /],
    ['999', 'Slack Tide in Seven | There is no bar 999; the song has bars up to 44.'],
    ['5 harrow', 'Harrow at 5|1 of Slack Tide in Seven | 001, Straight Through'],
    ['bytes 2', 'What leaves for the bar of 2|1 | nothing'],
    ['bytes 9', /QB C0 06 \d+ ms before/],
    [
      'state 4',
      /^Oxbow Forty state 4, Drive channel, loop on, boost \| program 3 from 0, 4 from 1; tones Fog Lead and /,
    ],
    [
      'h6',
      /^Quillback H6, Fog Lead \| bank 0, program 47 from 0, 48 from 1; .* in Slack Tide in Seven, The Rope Ledger, Fog Bell, Gull Arithmetic and 3 more$/,
    ],
    ['cc 85', 'Quillback: its scenes | control 85, channel 1'],
    ['B0 55 02', 'B0 55 02 on Rack | Quillback: scene Bite'],
    ['ledger echo', /^Ledger Echo \| tone, in Slack Tide in Seven, /],
    ['fog bell', 'Fog Bell | song 3, begins at 20:34; then Gull Arithmetic'],
    ['last boat', /; nothing follows$/],
    ['pebble', 'Pebble | channel 15, no cable yet; the set wants nothing of it'],
    ['rack', 'Rack | port, 5-pin cable; reaches Quillback and Marram'],
    ['okoro', 'Okoro, six-string bass | plays Marram'],
    ['switch 10', 'Switch 10 of Treadle Ten | everywhere: next change'],
    ['pad 3', 'Pad 3 of Pebble | does nothing on any page'],
  ])('%s', (question, words) => {
    if (typeof words === 'string') expect(says(question)).toBe(words);
    else expect(says(question)).toMatch(words);
  });
});
