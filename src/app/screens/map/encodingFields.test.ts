import { describe, expect, it } from 'vitest';
import { encodingKinds, encodingOfKind, type Encoding } from '../../../core/addressing';
import { ENCODING_FIELDS, fieldText, withField } from './encodingFields';

const base: Encoding = { kind: 'zones', number: 31, count: 5 };

describe('fields of an encoding', () => {
  it.each(encodingKinds)('of %s take back what they show', (kind) => {
    const encoding = encodingOfKind(kind, base);
    for (const field of ENCODING_FIELDS[kind]) {
      expect(withField(encoding, field, fieldText(encoding, field))).toEqual({ encoding });
    }
  });

  it('say what they take', () => {
    const [number, count] = ENCODING_FIELDS.zones;
    expect(withField(base, number!, '128')).toEqual({ expected: 'a whole number from 0 to 127' });
    expect(withField(base, number!, '1.5')).toEqual({ expected: 'a whole number from 0 to 127' });
    expect(withField(base, count!, '1')).toEqual({ expected: 'at least 2' });
    const table = encodingOfKind('table', base);
    const values = ENCODING_FIELDS.table[1]!;
    expect(withField(table, values, '1, 2;300')).toEqual({ expected: expect.stringContaining('0 to 127') });
    expect(withField(table, values, '0 43 86')).toMatchObject({ encoding: { values: [0, 43, 86] } });
    const flip = encodingOfKind('flip', base);
    expect(withField(flip, ENCODING_FIELDS.flip[2]!, '')).toMatchObject({ encoding: { only: null } });
    expect(withField(flip, ENCODING_FIELDS.flip[2]!, '127')).toMatchObject({ encoding: { only: 127 } });
    const line = encodingOfKind('continuous', base);
    expect(withField(line, ENCODING_FIELDS.continuous[3]!, 'low')).toEqual({ expected: 'a number' });
  });
});
