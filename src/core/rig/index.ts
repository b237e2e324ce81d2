export { EventQueue } from './eventQueue';
export type { InputSpec, PortSpec, RelaySpec, ReturnSpec, RigSpec, UnitSpec } from './rigSpec';
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
export { remember, understand, type Understood } from './understand';
export { relaysFired } from './relay';
export { wireText } from './wireText';
