import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { problemLine } from '../../../wording';
import { demoShow } from '../../demo';
import { memoryOf } from '../../feet';
import { runs } from '../../testing/runs';
import { pagesInFile, readExclusiveFile, writePagesFile } from './';

const memory = memoryOf(demoShow(), 'treadle');
const file = writePagesFile(memory);
const lines = (bytes: readonly number[]): string[] => readExclusiveFile(bytes).problems.map(problemLine);

describe('an exclusive file', () => {
  it('of pages is whole messages, and holds the pages', () => {
    const { value, problems } = readExclusiveFile(file);
    expect(problems).toEqual([]);
    expect(value!.length).toBeGreaterThan(20);
    expect(value!.flat()).toEqual(file);
    expect(pagesInFile(value!)).toEqual(memory);
    expect(pagesInFile(readExclusiveFile(writePagesFile({ pages: [] })).value!)).toEqual({ pages: [] });
  });

  it('of something else is kept whole, and holds no pages', () => {
    const foreign = [0xf0, 0x7e, 0x7f, 6, 1, 0xf7, 0xf0, 0x41, 1, 2, 3, 0xf7];
    const { value } = readExclusiveFile(foreign);
    expect(value).toEqual([foreign.slice(0, 6), foreign.slice(6)]);
    expect(pagesInFile(value!)).toBeNull();
    // One block is missing: it is no memory.
    expect(pagesInFile(readExclusiveFile(file).value!.toSpliced(5, 1))).toBeNull();
  });

  it('is refused with the byte where it is not one', () => {
    expect(lines([])).toEqual(['byte 0: This is not a system exclusive file: expected F0, found nothing.']);
    expect(lines([0xf0, 1, 2])).toEqual([
      'byte 3: This is not a system exclusive file: expected F7, where the message ends, found the end of the file.',
    ]);
    expect(lines([0xf0, 1, 0xf7, 0x90])).toEqual([
      'byte 3: This is not a system exclusive file: expected F0, where a message begins, found 90.',
    ]);
    expect(lines([0, 0, 10])).toEqual(['byte 0: This is not a system exclusive file: expected F0, found nothing.']);
    expect(lines([0xf0, 0xf2, 0xf7])[0]).toContain('byte 1: ');
    expect(lines([0xf0, 1, 0xf0, 2, 0xf7])[0]).toContain('byte 2: ');
  });

  it('is read where zeros, line ends or real-time bytes stand in it, and says so', () => {
    const odd = [0xf0, 1, 0xf8, 2, 0xf7, 13, 10, 0xf0, 3, 0xfe, 0xf7, 0, 0, 0];
    expect(readExclusiveFile(odd).value).toEqual([
      [0xf0, 1, 2, 0xf7],
      [0xf0, 3, 0xf7],
    ]);
    expect(lines(odd)).toEqual([
      'byte 5: 5 zeros and line ends between the messages were left out.',
      'byte 2: 2 real-time bytes within the file were left out.',
    ]);
    // Within a message zeros are what it says.
    expect(readExclusiveFile([0xf0, 0, 10, 0xf7])).toEqual({ value: [[0xf0, 0, 10, 0xf7]], problems: [] });
  });

  it('answers any bytes, cut anywhere, without throwing', () => {
    for (let cut = 0; cut < file.length; cut += 7) {
      const { value } = readExclusiveFile(file.slice(0, cut));
      if (value) expect(pagesInFile(value)).toBeNull();
    }
    fc.assert(
      fc.property(fc.array(fc.nat(255), { maxLength: 200 }), fc.boolean(), (bytes, framed) => {
        const { value } = readExclusiveFile(framed ? [0xf0, ...bytes, 0xf7] : bytes);
        if (value) pagesInFile(value);
      }),
      runs(1501, 400),
    );
  });
});
