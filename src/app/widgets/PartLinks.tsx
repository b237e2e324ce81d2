import { Link } from 'react-router';
import styled from 'styled-components';
import { narrow } from '../theme/narrow';
import { desk, font } from '../theme/tokens';

const Parts = styled.nav`
  display: flex;
  gap: 2px;
  margin-left: auto;
  & > a {
    padding: 7px 12px 9px;
    border-bottom: 3px solid transparent;
    margin-bottom: -1.5px;
    color: ${desk.inkSoft};
    font: 700 15px/1.2 ${font.display};
    text-decoration: none;
    white-space: nowrap;
  }
  & > a:hover {
    color: ${desk.ink};
    background: ${desk.tideWash};
  }
  & > a[aria-current='page'] {
    border-bottom-color: ${desk.lamp};
    color: ${desk.ink};
  }
  ${narrow} {
    flex-wrap: wrap;
    margin-left: 0;
    & > a {
      padding: 5px 8px 6px;
    }
  }
`;

interface Props {
  readonly label: string;
  /** Address of the first part; the others are one step below it. */
  readonly base: string;
  readonly parts: readonly (readonly [path: string, name: string])[];
  readonly current: string;
}

/** The parts of a view, in its head. */
export function PartLinks({ label, base, parts, current }: Props) {
  return (
    <Parts aria-label={label}>
      {parts.map(([path, name]) => (
        <Link
          key={name}
          to={path === '' ? base : `${base}/${path}`}
          aria-current={path === current ? 'page' : undefined}
        >
          {name}
        </Link>
      ))}
    </Parts>
  );
}
