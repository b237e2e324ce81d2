export { encodingOfKind, linear, newControl, newController, newProfile, onOff, plainPlan } from './builders';
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
  type Address,
  type AddressPlan,
  type Digit,
  type PlanProblem,
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
  isContinuous,
  keepsOf,
  sameOnTheWire,
  valueRange,
  type Encoding,
  type EncodingProblem,
} from './encodings/registry';
export { HEARD, NO_MEMORY, type Claim, type ControlMemory, type Decoded, type ValueRange } from './encodings/encoding';
export { RESERVED_CONTROLS } from './encodings/carrier';
export { checksumOf, exclusiveTokens } from './encodings/exclusiveEncoding';
export {
  controlSchema,
  identitySchema,
  profileSchema,
  type Control,
  type Controller,
  type Effect,
  type Identity,
  type Profile,
  type Sender,
  type Variants,
} from './profile';
export { TRIGGERS, controllerSchema, type Trigger } from './controller';
export type { Deep } from './readonly';
export { countedTable, edgeSlots, freshGroup } from './planShape';
export { compareProfiles, exampleMessages, type ProfileDifference } from './compareProfiles';
export { learn, type Learnt } from './learn';
