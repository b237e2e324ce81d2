import { writeFileSync } from 'node:fs';
import { writeShowFile } from '../src/core/formats/show-file';
import { size } from './size';
import { wholeSet } from './wholeSet';

// Writes the largest show as a file: for the browser tests, which know no source.
writeFileSync(process.argv[2]!, writeShowFile(wholeSet(size(60, 4), size(400, 40))));
