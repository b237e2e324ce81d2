import { Download } from 'lucide-react';
import { useState } from 'react';
import { Menu, MenuTrigger } from 'react-aria-components';
import type { ExportWish } from '../../../core/formats/exportFile';
import { Button, Soft } from '../../widgets/controls';
import { Drop, MenuLine } from '../../widgets/Pick';
import { exportAndSay } from '../../state/exports';

/** Hands a unit's map on: the list of its presets, the names in the open format, or all of it. */
export function ListOut({ unitId }: { readonly unitId: string }) {
  const [report, setReport] = useState<string | null>(null);
  const take = (what: string): void => {
    const wish: ExportWish =
      what === 'csv'
        ? { kind: 'table', table: 'presets', id: unitId }
        : { kind: what === 'names' ? 'names' : 'unit', unitId };
    void exportAndSay(wish).then(setReport);
  };
  return (
    <>
      <MenuTrigger>
        <Button>
          <Download size={16} aria-hidden /> Export
        </Button>
        <Drop>
          <Menu onAction={(key) => take(String(key))}>
            <MenuLine id="csv" textValue="Preset list">
              <b>Preset list</b>
              <Soft>labels, numbers and names as a CSV table</Soft>
            </MenuLine>
            <MenuLine id="names" textValue="MIDI names">
              <b>MIDI name document</b>
              <Soft>patches and controls for other programs</Soft>
            </MenuLine>
            <MenuLine id="unit" textValue="Whole unit">
              <b>The whole unit</b>
              <Soft>its map, to add to another show</Soft>
            </MenuLine>
          </Menu>
        </Drop>
      </MenuTrigger>
      {report !== null && (
        <Soft role="status" style={{ fontSize: 13 }}>
          {report}
        </Soft>
      )}
    </>
  );
}
