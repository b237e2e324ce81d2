import { Plus, Trash2 } from 'lucide-react';
import { ToggleButton } from 'react-aria-components';
import styled from 'styled-components';
import {
  fitText,
  addPlayer,
  newPlayer,
  removePlayer,
  setPlayerField,
  setUnitField,
  type Player,
} from '../../../core/show';
import { Button, SignButton, Soft } from '../../widgets/controls';
import { ColourMeanings, ColourPick } from '../../features/ColourPick';
import { DraftField } from '../../widgets/DraftField';
import { UnitBadge } from '../../widgets/UnitBadge';
import { newId, perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';

const Page = styled.div`
  overflow: auto;
  padding: 14px 24px 30px;
  display: grid;
  gap: 12px;
  align-content: start;
  grid-template-columns: minmax(0, 1060px);
`;

const Row = styled.div`
  display: grid;
  grid-template-columns: 170px minmax(0, 1fr) 150px 34px;
  gap: 14px;
  align-items: end;
  padding: 12px 16px;
  border: 1.5px solid ${desk.lineStrong};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.sheet};
`;

const Units = styled.div`
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`;

/** A unit: dark and with a rim where it is this player's. */
const UnitTick = styled(ToggleButton)`
  display: inline-flex;
  gap: 6px;
  align-items: center;
  min-height: 32px;
  padding: 0 10px 0 6px;
  border: 1.5px dashed ${desk.line};
  border-radius: 4px 10px 4px 10px;
  background: transparent;
  color: ${desk.inkSoft};
  cursor: pointer;
  &[data-selected] {
    border: 1.5px solid ${desk.ink};
    background: ${desk.tideWash};
    color: ${desk.ink};
    font-weight: 600;
  }
`;

/** Who plays, and which units are whose. */
export function PlayersPart() {
  const show = useShow();
  const nobodys = show.units.filter((u) => u.playerId === null);
  return (
    <Page>
      {show.players.map((player) => (
        <PlayerRow key={player.id} player={player} />
      ))}
      <div>
        <Button
          onPress={() =>
            perform(addPlayer(show, newPlayer(newId(), `Player ${show.players.length + 1}`)), 'add a player')
          }
        >
          <Plus size={15} aria-hidden /> Add a player
        </Button>
      </div>
      {nobodys.length > 0 && <Soft>Nobody's yet: {nobodys.map((u) => u.name).join(', ')}.</Soft>}
      <ColourMeanings />
    </Page>
  );
}

function PlayerRow({ player }: { readonly player: Player }) {
  const show = useShow();
  const set = (field: 'name' | 'part', text: string): string | null => {
    if (field === 'name' && text.trim() === '') return 'a name';
    perform(setPlayerField(show, player.id, field, fitText(text, 'title')), `change ${player.name}`);
    return null;
  };
  return (
    <Row role="group" aria-label={player.name}>
      <DraftField label="Name" value={player.name} commit={(text) => set('name', text)} />
      <DraftField label="Plays" value={player.part} commit={(text) => set('part', text)} />
      <ColourPick
        label="Colour"
        value={player.colour}
        onPick={(colour) => perform(setPlayerField(show, player.id, 'colour', colour), `colour ${player.name}`)}
      />
      <SignButton
        aria-label={`Remove ${player.name}`}
        onPress={() => perform(removePlayer(show, player.id), `remove ${player.name}`)}
      >
        <Trash2 size={16} />
      </SignButton>
      <Units role="group" aria-label={`Units of ${player.name}`}>
        {show.units.map((u, i) => (
          <UnitTick
            key={u.id}
            isSelected={u.playerId === player.id}
            onChange={(on) =>
              perform(
                setUnitField(show, u.id, 'playerId', on ? player.id : null),
                on ? `${u.name} is played by ${player.name}` : `${u.name} is nobody's`,
              )
            }
          >
            <UnitBadge monogram={u.monogram} index={i} size={20} /> {u.name}
          </UnitTick>
        ))}
      </Units>
    </Row>
  );
}
