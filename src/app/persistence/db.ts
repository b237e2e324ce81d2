import Dexie, { type EntityTable } from 'dexie';
import type { CueProof } from '../../core/proof';
import type { PlayedNight } from './nightRow';

/** One row a show: the document as plain data but for its songs, and how often it was saved. */
export interface ShowRow {
  readonly id: string;
  readonly title: string;
  readonly revision: number;
  readonly savedAt: number;
  /** Older rows have their songs in here. */
  readonly data: unknown;
  /** Ids of its songs, in their order. */
  readonly songs?: readonly string[];
}

/** One row a song: an edit of one writes one. */
export interface SongRow {
  readonly showId: string;
  readonly id: string;
  readonly data: unknown;
}

/** What dry runs found, by fingerprint, so that lanterns are still lit after a reload. */
export interface ProofRow {
  readonly showId: string;
  readonly songId: string;
  readonly proofs: Readonly<Record<string, CueProof>>;
}

/** A setting that belongs to this computer, never to a show. */
export interface DeviceRow {
  readonly key: string;
  readonly value: unknown;
}

/** A sound file of a show, with the peaks that its picture is drawn from. */
export interface SoundRow {
  readonly showId: string;
  readonly id: string;
  readonly type: string;
  readonly bytes: ArrayBuffer;
  readonly peaks: Uint8Array;
}

/** A state of a show as it was: kept by hand, or by itself before another one took its place. */
export interface VersionRow {
  readonly showId: string;
  readonly id: string;
  readonly name: string;
  readonly savedAt: number;
  readonly why: 'kept' | 'before';
  /** The whole show as plain data. */
  readonly data: unknown;
}

/** The database of the browser. Its version is its own; the show's version is in the show. */
export class Shelf extends Dexie {
  declare shows: EntityTable<ShowRow, 'id'>;
  declare songs: Dexie.Table<SongRow, [string, string]>;
  declare proofs: Dexie.Table<ProofRow, [string, string]>;
  declare device: EntityTable<DeviceRow, 'key'>;
  declare sounds: Dexie.Table<SoundRow, [string, string]>;

  declare versions: Dexie.Table<VersionRow, [string, string]>;
  declare nights: Dexie.Table<PlayedNight, [string, string]>;

  constructor(name = 'hollow-lantern') {
    super(name);
    this.version(1).stores({ shows: 'id, savedAt', proofs: '[showId+songId], showId' });
    this.version(2).stores({ sounds: '[showId+id], showId' });
    // Revisions and titles are read from the keys alone: a large show takes a tenth of a second to read.
    this.version(3).stores({ shows: 'id, [id+revision], [savedAt+id+title]' });
    this.version(4).stores({ device: 'key' });
    this.version(5).stores({ songs: '[showId+id], showId' });
    this.version(6).stores({ versions: '[showId+id], showId' });
    this.version(7).stores({ nights: '[showId+id], showId' });
  }
}

export const shelf = new Shelf();
