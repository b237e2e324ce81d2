import { FolderOpen } from 'lucide-react';
import { FileTrigger } from 'react-aria-components';
import { Link, useNavigate } from 'react-router';
import useSWR from 'swr';
import { FormProblem, MainButton, Soft } from '../../widgets/controls';
import { SongFromFileForm } from '../../features/SongFromFile';
import { say } from '../../state/desk';
import { dropFile, useDropped } from '../../state/dropped';
import { useShow } from '../../state/store';
import { BringPart } from './BringPart';
import { ImportPage } from './filesParts';
import { lookInto, type Incoming } from './incoming';
import { ShowIn } from './ShowIn';
import { TableIn } from './TableIn';
import { UnitIn } from './UnitIn';

const TAKEN: readonly (readonly [what: string, how: string])[] = [
  ['A part of a show', 'songs with their tones, a set, pages of a controller, a unit’s map'],
  ['A whole show', 'opened as one of its own, or songs of it taken'],
  ['A MIDI file', 'as a song, its changes named through the map'],
  ['A table (CSV)', 'cues, running order, tones, controls, presets'],
];

/** What comes into the show from a file: looked into first, and said in words what it changes. */
export function ImportPart() {
  const { file, nth } = useDropped();
  const { data: incoming } = useSWR(file ? ['incoming', nth] : null, () => lookInto(file!));
  return (
    <ImportPage>
      <section aria-label="File">
        <FileTrigger
          acceptedFileTypes={['.json', '.zip', '.mid', '.midi', '.csv', '.tsv', '.txt', '.midnam', '.xml', '.syx']}
          onSelect={(files) => {
            const chosen = files?.[0];
            if (chosen) dropFile(chosen);
          }}
        >
          <MainButton>
            <FolderOpen size={16} aria-hidden /> {file ? 'Choose another file' : 'Choose a file'}
          </MainButton>
        </FileTrigger>
        <p style={{ margin: '10px 0 14px' }}>
          <Soft>Or drop one anywhere on this page, in any view. Nothing changes before you say so.</Soft>
        </p>
        <dl>
          {TAKEN.map(([what, how]) => (
            <div key={what}>
              <dt>{what}</dt>
              <dd>{how}</dd>
            </div>
          ))}
        </dl>
      </section>
      <section aria-label="What is in the file">
        {file && (
          <>
            <h2>{file.name}</h2>
            {incoming ? (
              <Opened key={nth} name={file.name} incoming={incoming} onDone={() => dropFile(null)} />
            ) : (
              <p role="status">Looking into it …</p>
            )}
          </>
        )}
      </section>
    </ImportPage>
  );
}

function Opened({
  name,
  incoming,
  onDone,
}: {
  readonly name: string;
  readonly incoming: Incoming;
  readonly onDone: () => void;
}) {
  const show = useShow();
  const navigate = useNavigate();
  const base = `/show/${show.id}`;
  switch (incoming.kind) {
    case 'refused':
      return <FormProblem>{incoming.problem}</FormProblem>;
    case 'part':
      return <BringPart part={incoming.part} from={name} onDone={onDone} />;
    case 'show':
      return <ShowIn bundle={incoming.bundle} told={incoming.told} from={name} onDone={onDone} />;
    case 'unit':
      return <UnitIn file={incoming.unit} from={name} onDone={onDone} />;
    case 'table':
      return <TableIn text={incoming.text} table={incoming.table} from={name} onDone={onDone} />;
    case 'midi':
      return (
        <SongFromFileForm
          first={incoming.opened}
          onClose={onDone}
          onAdded={(songId) => {
            onDone();
            void Promise.resolve(navigate(`${base}/chart/${songId}`)).then(() => say(`${name} is a song of the show.`));
          }}
        />
      );
    case 'names':
      return (
        <p>
          A document of MIDI names belongs to one unit: open it there, under <Link to={`${base}/map`}>Map</Link>, Import
          list.
        </p>
      );
    case 'exclusive':
      return (
        <p>
          An exclusive file belongs to one controller: open it there, under <Link to={`${base}/feet`}>Feet</Link>,
          Transfer.
        </p>
      );
  }
}
