import { useEffect } from 'react';
import { look } from './desk';
import type { Sight } from './proving';

/** Tells what the view shows, so that it is proven first and in full: a song, or the set. */
export function useSight(what: 'set' | { readonly songId: string } | null): void {
  const songId = what !== null && what !== 'set' ? what.songId : null;
  const set = what === 'set';
  useEffect(() => {
    const sight: Sight = songId !== null ? { kind: 'song', songId } : set ? { kind: 'set' } : null;
    look(sight);
    return () => look(null);
  }, [songId, set]);
}
