import { useMemo, useState } from 'react';
import { readTable } from '../../../core/formats/readTable';
import { MadeChoice, useMade } from '../../features/MadeChoice';
import { Pick } from '../../widgets/Pick';
import { newId } from '../../state/desk';
import { useShow } from '../../state/store';
import { TABLES, type TableKind } from '../../../core/formats/csv';
import { Fields } from './filesParts';
import { Preview } from './Preview';

const INTO: Readonly<Record<TableKind, string>> = {
  cues: 'Cues of a song: they replace those it has',
  set: 'Running order: it replaces the one there is',
  tones: 'Tones: those it names are new or changed',
  controls: 'Controls of a unit: those it names are new or changed',
  presets: 'Presets of a unit: the places it names',
};

/** A table before it comes into the show: what it is a table of, and what changes. */
export function TableIn({
  text,
  table,
  from,
  onDone,
}: {
  readonly text: string;
  readonly table: TableKind;
  readonly from: string;
  readonly onDone: () => void;
}) {
  const show = useShow();
  const [kind, setKind] = useState<TableKind>(table);
  const [id, setId] = useState('');
  const [made, setMade] = useMade();
  const things =
    kind === 'cues'
      ? show.songs.map((s) => ({ id: s.id, name: s.title }))
      : kind === 'controls' || kind === 'presets'
        ? show.units.map((u) => ({ id: u.id, name: u.name }))
        : null;
  // What stands in the file's name is most likely meant.
  const named = things?.find((t) =>
    from.toLowerCase().includes(t.name.toLowerCase().replaceAll(/[^\p{L}\p{N}]+/gu, '-')),
  );
  const chosen = things?.find((t) => t.id === id)?.id ?? named?.id ?? things?.[0]?.id;
  const missing = things !== null && chosen === undefined;
  const read = useMemo(
    () => (missing ? null : readTable(show, kind, chosen ?? '', text, newId, made)),
    [show, kind, chosen, text, missing, made],
  );
  return (
    <>
      <Fields>
        <Pick
          label="This is a table of"
          width="340px"
          value={kind}
          choices={TABLES.map((k) => ({ id: k, name: INTO[k] }))}
          onPick={(k) => setKind(k)}
        />
        {things !== null && things.length > 0 && (
          <Pick
            label={kind === 'cues' ? 'Song' : 'Unit'}
            width="220px"
            value={chosen!}
            choices={things}
            onPick={setId}
          />
        )}
      </Fields>
      {read ? (
        <Preview read={read} from={from} onDone={onDone}>
          <MadeChoice made={made} onPick={setMade} problems={read.problems} />
        </Preview>
      ) : (
        <p>{kind === 'cues' ? 'The show has no song yet to put cues into.' : 'The show has no unit yet.'}</p>
      )}
    </>
  );
}
