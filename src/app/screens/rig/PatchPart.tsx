import { Printer } from 'lucide-react';
import styled from 'styled-components';
import { patchSheet } from '../../../core/meaning';
import { Button, Soft } from '../../components/controls';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';

const Page = styled.div`
  overflow: auto;
  padding: 14px 24px 30px;
  height: 100%;
`;

const Sheet = styled.table`
  width: 100%;
  margin-top: 12px;
  border-collapse: collapse;
  background: #fff;
  border: 1.5px solid ${desk.ink};
  & th,
  & td {
    padding: 7px 10px;
    border-bottom: 1px solid ${desk.line};
    text-align: left;
  }
  & th {
    border-bottom: 1.5px solid ${desk.ink};
    font-size: 12px;
    color: ${desk.inkSoft};
  }
  & td b {
    font: 700 15px/1.2 ${font.display};
  }
`;

/** Every cable of the stage with its two ends, to wire from. */
export function PatchPart() {
  const show = useShow();
  const rows = patchSheet(show);
  return (
    <Page>
      <Button onPress={() => window.print()} isDisabled={rows.length === 0}>
        <Printer size={16} aria-hidden /> Print the patch sheet
      </Button>
      {rows.length === 0 && <p style={{ marginTop: 14 }}>No cable yet: put units on ports in the drawing.</p>}
      <Sheet aria-label="Patch sheet">
        <thead>
          <tr>
            {['Cable', 'From', 'Socket', 'To', 'Socket', 'Kind', 'Set the unit to', 'Who', 'Spare'].map((t, i) => (
              <th key={i} scope="col">
                {t}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.number}>
              <td>
                <b>{row.number}</b>
              </td>
              <td>
                <b>{row.from}</b>
              </td>
              <td>{row.splitter ? `${row.fromSocket}, splitter` : row.fromSocket}</td>
              <td>
                <b>{row.to}</b>
              </td>
              <td>{row.toSocket}</td>
              <td>{row.cable === 'usb' ? 'USB' : '5-pin'}</td>
              <td>
                {row.listens === null ? (
                  <Soft>–</Soft>
                ) : row.listens === 'all' ? (
                  'all channels'
                ) : (
                  `channel ${row.channel}`
                )}
              </td>
              <td>{row.player}</td>
              <td>{row.spare}</td>
            </tr>
          ))}
        </tbody>
      </Sheet>
    </Page>
  );
}
