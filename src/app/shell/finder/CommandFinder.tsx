import { Search } from 'lucide-react';
import { useEffect, useMemo, useState, type KeyboardEvent as KeyPress } from 'react';
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
import { panic, practiseSong, say, stopSong } from '../../state/desk';
import { doAgain, takeBack } from '../../state/takeBack';
import { useCaret } from '../../state/caret';
import { setCounting, setLight } from '../../state/device';
import { openKeys } from '../../state/keysOpen';
import { useProofs } from '../../state/proofs';
import { useApp, useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { SignButton, inputLook } from '../../widgets/controls';
import { Sheet, Veil } from '../../widgets/dialogParts';
import { VIEWS, pathOf } from '../../features/views';
import { PLACES, VIEW_ACTIONS } from './actions';
import { answerLines, type AnswerLine } from './answers';
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

/** An answer stands over two lines: what it is about, and what is so. */
const AnswerItem = styled(Line)`
  display: block;
  & > b {
    font: 700 16px/1.25 ${font.display};
  }
  & > p {
    margin: 1px 0 0;
    font-size: 14px;
    line-height: 1.35;
    overflow-wrap: anywhere;
  }
`;

const Hint = styled.p`
  margin: 8px 10px 0;
  color: ${desk.inkSoft};
  font-size: 13px;
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
      <SignButton aria-label="Ask or find (Ctrl K)" onPress={() => setOpen(true)}>
        <Search size={18} />
      </SignButton>
      <Veil isOpen={open} onOpenChange={setOpen} isDismissable>
        <Sheet style={{ width: 'min(720px, calc(100vw - 40px))' }}>
          <Dialog>
            <Heading slot="title">Ask, or find an action</Heading>
            {open && <Finder base={base} close={() => setOpen(false)} />}
          </Dialog>
        </Sheet>
      </Veil>
    </>
  );
}

function Finder({ base, close }: { readonly base: string; readonly close: () => void }) {
  const [typed, setTyped] = useState('');
  const navigate = useNavigate();
  const groups = useActionGroups(base);
  const answers = useAnswers(typed);
  const found = useMemo(() => withAnswers(findActions(groups, typed), answers, typed), [groups, answers, typed]);
  const byId = useMemo(() => new Map(groups.flatMap((g) => g.actions.map((a) => [a.id, a]))), [groups]);
  const goTo = (line: AnswerLine): void => void navigate(`${base}/${line.path}`);
  const onKey = (event: KeyPress<HTMLDivElement>): void => {
    if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey)) return;
    const focused = event.currentTarget.querySelector<HTMLElement>('[role=menuitem][data-focused]')?.dataset.key;
    const act = answers.find((a) => a.id === focused)?.act;
    if (!act) return;
    event.preventDefault();
    event.stopPropagation();
    close();
    act.run();
  };
  return (
    <div onKeyDownCapture={onKey}>
      <Autocomplete inputValue={typed} onInputChange={setTyped}>
        <TextField autoFocus style={{ display: 'grid', gap: 4, marginTop: 12 }}>
          <Label style={{ fontSize: 12, fontWeight: 600, color: desk.inkSoft }}>
            A bar, a number, a name, or what you want to do
          </Label>
          <Field />
        </TextField>
        <List
          aria-label="Actions"
          items={found}
          onAction={(key) => {
            close();
            const line = answers.find((a) => a.id === key);
            if (line) goTo(line);
            else byId.get(String(key))?.run();
          }}
          renderEmptyState={() => (
            <p style={{ padding: 12 }}>
              Nothing is called that. Ask for a bar (58), a preset (H6, program 41, 40 from 0), a control (CC 85), bytes
              (B0 55 02), a name, “late” or “room”.
            </p>
          )}
        >
          {(group) => (
            <MenuSection id={group.name}>
              <Group>{group.name}</Group>
              <Collection items={group.actions}>
                {(action) =>
                  action.says === undefined ? (
                    <Line id={action.id} textValue={action.name}>
                      <b>{action.name}</b>
                      <span>{action.key ? <kbd>{action.key}</kbd> : action.where}</span>
                    </Line>
                  ) : (
                    <AnswerItem id={action.id} textValue={action.name}>
                      <b>{action.name}</b>
                      <p>{action.says}</p>
                    </AnswerItem>
                  )
                }
              </Collection>
            </MenuSection>
          )}
        </List>
        {answers.length > 0 && (
          <Hint>Enter goes there.{answers[0]?.act ? ` Ctrl Enter: ${answers[0].act.name}.` : ''}</Hint>
        )}
      </Autocomplete>
    </div>
  );
}

/** What is typed, answered from the song that stands and from what is proven. */
function useAnswers(typed: string): readonly AnswerLine[] {
  const show = useShow();
  const songId = useCaret((s) => s.songId) ?? '';
  const proofs = useProofs();
  return useMemo(() => answerLines(show, typed, { songId, proofs }), [show, typed, songId, proofs]);
}

/** What answers by name stands once: songs, units and tones are not listed again as places to go. */
const ANSWERED = ['Songs', 'Units', 'Tones'];

/** Answers stand before what can be done, unless an action begins as it was typed. */
function withAnswers(
  groups: readonly ActionGroup[],
  answers: readonly AnswerLine[],
  typed: string,
): readonly ActionGroup[] {
  if (answers.length === 0) return groups;
  const actions = answers.map(({ id, head, says }): Action => ({
    id,
    name: head,
    says,
    where: '',
    also: '',
    run: () => undefined,
  }));
  const rest = groups.filter((g) => !ANSWERED.includes(g.name));
  const text = typed.trim().toLowerCase();
  // A figure is a question; cues are called after their bars.
  const begins = rest.filter((g) => !/^\d/.test(text) && g.actions.some((a) => a.name.toLowerCase().startsWith(text)));
  return [...begins, { name: 'Answers', actions }, ...rest.filter((g) => !begins.includes(g))];
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
  ...(past === undefined ? [] : [simple(`Undo: ${past}`, takeBack, '', 'Ctrl Z')]),
  ...(future === undefined ? [] : [simple(`Redo: ${future}`, doAgain, '', 'Ctrl Shift Z')]),
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
