import { Plus } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { checkRig, type Finding } from '../../core/checks';
import { addPort, indexShow, newPort } from '../../core/show';
import { findingSentence, fixWords } from '../../wording';
import { AddUnit } from '../components/AddUnit';
import { Button, Soft } from '../components/controls';
import { LanternMark } from '../components/LanternMark';
import { PartLinks } from '../components/PartLinks';
import { Pick } from '../components/Pick';
import { newId, perform } from '../state/desk';
import { setPlayerFilter, useApp, useShow } from '../state/store';
import { desk } from '../theme/tokens';
import { MonitorSheet } from './rig/MonitorSheet';
import { PatchPart } from './rig/PatchPart';
import { PlayersPart } from './rig/PlayersPart';
import { RigDrawingView, type Chosen } from './rig/RigDrawingView';
import { PortSettings, UnitSettings } from './rig/RigSettings';

const Page = styled.div`
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
`;

const Head = styled.header`
  display: flex;
  align-items: end;
  gap: 16px;
  padding: 12px 24px 0;
  border-bottom: 1.5px solid ${desk.line};
  & > h1 {
    font-size: 26px;
    padding-bottom: 8px;
  }
`;

const Body = styled.div`
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr) 322px;
  min-height: 0;
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

const Findings = styled.ul`
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 14px 18px;
  list-style: none;
  border-bottom: 1.5px solid ${desk.line};
  & > li {
    display: grid;
    grid-template-columns: 24px minmax(0, 1fr);
    gap: 4px 8px;
    align-items: start;
    font-size: 13.5px;
  }
  & > li > button {
    grid-column: 2;
    justify-self: start;
  }
  & a {
    color: ${desk.ink};
    font-weight: 600;
  }
`;

const EVERYONE = 'everyone';

const PARTS = [
  ['', 'Drawing'],
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
    <Page>
      <Head>
        <h1>Rig</h1>
        <PartLinks label="Parts of the rig" base={base} parts={PARTS} current={part} />
      </Head>
      {part === 'patch' ? (
        <PatchPart />
      ) : part === 'players' ? (
        <PlayersPart />
      ) : part === 'monitor' ? (
        <MonitorSheet />
      ) : (
        <DrawingPart />
      )}
    </Page>
  );
}

function DrawingPart() {
  const show = useShow();
  const playerId = useApp((s) => s.playerFilter);
  const [chosen, setChosen] = useState<Chosen>(null);
  const findings = useMemo(() => checkRig(show), [show]);
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
            label="Whose"
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
        <FindingList findings={findings} onChoose={setChosen} />
        {unit && <UnitSettings key={unit.id} unit={unit} onGone={() => setChosen(null)} />}
        {port && <PortSettings key={port.id} port={port} onGone={() => setChosen(null)} />}
        {!unit && !port && (
          <p style={{ padding: 18 }}>
            <Soft>Choose a unit or a port in the drawing to see and change how it is set.</Soft>
          </p>
        )}
      </Right>
    </Body>
  );
}

interface ListProps {
  readonly findings: readonly Finding[];
  readonly onChoose: (chosen: Chosen) => void;
}

/** What the checks have to say of the rig and its map: each leads to its place, and is mended here where it can be. */
function FindingList({ findings, onChoose }: ListProps) {
  if (findings.length === 0) {
    return (
      <Findings aria-label="Findings">
        <li>
          <LanternMark mark="lit" size={22} silent />
          <span>Nothing is wrong with the wiring and the map.</span>
        </li>
      </Findings>
    );
  }
  return (
    <Findings aria-label="Findings">
      {findings.map((f, i) => (
        <li key={i}>
          <LanternMark mark={f.severity === 'note' ? 'hollow' : 'cracked'} size={22} />
          <span>
            {findingSentence(f)} <PlaceLink finding={f} onChoose={onChoose} />
          </span>
          {f.fix && <Button onPress={() => perform(f.fix, fixWords(f).toLowerCase())}>{fixWords(f)}</Button>}
        </li>
      ))}
    </Findings>
  );
}

function PlaceLink({
  finding: { place, code },
  onChoose,
}: { readonly finding: Finding } & { readonly onChoose: ListProps['onChoose'] }) {
  const show = useShow();
  const { id } = show;
  if (place.in === 'tone') return <Link to={`/show/${id}/tones/${place.toneId}`}>to the tone</Link>;
  if (place.in === 'song') return <Link to={`/show/${id}/chart/${place.songId}`}>to the song</Link>;
  if (place.in === 'port') return <Show onPress={() => onChoose({ kind: 'port', id: place.portId })} />;
  if (place.controlId !== undefined)
    return <Link to={`/show/${id}/map/${place.unitId}/controls`}>to its controls</Link>;
  if (code === 'map.state-undescribed')
    return <Link to={`/show/${id}/map/${place.unitId}/relays`}>to what is stored</Link>;
  if (place.slotId !== undefined) return <Link to={`/show/${id}/map/${place.unitId}`}>to its presets</Link>;
  return <Show onPress={() => onChoose({ kind: 'unit', id: place.unitId })} />;
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
