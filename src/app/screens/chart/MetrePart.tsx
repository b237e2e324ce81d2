import { Plus, Trash2 } from 'lucide-react';
import { putMetre, removeMetre, songTime } from '../../../core/show';
import { formatBar } from '../../../core/time';
import { Button, SignButton } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { perform } from '../../state/desk';
import { Row } from './panelParts';
import { take, type FrameProps } from './frameParts';

const METRE = /^\s*(\d{1,3})\s*\/\s*(1|2|4|8|16|32|64|128)\s*$/;

export function MetrePart({ show, song, bar }: FrameProps & { readonly bar: number }) {
  const { bars } = songTime(song);
  const set = (n: number, text: string): string | null => {
    const [, beats, unit] = METRE.exec(text) ?? [];
    if (beats === undefined || Number(beats) < 1) return 'beats/unit, as in 7/8';
    const edit = putMetre(show, song.id, n, Number(beats), Number(unit));
    return take(edit, 'change the metre', 'another metre');
  };
  const now = song.metre.findLast((m) => m.bar <= bar) ?? song.metre[0]!;
  return (
    <>
      <h3>Metre</h3>
      {song.metre.map((m) => (
        <Row key={m.bar}>
          <DraftField
            label={`From bar ${formatBar(bars, m.bar, song.bars)}`}
            value={`${m.beats}/${m.unit}`}
            commit={(text) => set(m.bar, text)}
          />
          {m.bar > 1 && (
            <SignButton
              aria-label={`Remove the metre of bar ${formatBar(bars, m.bar, song.bars)}`}
              onPress={() => perform(removeMetre(show, song.id, m.bar), 'remove a metre')}
            >
              <Trash2 size={15} />
            </SignButton>
          )}
        </Row>
      ))}
      <div>
        <Button
          isDisabled={song.metre.some((m) => m.bar === bar)}
          onPress={() => perform(putMetre(show, song.id, bar, now.beats, now.unit), 'add a metre')}
        >
          <Plus size={14} aria-hidden /> Metre at bar {formatBar(bars, bar, song.bars)}
        </Button>
      </div>
    </>
  );
}
