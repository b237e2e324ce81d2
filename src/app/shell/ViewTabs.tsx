import { NavLink } from 'react-router';
import styled from 'styled-components';
import { narrow } from '../theme/narrow';
import { VIEWS, pathOf } from '../features/views';
import { desk, font } from '../theme/tokens';

/** The dividers of a binder, along its right edge. */
const Tabs = styled.nav`
  display: flex;
  flex-direction: column;
  gap: 5px;
  padding: 12px 0 8px;
  min-height: 0;
  border-left: 1.5px solid ${desk.ink};
  background: ${desk.paper};
  ${narrow} {
    display: grid;
    grid-template-columns: repeat(5, minmax(0, 1fr));
    gap: 3px;
    padding: 6px 8px;
    border-left: 0;
    border-bottom: 1.5px solid ${desk.ink};
  }
`;

const Tab = styled(NavLink)`
  writing-mode: vertical-rl;
  display: flex;
  align-items: center;
  justify-content: center;
  flex: 1 1 0;
  max-height: 96px;
  min-height: 0;
  margin-left: -1.5px;
  margin-right: 7px;
  border: 1.5px solid ${desk.lineStrong};
  border-left-color: ${desk.ink};
  border-radius: 0 12px 4px 0;
  background: ${desk.sheetDim};
  color: ${desk.inkSoft};
  font: 700 13.5px/1 ${font.display};
  text-decoration: none;
  &:hover {
    background: ${desk.tideWash};
    color: ${desk.ink};
  }
  &.active {
    margin-right: 0;
    border-color: ${desk.ink};
    border-left-color: ${desk.sheet};
    background: ${desk.sheet};
    color: ${desk.ink};
  }
  ${narrow} {
    writing-mode: horizontal-tb;
    min-height: 28px;
    margin: 0;
    border-left-color: currentColor;
    border-radius: 3px 9px 3px 9px;
    &.active {
      border-left-color: ${desk.ink};
    }
  }
`;

export const ViewTabs = ({ base }: { readonly base: string }) => (
  <Tabs aria-label="Views">
    {VIEWS.map(({ path, name, key }) => (
      <Tab key={name} to={pathOf(base, path)} title={`${name} (Alt+${key})`}>
        {name}
      </Tab>
    ))}
  </Tabs>
);
