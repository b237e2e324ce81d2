import type { ShowSet, SoundEntry } from './schema';

/** The sounds of a running order that stand between a song and the next, or (null) before the first. */
function soundsBehind({ entries }: ShowSet, entryId: string | null): readonly SoundEntry[] {
  const from = entryId === null ? 0 : entries.findIndex((e) => e.id === entryId) + 1;
  if (entryId !== null && from === 0) return [];
  const until = entries.findIndex((e, i) => i >= from && e.kind === 'song');
  return entries.slice(from, until < 0 ? entries.length : until).filter((e) => e.kind === 'sound');
}

/** The sound that begins by itself when a song, or another sound, has ended; null where silence follows. */
export function soundAfter(set: ShowSet, entryId: string): SoundEntry | null {
  return soundsBehind(set, entryId).find((e) => e.begins === 'after') ?? null;
}

/**
 * The sound that a press is for: of those behind the song that was played, the first; before a song that was not, the
 * first of those that stand ahead of it. Null where there is none.
 */
export function soundToPress(set: ShowSet, entryId: string | null, played: boolean): SoundEntry | null {
  const behind = played && entryId !== null ? soundsBehind(set, entryId)[0] : undefined;
  if (behind) return behind;
  const at = set.entries.findIndex((e) => e.id === entryId);
  const before = at < 0 ? undefined : set.entries.slice(0, at).findLast((e) => e.kind === 'song');
  return played ? null : (soundsBehind(set, before?.id ?? null)[0] ?? null);
}
