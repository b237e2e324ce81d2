export { readDumpForm, writeDumpForm } from './dumpForm';
