import type { Bytes } from '../../midi';
import type { Ticks } from '../../time';

/** Standard MIDI File 1.0, as read or to be written. */
export interface SmfFile {
  readonly format: 0 | 1 | 2;
  readonly division: SmfDivision;
  readonly tracks: readonly SmfTrack[];
}

export type SmfDivision =
  | { readonly kind: 'quarter'; readonly ticks: number }
  /** Frames a second (24, 25, 29.97 as 29, 30) and ticks in a frame; ticks are then time, not beats. */
  | { readonly kind: 'frames'; readonly frames: number; readonly ticks: number };

export interface SmfTrack {
  readonly events: readonly SmfEvent[];
  /** Tick of the end of the track. */
  readonly end: Ticks;
}

/** `tick` counts from the start of the track, in the file's own division. */
export type SmfEvent = { readonly tick: Ticks } & (
  | { readonly kind: 'message'; readonly bytes: Bytes }
  /** Bytes as they go over the wire: an exclusive message from F0 on (whole, or its first packet), or what an F7 packet carries. */
  | { readonly kind: 'packet'; readonly bytes: Bytes }
  | { readonly kind: 'tempo'; readonly micros: number; readonly offset?: number }
  | { readonly kind: 'metre'; readonly beats: number; readonly unit: number; readonly offset?: number }
  | { readonly kind: 'text'; readonly type: TextType; readonly text: string }
  | { readonly kind: 'port'; readonly port: number }
  | { readonly kind: 'meta'; readonly type: number; readonly length: number }
);

/** Meta events 01-09 that hold text. */
export type TextType =
  'text' | 'copyright' | 'track-name' | 'instrument' | 'lyric' | 'marker' | 'cue-point' | 'program-name' | 'port-name';

export const TEXT_TYPES: readonly (TextType | undefined)[] = [
  undefined,
  'text',
  'copyright',
  'track-name',
  'instrument',
  'lyric',
  'marker',
  'cue-point',
  'program-name',
  'port-name',
];

export const META_PORT = 0x21;
export const META_END = 0x2f;
export const META_TEMPO = 0x51;
export const META_METRE = 0x58;
