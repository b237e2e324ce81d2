export {
  BANK_LSB,
  BANK_MSB,
  channelOf,
  controlChange,
  decodeMessage,
  noteOff,
  noteOn,
  programChange,
  type Bytes,
  type ChannelMessage,
  type Message,
} from './messages';
export { CABLE_TIMING, DIN_BYTE_MICROS, type Cable, type CableTiming, type TimedBytes } from './wire';
export { StreamParser, wholeMessages } from './parser';
export { fromHex, toHex } from './hex';
export { INQUIRY, identityIn, identityReply, inquiredOf, type IdentityText } from './inquiry';
