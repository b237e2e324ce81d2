export {
  TICKS_PER_QUARTER,
  microsToSeconds,
  millisToMicros,
  secondsToMicros,
  type Micros,
  type Millis,
  type Seconds,
  type Ticks,
} from './units';
export { buildTempoMap, secondsToTicks, tempoAt, ticksToSeconds, type TempoMap } from './tempo';
export { tapTempo } from './tapTempo';
export { barAt, barOfTick, barStart, buildBarMap, printedNumber, type BarMap, type MetreMark } from './metre';
export { formatBar, formatPosition, parsePosition, snap, type PositionProblem } from './positions';
