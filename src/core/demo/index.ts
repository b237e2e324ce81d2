export { demoShow } from './demoShow';
export { withRecordings, type WithRecordings } from './recordings';
export { FAULTS, faultyDemo } from './faults';
export type { Fault } from './faultParts';
