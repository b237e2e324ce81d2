import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { FileTrigger, Form } from 'react-aria-components';
import { useForm } from 'react-hook-form';
import { z } from 'zod';
import useSWR from 'swr';
import { readUnitFile, writeProfileFile, type UnitFile } from '../../core/formats/unit-file';
import type { Problem } from '../../core/problems';
import { LIMITS, addUnit, newPort, newUnit, type Port, type Show, freeChannel, freeInput } from '../../core/show';
import { unitLibrary } from '../adapters/constants';
import { DialogButton } from '../widgets/DialogButton';
import { Last, Pair, Rows } from '../widgets/dialogParts';
import { Button, FormProblem, MainButton, Soft } from '../widgets/controls';
import { FormField } from '../widgets/FormField';
import { Pick } from '../widgets/Pick';
import { fileName } from '../../core/formats/fileName';
import { download } from '../adapters/download';
import { Told } from './Told';
import { newId, perform } from '../state/desk';
import { useShow } from '../state/store';
import type { LibraryEntry } from '../../core/library';

const NEW_PORT = 'new';

/** What is typed of a new unit: a name that no other unit has. */
const unitForm = (show: Show) =>
  z.object({
    name: z
      .string()
      .trim()
      .min(1, 'Enter a name for the unit.')
      .transform((n) => n.slice(0, LIMITS.title))
      .refine((n) => !show.units.some((u) => u.name.toLowerCase() === n.toLowerCase()), {
        error: (issue) => `There is a unit named ${String(issue.input)} already.`,
      }),
    monogram: z.string().trim(),
  });

interface Props {
  readonly onAdded: (unitId: string) => void;
  /** The kind of the library that is chosen to begin with. */
  readonly kind?: string;
}

/** A unit from the library of generic kinds, or from a file, on a port and channel. */
export function AddUnit({ onAdded, kind = 'letter-modeler' }: Props) {
  return (
    <DialogButton face="Add a unit" title="Add a unit">
      {(close) => <AddUnitForm onAdded={onAdded} kind={kind} close={close} />}
    </DialogButton>
  );
}

function AddUnitForm({ onAdded, kind: begin, close }: Required<Props> & { readonly close: () => void }) {
  const show = useShow();
  const library = useSWR('unit library', unitLibrary);
  const { control, handleSubmit, getValues, setValue } = useForm({
    resolver: zodResolver(unitForm(show)),
    defaultValues: { name: '', monogram: '' },
  });
  const [kind, setKind] = useState(begin);
  const [channel, setChannel] = useState(() => String(freeChannel(show)));
  const [portId, setPortId] = useState(show.ports[0]?.id ?? NEW_PORT);
  const [problem, setProblem] = useState<string | null>(null);
  const [file, setFile] = useState<UnitFile | null>(null);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const ports = [...show.ports.map(({ id, name: n }) => ({ id, name: n })), { id: NEW_PORT, name: 'a new 5-pin port' }];
  const entry = library.data?.find((e) => e.id === kind);

  const open = async (chosen: File): Promise<void> => {
    const read = readUnitFile(await chosen.text());
    setProblems(read.problems);
    setFile(read.value ?? null);
    if (read.value && getValues('name').trim() === '') {
      setValue('name', read.value.unit.name);
      setValue('monogram', read.value.unit.monogram.slice(0, 2));
    }
  };

  const add = handleSubmit(({ name, monogram }) => {
    const source = file?.unit ?? entry;
    if (!source) {
      setProblem('Choose what kind of unit it is.');
      return;
    }
    const id = newId();
    const port: Port | null = portId === NEW_PORT ? newPort(newId(), `Port ${show.ports.length + 1}`, 'din') : null;
    const signs = (monogram || name.replace(/[^\p{L}\p{N}]/gu, '')).slice(0, 2).toUpperCase() || '??';
    const unit = newUnit(id, name, signs, source.profile, {
      channel: Number(channel),
      versions: source.versions,
      slots: file?.unit.slots ?? [],
      input: port ? { from: 'port', portId: port.id } : freeInput(show, portId),
      // What is played is heard by the computer.
      returns: source.profile.senders.length > 0 ? { portId: port?.id ?? portId, thru: false } : null,
    });
    perform(addUnit(show, unit, port, file?.house ?? []), `add ${unit.name}`);
    close();
    onAdded(id);
  });

  return (
    <Form onSubmit={(event) => void add(event)}>
      <Rows>
        <Pair style={{ alignItems: 'start' }}>
          <FormField control={control} name="name" label="Name" autoFocus />
          <FormField control={control} name="monogram" label="Short name" maxLength={2} />
        </Pair>
        {file ? (
          <Soft>
            From a file: {file.unit.profile.name}, {file.unit.slots.length} named slots.
          </Soft>
        ) : library.data ? (
          <Pick
            label="Kind"
            choices={library.data.map((e) => ({ id: e.id, name: e.profile.name }))}
            value={kind}
            onPick={setKind}
          />
        ) : (
          <Soft>{library.error ? (library.error as Error).message : 'Fetching the unit library …'}</Soft>
        )}
        {entry && !file && <Soft>{entry.about}</Soft>}
        <FromFile file={file} setFile={setFile} open={open} entry={entry} />
        <Told problems={problems} label="About the file" />
        <WhereItListens ports={ports} portId={portId} setPortId={setPortId} channel={channel} setChannel={setChannel} />
        {problem !== null && <FormProblem>{problem}</FormProblem>}
        <Last>
          <Button onPress={close}>Cancel</Button>
          <MainButton type="submit">Add the unit</MainButton>
        </Last>
      </Rows>
    </Form>
  );
}

interface FromFileProps {
  readonly file: UnitFile | null;
  readonly setFile: (value: UnitFile | null) => void;
  readonly open: (chosen: File) => Promise<void>;
  readonly entry: LibraryEntry | undefined;
}

/** Takes a unit from a file, or goes back to the library. */
function FromFile({ file, setFile, open, entry }: FromFileProps) {
  return (
    <Pair style={{ justifyContent: 'start' }}>
      {file ? (
        <Button onPress={() => setFile(null)}>Choose from the library instead</Button>
      ) : (
        <FileTrigger
          acceptedFileTypes={['.json', 'application/json']}
          onSelect={(files) => files?.[0] && void open(files[0])}
        >
          <Button>Open a unit's file</Button>
        </FileTrigger>
      )}
      <Button
        isDisabled={!entry || file !== null}
        onPress={() =>
          entry && download(fileName(entry.id, 'lantern-unit.json'), writeProfileFile(entry), 'application/json')
        }
      >
        Save this kind as a file
      </Button>
    </Pair>
  );
}

interface WhereItListensProps {
  readonly ports: { id: string; name: string }[];
  readonly portId: string;
  readonly setPortId: (value: string) => void;
  readonly channel: string;
  readonly setChannel: (value: string) => void;
}

/** The port and the channel of the new unit. */
function WhereItListens({ ports, portId, setPortId, channel, setChannel }: WhereItListensProps) {
  return (
    <Pair>
      <Pick label="Port" choices={ports} value={portId} onPick={setPortId} />
      <Pick
        label="Channel"
        choices={Array.from({ length: 16 }, (_, i) => ({ id: String(i + 1), name: String(i + 1) }))}
        value={channel}
        onPick={setChannel}
      />
    </Pair>
  );
}
