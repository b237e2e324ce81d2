export {
  TICKS_PER_QUARTER,
  TICKS_PER_WHOLE,
  microsToMillis,
  microsToSeconds,
  millisToMicros,
  secondsToMicros,
  type Micros,
  type Millis,
  type Seconds,
  type Ticks,
} from './units';
export { buildTempoMap, secondsToTicks, tempoAt, ticksToSeconds, type TempoMap, type TempoMark } from './tempo';
export { tapTempo } from './tapTempo';
export {
  barAt,
  barOfTick,
  barStart,
  barsPrinted,
  buildBarMap,
  printedNumber,
  type Bar,
  type BarMap,
  type MetreMark,
  type PrintedMark,
} from './metre';
export {
  formatBar,
  formatPosition,
  parsePosition,
  positionOf,
  snap,
  type ParsedPosition,
  type Position,
  type PositionProblem,
} from './positions';
