import { useState, type CSSProperties, type ReactNode } from 'react';

interface Props {
  readonly summary: ReactNode;
  readonly style?: CSSProperties;
  readonly children: () => ReactNode;
}

/** What is opened to be seen, and drawn only then. */
export function Fold({ summary, style, children }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <details style={style} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>{summary}</summary>
      {open && children()}
    </details>
  );
}
