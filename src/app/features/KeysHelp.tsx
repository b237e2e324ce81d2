import { useEffect } from 'react';
import { Dialog, Heading } from 'react-aria-components';
import { useLocation } from 'react-router';
import styled from 'styled-components';
import { openKeys, setKeysOpen, useKeysOpen } from '../state/keysOpen';
import { desk } from '../theme/tokens';
import { MainButton } from '../widgets/controls';
import { Last, Sheet, Veil } from '../widgets/dialogParts';
import { takesText } from '../widgets/takesText';
import { EVERYWHERE, keysOf, type Keys } from './viewKeys';

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
  const open = useKeysOpen((s) => s.open);
  const { view, keys } = keysOf(useLocation().pathname);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const { target } = event;
      const typing = takesText(target);
      if (event.key !== '?' || typing || event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      // A cell of the map takes letters as names; "?" is none.
      event.stopPropagation();
      openKeys();
    };
    window.addEventListener('keydown', onKey, { capture: true });
    return () => window.removeEventListener('keydown', onKey, { capture: true });
  }, []);
  return (
    <Veil isOpen={open} onOpenChange={setKeysOpen} isDismissable>
      <Sheet style={{ width: 'min(620px, calc(100vw - 40px))' }}>
        <Dialog>
          <Heading slot="title">{view === '' ? 'Keys' : `Keys: ${view}`}</Heading>
          {keys.length > 0 && <Part keys={keys} />}
          <h3 style={{ marginTop: 18 }}>Everywhere</h3>
          <Part keys={EVERYWHERE} />
          <Last style={{ marginTop: 18 }}>
            <MainButton autoFocus onPress={() => setKeysOpen(false)}>
              Close
            </MainButton>
          </Last>
        </Dialog>
      </Sheet>
    </Veil>
  );
}
