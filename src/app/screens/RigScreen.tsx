import { Plus } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { checkRig, type Finding } from '../../core/checks';
import { addPort, indexShow, newPort } from '../../core/show';
import { tonightOf } from '../../core/tonight';
import { AddUnit } from '../features/AddUnit';
import { Button, Soft } from '../widgets/controls';
import { FindingList } from '../features/FindingList';
import { PartedView } from '../widgets/PartedView';
import { Pick } from '../widgets/Pick';
import { newId, perform } from '../state/desk';
import { setPlayerFilter, useApp, useShow } from '../state/store';
import { desk } from '../theme/tokens';
import { stacked } from '../theme/narrow';
import { CableList } from './rig/CableList';
import { MonitorSheet } from './rig/MonitorSheet';
import { PatchPart } from './rig/PatchPart';
import { PortsPart } from './rig/PortsPart';
import { ReactionsPart } from './rig/ReactionsPart';
import { PlayersPart } from './rig/PlayersPart';
import { RigDrawingView, type Chosen } from './rig/RigDrawingView';
import { PortSettings } from './rig/PortSettings';
import { UnitSettings } from './rig/RigSettings';

const Body = styled.div`
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr) 322px;
  min-height: 0;
  ${stacked}
`;

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px;
  padding: 12px 24px 4px;
`;

const Drawing = styled.div`
  grid-row: 2;
  overflow: auto;
`;

const Right = styled.div`
  grid-row: 1 / -1;
  grid-column: 2;
  border-left: 1.5px solid ${desk.ink};
  background: ${desk.sheet};
  overflow: auto;
`;

const Found = styled.div`
  display: grid;
  gap: 8px;
  padding: 14px 18px;
  border-bottom: 1.5px solid ${desk.line};
`;

const EVERYONE = 'everyone';

const PARTS = [
  ['', 'Drawing'],
  ['ports', 'Ports'],
  ['reactions', 'Reactions'],
  ['patch', 'Patch sheet'],
  ['players', 'Players'],
  ['monitor', 'Monitor'],
] as const;

/** The rig: what hangs on which cable, on which channel, whose it is, and what passes through it. */
export function RigScreen() {
  const show = useShow();
  const { part = '' } = useParams();
  const base = `/show/${show.id}/rig`;
  return (
    <PartedView title="Rig" label="Parts of the rig" base={base} parts={PARTS} current={part}>
      {part === 'ports' ? (
        <PortsPart />
      ) : part === 'reactions' ? (
        <ReactionsPart />
      ) : part === 'patch' ? (
        <PatchPart />
      ) : part === 'players' ? (
        <PlayersPart />
      ) : part === 'monitor' ? (
        <MonitorSheet />
      ) : (
        <DrawingPart />
      )}
    </PartedView>
  );
}

/** What an address chooses: a unit or a port. */
function chosenIn(search: URLSearchParams): Chosen {
  const [unit, port] = [search.get('unit'), search.get('port')];
  return unit !== null ? { kind: 'unit', id: unit } : port !== null ? { kind: 'port', id: port } : null;
}

function DrawingPart() {
  const show = useShow();
  const playerId = useApp((s) => s.playerFilter);
  const [search] = useSearchParams();
  const [chosen, setChosen] = useState<Chosen>(() => chosenIn(search));
  const findings = useMemo(() => checkRig(tonightOf(show)), [show]);
  const unit = chosen?.kind === 'unit' ? indexShow(show).units.get(chosen.id) : undefined;
  const port = chosen?.kind === 'port' ? indexShow(show).ports.get(chosen.id) : undefined;
  const newPortNow = (): void => {
    const id = newId();
    perform(addPort(show, newPort(id, `Port ${show.ports.length + 1}`, 'din')), 'add a port');
    setChosen({ kind: 'port', id });
  };
  return (
    <Body>
      <Tools>
        <AddUnit onAdded={(id) => setChosen({ kind: 'unit', id })} />
        <Button onPress={newPortNow}>
          <Plus size={15} aria-hidden /> Add a port
        </Button>
        {show.players.length > 0 && (
          <Pick
            label="Player"
            hideLabel
            width="150px"
            value={playerId ?? EVERYONE}
            choices={[{ id: EVERYONE, name: 'everyone' }, ...show.players]}
            onPick={(id) => setPlayerFilter(id === EVERYONE ? null : id)}
          />
        )}
        <Soft style={{ fontSize: 13, paddingBottom: 8 }}>
          Drag from a round socket to a square one; drop in the open to pull a cable.
        </Soft>
      </Tools>
      <Drawing>
        {show.units.length === 0 && show.ports.length === 0 ? (
          <p style={{ padding: 24 }}>Nothing is wired yet. Add the first unit: what it is, its port, its channel.</p>
        ) : (
          <RigDrawingView chosen={chosen} onChoose={setChosen} findings={findings} playerId={playerId} />
        )}
      </Drawing>
      <Right>
        <Found>
          <FindingList
            findings={findings}
            well="Nothing is wrong with the wiring and the map."
            renderWay={(f) =>
              f.place.in === 'song' || f.place.in === 'tone' ? undefined : <WayTo finding={f} onChoose={setChosen} />
            }
          />
        </Found>
        {unit && <UnitSettings key={unit.id} unit={unit} onGone={() => setChosen(null)} />}
        {port && <PortSettings key={port.id} port={port} onGone={() => setChosen(null)} />}
        {!unit && !port && <CableList />}
      </Right>
    </Body>
  );
}

/** A way to what is drawn here, or to the sheet of the map that has it. */
function WayTo({ finding: { place, code }, onChoose }: WayProps) {
  const { id } = useShow();
  if (place.in === 'port') return <Show onPress={() => onChoose({ kind: 'port', id: place.portId })} />;
  if (place.in === 'entry') return <Link to={`/show/${id}/set`}>to the set</Link>;
  if (place.in === 'reaction')
    return <Link to={`/show/${id}/rig/reactions?reaction=${place.reactionId}`}>to the reaction</Link>;
  if (place.in !== 'unit') return null;
  if (place.controlId !== undefined)
    return <Link to={`/show/${id}/map/${place.unitId}/controls`}>to its controls</Link>;
  if (code === 'map.state-undescribed')
    return <Link to={`/show/${id}/map/${place.unitId}/relays`}>to what is stored</Link>;
  if (place.slotId !== undefined) return <Link to={`/show/${id}/map/${place.unitId}`}>to its presets</Link>;
  return <Show onPress={() => onChoose({ kind: 'unit', id: place.unitId })} />;
}

interface WayProps {
  readonly finding: Finding;
  readonly onChoose: (chosen: Chosen) => void;
}

const ShowButton = styled.button`
  padding: 0;
  border: 0;
  background: none;
  color: ${desk.ink};
  font-weight: 600;
  text-decoration: underline;
  cursor: pointer;
`;

const Show = ({ onPress }: { readonly onPress: () => void }) => (
  <ShowButton type="button" onClick={onPress}>
    show it
  </ShowButton>
);
