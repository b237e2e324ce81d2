import type { ReactNode } from 'react';
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary';
import styled from 'styled-components';
import type { Show } from '../../core/show';
import { useApp } from '../state/store';
import { desk } from '../theme/tokens';
import { Button, MainButton } from '../widgets/controls';

const Page = styled.div`
  display: grid;
  justify-items: start;
  align-content: center;
  gap: 14px;
  min-height: 100%;
  max-width: 720px;
  margin: 0 auto;
  padding: 30px;
  & code {
    display: block;
    padding: 8px 12px;
    border-left: 4px solid ${desk.rust};
    background: ${desk.rustWash};
    overflow-wrap: anywhere;
  }
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
`;

/** The show as a file: what writes it comes with the view that it is in, or is fetched now. */
const takeOut = async (show: Show): Promise<unknown> => (await import('../state/exports')).exportShow(show, true);

/** What stands in place of a view that cannot be drawn: the show is kept, and can be taken out as a file. */
function Failed({ error, resetErrorBoundary }: FallbackProps) {
  const show = useApp((s) => s.open?.show);
  const words = error instanceof Error ? error.message : String(error);
  // A view that is not there yet is fetched; after an update the old one is gone.
  const missing = /dynamically imported module|Failed to fetch|Importing a module/i.test(words);
  return (
    <Page role="alert">
      <h1>{missing ? 'This view could not be loaded' : 'This view cannot be drawn'}</h1>
      <p>
        {missing
          ? 'The server did not answer, or the application was updated. Reload the page, or go on in another view.'
          : 'A fault in the application, not in your show. Go on in another view, or try this one again.'}{' '}
        {show && 'The show is kept: nothing that was typed is lost.'}
      </p>
      <code>{words}</code>
      <Row>
        <MainButton onPress={() => (missing ? location.reload() : resetErrorBoundary())}>
          {missing ? 'Reload the page' : 'Try again'}
        </MainButton>
        {show && <Button onPress={() => void takeOut(show)}>Export show</Button>}
      </Row>
    </Page>
  );
}

/** Around a view: when it fails, the frame around it and the show stay. Another place is another try. */
export function ViewBoundary({ place, children }: { readonly place: string; readonly children: ReactNode }) {
  return (
    <ErrorBoundary FallbackComponent={Failed} resetKeys={[place]}>
      {children}
    </ErrorBoundary>
  );
}
