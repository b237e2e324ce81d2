export { demoShow } from './demoShow';
export { FAULTS, faultyDemo } from './faults';
export type { Fault } from './faultParts';
