import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findingSentence } from '../../../wording';
import { compileSong } from '../../compile';
import { rigSpec, songWants } from '../../meaning';
import { dryRun } from '../../simulate';
import { randomShow, type RandomChoice } from '../../testing/randomShow';
import { runs } from '../../testing/runs';
import { checkSong } from '../checkSong';
import { tonightOf } from '../../tonight';

const CROWDED: readonly [string, RandomChoice][] = [
  ['on two ports, very close', { gap: 96, twoPorts: true, crowded: true }],
  ['on two ports, close', { gap: 480, twoPorts: true, crowded: true }],
  ['on two ports, with bytes as they stand', { gap: 1920, twoPorts: true, crowded: true, raw: true }],
  ['down a chain', { gap: 480, deep: true, crowded: true }],
];

describe('changes that are sent on their beat, one close to the other', () => {
  it.each(CROWDED)('have a cause wherever they are late: %s', (_, choice) => {
    fc.assert(
      fc.property(randomShow(choice), ({ show, song }) => {
        const compiled = compileSong(show, song);
        const dry = dryRun(rigSpec(show), compiled.events, songWants(show, song));
        const unknown = checkSong(tonightOf(show), song, { compiled, dry }).filter(
          (f) => f.code === 'song.late' && f.data.cause.kind === 'unknown',
        );
        expect(unknown.map(findingSentence)).toEqual([]);
      }),
      runs(871, 40),
    );
  });
});
