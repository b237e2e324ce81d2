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
export { NO_CLOCK, hearClock, periodAt, placeOf, silent, wobble, type FollowedClock } from './follower';
