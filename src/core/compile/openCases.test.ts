import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readShowFile } from '../formats/show-file';
import { rigSpec, songWants } from '../meaning';
import { dryRun } from '../simulate';
import { compileSong } from './compileSong';

const open = new URL('../../../fixtures/open/', import.meta.url);

// Shows in which the reckoning and the dry run still disagree about a change that is *sent* on its beat. The lantern
// goes by the dry run, so such a cue is cracked and not lit; what is wrong is the reckoning. When one of these comes
// out right its test fails: the file then moves to fixtures/cases.
describe.each(readdirSync(open).map((name) => [name.replace('.json', '').replaceAll('-', ' '), name]))(
  '%s',
  (_, name) => {
    const show = readShowFile(readFileSync(new URL(name, open), 'utf8')).value!;
    const song = show.songs[0]!;
    const compiled = compileSong(show, song);
    const { verdicts } = dryRun(rigSpec(show), compiled.events, songWants(show, song));

    it.fails('is late nowhere that was not reckoned', () => {
      const reckoned = new Set(compiled.lates.map((l) => l.cueId));
      expect(verdicts.filter((v) => v.outcome === 'late' && !reckoned.has(v.cueId))).toEqual([]);
    });

    it('says of the dry run that it is late, so that no lantern is lit', () => {
      expect(verdicts.some((v) => v.outcome === 'late')).toBe(true);
    });
  },
);
