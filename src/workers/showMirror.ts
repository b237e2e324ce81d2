import type { Show, Song } from '../core/show';
import type { ShowUpdate } from './protocol';

/** The sending end: works out what changed since the show was last sent. */
export function updateOf(before: Show | undefined, after: Show): ShowUpdate {
  const { songs, ...frame } = after;
  const known = new Map(before?.songs.map((s) => [s.id, s]));
  const sameFrame =
    before !== undefined && (Object.keys(frame) as (keyof typeof frame)[]).every((k) => before[k] === after[k]);
  return {
    frame: sameFrame ? null : frame,
    songs: songs.filter((s) => known.get(s.id) !== s),
    order: songs.map((s) => s.id),
  };
}

/** The receiving end: puts a show together from updates; unchanged songs stay the same objects. */
export class ShowMirror {
  private frame: Omit<Show, 'songs'> | undefined;
  private songs = new Map<string, Song>();
  private current: Show | undefined;

  update({ frame, songs, order }: ShowUpdate): void {
    if (frame) this.frame = frame;
    for (const song of songs) this.songs.set(song.id, song);
    const kept = order.flatMap((id) => this.songs.get(id) ?? []);
    this.songs = new Map(kept.map((s) => [s.id, s]));
    this.current = this.frame && { ...this.frame, songs: kept };
  }

  /** Throws before the first update. */
  get show(): Show {
    if (!this.current) throw new Error('the worker was asked before it was sent a show');
    return this.current;
  }
}
