export {
  joinNights,
  nightsOfSet,
  playNight,
  playNights,
  type CueNights,
  type NightMiss,
  type SongNights,
} from './playNights';
export type { NightName } from './night';
