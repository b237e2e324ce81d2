export {
  encodingOfKind,
  linear,
  newControl,
  newController,
  newProfile,
  onOff,
  plainPlan,
  withVariant,
} from './builders';
export {
  addressOf,
  addressPlanSchema,
  bankMessages,
  groupOf,
  indexOfAddress,
  indexOfLabel,
  labelOf,
  planProblems,
  slotCount,
  slotMessages,
  type AddressPlan,
  type Digit,
  type SlotGroup,
} from './plan';
export {
  decodeValue,
  effectiveMessage,
  encodeValue,
  encodingProblems,
  encodingKinds,
  encodingClaims,
  encodingSchema,
  fitsRange,
  controlNumberOf,
  exclusiveTemplateOf,
  hasTwoStates,
  isContinuous,
  isFigure,
  isHeld,
  isOnOff,
  isTap,
  keepsOf,
  sameOnTheWire,
  valueRange,
  type Encoding,
} from './encodings/registry';
export { HEARD, type ControlMemory } from './encodings/encoding';
export { RESERVED_CONTROLS } from './encodings/carrier';
export {
  identitySchema,
  profileSchema,
  type Control,
  type Controller,
  type Effect,
  type Profile,
  type Sender,
  type Variants,
} from './profile';
export { TRIGGERS, type Trigger } from './triggers';
export { dumpFormSchema, type DumpForm } from './dumpForm';
export type { Deep } from './readonly';
export { countedTable, edgeSlots, withDigit, withGroup } from './planShape';
export { compareProfiles, type ProfileDifference } from './compareProfiles';
export { learn } from './learn';
export { figureText, valueText } from './valueText';
export {
  TRIAL_LIMIT,
  TIMED,
  exactly,
  guess,
  isWorstBelow,
  measured,
  readTime,
  soonestOf,
  timeSchema,
  timeText,
  timesFrom,
  typed,
  worstOf,
  type Time,
  type TimedThing,
  type TimeSource,
} from './times';
