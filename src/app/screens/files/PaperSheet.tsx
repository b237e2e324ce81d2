import { Fragment } from 'react';
import styled from 'styled-components';
import type { Sheet, SheetPart, SheetTable } from '../../../core/sheets';
import { NearRows } from '../../widgets/NearRows';
import { SwitchStrips } from '../../features/SwitchStrips';
import { font } from '../../theme/tokens';
import { today } from './today';

/** A sheet as it lies on a music stand or on the floor: its type at its least, black on white, lines to follow, room to write. */
const Paper = styled.article<{ $wide: boolean; $type: number }>`
  width: ${({ $wide }) => ($wide ? 1123 : 794)}px;
  max-width: 100%;
  margin: 0 0 18px;
  padding: 34px 38px 26px;
  border: 1px solid #8a9694;
  background: #fff;
  color: #000;
  font: 400 ${({ $type }) => ($type * 4) / 3}px / 1.35 ${font.text};
  @media print {
    page: ${({ $wide }) => ($wide ? 'wide' : 'auto')};
    width: auto;
    margin: 0;
    padding: 0;
    border: 0;
    font-size: ${({ $type }) => $type}pt;
    break-after: page;
    /* Each sheet lies in a place of its own. */
    :last-child > & {
      break-after: auto;
    }
  }
`;

const Title = styled.div`
  display: flex;
  align-items: baseline;
  gap: 14px;
  border-bottom: 2px solid #000;
  padding-bottom: 5px;
  & > h2 {
    font: 800 max(1.2em, 25px) / 1.1 ${font.display};
  }
  & > span {
    margin-left: auto;
    font-size: 15px;
    white-space: nowrap;
  }
`;

const About = styled.p`
  margin: 6px 0 12px;
`;

const Table = styled.table<{ $whole: boolean }>`
  width: 100%;
  /* Where rows come and go the columns keep their places. */
  table-layout: ${({ $whole }) => ($whole ? 'auto' : 'fixed')};
  margin-bottom: 16px;
  border-collapse: collapse;
  & th {
    padding: 3px 6px 3px 0;
    border-bottom: 1.5px solid #000;
    text-align: left;
    font-size: min(0.82em, 18px);
    overflow-wrap: break-word;
  }
  & td {
    padding: 5px 6px 5px 0;
    border-bottom: 0.7px solid #555;
    vertical-align: top;
    overflow-wrap: break-word;
  }
  & thead {
    display: table-header-group;
  }
`;

const Foot = styled.p`
  display: flex;
  justify-content: space-between;
  font-size: 11px;
  color: #333;
`;

/** Letters of the longest place in a unit that is kept on one line. */
const PLACE = 18;
/** What is called in a unit stays on one line: a number that is torn off its bank is read wrong. */
function Unbroken({ cell }: { readonly cell: string }) {
  const parts = cell.split(', ');
  if (parts.length === 1 && cell.length > PLACE) return cell;
  return parts.map((part, i) => (
    <Fragment key={i}>
      <span style={{ whiteSpace: part.length <= PLACE ? 'nowrap' : 'normal' }}>
        {part}
        {i < parts.length - 1 && ','}
      </span>{' '}
    </Fragment>
  ));
}

interface Props {
  readonly sheet: Sheet;
  /** Title of the show. */
  readonly show: string;
  /** Every line is drawn, also out of sight: it may be printed. */
  readonly whole: boolean;
}

/** One sheet of paper, as it is printed. */
export function PaperSheet({ sheet, show, whole }: Props) {
  const tables = sheet.parts.filter((p) => p.kind === 'table').length;
  return (
    <Paper $wide={sheet.wide} $type={sheet.type.least} aria-label={`${sheet.kind}: ${sheet.title}`}>
      <Title>
        <h2>{sheet.title}</h2>
        <span>{sheet.kind}</span>
      </Title>
      <About>{sheet.about}</About>
      {sheet.parts.map((part, i) => (
        <Part key={i} part={part} named={tables > 1} whole={whole} />
      ))}
      <Foot>
        <span>{show}</span>
        <span>as of {today()}</span>
      </Foot>
    </Paper>
  );
}

interface PartProps<P> {
  readonly part: P;
  readonly named: boolean;
  readonly whole: boolean;
}

function Part({ part, named, whole }: PartProps<SheetPart>) {
  switch (part.kind) {
    case 'text':
      return <p>{part.text}</p>;
    case 'table':
      return <TablePart part={part} named={named} whole={whole} />;
    case 'strips':
      return <SwitchStrips part={part} />;
  }
}

/** Pixels of a row of one line. */
const ROW = 30;

function TablePart({ part: { name, columns, rows }, named, whole: all }: PartProps<SheetTable>) {
  const whole = columns.reduce((sum, c) => sum + c.width, 0);
  return (
    <>
      {named && <h3 style={{ fontSize: '1.1em', margin: '10px 0 4px' }}>{name}</h3>}
      <Table $whole={all} aria-label={name} aria-rowcount={rows.length + 1}>
        <colgroup>
          {columns.map((c, i) => (
            <col key={i} style={all ? undefined : { width: `${(100 * c.width) / whole}%` }} />
          ))}
        </colgroup>
        <thead>
          <tr>
            {columns.map((c, i) => (
              <th key={i} scope="col">
                {c.head}
              </th>
            ))}
          </tr>
        </thead>
        <NearRows rows={rows} columns={columns.length} height={ROW} all={all}>
          {(row, i) => (
            <tr key={i} aria-rowindex={i + 2}>
              {row.map((cell, k) => (
                <td
                  key={k}
                  style={{
                    fontWeight: columns[k]!.strong === true ? 700 : 400,
                    fontVariantNumeric: columns[k]!.figures === true ? 'tabular-nums' : 'normal',
                  }}
                >
                  {/* What is there only where there is room makes none for itself. */}
                  {columns[k]!.spare === true ? cell : <Unbroken cell={cell} />}
                </td>
              ))}
            </tr>
          )}
        </NearRows>
      </Table>
    </>
  );
}
