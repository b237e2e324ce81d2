import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { watchDrops } from '../state/dropped';
import { desk, font } from '../theme/tokens';

const Over = styled.div`
  position: fixed;
  inset: 14px;
  z-index: 30;
  display: grid;
  place-content: center;
  border: 4px dashed ${desk.lamp};
  border-radius: 8px 40px 8px 40px;
  background: rgb(19 38 45 / 82%);
  color: ${desk.nightText};
  font: 800 44px/1.1 ${font.display};
  pointer-events: none;
`;

/** Takes a file that is dropped anywhere on the page, and says so while it is held above. */
export function DropAnywhere({ onFile }: { readonly onFile: (file: File) => void }) {
  const [held, setHeld] = useState(false);
  useEffect(() => watchDrops(onFile, setHeld), [onFile]);
  return held ? <Over role="status">Drop the file to open it</Over> : null;
}
