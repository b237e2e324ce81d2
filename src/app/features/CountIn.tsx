import { setSongField, type Song } from '../../core/show';
import { countInWords } from '../../wording';
import { perform } from '../state/desk';
import { useShow } from '../state/store';
import { Pick } from '../widgets/Pick';

const COUNTS = [0, 1, 2, 3, 4, 8].map((n) => ({ id: String(n), name: countInWords(n) }));

/** How many bars a song is counted in by, where it is started. */
export function CountIn({ song }: { readonly song: Song }) {
  const show = useShow();
  const { click } = song;
  return (
    <Pick
      label="Count-in"
      choices={COUNTS}
      value={String(click.countIn)}
      onPick={(id) =>
        void perform(setSongField(show, song.id, 'click', { ...click, countIn: Number(id) }), 'change the count-in')
      }
    />
  );
}
