import type { Bytes } from '../midi';
import type { Meaning } from '../meaning';
import type { UnitState } from '../rig';
import type { Doing } from '../show';
import type { PositionProblem, Seconds, Ticks } from '../time';

/** A place in a song. */
interface PlaceThere {
  readonly songId: string;
  readonly at: Ticks;
}

/** Something that leaves for a cue. */
interface SentThere {
  readonly unitId: string;
  readonly bytes: Bytes;
  /** How much before the place it leaves, in seconds; negative behind it. */
  readonly before: Seconds;
}

/** What a question comes to: data for a sentence, and for the way there. */
export type Answer =
  /** What every unit is on at a place of a song, and the tone that was called last up to it. */
  | ({
      readonly kind: 'place';
      readonly toneId: string | null;
      readonly rig: readonly { readonly unitId: string; readonly state: UnitState }[];
    } & PlaceThere)
  /** A bar that the song does not have; `instead` are its bars of that printed number that there are. */
  | { readonly kind: 'no-place'; readonly songId: string; readonly problem: PositionProblem }
  | ({
      readonly kind: 'unit-there';
      readonly unitId: string;
      readonly state: UnitState;
      readonly cueId: string | null;
    } & PlaceThere)
  | ({ readonly kind: 'sent'; readonly sent: readonly SentThere[] } & PlaceThere)
  /** A preset, with the tones that call it and the songs that use one of them. */
  | {
      readonly kind: 'slot';
      readonly unitId: string;
      readonly index: number;
      readonly toneIds: readonly string[];
      readonly songIds: readonly string[];
    }
  /** A control of a unit; its variants where `controlId` is null. */
  | { readonly kind: 'control'; readonly unitId: string; readonly controlId: string | null }
  /** What whole messages mean on a port, to every unit that makes something of them. */
  | { readonly kind: 'message'; readonly portId: string; readonly bytes: Bytes; readonly meanings: readonly Meaning[] }
  | { readonly kind: 'tone'; readonly toneId: string; readonly songIds: readonly string[] }
  /** A song: its number in the set and when it begins behind the set's start, null beside the set; what follows. */
  | {
      readonly kind: 'song';
      readonly songId: string;
      readonly number: number | null;
      readonly begins: Seconds | null;
      readonly nextSongId: string | null;
    }
  /** A unit: how it is reached, and what would be left out of the set without it. */
  | { readonly kind: 'unit'; readonly unitId: string; readonly changes: number; readonly songs: number }
  | { readonly kind: 'port'; readonly portId: string; readonly unitIds: readonly string[] }
  | { readonly kind: 'player'; readonly playerId: string; readonly unitIds: readonly string[] }
  /** A foot switch or pad: what it does on each page that has something for it; null for the everywhere layer. */
  | {
      readonly kind: 'switch';
      readonly unitId: string;
      readonly senderId: string;
      readonly does: readonly { readonly pageId: string | null; readonly does: Doing }[];
    };
