import { useCallback } from 'react';
import styled from 'styled-components';
import { useDark } from '../../state/light';
import { desk, font, painted } from '../../theme/tokens';

export const Figure = styled.figure`
  display: grid;
  grid-template-rows: auto 170px;
  gap: 4px;
  margin: 0;
  padding: 10px 12px 8px;
  min-width: 0;
  background: ${desk.sheet};
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 16px 4px 16px;
  & figcaption {
    font: 700 15px/1.2 ${font.display};
  }
  & > div {
    position: relative;
    min-width: 0;
  }
`;

/** Makes a colour of the theme one that a canvas takes. */
export type Paint = (colour: string) => string;

/** Colours as a canvas takes them; another function when the desk has another light, so that charts are drawn anew. */
export function usePaint(): Paint {
  const dark = useDark();
  return useCallback((colour: string) => painted(colour, dark), [dark]);
}
