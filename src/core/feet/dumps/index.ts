export { blankDump, dumpDifferences, readDump, writeDump, type DumpDifference } from './dump';
export { formProblems } from './formProblems';
