import { Search } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import {
  Autocomplete,
  Collection,
  Dialog,
  Header,
  Heading,
  Input,
  Label,
  Menu,
  MenuItem,
  MenuSection,
  TextField,
} from 'react-aria-components';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { panic, practiseSong, redo, say, stopSong, undo } from '../../state/desk';
import { setCounting, setLight } from '../../state/device';
import { openKeys } from '../../state/keysOpen';
import { useApp, useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { SignButton, inputLook } from '../../widgets/controls';
import { Sheet, Veil } from '../../widgets/dialogParts';
import { VIEWS, pathOf } from '../../features/views';
import { PLACES, VIEW_ACTIONS } from './actions';
import { findActions, type Action, type ActionGroup } from './findActions';
import { buttonsInSight, pressByName } from './press';

const Field = styled(Input)`
  ${inputLook}
  min-height: 44px;
  font: 600 18px/1.2 ${font.text};
`;

const List = styled(Menu<ActionGroup>)`
  display: block;
  max-height: min(420px, calc(100dvh - 260px));
  margin-top: 12px;
  overflow: auto;
  outline: none;
`;

const Group = styled(Header)`
  padding: 10px 10px 3px;
  font: 700 12px/1.2 ${font.text};
  color: ${desk.inkSoft};
`;

const Line = styled(MenuItem)`
  display: flex;
  align-items: baseline;
  gap: 12px;
  padding: 7px 10px;
  border-radius: 3px 9px 3px 9px;
  cursor: pointer;
  outline: none;
  & > b {
    min-width: 0;
    font-weight: 600;
    overflow-wrap: anywhere;
  }
  & > span {
    margin-left: auto;
    color: ${desk.inkSoft};
    font-size: 13px;
    white-space: nowrap;
  }
  &[data-focused] {
    background: ${desk.tideWash};
  }
`;

const simple = (name: string, run: () => void, also = '', key?: string): Action => ({
  id: `everywhere ${name}`,
  name,
  where: '',
  also,
  run,
  ...(key === undefined ? {} : { key }),
});

/** Everything that can be done and gone to, by name: Ctrl K, in every view. */
export function CommandFinder({ base }: { readonly base: string }) {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key.toLowerCase() !== 'k' || !(event.ctrlKey || event.metaKey) || event.altKey || event.shiftKey)
        return;
      event.preventDefault();
      event.stopPropagation();
      setOpen(true);
    };
    // Before the cells of a sheet, which take letters for names.
    window.addEventListener('keydown', onKey, { capture: true });
    return () => window.removeEventListener('keydown', onKey, { capture: true });
  }, []);
  return (
    <>
      <SignButton aria-label="Find an action (Ctrl K)" onPress={() => setOpen(true)}>
        <Search size={18} />
      </SignButton>
      <Veil isOpen={open} onOpenChange={setOpen} isDismissable>
        <Sheet style={{ width: 'min(640px, calc(100vw - 40px))' }}>
          <Dialog>
            <Heading slot="title">Find an action</Heading>
            {open && <Finder base={base} close={() => setOpen(false)} />}
          </Dialog>
        </Sheet>
      </Veil>
    </>
  );
}

function Finder({ base, close }: { readonly base: string; readonly close: () => void }) {
  const [typed, setTyped] = useState('');
  const groups = useActionGroups(base);
  const found = useMemo(() => findActions(groups, typed), [groups, typed]);
  const byId = useMemo(() => new Map(groups.flatMap((g) => g.actions.map((a) => [a.id, a]))), [groups]);
  return (
    <Autocomplete inputValue={typed} onInputChange={setTyped}>
      <TextField autoFocus style={{ display: 'grid', gap: 4, marginTop: 12 }}>
        <Label style={{ fontSize: 12, fontWeight: 600, color: desk.inkSoft }}>
          What do you want to do, or where to go?
        </Label>
        <Field />
      </TextField>
      <List
        aria-label="Actions"
        items={found}
        onAction={(key) => {
          close();
          byId.get(String(key))?.run();
        }}
        renderEmptyState={() => <p style={{ padding: 12 }}>Nothing is called that.</p>}
      >
        {(group) => (
          <MenuSection id={group.name}>
            <Group>{group.name}</Group>
            <Collection items={group.actions}>
              {(action) => (
                <Line id={action.id} textValue={action.name}>
                  <b>{action.name}</b>
                  <span>{action.key ? <kbd>{action.key}</kbd> : action.where}</span>
                </Line>
              )}
            </Collection>
          </MenuSection>
        )}
      </List>
    </Autocomplete>
  );
}

type Go = (path: string) => void;

function useActionGroups(base: string): readonly ActionGroup[] {
  const show = useShow();
  const navigate = useNavigate();
  const past = useApp((s) => s.open?.past.at(-1)?.label);
  const future = useApp((s) => s.open?.future[0]?.label);
  // What is in sight behind the finder when it opens.
  const [seen] = useState(buttonsInSight);
  return useMemo(() => {
    const go: Go = (path) => void navigate(pathOf(base, path));
    const songs = show.songs.map((s) => ({ id: s.id, name: s.title }));
    const shelf = simple('All shows', () => void navigate('/'), 'open other show shelf');
    return [
      { name: 'In this view', actions: seenActions(seen) },
      { name: 'Everywhere', actions: [...stepActions(past, future), ...everywhere(show.songs[0]?.id), shelf] },
      { name: 'In other views', actions: otherActions(seen, go) },
      { name: 'Go to', actions: placeActions(go) },
      { name: 'Songs', actions: thingActions('chart', songs, 'chart', go) },
      { name: 'Units', actions: thingActions('map', show.units, 'map', go) },
      { name: 'Tones', actions: thingActions('tone', show.tones, 'tones', go) },
    ];
  }, [base, future, navigate, past, seen, show]);
}

/** Presses a button that was in sight when the finder opened. */
const seenActions = (seen: ReturnType<typeof buttonsInSight>): Action[] =>
  seen.map(({ name, element }) => ({
    id: `here ${name}`,
    name,
    where: 'this view',
    also: '',
    // Once the finder is gone, and the keyboard with it.
    run: () => setTimeout(() => element.click(), 0),
  }));

/** Goes to another view, and presses a button there. */
const otherActions = (seen: ReturnType<typeof buttonsInSight>, go: Go): Action[] =>
  VIEW_ACTIONS.filter((a) => !seen.some((s) => s.name === a.name)).map(({ name, view, path, also = '' }) => ({
    id: `${view} ${name}`,
    name,
    where: view,
    also,
    run: () => {
      go(path);
      pressByName(name, () => say(`${name}: that cannot be done now. ${view} shows what comes first.`));
    },
  }));

/** Undo and redo, named after what they take back or do again. */
const stepActions = (past: string | undefined, future: string | undefined): Action[] => [
  ...(past === undefined ? [] : [simple(`Undo: ${past}`, undo, '', 'Ctrl Z')]),
  ...(future === undefined ? [] : [simple(`Redo: ${future}`, redo, '', 'Ctrl Shift Z')]),
];

const everywhere = (firstSongId: string | undefined): Action[] => [
  ...(firstSongId === undefined
    ? []
    : [simple('Play the first song', () => void practiseSong(firstSongId, 0), 'start transport')]),
  simple('Stop', () => void stopSong(), 'transport'),
  simple('All sound off', () => void panic(), 'panic notes silence'),
  simple('Count from 0', () => setCounting('zero'), 'numbers counting'),
  simple('Count from 1', () => setCounting('one'), 'numbers counting'),
  simple('Count as labelled', () => setCounting('label'), 'numbers counting unit'),
  simple('Light desk', () => setLight('light'), 'theme colours day'),
  simple('Dark desk', () => setLight('dark'), 'theme colours night'),
  simple('Desk as the system has it', () => setLight('system'), 'theme colours light dark'),
  simple('Keys of this view', openKeys, 'shortcuts help', '?'),
];

const placeActions = (go: Go): Action[] => [
  ...VIEWS.map(({ path, name, key }): Action => ({
    id: `go ${name}`,
    name,
    where: 'view',
    also: '',
    key: `Alt ${key}`,
    run: () => go(path),
  })),
  ...PLACES.map(([name, path, also = '']): Action => ({
    id: `go ${name}`,
    name,
    where: '',
    also,
    run: () => go(path),
  })),
];

/** Goes to a song, a unit or a tone by its name. */
const thingActions = (
  of: string,
  list: readonly { readonly id: string; readonly name: string }[],
  path: string,
  go: Go,
): Action[] =>
  list.map(({ id, name }) => ({ id: `${of} ${id}`, name, where: of, also: '', run: () => go(`${path}/${id}`) }));
