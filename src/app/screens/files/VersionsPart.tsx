import { Download, History, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { compareShows, type ShowDifference } from '../../../core/meaning';
import { LIMITS, type Show } from '../../../core/show';
import { showDifferenceWords } from '../../../wording';
import type { ListedVersion } from '../../state/versions';
import { Button, Field, Input, Label, MainButton, Soft } from '../../widgets/controls';
import { DialogButton } from '../../widgets/DialogButton';
import { Pick } from '../../widgets/Pick';
import { PlainTable } from '../../widgets/plainTable';
import { versions } from '../../state/desk';
import { exportShow } from '../../state/exports';
import { useShow } from '../../state/store';
import { Columns, Differences } from './filesParts';
import { StoragePanel } from './StoragePanel';

const Row = styled.form`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px;
  margin-bottom: 16px;
`;

const NOW = 'now';

const when = (at: number): string =>
  new Date(at).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
  });

/** States of the show that were kept: by name, compared in words, and the way back. */
export function VersionsPart() {
  const show = useShow();
  const [list, setList] = useState<readonly ListedVersion[] | null>(null);
  const [name, setName] = useState('');
  useEffect(() => versions.watch(show.id, setList), [show.id]);
  const keep = async (): Promise<void> => {
    if (await versions.keep(name.trim() === '' ? `As of ${when(Date.now())}` : name.trim())) setName('');
  };
  return (
    <Columns $right={0.87}>
      <section aria-label="Saved versions">
        <Row
          onSubmit={(e) => {
            e.preventDefault();
            void keep();
          }}
        >
          <Field value={name} onChange={setName} maxLength={LIMITS.title} style={{ width: 240 }}>
            <Label>Name of the state</Label>
            <Input placeholder="After the rehearsal" />
          </Field>
          <MainButton type="submit">Save a version</MainButton>
          <Button onPress={() => void exportShow(show, true)}>
            <Download size={16} aria-hidden /> Export show
          </Button>
        </Row>
        {list?.length === 0 && (
          <p>
            Nothing is kept yet. Keep the show before you change much of it: then you can see here in words what became
            different, and go back.
          </p>
        )}
        {list !== null && list.length > 0 && (
          <PlainTable aria-label="Saved versions">
            <thead>
              <tr>
                <th scope="col">State</th>
                <th scope="col">Kept</th>
                <th scope="col">
                  <Soft>To do</Soft>
                </th>
              </tr>
            </thead>
            <tbody>
              {list.map((v) => (
                <VersionRow key={v.id} version={v} />
              ))}
            </tbody>
          </PlainTable>
        )}
        <StoragePanel changed={list?.length ?? 0} />
      </section>
      {list !== null && list.length > 0 && <Compared list={list} show={show} />}
    </Columns>
  );
}

/** A saved state: gone back to, or deleted after a question. */
function VersionRow({ version }: { readonly version: ListedVersion }) {
  return (
    <tr>
      <th scope="row" style={{ overflowWrap: 'anywhere' }}>
        {version.name}
      </th>
      <td style={{ whiteSpace: 'nowrap' }}>{when(version.savedAt)}</td>
      <td style={{ whiteSpace: 'nowrap' }}>
        <Button aria-label={`Go back to ${version.name}`} onPress={() => void versions.goBack(version)}>
          <History size={16} aria-hidden /> Go back
        </Button>{' '}
        <DialogButton
          label={`Delete ${version.name}`}
          face={<Trash2 size={16} aria-hidden />}
          title={`Delete ${version.name}?`}
          width={420}
        >
          {(close) => (
            <>
              <p>A state that was deleted cannot be brought back. The show itself stays as it is.</p>
              <MainButton onPress={() => void versions.remove(version).then(close)}>Delete it</MainButton>
            </>
          )}
        </DialogButton>
      </td>
    </tr>
  );
}

/** Two states side by side, in words. */
function Compared({ list, show }: { readonly list: readonly ListedVersion[]; readonly show: Show }) {
  const [from, setFrom] = useState<string | null>(null);
  const [to, setTo] = useState(NOW);
  const before = list.find((v) => v.id === from) ?? list[0]!;
  const after = list.find((v) => v.id === to);
  const found = useDifferences(before, after, show);
  const choices = list.map((v) => ({ id: v.id, name: v.name }));
  return (
    <section aria-label="What differs">
      <div style={{ display: 'flex', gap: 10, flexWrap: 'wrap' }}>
        <Pick label="What became different from" width="210px" value={before.id} choices={choices} onPick={setFrom} />
        <Pick
          label="To"
          width="210px"
          value={after?.id ?? NOW}
          choices={[{ id: NOW, name: 'the show as it is now' }, ...choices]}
          onPick={setTo}
        />
      </div>
      {found?.length === 0 && <p style={{ marginTop: 12 }}>Nothing differs.</p>}
      {found && found.length > 0 && (
        <Differences aria-label="Differences">
          {found.map((d, i) => (
            <li key={i}>{showDifferenceWords(d)}</li>
          ))}
        </Differences>
      )}
    </section>
  );
}

/** Null until both states are read. */
function useDifferences(
  before: ListedVersion,
  after: ListedVersion | undefined,
  show: Show,
): readonly ShowDifference[] | null {
  const [loaded, setLoaded] = useState<{ readonly key: string; readonly a?: Show; readonly b?: Show } | null>(null);
  const key = `${before.id} ${after?.id ?? NOW}`;
  useEffect(() => {
    let current = true;
    void Promise.all([versions.load(before), after && versions.load(after)]).then(([a, b]) => {
      if (current) setLoaded({ key, ...(a ? { a } : {}), ...(b ? { b } : {}) });
    });
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the list makes new objects of the same states
  }, [key]);
  if (loaded?.key !== key || !loaded.a) return null;
  const second = after ? loaded.b : show;
  return second ? compareShows(loaded.a, second) : null;
}
