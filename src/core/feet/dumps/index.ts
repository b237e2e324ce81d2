export { blankDump, dumpDifferences, readDump, writeDump } from './dump';
export { formProblems } from './formProblems';
