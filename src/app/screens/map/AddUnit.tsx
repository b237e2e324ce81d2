import { useState } from 'react';
import { Dialog, DialogTrigger, Form, Heading } from 'react-aria-components';
import useSWR from 'swr';
import { addUnit, newPort, newUnit, type Port, type Show } from '../../../core/show';
import { fetchLibrary } from '../../adapters/api';
import { Last, Pair, Rows, Sheet, Veil } from '../../components/dialogParts';
import { Button, Complaint, Field, Input, Label, MainButton, Soft } from '../../components/controls';
import { Pick } from '../../components/Pick';
import { newId, perform } from '../../state/desk';
import { useShow } from '../../state/store';

const NEW_PORT = 'new';

/** The first channel that no unit is sent to on; 1 where all are taken. */
function freeChannel(show: Show): number {
  const taken = new Set(show.units.map((u) => u.channel));
  for (let channel = 1; channel <= 16; channel++) if (!taken.has(channel)) return channel;
  return 1;
}

/** A unit from the library of generic kinds, on a port and channel. */
export function AddUnit({ onAdded }: { readonly onAdded: (unitId: string) => void }) {
  const show = useShow();
  const library = useSWR('/api/library', fetchLibrary);
  const [name, setName] = useState('');
  const [monogram, setMonogram] = useState('');
  const [kind, setKind] = useState('letter-modeler');
  const [channel, setChannel] = useState(() => String(freeChannel(show)));
  const [portId, setPortId] = useState(show.ports[0]?.id ?? NEW_PORT);
  const [complaint, setComplaint] = useState<string | null>(null);
  const ports = [...show.ports.map(({ id, name: n }) => ({ id, name: n })), { id: NEW_PORT, name: 'a new 5-pin port' }];
  const entry = library.data?.find((e) => e.id === kind);

  /** What keeps the unit from being added, in a sentence. */
  const objection = (): string | null => {
    if (name.trim() === '') return 'The unit wants a name.';
    if (show.units.some((u) => u.name.toLowerCase() === name.trim().toLowerCase()))
      return `There is a unit named ${name.trim()} already.`;
    return entry ? null : 'Choose what kind of unit it is.';
  };
  const add = (): string | null => {
    const wrong = objection();
    if (wrong !== null || !entry) return wrong;
    const id = newId();
    const port: Port | null = portId === NEW_PORT ? newPort(newId(), `Port ${show.ports.length + 1}`, 'din') : null;
    const signs = (monogram.trim() || name.trim().replace(/[^\p{L}\p{N}]/gu, '')).slice(0, 2).toUpperCase() || '??';
    const unit = newUnit(id, name.trim().slice(0, 120), signs, entry.profile, {
      channel: Number(channel),
      input: { from: 'port', portId: port?.id ?? portId },
    });
    perform(addUnit(show, unit, port), `add ${unit.name}`);
    setName('');
    setMonogram('');
    onAdded(id);
    return null;
  };

  return (
    <DialogTrigger>
      <Button>Add a unit</Button>
      <Veil isDismissable>
        <Sheet>
          <Dialog>
            {({ close }) => (
              <Form
                onSubmit={(event) => {
                  event.preventDefault();
                  const wrong = add();
                  setComplaint(wrong);
                  if (wrong === null) close();
                }}
              >
                <Heading slot="title">Add a unit</Heading>
                <Rows>
                  <Pair>
                    <Field value={name} onChange={setName} autoFocus>
                      <Label>Name</Label>
                      <Input />
                    </Field>
                    <Field value={monogram} onChange={setMonogram} maxLength={2}>
                      <Label>Two letters for its lamp</Label>
                      <Input />
                    </Field>
                  </Pair>
                  {library.data ? (
                    <Pick
                      label="Kind"
                      choices={library.data.map((e) => ({ id: e.id, name: e.profile.name }))}
                      value={kind}
                      onPick={setKind}
                    />
                  ) : (
                    <Soft>
                      {library.error ? String((library.error as Error).message) : 'Fetching the unit library …'}
                    </Soft>
                  )}
                  {entry && <Soft>{entry.about}</Soft>}
                  <Pair>
                    <Pick label="Port" choices={ports} value={portId} onPick={setPortId} />
                    <Pick
                      label="Channel"
                      choices={Array.from({ length: 16 }, (_, i) => ({ id: String(i + 1), name: String(i + 1) }))}
                      value={channel}
                      onPick={setChannel}
                    />
                  </Pair>
                  {complaint !== null && <Complaint>{complaint}</Complaint>}
                  <Last>
                    <Button onPress={close}>Not now</Button>
                    <MainButton type="submit">Add the unit</MainButton>
                  </Last>
                </Rows>
              </Form>
            )}
          </Dialog>
        </Sheet>
      </Veil>
    </DialogTrigger>
  );
}
