import { X } from 'lucide-react';
import { useEffect } from 'react';
import styled from 'styled-components';
import { useApp } from '../state/store';
import { desk } from '../theme/tokens';
import { SignButton } from '../widgets/controls';

const Slip = styled.div`
  position: fixed;
  left: 16px;
  bottom: 92px;
  z-index: 5;
  display: flex;
  align-items: center;
  gap: 8px;
  max-width: 560px;
  padding: 6px 6px 6px 14px;
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.lampWash};
  font-weight: 600;
  /* It tells and keeps nobody from what is under it. */
  pointer-events: none;
  button {
    pointer-events: auto;
  }
  &[hidden] {
    display: none;
  }
`;

const NOTE_MILLIS = 9000;

/** What the last edit meant beyond itself, over the foot of the view until the next edit or a while has passed. */
export function Note() {
  const note = useApp((s) => s.note);
  useEffect(() => {
    if (note === null) return undefined;
    const end = setTimeout(() => useApp.setState({ note: null }), NOTE_MILLIS);
    return () => clearTimeout(end);
  }, [note]);
  return (
    <Slip role="status" aria-label="Note" hidden={note === null}>
      {note}
      <SignButton aria-label="Close the note" onPress={() => useApp.setState({ note: null })}>
        <X size={15} />
      </SignButton>
    </Slip>
  );
}
