import { Printer } from 'lucide-react';
import type { ReactNode } from 'react';
import { useNews } from '../state/news';
import { Button, Soft } from '../widgets/controls';

interface Props {
  readonly isDisabled?: boolean;
  /** Why it is too much for the browser's own printing; null where it is not. */
  readonly tooMuch?: string | null;
  readonly children: ReactNode;
}

/** Prints the page, unless that would stop what plays: while the browser asks how, a page does nothing else. */
export function PrintButton({ isDisabled = false, tooMuch = null, children }: Props) {
  const playing = useNews((s) => s.news.playing);
  const why = tooMuch ?? (playing ? 'Not while it plays: the page stands still meanwhile.' : null);
  return (
    <>
      <Button onPress={() => window.print()} isDisabled={isDisabled || why !== null}>
        <Printer size={16} aria-hidden /> {children}
      </Button>
      {!isDisabled && why !== null && (
        <Soft role="status" style={{ fontSize: 13, alignSelf: 'center' }}>
          {why}
        </Soft>
      )}
    </>
  );
}
