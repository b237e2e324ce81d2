import { describe, expect, it } from 'vitest';
import type { Imported } from '../core/formats/smf';
import { importedWords } from './imported';

const nothing: Imported['report'] = {
  tonesFound: 0,
  tonesMade: [],
  controls: 0,
  sweeps: 0,
  raw: 0,
  ramps: 0,
  unitsMade: [],
};
const says = (report: Partial<Imported['report']>): string => importedWords({ ...nothing, ...report });

describe('what was understood of a file', () => {
  it.each([
    [{}, 'Nothing is sent in it.'],
    [{ tonesFound: 1 }, 'Understood: 1 place where a tone of the show was recognised.'],
    [{ tonesFound: 4, controls: 1 }, 'Understood: 4 places where a tone of the show was recognised, 1 single control.'],
    [{ tonesMade: ['Slack', 'Ebb'] }, 'Understood: 2 new tones (Slack; Ebb).'],
    [{ tonesMade: ['A', 'B', 'C', 'D', 'E'] }, 'Understood: 5 new tones (A; B; C; D; …).'],
    [{ sweeps: 2, raw: 3 }, 'Understood: 2 sweeps, 3 messages kept as they stand.'],
    [{ raw: 1, unitsMade: ['Port 1, 4'] }, 'Understood: 1 message kept as it stands. New in the rig: Port 1, 4.'],
    [{ unitsMade: ['Drum box'] }, 'Nothing is sent in it. New in the rig: Drum box.'],
  ])('%j', (report, words) => {
    expect(says(report)).toBe(words);
  });
});
