export { EventQueue } from './eventQueue';
export { acceptsAgainAfter, effectAfter, microsOf, pacesOf, type Called, type Extreme } from './pace';
export { rigAt, type PortSpec, type RelaySpec, type RigSpec, type UnitSpec } from './rigSpec';
export type { Wanted } from './wanted';
export {
  UNKNOWN_STATE,
  afterControl,
  afterRecall,
  meets,
  sameControl,
  type RigState,
  type SlotStart,
  type Stored,
  type UnitAim,
  type UnitState,
} from './unitState';
export { remember, understand } from './understand';
export { relaysFired } from './relay';
export { wireText } from './wireText';
export type { WireProfile } from './wireProfile';
