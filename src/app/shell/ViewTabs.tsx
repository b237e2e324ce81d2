import { NavLink } from 'react-router';
import styled from 'styled-components';
import { narrow } from '../theme/narrow';
import { desk, font } from '../theme/tokens';

/** The views of a show, in the order of the work, with the digit that leads there. */
export const VIEWS = [
  { path: '', name: 'Book', key: '1' },
  { path: 'rig', name: 'Rig', key: '2' },
  { path: 'map', name: 'Map', key: '3' },
  { path: 'tones', name: 'Tones', key: '4' },
  { path: 'chart', name: 'Chart', key: '5' },
  { path: 'dry-run', name: 'Dry run', key: '6' },
  { path: 'feet', name: 'Feet', key: '7' },
  { path: 'set', name: 'Set', key: '8' },
  { path: 'stage', name: 'Stage', key: '9' },
  { path: 'files', name: 'Files', key: '0' },
] as const;

/** Where a view is. */
export const pathOf = (base: string, path: string): string => (path === '' ? base : `${base}/${path}`);

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
      <Tab key={name} to={pathOf(base, path)} end={path === ''} title={`${name} (Alt+${key})`}>
        {name}
      </Tab>
    ))}
  </Tabs>
);
