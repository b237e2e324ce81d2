import { useEffect, useState } from 'react';
import { Dialog, Heading } from 'react-aria-components';
import { useLocation } from 'react-router';
import styled from 'styled-components';
import { desk } from '../theme/tokens';
import { MainButton } from './controls';
import { Last, Sheet, Veil } from './dialogParts';

type Keys = readonly (readonly [keys: string, what: string])[];

const EVERYWHERE: Keys = [
  ['Ctrl Z · Ctrl Shift Z', 'undo, redo'],
  ['Alt 1 … Alt 8', 'Book, Rig, Map, Tones, Chart, Dry run, Set, Stage'],
  ['?', 'the keys of the view'],
];

const CHART: Keys = [
  ['B', 'to the bar field; Enter goes on to the tone and places it'],
  ['← → ↑ ↓', 'move the caret by the snap, or by a line'],
  ['Space', 'play from the caret, stop'],
  ['1 … 9', 'place a core tone at the caret'],
  ['Alt ← →', 'move the chosen cues'],
  ['Delete', 'remove the chosen cues'],
  ['Shift or Ctrl and a click', 'choose several'],
  ['Ctrl A · Ctrl C · Ctrl X · Ctrl V', 'choose all, copy, cut, paste at the caret'],
];

const MAP: Keys = [
  ['letters', 'name the chosen slot; Enter goes on to the next'],
  ['← → ↑ ↓', 'choose a slot; with Shift reach, with Alt move what is chosen'],
  ['Space', 'send the chosen slot'],
  ['Delete', 'clear the name'],
  ['Ctrl C · Ctrl V', 'copy names, paste a column'],
];

const TONES: Keys = [
  ['← → ↑ ↓', 'move in the sheet'],
  ['Enter', 'edit the cell'],
  ['Space', 'send the cell'],
  ['Delete', 'leave the unit out of the tone'],
  ['Ctrl C · Ctrl V', 'copy a cell to another tone'],
];

function keysOf(path: string): { readonly view: string; readonly keys: Keys } {
  if (path.includes('/chart')) return { view: 'Chart', keys: CHART };
  if (path.includes('/map')) return { view: 'Map', keys: MAP };
  if (path.includes('/tones')) return { view: 'Tones', keys: TONES };
  return { view: '', keys: [] };
}

const List = styled.dl`
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 7px 18px;
  margin: 10px 0 0;
  & dt {
    font-weight: 700;
  }
  & dd {
    margin: 0;
    color: ${desk.inkSoft};
  }
`;

const Part = ({ keys }: { readonly keys: Keys }) => (
  <List>
    {keys.map(([key, what]) => (
      <div key={key} style={{ display: 'contents' }}>
        <dt>
          <kbd>{key}</kbd>
        </dt>
        <dd>{what}</dd>
      </div>
    ))}
  </List>
);

/** The keys of the view one is in, under "?". */
export function KeysHelp() {
  const [open, setOpen] = useState(false);
  const { view, keys } = keysOf(useLocation().pathname);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const { target } = event;
      const typing = target instanceof HTMLElement && target.closest('input, textarea, [contenteditable]');
      if (event.key !== '?' || typing || event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      // A cell of the map takes letters as names; "?" is none.
      event.stopPropagation();
      setOpen(true);
    };
    window.addEventListener('keydown', onKey, { capture: true });
    return () => window.removeEventListener('keydown', onKey, { capture: true });
  }, []);
  return (
    <Veil isOpen={open} onOpenChange={setOpen} isDismissable>
      <Sheet style={{ width: 'min(620px, calc(100vw - 40px))' }}>
        <Dialog>
          <Heading slot="title">{view === '' ? 'Keys' : `Keys: ${view}`}</Heading>
          <Part keys={keys} />
          <h3 style={{ marginTop: 18 }}>Everywhere</h3>
          <Part keys={EVERYWHERE} />
          <Last style={{ marginTop: 18 }}>
            <MainButton autoFocus onPress={() => setOpen(false)}>
              Close
            </MainButton>
          </Last>
        </Dialog>
      </Sheet>
    </Veil>
  );
}
