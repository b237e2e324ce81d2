/** MIDI 1.0 messages as plain data. Channels are 1-16, everything else as it is on the wire. */
export type Message =
  | { readonly kind: 'note-off'; readonly channel: number; readonly note: number; readonly velocity: number }
  | { readonly kind: 'note-on'; readonly channel: number; readonly note: number; readonly velocity: number }
  | { readonly kind: 'key-pressure'; readonly channel: number; readonly note: number; readonly value: number }
  | { readonly kind: 'control'; readonly channel: number; readonly control: number; readonly value: number }
  | { readonly kind: 'program'; readonly channel: number; readonly program: number }
  | { readonly kind: 'channel-pressure'; readonly channel: number; readonly value: number }
  | { readonly kind: 'pitch-bend'; readonly channel: number; readonly value: number }
  | { readonly kind: 'exclusive'; readonly bytes: readonly number[] }
  | { readonly kind: 'system'; readonly bytes: readonly number[] };

export type ChannelMessage = Exclude<Message, { kind: 'exclusive' } | { kind: 'system' }>;

export type Bytes = readonly number[];

/** Control numbers with a fixed meaning in MIDI 1.0 that the map has to know. */
export const BANK_MSB = 0;
export const BANK_LSB = 32;

/** Program change (MIDI 1.0, Cn). `channel` is 1 to 16, `program` 0 to 127. */
export const programChange = (channel: number, program: number): Bytes => [0xc0 | (channel - 1), program];
/** Control change (MIDI 1.0, Bn). `channel` is 1 to 16, `control` and `value` 0 to 127. */
export const controlChange = (channel: number, control: number, value: number): Bytes => [
  0xb0 | (channel - 1),
  control,
  value,
];

/** Note on (MIDI 1.0, 9n). `channel` is 1 to 16; a velocity of 0 means note off. */
export const noteOn = (channel: number, note: number, velocity: number): Bytes => [
  0x90 | (channel - 1),
  note,
  velocity,
];
/** Note off (MIDI 1.0, 8n), with the middle release velocity of 64. */
export const noteOff = (channel: number, note: number): Bytes => [0x80 | (channel - 1), note, 64];

/** Data bytes after each status of MIDI 1.0; -1 for system exclusive, which ends with its own F7. */
export function dataLength(status: number): number {
  if (status < 0xf0) return (status & 0xe0) === 0xc0 ? 1 : 2;
  if (status === 0xf0) return -1;
  if (status === 0xf2) return 2;
  return status === 0xf1 || status === 0xf3 ? 1 : 0;
}

/** One whole message from its bytes, or undefined where they are not exactly one message of MIDI 1.0. */
export function decodeMessage(bytes: Bytes): Message | undefined {
  const status = bytes[0];
  if (status === undefined || status < 0x80 || status > 0xff) return undefined;
  if (status === 0xf0) {
    const closed = bytes.length >= 2 && bytes[bytes.length - 1] === 0xf7;
    if (!closed) return undefined;
    for (let i = 1; i < bytes.length - 1; i++) if (bytes[i]! > 127) return undefined;
    return { kind: 'exclusive', bytes };
  }
  const length = dataLength(status);
  if (bytes.length !== length + 1) return undefined;
  const a = bytes[1] ?? 0;
  const b = bytes[2] ?? 0;
  if (a > 127 || b > 127 || a < 0 || b < 0) return undefined;
  if (status > 0xf0) return { kind: 'system', bytes };
  const channel = (status & 0x0f) + 1;
  switch (status & 0xf0) {
    case 0x80:
      return { kind: 'note-off', channel, note: a, velocity: b };
    case 0x90:
      return { kind: 'note-on', channel, note: a, velocity: b };
    case 0xa0:
      return { kind: 'key-pressure', channel, note: a, value: b };
    case 0xb0:
      return { kind: 'control', channel, control: a, value: b };
    case 0xc0:
      return { kind: 'program', channel, program: a };
    case 0xd0:
      return { kind: 'channel-pressure', channel, value: a };
    default:
      return { kind: 'pitch-bend', channel, value: b * 128 + a };
  }
}

/** The channel that a message's status byte names, or undefined for system messages. */
export function channelOf(bytes: Bytes): number | undefined {
  const status = bytes[0]!;
  return status >= 0x80 && status < 0xf0 ? (status & 0x0f) + 1 : undefined;
}
