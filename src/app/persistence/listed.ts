import type { ShowRow } from './db';

export type Listed = Pick<ShowRow, 'id' | 'title' | 'savedAt'>;

/** What the shelf's index says of a show; a date that is none is 0. The first view asks this, so it brings no reader of schemas with it. */
export function readListed(key: unknown): Listed | undefined {
  const [savedAt, id, title] = Array.isArray(key) ? (key as unknown[]) : [];
  if (typeof id !== 'string') return undefined;
  return {
    id,
    title: typeof title === 'string' && title !== '' ? title : 'A show without a title',
    savedAt: typeof savedAt === 'number' && Number.isFinite(savedAt) ? savedAt : 0,
  };
}
