import { Download, Ear, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { useShallow } from 'zustand/react/shallow';
import type { DumpForm } from '../../../core/addressing';
import { dumpDifferences, memoryOf, readDump, writeDump } from '../../../core/feet';
import { readDumpForm, writeDumpForm } from '../../../core/formats/dump-form';
import { fileName } from '../../../core/formats/fileName';
import { routeTo } from '../../../core/meaning';
import { fromHex, toHex, wholeMessages } from '../../../core/midi';
import { changeFeet, changeProfile, feetOf, freeName, takeKept, type Unit, type Feet } from '../../../core/show';
import { problemLine, sentence } from '../../../wording';
import { download } from '../../adapters/download';
import { Button, FormProblem, MainButton, SignButton, Soft } from '../../widgets/controls';
import { Last, Rows } from '../../widgets/dialogParts';
import { ListenDialog } from '../../features/ListenDialog';
import { Pick } from '../../widgets/Pick';
import { newId, perform, say, sendOn } from '../../state/desk';
import { useNews } from '../../state/news';
import { useShow } from '../../state/store';
import { SmallHead, Tools } from './parts';

const NONE = 'none';

/** A controller's own memory: dumps from it are read as pages, edited here, and written back into the dump. */
export function MemoryPart({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const controller = unit.profile.controller!;
  const { memory: form } = controller;
  const { dumps } = feetOf(show, unit.id);
  const [chosen, setChosen] = useState('');
  const [told, setTold] = useState<readonly string[]>([]);
  const [wrong, setWrong] = useState<string | null>(null);
  const dump = dumps.find((d) => d.id === chosen) ?? dumps[0];
  const setForm = (memory: DumpForm | null, label: string): void => {
    const done = changeProfile(show, unit.id, { ...unit.profile, controller: { ...controller, memory } });
    if (done.ok) perform(done.edit, label);
    else setWrong(done.problems.map(sentence)[0] ?? null);
  };
  const takeForm = async (file: File): Promise<void> => {
    const { value, problems } = readDumpForm(await file.text());
    setWrong(value ? null : `${file.name}: ${problems.map(problemLine)[0] ?? 'it cannot be read'}`);
    if (value) setForm(value, 'describe the memory of a controller');
  };
  const keep = (name: string, bytes: readonly number[]): void => {
    const others = dumps.map((d) => d.name);
    const kept = { id: newId(), name: freeName(name, others), bytes: toHex(bytes) };
    perform(
      changeFeet(show, unit.id, (f) => ({ ...f, dumps: [...f.dumps, kept] })),
      `keep ${name}`,
    );
    setChosen(kept.id);
  };
  const readPages = (of: DumpForm, bytes: readonly number[]): void => {
    const { value, problems } = readDump(of, bytes);
    setWrong(value ? null : (problems.map(problemLine)[0] ?? null));
    setTold([]);
    if (!value) return;
    const edit = takeKept(show, unit.id, value.pages, memoryOf(show, unit.id).pages, newId);
    if (edit) perform(edit, 'take the pages of a dump');
    say(edit ? `${value.pages.length} pages were read from the dump.` : 'The dump holds the pages as they are here.');
  };
  const writePages = (of: DumpForm, name: string, bytes: readonly number[]): void => {
    const { value, problems } = writeDump(of, bytes, memoryOf(show, unit.id));
    setWrong(value ? null : (problems.map(problemLine)[0] ?? null));
    if (!value) return;
    setTold(problems.map(sentence));
    keep(`${name.replace(/, with the pages$/, '')}, with the pages`, value);
  };
  return (
    <section style={{ display: 'grid', gap: 10 }} aria-label="Its own memory">
      <SmallHead>Its own memory</SmallHead>
      <Soft style={{ fontSize: 13 }}>
        {form
          ? `It is described how it keeps ${form.pages.count} pages of ${form.switches.count} switches: a dump is read as pages, and they are written back into it.`
          : 'Nobody described yet how it keeps its pages in a dump. Import a description, or type the list.'}
      </Soft>
      <FormTools takeForm={takeForm} form={form} unit={unit} setForm={setForm} />
      {form && form.ask !== '' && <AskForDump unit={unit} form={form} onKeep={(bytes) => keep('Dump', bytes)} />}
      {form && dump && (
        <DumpTools
          dump={dump}
          dumps={dumps}
          setChosen={setChosen}
          readPages={readPages}
          form={form}
          writePages={writePages}
        />
      )}
      {wrong !== null && <FormProblem>{wrong}</FormProblem>}
      {told.length > 0 && (
        <ul role="status" aria-label="What did not fit" style={{ margin: 0, paddingLeft: 20 }}>
          {told.slice(0, 40).map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
      {dumps.length > 1 && dump && <Compare dumps={dumps} one={dump} />}
    </section>
  );
}

interface DumpToolsProps {
  readonly dump: Feet['dumps'][number];
  readonly dumps: Feet['dumps'];
  readonly setChosen: (value: string) => void;
  readonly readPages: (of: DumpForm, bytes: readonly number[]) => void;
  readonly form: DumpForm;
  readonly writePages: (of: DumpForm, name: string, bytes: readonly number[]) => void;
}

/** A dump that was read, and what is done with it. */
function DumpTools({ dump, dumps, setChosen, readPages, form, writePages }: DumpToolsProps) {
  return (
    <Tools>
      <Pick label="Dump" width="210px" value={dump.id} choices={dumps} onPick={setChosen} />
      <Button onPress={() => readPages(form, fromHex(dump.bytes) ?? [])}>Read its pages</Button>
      <Button onPress={() => writePages(form, dump.name, fromHex(dump.bytes) ?? [])}>Write the pages into it</Button>
    </Tools>
  );
}

interface FormToolsProps {
  readonly takeForm: (file: File) => Promise<void>;
  readonly form: DumpForm | null;
  readonly unit: Unit;
  readonly setForm: (memory: DumpForm | null, label: string) => void;
}

/** The description of the memory: read from a file, written into one, left. */
function FormTools({ takeForm, form, unit, setForm }: FormToolsProps) {
  return (
    <Tools>
      <FileTrigger acceptedFileTypes={['.json']} onSelect={(files) => files?.[0] && void takeForm(files[0])}>
        <Button>Import a description …</Button>
      </FileTrigger>
      {form && (
        <>
          <Button
            onPress={() =>
              download(
                fileName(unit.profile.name, 'lantern-dump-form.json'),
                writeDumpForm(unit.profile.name, form),
                'application/json',
              )
            }
          >
            <Download size={15} aria-hidden /> Export the description
          </Button>
          <SignButton aria-label="Remove the description" onPress={() => setForm(null, 'forget its memory')}>
            <Trash2 size={15} />
          </SignButton>
        </>
      )}
    </Tools>
  );
}

interface Dump {
  readonly id: string;
  readonly name: string;
  readonly bytes: string;
}

/** Where two dumps differ: with one edit made on the controller between them, that is where it stands. */
function Compare({ dumps, one }: { readonly dumps: readonly Dump[]; readonly one: Dump }) {
  const [chosen, setChosen] = useState(NONE);
  const other = dumps.find((d) => d.id === chosen && d.id !== one.id);
  const messages = (d: Dump) => wholeMessages(fromHex(d.bytes) ?? []) ?? [];
  const found = other ? dumpDifferences(messages(one), messages(other)) : undefined;
  const two = (byte: number): string => byte.toString(16).toUpperCase().padStart(2, '0');
  return (
    <>
      <Pick
        label={`Where ${one.name} differs from`}
        width="260px"
        value={other?.id ?? NONE}
        choices={[{ id: NONE, name: 'choose …' }, ...dumps.filter((d) => d.id !== one.id)]}
        onPick={setChosen}
      />
      {found === null && (
        <Soft role="status">They are of other lengths: no byte of one is the same place in the other.</Soft>
      )}
      {found && (
        <ul role="status" aria-label="Bytes that differ" style={{ margin: 0, paddingLeft: 20 }}>
          {found.length === 0 && <li>They are the same.</li>}
          {found.slice(0, 40).map((d) => (
            <li key={`${d.message} ${d.byte}`}>
              message {d.message + 1}, byte {d.byte}: {two(d.one)} here, {two(d.other)} there ({d.one} and {d.other})
            </li>
          ))}
          {found.length > 40 && <li>and {found.length - 40} more</li>}
        </ul>
      )}
    </>
  );
}

interface AskProps {
  readonly unit: Unit;
  readonly form: DumpForm;
  readonly onKeep: (bytes: readonly number[]) => void;
}

/** Asks the controller for a dump over its cables, and keeps what comes. */
function AskForDump({ unit, form, onKeep }: AskProps) {
  const show = useShow();
  const route = routeTo(show, unit);
  return (
    <Tools>
      <ListenDialog
        face={
          <>
            <Ear size={15} aria-hidden /> Ask for a dump
          </>
        }
        label={`Ask ${unit.name} for a dump`}
        title="A dump from the controller"
      >
        {(close, from) => (
          <Rows>
            <Soft>
              {route && unit.returns
                ? 'Ask, wait until all of it came, and keep it.'
                : 'No cable leads there and back: plug both in the rig first.'}
            </Soft>
            <Button
              isDisabled={!route || !unit.returns}
              onPress={() => route && void sendOn(route.portId, fromHex(form.ask)!)}
            >
              Ask now
            </Button>
            <Arrived form={form} from={from} onKeep={onKeep} close={close} />
          </Rows>
        )}
      </ListenDialog>
    </Tools>
  );
}

function Arrived({
  form,
  from,
  onKeep,
  close,
}: Pick<AskProps, 'form' | 'onKeep'> & { readonly from: number; readonly close: () => void }) {
  const messages = useNews(
    useShallow((s) =>
      s.lines.filter((l) => l.direction === 'in' && l.number > from && toHex(l.bytes).startsWith(form.head)),
    ),
  );
  const bytes = messages.flatMap((l) => l.bytes);
  const { value, problems } = readDump(form, bytes);
  return (
    <>
      <p role="status" aria-label="What came">
        {messages.length === 0
          ? 'Nothing has arrived yet.'
          : `${messages.length} ${messages.length === 1 ? 'message' : 'messages'}, ${bytes.length.toLocaleString('en')} bytes.`}
      </p>
      {messages.length > 0 && !value && <FormProblem>{problems.map(problemLine)[0]}</FormProblem>}
      <Last>
        <Button onPress={close}>Cancel</Button>
        <MainButton
          isDisabled={!value}
          onPress={() => {
            onKeep(bytes);
            close();
          }}
        >
          Keep it
        </MainButton>
      </Last>
    </>
  );
}
