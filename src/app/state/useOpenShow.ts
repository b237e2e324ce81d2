import { useEffect } from 'react';
import { useParams } from 'react-router';
import { openFromShelf, saveOnLeave } from './desk';
import { useApp } from './store';

/** Opens the show that the address names, and keeps it safe when the page goes. Whether it is open, and why not. */
export function useOpenShow(): { readonly open: boolean; readonly refusal: string | null } {
  const { showId } = useParams();
  const id = useApp((s) => s.open?.show.id);
  const refusal = useApp((s) => s.refusal);
  useEffect(saveOnLeave, []);
  useEffect(() => {
    if (showId !== undefined && useApp.getState().open?.show.id !== showId) void openFromShelf(showId);
  }, [showId]);
  return { open: id === showId, refusal };
}
