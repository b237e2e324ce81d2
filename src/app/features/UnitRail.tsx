import { Hash } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useShow } from '../state/store';
import { narrow } from '../theme/narrow';
import { desk } from '../theme/tokens';
import { AddUnit } from './AddUnit';
import { UnitBadge } from '../widgets/UnitBadge';

const Rail = styled.nav`
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding: 14px 8px;
  border-right: 1.5px solid ${desk.line};
  overflow: auto;
  & > a {
    display: flex;
    align-items: center;
    gap: 9px;
    padding: 7px 8px;
    border-radius: 3px 10px 3px 10px;
    color: ${desk.ink};
    font-weight: 600;
    text-decoration: none;
    line-height: 1.2;
  }
  @media (max-width: 1150px) {
    & > a {
      flex-direction: column;
      align-items: flex-start;
      gap: 3px;
    }
  }
  & > a:hover {
    background: ${desk.tideWash};
  }
  & > a[aria-current='page'] {
    background: ${desk.sheet};
    box-shadow: inset 0 0 0 1.5px ${desk.ink};
  }
  & > button {
    margin-top: 10px;
  }
  ${narrow} {
    flex-flow: row wrap;
    padding: 8px;
    & > button {
      margin-top: 0;
    }
  }
`;

interface Props {
  /** The unit whose map is open; null for the shared control numbers of all. */
  readonly current: string | null;
  /** Part of the map that the links lead to. */
  readonly part: string;
  readonly onAdded: (unitId: string) => void;
}

/** The units down the side of the map, the shared control numbers of all, and the way to one more. */
export function UnitRail({ current, part, onAdded }: Props) {
  const show = useShow();
  const base = `/show/${show.id}/map`;
  return (
    <Rail aria-label="Units">
      {show.units.map((u, i) => (
        <Link
          key={u.id}
          to={`${base}/${u.id}${part === '' ? '' : `/${part}`}`}
          aria-current={u.id === current ? 'page' : undefined}
        >
          <UnitBadge monogram={u.monogram} index={i} />
          {u.name}
        </Link>
      ))}
      <Link to={`${base}/house`} style={{ marginTop: 8 }} aria-current={current === null ? 'page' : undefined}>
        <Hash size={20} aria-hidden />
        Shared control numbers
      </Link>
      <AddUnit onAdded={onAdded} />
    </Rail>
  );
}
