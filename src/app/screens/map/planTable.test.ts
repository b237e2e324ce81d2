import { describe, expect, it } from 'vitest';
import { LIBRARY, libraryProfile } from '../../../core/library';
import { planTableText, readPlanTable } from './planTable';

describe('the text of a plan that is a table', () => {
  it('is read back as it was written, for every plan of the library that has one', () => {
    const tables = LIBRARY.map((e) => e.profile.plan).filter((p) => p.table);
    expect(tables.length).toBeGreaterThan(0);
    for (const plan of tables) expect(readPlanTable(planTableText(plan), plan)).toEqual({ rows: plan.table });
  });

  it('says which line is not one', () => {
    const { plan } = libraryProfile('letter-modeler');
    expect(readPlanTable('0 5 H6\n\n1,3; factory B6', plan)).toEqual({
      rows: [
        { bank: 0, program: 5, index: 47 },
        { bank: 1, program: 3, index: 131 },
      ],
    });
    expect(readPlanTable('0 5 H6\nhello', plan)).toEqual({
      problem: expect.stringContaining('Line 2: expected bank'),
    });
    expect(readPlanTable('0 5 Z9', plan)).toEqual({ problem: 'Line 1: there is no slot "Z9".' });
    expect(readPlanTable('0 200 A1', plan)).toEqual({ problem: expect.stringContaining('programs up to 127') });
  });
});
