import styled from 'styled-components';
import type { SheetPart } from '../../core/sheets';
import { font } from '../theme/tokens';

const Page = styled.section`
  break-inside: avoid;
  margin-bottom: 12px;
  & > h3 {
    font: 700 15px/1.3 ${font.display};
    margin-bottom: 4px;
  }
`;

const Strip = styled.div`
  display: flex;
  width: max-content;
  margin-bottom: 1.5mm;
  border: 0.3mm solid #000;
  background: #fff;
  color: #000;
  break-inside: avoid;
`;

const Cell = styled.div<{ $pitch: number; $clash: boolean }>`
  display: grid;
  align-content: center;
  justify-items: center;
  gap: 0.5mm;
  width: ${({ $pitch }) => $pitch}mm;
  height: 14mm;
  flex: none;
  padding: 0 1mm;
  border-left: 0.2mm dashed #666;
  text-align: center;
  overflow: hidden;
  &:first-child {
    border-left: 0;
  }
  & > b {
    font: 700 4.2mm/1.05 ${font.display};
  }
  & > small {
    font: 500 2.7mm/1 ${font.bytes};
    text-decoration: ${({ $clash }) => ($clash ? 'underline wavy' : 'none')};
  }
`;

type Strips = Extract<SheetPart, { readonly kind: 'strips' }>;

/** A page's strips in their true size, as wide as the switches lie apart, to be cut out; below a name what its display shows. */
export const SwitchStrips = ({ part: { name, pitch, rows } }: { readonly part: Strips }) => (
  <Page aria-label={name}>
    <h3>{name}</h3>
    {rows.map((row, i) => (
      <Strip key={i}>
        {row.map((cell, k) => (
          <Cell key={k} $pitch={pitch} $clash={cell.clash}>
            <b>{cell.name}</b>
            {cell.shown !== '' && <small>{cell.shown}</small>}
          </Cell>
        ))}
      </Strip>
    ))}
  </Page>
);
