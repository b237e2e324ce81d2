import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Bundle } from '../../../core/formats/bundle';
import { cutPart } from '../../../core/formats/part-file';
import { Check } from '../../widgets/Check';
import { Button, MainButton } from '../../widgets/controls';
import { say, shelve } from '../../state/desk';
import { BringPart } from './BringPart';
import { Matches } from './filesParts';
import type { Show } from '../../../core/show';

/** A whole show: opened as one of its own, or songs of it brought into this one. */
export function ShowIn({
  bundle,
  told,
  from,
  onDone,
}: {
  readonly bundle: Bundle;
  readonly told: readonly string[];
  readonly from: string;
  readonly onDone: () => void;
}) {
  const navigate = useNavigate();
  const [songIds, setSongIds] = useState<ReadonlySet<string>>(new Set());
  const [bringing, setBringing] = useState(false);
  const { show, sounds } = bundle;
  const open = async (): Promise<void> => {
    const id = await shelve(show, sounds);
    await navigate(`/show/${id}`);
    if (told.length > 0) say(told.join(' '));
  };
  if (bringing) {
    return (
      <BringPart part={cutPart(show, { kind: 'songs', songIds: [...songIds] }).part} from={from} onDone={onDone} />
    );
  }
  return (
    <>
      <p>
        <b>{show.title}</b> is a whole show, with {show.units.length} units and {show.songs.length} songs.
      </p>
      <div style={{ margin: '12px 0 18px' }}>
        <MainButton onPress={() => void open()}>Open it as a show of its own</MainButton>
      </div>
      {show.songs.length > 0 && (
        <SongsOut show={show} songIds={songIds} setSongIds={setSongIds} setBringing={setBringing} />
      )}
    </>
  );
}

interface SongsOutProps {
  readonly show: Show;
  readonly songIds: ReadonlySet<string>;
  readonly setSongIds: (value: ReadonlySet<string>) => void;
  readonly setBringing: (value: boolean) => void;
}

/** Songs that are taken out of the file alone. */
function SongsOut({ show, songIds, setSongIds, setBringing }: SongsOutProps) {
  return (
    <>
      <h3>Or take songs out of it, with their tones</h3>
      <Matches aria-label="Songs of the file">
        {show.songs.map((song) => (
          <li key={song.id}>
            <Check
              isSelected={songIds.has(song.id)}
              onChange={(on) => {
                const next = new Set(songIds);
                if (on) next.add(song.id);
                else next.delete(song.id);
                setSongIds(next);
              }}
            >
              {song.title}
            </Check>
          </li>
        ))}
      </Matches>
      <Button style={{ marginTop: 12 }} isDisabled={songIds.size === 0} onPress={() => setBringing(true)}>
        Import these songs
      </Button>
    </>
  );
}
