export { demoShow } from './demoShow';
export { FAULTS, faultyDemo, type Fault } from './faults';
