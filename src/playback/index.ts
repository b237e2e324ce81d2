export { STOPPED, placeOf, play, step, stop, type Stepped, type Transport } from './transport';
export type { Arrival, Ports } from './ports';
export { StandIns } from './standIns';
export { MONITOR_LINES, Monitor, withLines, type MonitorLine } from './monitor';
