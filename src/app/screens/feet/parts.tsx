import { useNavigate } from 'react-router';
import styled from 'styled-components';
import type { Unit } from '../../../core/show';
import { Pick } from '../../widgets/Pick';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { stacked } from '../../theme/narrow';

/** A part with what is chosen beside it. */
export const Sides = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 348px;
  min-height: 0;
  height: 100%;
  ${stacked}
`;

export const Side = styled.aside`
  padding: 14px 18px 24px;
  border-left: 1.5px solid ${desk.ink};
  background: ${desk.sheet};
  overflow: auto;
`;

export const Stack = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
  grid-auto-rows: max-content;
  align-content: start;
  padding: 12px 24px 28px;
  overflow: auto;
  min-height: 0;
  height: 100%;
  @media print {
    display: block;
    height: auto;
    padding: 0;
  }
`;

export const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px;
`;

/** A strip of text that says how things stand. */
export const Say = styled.p<{ $wrong?: boolean }>`
  padding: 8px 12px;
  border-left: 4px solid ${({ $wrong = false }) => ($wrong ? desk.rust : desk.tide)};
  background: ${({ $wrong = false }) => ($wrong ? desk.rustWash : desk.tideWash)};
  font-weight: 600;
`;

export const SmallHead = styled.h2`
  font: 700 18px/1.2 ${font.display};
`;

/** Which controller; nothing where the rig has only one. */
export function ControllerPick({ unit, part }: { readonly unit: Unit; readonly part: string }) {
  const { id, units } = useShow();
  const navigate = useNavigate();
  const controllers = units.filter((u) => u.profile.controller !== null);
  if (controllers.length < 2) return <b style={{ font: `700 17px/34px ${font.display}` }}>{unit.name}</b>;
  return (
    <Pick
      label="Controller"
      hideLabel
      width="170px"
      value={unit.id}
      choices={controllers}
      onPick={(unitId) => void navigate(`/show/${id}/feet/${unitId}/${part}`)}
    />
  );
}
