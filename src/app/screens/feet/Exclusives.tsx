import { Download, Send, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { compareMemories, memoryOf, type FootMemory } from '../../../core/feet';
import { pagesInFile, readExclusiveFile, writePagesFile } from '../../../core/formats/exclusive';
import { routeTo } from '../../../core/meaning';
import { fromHex, toHex, wholeMessages } from '../../../core/midi';
import { LIMITS, asTitle, changeFeet, feetOf, type Unit, type Feet } from '../../../core/show';
import { memoryDifferenceWords, problemLine } from '../../../wording';
import { fileName } from '../../../core/formats/fileName';
import { download } from '../../adapters/download';
import { Button, FormProblem, SignButton, Soft } from '../../widgets/controls';
import { newId, perform, say, sendOn } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { SmallHead, Tools } from './parts';

const Kept = styled.ul`
  display: grid;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
  & > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto auto;
    align-items: center;
    gap: 4px;
    padding: 2px 4px 2px 10px;
    border: 1px solid ${desk.line};
    background: ${desk.sheet};
  }
`;

const SYX = 'application/octet-stream';

/** System exclusive files: the pages as one, and foreign ones kept whole and sent as they are. */
export function Exclusives({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const [problems, setProblems] = useState<readonly string[]>([]);
  const [told, setTold] = useState<readonly string[] | null>(null);
  const { dumps } = feetOf(show, unit.id);
  const memory = memoryOf(show, unit.id);
  const route = routeTo(show, unit);
  const take = async (file: File): Promise<void> => {
    setTold(null);
    if (file.size > LIMITS.dumpBytes) {
      setProblems([
        `${file.name} has ${file.size.toLocaleString('en')} bytes; ${LIMITS.dumpBytes.toLocaleString('en')} are kept at the most.`,
      ]);
      return;
    }
    const bytes = [...new Uint8Array(await file.arrayBuffer())];
    const read = readExclusiveFile(bytes);
    setProblems(read.problems.map(problemLine));
    if (!read.value) return;
    const pages = pagesInFile(read.value);
    if (pages) {
      // Pages of our own format are compared; the file is kept all the same.
      setTold(compareMemories(memory, pages).map((d) => memoryDifferenceWords(show, unit.id, d)));
    }
    const dump = {
      id: newId(),
      name: asTitle(file.name.replace(/\.syx$/i, ''), 'File'),
      bytes: toHex(read.value.flat()),
    };
    perform(
      changeFeet(show, unit.id, (f) => ({ ...f, dumps: [...f.dumps, dump] })),
      'keep an exclusive file',
    );
  };
  const send = async (bytes: string): Promise<void> => {
    if (!route) return say(`No port leads to ${unit.name}.`);
    const messages = wholeMessages(fromHex(bytes) ?? []) ?? [];
    for (const message of messages) await sendOn(route.portId, message);
    say(`${messages.length} ${messages.length === 1 ? 'message was' : 'messages were'} sent to ${unit.name}.`);
  };
  return (
    <section style={{ display: 'grid', gap: 10 }} aria-label="Exclusive files">
      <SmallHead>System exclusive files</SmallHead>
      <ExclusiveTools memory={memory} unit={unit} take={take} />
      {problems.map((p) => (
        <FormProblem key={p}>{p}</FormProblem>
      ))}
      {told && <FileDifferences told={told} />}
      {dumps.length === 0 ? (
        <Soft style={{ fontSize: 13 }}>A file of another program is kept whole with the show, and sent as it is.</Soft>
      ) : (
        <Kept aria-label="Kept files">
          {dumps.map((d) => (
            <KeptFile key={d.id} dump={d} send={send} unit={unit} />
          ))}
        </Kept>
      )}
    </section>
  );
}

interface ExclusiveToolsProps {
  readonly memory: FootMemory;
  readonly unit: Unit;
  readonly take: (file: File) => Promise<void>;
}

/** The pages as a file, and files compared and kept. */
function ExclusiveTools({ memory, unit, take }: ExclusiveToolsProps) {
  return (
    <Tools>
      <Button
        isDisabled={memory.pages.length === 0}
        onPress={() => download(fileName(`${unit.name} pages`, 'syx'), new Uint8Array(writePagesFile(memory)), SYX)}
      >
        <Download size={16} aria-hidden /> Export the pages
      </Button>
      <FileTrigger acceptedFileTypes={['.syx']} onSelect={(files) => files?.[0] && void take(files[0])}>
        <Button>Import a file …</Button>
      </FileTrigger>
    </Tools>
  );
}

/** In what the file differs from the pages here. */
function FileDifferences({ told }: { readonly told: readonly string[] }) {
  return (
    <div role="status">
      <p>
        {told.length === 0
          ? 'The file holds the pages as they are here.'
          : `The file holds other pages than these: ${told.length} differences.`}
      </p>
      <ul style={{ margin: 0, paddingLeft: 20 }}>
        {told.slice(0, 40).map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </div>
  );
}

interface KeptFileProps {
  readonly dump: Feet['dumps'][number];
  readonly send: (bytes: string) => Promise<void>;
  readonly unit: Unit;
}

/** A file of another program, kept as it came. */
function KeptFile({ dump, send, unit }: KeptFileProps) {
  const show = useShow();
  return (
    <li>
      <span>
        {dump.name} <Soft>{(dump.bytes.length / 2).toLocaleString('en')} bytes</Soft>
      </span>
      <SignButton aria-label={`Send ${dump.name}`} onPress={() => void send(dump.bytes)}>
        <Send size={16} aria-hidden />
      </SignButton>
      <SignButton
        aria-label={`Export ${dump.name}`}
        onPress={() => download(fileName(dump.name, 'syx'), new Uint8Array(fromHex(dump.bytes) ?? []), SYX)}
      >
        <Download size={16} aria-hidden />
      </SignButton>
      <SignButton
        aria-label={`Delete ${dump.name}`}
        onPress={() =>
          perform(
            changeFeet(show, unit.id, (f) => ({ ...f, dumps: f.dumps.filter((x) => x.id !== dump.id) })),
            'delete an exclusive file',
          )
        }
      >
        <Trash2 size={16} aria-hidden />
      </SignButton>
    </li>
  );
}
