export {
  addressOf,
  addressPlanSchema,
  bankMessages,
  groupOf,
  indexOfAddress,
  indexOfLabel,
  labelOf,
  planFaults,
  slotCount,
  slotMessages,
  type Address,
  type AddressPlan,
  type Digit,
  type PlanFault,
  type SlotGroup,
} from './plan';
export {
  decodeValue,
  encodeValue,
  encodingFaults,
  encodingKinds,
  encodingNumber,
  encodingSchema,
  isContinuous,
  sameOnTheWire,
  valueRange,
  type Encoding,
  type EncodingFault,
} from './encodings/registry';
export type { ValueRange } from './encodings/encoding';
export { profileSchema, type Control, type Profile, type Variants } from './profile';
export { relaysFired } from './relay';
export type { Wanted } from './wanted';
export type { InputSpec, PortSpec, RelaySpec, RigSpec, UnitSpec } from './rigSpec';
export {
  UNKNOWN_STATE,
  afterRecall,
  meets,
  sameControl,
  type RigState,
  type Stored,
  type UnitAim,
  type UnitState,
} from './unitState';
export type { Deep } from './readonly';
