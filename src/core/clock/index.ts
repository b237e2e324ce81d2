export {
  CLOCK,
  CLOCKS_PER_QUARTER,
  CLOCK_TICKS,
  CONTINUE,
  POSITION_TICKS,
  START,
  STOP,
  clockMessage,
  isForEveryUnit,
  songPosition,
  type ClockMessage,
} from './clockMessages';
export {
  CODE_RATES,
  PIECES,
  codeMicros,
  codeText,
  frameMicros,
  frameOf,
  fullFrame,
  labelOf,
  quarterFrames,
  readCode,
  type CodeRate,
} from './timeCode';
export {
  NO_CODE,
  codePlace,
  hearCode,
  isSteady,
  isWild,
  isWound,
  runsBackwards,
  type FollowedCode,
} from './codeFollower';
export { NO_CLOCK, hearClock, periodAt, placeOf, silent, wobble, type FollowedClock } from './follower';
