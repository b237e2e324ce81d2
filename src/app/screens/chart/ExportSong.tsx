import { Download } from 'lucide-react';
import { useState } from 'react';
import { Menu, MenuTrigger } from 'react-aria-components';
import styled from 'styled-components';
import type { SmfMode } from '../../../core/formats/smf';
import type { Song } from '../../../core/show';
import { exportAndSay } from '../../state/exports';
import { desk } from '../../theme/tokens';
import { Button, Soft } from '../../widgets/controls';
import { Drop, MenuLine } from '../../widgets/Pick';

const Report = styled.span`
  font-size: 13px;
  color: ${desk.inkSoft};
  max-width: 520px;
`;

/** Hands a song on as a Standard MIDI File, and says what had to be rounded or shifted for it. */
export function ExportSong({ song }: { readonly song: Song }) {
  const [report, setReport] = useState<string | null>(null);
  const take = (mode: SmfMode): void => {
    const midi = { mode, format: 1, per: 'all' } as const;
    void exportAndSay({ kind: 'midi', songId: song.id, midi }).then(setReport);
  };
  return (
    <>
      <MenuTrigger>
        <Button>
          <Download size={16} aria-hidden /> MIDI file
        </Button>
        <Drop>
          <Menu onAction={(key) => take(key as SmfMode)}>
            <MenuLine id="written" textValue="As written">
              <b>As written</b>
              <Soft>everything on its beat</Soft>
            </MenuLine>
            <MenuLine id="sent" textValue="With early sends">
              <b>With early sends</b>
              <Soft>with its lead, as it leaves the cable</Soft>
            </MenuLine>
          </Menu>
        </Drop>
      </MenuTrigger>
      {report !== null && <Report role="status">{report}</Report>}
    </>
  );
}
