import { Copy, Trash2 } from 'lucide-react';
import { LIMITS, addSong, deleteSong, startFrom, type Song } from '../../../core/show';
import { SignButton } from '../../widgets/controls';
import { newId, perform, say } from '../../state/desk';
import { useShow } from '../../state/store';

/** What can be done with a song as a whole. Undo brings back what was deleted. */
export function SongActs({ song }: { readonly song: Song }) {
  const show = useShow();
  const copy = (): void => {
    const made = startFrom(song, newId(), `${song.title} (copy)`.slice(0, LIMITS.title), newId);
    if (perform(addSong(show, made, newId()), `duplicate ${song.title}`))
      say(`${made.title} is at the end of the set.`);
  };
  return (
    <>
      <SignButton aria-label={`Duplicate ${song.title}`} onPress={copy}>
        <Copy size={16} />
      </SignButton>
      <SignButton
        aria-label={`Delete ${song.title}`}
        onPress={() => {
          if (perform(deleteSong(show, song.id), `delete ${song.title}`))
            say(`${song.title} is deleted. Undo brings it back.`);
        }}
      >
        <Trash2 size={16} />
      </SignButton>
    </>
  );
}
