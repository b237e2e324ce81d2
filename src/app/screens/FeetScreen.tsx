import { useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { layOutFloor, type Unit } from '../../core/show';
import { AddUnit } from '../features/AddUnit';
import { Button, Soft } from '../widgets/controls';
import { perform } from '../state/desk';
import { PartedView } from '../widgets/PartedView';
import { useShow } from '../state/store';
import { BoatPart } from './feet/BoatPart';
import { ControllerPart } from './feet/ControllerPart';
import { LabelsPart } from './feet/LabelsPart';
import { PagesPart } from './feet/PagesPart';
import { ProposalPart } from './feet/ProposalPart';
import { TransferPart } from './feet/TransferPart';

const Empty = styled.div`
  display: grid;
  gap: 12px;
  align-content: start;
  justify-items: start;
  max-width: 620px;
  padding: 22px 24px;
`;

const PARTS = [
  ['pages', 'Pages'],
  ['proposal', 'Proposal'],
  ['without', 'Without computer'],
  ['transfer', 'Transfer'],
  ['labels', 'Labels'],
  ['controller', 'Controller'],
] as const;

/** Foot controllers: their pages as they lie on the floor, and how those get into them. */
export function FeetScreen() {
  const show = useShow();
  const { unitId, part = 'pages' } = useParams();
  const controllers = show.units.filter((u) => u.profile.controller !== null);
  const unit = controllers.find((u) => u.id === unitId) ?? controllers[0];
  if (!unit) return <NoController />;
  const base = `/show/${show.id}/feet/${unit.id}`;
  return (
    <PartedView title="Feet" label="Parts of feet" base={base} parts={PARTS} current={part}>
      <Part key={unit.id} part={part} unit={unit} />
    </PartedView>
  );
}

function Part({ part, unit }: { readonly part: string; readonly unit: Unit }) {
  switch (part) {
    case 'proposal':
      return <ProposalPart unit={unit} />;
    case 'without':
      return <BoatPart unit={unit} />;
    case 'transfer':
      return <TransferPart unit={unit} />;
    case 'labels':
      return <LabelsPart unit={unit} />;
    case 'controller':
      return <ControllerPart unit={unit} />;
    default:
      return <PagesPart unit={unit} />;
  }
}

/** What comes first where the rig has none. */
function NoController() {
  const show = useShow();
  const { id, units } = show;
  const navigate = useNavigate();
  const layOut = (unit: Unit): void => {
    const done = layOutFloor(show, unit.id);
    if (done.ok && perform(done.edit, 'lay out a foot controller'))
      void navigate(`/show/${id}/feet/${unit.id}/controller`);
  };
  return (
    <Empty>
      <h1>Feet</h1>
      <p>
        No foot controller is in the rig yet. Add one: the library has several kinds, from four switches to sixteen.
      </p>
      <AddUnit kind="foot-controller" onAdded={(unitId) => void navigate(`/show/${id}/feet/${unitId}`)} />
      {units.length > 0 && (
        <>
          <Soft>
            Or a unit that is there already: its floor is laid out by hand, of what it sends or of four new switches.
          </Soft>
          <div style={{ display: 'flex', flexWrap: 'wrap', gap: 8 }}>
            {units.map((unit) => (
              <Button key={unit.id} onPress={() => layOut(unit)}>
                Use {unit.name} as a foot controller
              </Button>
            ))}
          </div>
        </>
      )}
    </Empty>
  );
}
