import styled from 'styled-components';
import { desk, font } from '../../theme/tokens';

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

export const grid = { color: desk.line };
