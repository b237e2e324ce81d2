import styled from 'styled-components';
import type { Problem } from '../../core/problems';
import { problemLine } from '../../wording';
import { desk } from '../theme/tokens';

const List = styled.ul<{ $grave: boolean }>`
  display: grid;
  gap: 3px;
  max-height: 150px;
  overflow: auto;
  margin: 0;
  padding: 8px 12px;
  list-style: none;
  border-left: 4px solid ${(p) => (p.$grave ? desk.rust : desk.lamp)};
  background: ${(p) => (p.$grave ? desk.rustWash : desk.lampWash)};
  font-size: 13px;
`;

/** What a reader has to say, each with its place; the grave ones alone where there are any. */
export function Told({ problems, label }: { readonly problems: readonly Problem[]; readonly label: string }) {
  const errors = problems.filter((p) => p.severity === 'error');
  const shown = errors.length > 0 ? errors : problems;
  if (shown.length === 0) return null;
  return (
    <List role="alert" aria-label={label} tabIndex={0} $grave={errors.length > 0}>
      {shown.map((p, i) => (
        <li key={i}>{capital(problemLine(p))}</li>
      ))}
    </List>
  );
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
