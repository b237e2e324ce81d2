import { useState } from 'react';
import { FileTrigger, Form } from 'react-aria-components';
import useSWR from 'swr';
import { readUnitFile, writeProfileFile, type UnitFile } from '../../core/formats/unit-file';
import type { Problem } from '../../core/problems';
import { LIMITS, addUnit, newPort, newUnit, type Port, freeChannel } from '../../core/show';
import { unitLibrary } from '../adapters/constants';
import { DialogButton } from './DialogButton';
import { Last, Pair, Rows } from './dialogParts';
import { Button, FormProblem, Field, Input, Label, MainButton, Soft } from './controls';
import { Pick } from './Pick';
import { download, fileName } from '../adapters/download';
import { Told } from './Told';
import { newId, perform } from '../state/desk';
import { useShow } from '../state/store';

const NEW_PORT = 'new';

/** A unit from the library of generic kinds, or from a file, on a port and channel. */
export function AddUnit({ onAdded }: { readonly onAdded: (unitId: string) => void }) {
  return (
    <DialogButton face="Add a unit" title="Add a unit">
      {(close) => <AddUnitForm onAdded={onAdded} close={close} />}
    </DialogButton>
  );
}

function AddUnitForm({ onAdded, close }: { readonly onAdded: (unitId: string) => void; readonly close: () => void }) {
  const show = useShow();
  const library = useSWR('unit library', unitLibrary);
  const [name, setName] = useState('');
  const [monogram, setMonogram] = useState('');
  const [kind, setKind] = useState('letter-modeler');
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
    if (read.value && name.trim() === '') {
      setName(read.value.unit.name);
      setMonogram(read.value.unit.monogram.slice(0, 2));
    }
  };

  /** What keeps the unit from being added, in a sentence. */
  const objection = (): string | null => {
    if (name.trim() === '') return 'Enter a name for the unit.';
    if (show.units.some((u) => u.name.toLowerCase() === name.trim().toLowerCase()))
      return `There is a unit named ${name.trim()} already.`;
    return entry || file ? null : 'Choose what kind of unit it is.';
  };
  const add = (): string | null => {
    const wrong = objection();
    const source = file?.unit ?? entry;
    if (wrong !== null || !source) return wrong;
    const id = newId();
    const port: Port | null = portId === NEW_PORT ? newPort(newId(), `Port ${show.ports.length + 1}`, 'din') : null;
    const signs = (monogram.trim() || name.trim().replace(/[^\p{L}\p{N}]/gu, '')).slice(0, 2).toUpperCase() || '??';
    const unit = newUnit(id, name.trim().slice(0, LIMITS.title), signs, source.profile, {
      channel: Number(channel),
      versions: source.versions,
      slots: file?.unit.slots ?? [],
      input: { from: 'port', portId: port?.id ?? portId },
    });
    perform(addUnit(show, unit, port, file?.house ?? []), `add ${unit.name}`);
    onAdded(id);
    return null;
  };

  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        const wrong = add();
        setProblem(wrong);
        if (wrong === null) close();
      }}
    >
      <Rows>
        <Pair>
          <Field value={name} onChange={setName} autoFocus>
            <Label>Name</Label>
            <Input />
          </Field>
          <Field value={monogram} onChange={setMonogram} maxLength={2}>
            <Label>Short name</Label>
            <Input />
          </Field>
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
        <Told problems={problems} label="About the file" />
        <Pair>
          <Pick label="Port" choices={ports} value={portId} onPick={setPortId} />
          <Pick
            label="Channel"
            choices={Array.from({ length: 16 }, (_, i) => ({ id: String(i + 1), name: String(i + 1) }))}
            value={channel}
            onPick={setChannel}
          />
        </Pair>
        {problem !== null && <FormProblem>{problem}</FormProblem>}
        <Last>
          <Button onPress={close}>Cancel</Button>
          <MainButton type="submit">Add the unit</MainButton>
        </Last>
      </Rows>
    </Form>
  );
}
