import { Download } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { setShowTitle, type Show } from '../../../core/show';
import { Button, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { UnitBadge } from '../../widgets/UnitBadge';
import { perform } from '../../state/desk';
import { exportShow } from '../../state/exports';
import { useShow } from '../../state/store';
import { stacked } from '../../theme/narrow';
import { desk, font } from '../../theme/tokens';

const Page = styled.div`
  display: grid;
  grid-template-columns: 380px minmax(0, 520px);
  align-content: start;
  gap: 40px;
  height: 100%;
  padding: 24px 30px 40px;
  overflow: auto;
  & h2 {
    margin-bottom: 8px;
  }
  ${stacked}
`;

const Facts = styled.section`
  display: grid;
  gap: 14px;
  align-content: start;
  justify-items: start;
  & > :first-child {
    width: 100%;
  }
`;

const Band = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  & li {
    padding: 9px 0;
    border-top: 1px solid ${desk.line};
  }
  & b {
    font: 700 16px/1.3 ${font.display};
  }
  & div {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin-top: 5px;
  }
`;

/** The show as a whole: its title, who plays what, and the way out as a file. */
export function ShowPart() {
  const show = useShow();
  const [said, setSaid] = useState<string | null>(null);
  return (
    <Page>
      <Facts aria-label="The show">
        <TitleField show={show} />
        <Button onPress={() => void exportShow(show, true).then(setSaid)}>
          <Download size={16} aria-hidden /> Export show
        </Button>
        {show.audio.length > 0 && (
          <Button onPress={() => void exportShow(show, false).then(setSaid)}>Export without recordings</Button>
        )}
        {said !== null && (
          <Soft role="status" aria-label="Export">
            {said}
          </Soft>
        )}
      </Facts>
      <section>
        <h2>Who plays what</h2>
        <Band>
          {show.players.map((player) => (
            <li key={player.id}>
              <b>{player.name}</b> <Soft>{player.part}</Soft>
              <div>
                {show.units.map(
                  (u, i) =>
                    u.playerId === player.id && <UnitBadge key={u.id} monogram={u.monogram} index={i} size={24} />,
                )}
              </div>
            </li>
          ))}
          {show.players.length === 0 && (
            <li>
              <Soft>Nobody is entered yet. Players are entered in the Rig, under Players.</Soft>
            </li>
          )}
        </Band>
      </section>
    </Page>
  );
}

function TitleField({ show }: { readonly show: Show }) {
  const commit = (text: string): string | null => {
    perform(setShowTitle(show, text), 'rename the show');
    return text.trim() === '' ? 'Enter a title' : null;
  };
  return <DraftField label="Title of the show" value={show.title} commit={commit} />;
}
