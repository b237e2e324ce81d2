import { useState, type ReactNode } from 'react';
import { listenOnly } from '../state/desk';
import { useNews } from '../state/news';
import { DialogButton } from '../widgets/DialogButton';

interface Props {
  readonly face: ReactNode;
  readonly label: string;
  readonly title: string;
  readonly width?: number;
  /** `from`: the number of the last line of the monitor from before it was opened. */
  readonly children: (close: () => void, from: number) => ReactNode;
}

/** A dialog that listens: while it is open, what arrives does nothing else. */
export function ListenDialog({ children, ...rest }: Props) {
  const [from, setFrom] = useState(0);
  return (
    <DialogButton
      {...rest}
      onOpen={() => {
        setFrom(useNews.getState().lines.at(-1)?.number ?? 0);
        void listenOnly(true);
      }}
      onClosed={() => void listenOnly(false)}
    >
      {(close) => children(close, from)}
    </DialogButton>
  );
}
