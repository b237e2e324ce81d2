export { readControlTable, writeControlTable } from './controlTable';
export { readCueTable, writeCueTable } from './cueTable';
export { readSetTable, writeSetTable } from './setTable';
export { readToneTable, writeToneTable } from './toneTable';
export { TABLES, type TableKind } from './tableKinds';
