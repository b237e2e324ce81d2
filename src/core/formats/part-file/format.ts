import type { Show } from '../../show';

export const PART_FORMAT = 'hollow-lantern-part';

/** What of a show is handed on. A unit by itself has a file of its own kind. */
export type PartWish =
  | { readonly kind: 'songs'; readonly songIds: readonly string[] }
  | { readonly kind: 'set'; readonly setId: string }
  | { readonly kind: 'pages'; readonly unitId: string }
  /** Tones and moves alone. */
  | { readonly kind: 'kit'; readonly toneIds: readonly string[]; readonly moveIds: readonly string[] };

export type PartKind = PartWish['kind'];

/** A part of a show: what it is, and a show that holds just what belongs to it. */
export interface Part {
  readonly kind: PartKind;
  readonly show: Show;
  /** For which song, by its title, a page is: the songs of pages stay behind, and another show may have them too. */
  readonly pageSongs: Readonly<Record<string, string>>;
}
