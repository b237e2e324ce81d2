import { writeFileSync } from 'node:fs';
import { writeShowFile } from '../src/core/formats/show-file';
import { wholeSet } from './wholeSet';

// Writes the largest show as a file: for the browser tests, which know no source.
writeFileSync(process.argv[2]!, writeShowFile(wholeSet(60, 400)));
