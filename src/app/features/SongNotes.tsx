import type { CSSProperties } from 'react';
import { fitText, setSongField, type Song } from '../../core/show';
import { perform } from '../state/desk';
import { useShow } from '../state/store';
import { DraftField } from '../widgets/DraftField';

/** What is to be said of a song: it is printed at the head of its cue sheet. */
export function SongNotes({ song, style }: { readonly song: Song; readonly style?: CSSProperties }) {
  const show = useShow();
  return (
    <DraftField
      label={`Notes of ${song.title}, printed on its cue sheet`}
      value={song.notes}
      {...(style ? { style } : {})}
      commit={(text) => {
        perform(setSongField(show, song.id, 'notes', fitText(text, 'notes')), 'change the notes of a song');
        return null;
      }}
    />
  );
}
