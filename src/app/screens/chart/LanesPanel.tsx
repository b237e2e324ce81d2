import { ChevronDown, ChevronRight } from 'lucide-react';
import styled from 'styled-components';
import type { Show } from '../../../core/show';
import { ToggleButton } from 'react-aria-components';
import { Button, SignButton, Soft } from '../../widgets/controls';
import { UnitBadge } from '../../widgets/UnitBadge';
import { NOBODY, foldAll, toggleLane, useLanes } from '../../state/lanes';
import { desk } from '../../theme/tokens';
import { Panel, Row } from './panelParts';

const Group = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
  margin-top: 6px;
  border-bottom: 1.5px solid ${desk.ink};
  font-weight: 700;
`;

const Lane = styled.div`
  display: grid;
  grid-template-columns: 30px minmax(0, 1fr) auto auto;
  align-items: center;
  gap: 6px;
`;

const Turn = styled(ToggleButton)`
  min-height: 28px;
  padding: 0 9px;
  border: 1.5px solid ${desk.lineStrong};
  border-radius: 3px 9px 3px 9px;
  background: ${desk.field};
  font-weight: 600;
  font-size: 13px;
  cursor: pointer;
  &[data-selected] {
    border-color: ${desk.ink};
    background: ${desk.ink};
    color: ${desk.sheet};
  }
`;

/** Which lanes are seen, and which units are sent anything while a song plays. */
export function LanesPanel({ show }: { readonly show: Show }) {
  const { muted, solo, folded } = useLanes();
  const known = new Set(show.players.map((p) => p.id));
  const groups = [...show.players, { id: NOBODY, name: 'Nobody in particular' }]
    .map(({ id, name }) => ({
      id,
      name,
      units: show.units.filter((u) => (u.playerId !== null && known.has(u.playerId) ? u.playerId : NOBODY) === id),
    }))
    .filter((g) => g.units.length > 0);
  const all = groups.every((g) => folded.has(g.id));
  return (
    <Panel aria-label="Lanes">
      <h2>Lanes</h2>
      <Row>
        <Button onPress={() => foldAll(show, !all)}>{all ? 'Unfold all' : 'Fold all'}</Button>
      </Row>
      {groups.map((group) => (
        <div key={group.id} role="group" aria-label={group.name}>
          <Group>
            <SignButton
              aria-label={`${folded.has(group.id) ? 'Unfold' : 'Fold'} ${group.name}`}
              aria-expanded={!folded.has(group.id)}
              onPress={() => toggleLane('folded', group.id)}
            >
              {folded.has(group.id) ? <ChevronRight size={17} /> : <ChevronDown size={17} />}
            </SignButton>
            {group.name}
          </Group>
          {group.units.map((unit) => (
            <Lane key={unit.id} style={{ padding: '4px 0' }}>
              <UnitBadge monogram={unit.monogram} index={show.units.indexOf(unit)} size={22} />
              <span style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{unit.name}</span>
              <Turn
                aria-label={`Mute ${unit.name}`}
                isSelected={muted.has(unit.id)}
                onChange={() => toggleLane('muted', unit.id)}
              >
                Mute
              </Turn>
              <Turn
                aria-label={`Solo ${unit.name}`}
                isSelected={solo.has(unit.id)}
                onChange={() => toggleLane('solo', unit.id)}
              >
                Solo
              </Turn>
            </Lane>
          ))}
        </div>
      ))}
      <Soft style={{ fontSize: 13 }}>
        A muted unit is sent nothing while a song plays; the dry run and files do not change. When it is heard again, it
        catches up.
      </Soft>
    </Panel>
  );
}
