import styled from 'styled-components';
import { boatShow } from '../../../core/feet';
import { patchSheet, type PatchRow } from '../../../core/meaning';
import { indexShow } from '../../../core/show';
import { PrintButton } from '../../features/PrintButton';
import { Soft } from '../../widgets/controls';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';

const Page = styled.div`
  overflow: auto;
  padding: 14px 24px 30px;
  height: 100%;
  @media print {
    height: auto;
    padding: 0;
  }
`;

const Sheet = styled.table`
  width: 100%;
  margin-top: 12px;
  border-collapse: collapse;
  background: ${desk.field};
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
  const boats = show.feet.filter((f) => f.boat.length > 0);
  return (
    <Page>
      <PrintButton isDisabled={rows.length === 0}>Print the patch sheet</PrintButton>
      {rows.length === 0 && <p style={{ marginTop: 14 }}>No cable yet: put units on ports in the drawing.</p>}
      <Cables label="Patch sheet" rows={rows} />
      {boats.map(({ id }) => (
        <section key={id} style={{ marginTop: 22 }}>
          <h2 style={{ fontSize: 18 }}>When the computer is gone: {indexShow(show).units.get(id)?.name} instead</h2>
          <Soft>Cables that are not here stay out.</Soft>
          <Cables
            label={`Emergency wiring of ${indexShow(show).units.get(id)?.name ?? ''}`}
            rows={patchSheet(boatShow(show, id))}
          />
        </section>
      ))}
    </Page>
  );
}

/** Cables with their two ends, numbered. */
function Cables({ label, rows }: { readonly label: string; readonly rows: readonly PatchRow[] }) {
  return (
    <Sheet aria-label={label}>
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
  );
}
