import type { Controller } from '../../addressing';

/** A switch as a proposal knows it: how far on in reading, and how far from the foot. */
export interface Place {
  readonly id: string;
  /** Its place in reading order: from the far row to the near one, from left to right. */
  readonly order: number;
  /** How far it is from the middle of the row at the feet: smaller is nearer. */
  readonly reach: number;
}

/** A song as a proposal knows it: its tones in the order of their first use. */
export interface SongTones {
  readonly songId: string;
  readonly tones: readonly string[];
  /** Tones that stay on switches of its page, and switches that something else stays on (null). */
  readonly fixed: ReadonlyMap<string, string | null>;
}

/** What pages are proposed for. */
export interface PageAsk {
  readonly places: readonly Place[];
  readonly songs: readonly SongTones[];
  /** Tones that stay on switches of every page, and switches that something else stays on (null). */
  readonly pins: ReadonlyMap<string, string | null>;
  /** How many pages the controller has left for songs. */
  readonly pages: number;
  /** How a page is left for another: by a switch that goes there, by the controller's own, or not at all. */
  readonly turns: 'jump' | 'step' | 'none';
}

/** The controller's switches, as far on and as far off as they lie. */
export function placesOf({ switches }: Controller): readonly Place[] {
  const near = Math.max(...switches.map((s) => s.row));
  const columns = switches.filter((s) => s.row === near).map((s) => s.column);
  const middle = (Math.min(...columns) + Math.max(...columns)) / 2;
  const reading = switches.toSorted((a, b) => a.row - b.row || a.column - b.column);
  return reading.map(({ id, row, column }, order) => ({
    id,
    order,
    // A row further away is further than any place in the row before it.
    reach: (near - row) * 32 + Math.abs(column - middle) * 2,
  }));
}

/** A step out of order outweighs all ways of the foot. */
export const ORDER_WEIGHT = 10_000;

/** What it costs to have a tone on a switch where it is the `rank`-th to be used, counted from 0. */
export const placeCost = (place: Place, rank: number): number =>
  ORDER_WEIGHT * Math.abs(place.order - rank) + place.reach;
