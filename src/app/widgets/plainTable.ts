import styled from 'styled-components';
import { desk, font } from '../theme/tokens';

/** A table to read and to set things in: names of rows in the display type, lines between them. */
export const PlainTable = styled.table`
  width: 100%;
  border-collapse: collapse;
  background: ${desk.sheet};
  border: 1.5px solid ${desk.ink};
  & th,
  & td {
    padding: 7px 10px;
    border-bottom: 1px solid ${desk.line};
    text-align: left;
    vertical-align: middle;
  }
  & thead th {
    font-size: 12px;
    color: ${desk.inkSoft};
    border-bottom: 1.5px solid ${desk.ink};
  }
  & tbody th {
    font: 700 15px/1.3 ${font.display};
  }
`;
