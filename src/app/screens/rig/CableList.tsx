import styled from 'styled-components';
import { Near } from '../../widgets/Near';
import { Soft } from '../../widgets/controls';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { CablePicksOf } from './CablePicks';

const Page = styled.section`
  padding: 14px 18px 20px;
  & > h2 {
    font: 700 19px/1.2 ${font.display};
    margin: 0 0 4px;
  }
  & > ul {
    margin: 4px 0 0;
    padding: 0;
    list-style: none;
  }
  & li {
    padding: 8px 0;
    border-top: 1px solid ${desk.line};
  }
`;

const Heads = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  margin-top: 14px;
  color: ${desk.inkSoft};
  font-size: 13px;
  font-weight: 600;
`;

/** Pixels of a unit's two cables. */
const HEIGHT = 38;

/** The cables of the drawing as a list: read, and worked by keyboard, without choosing anything first. */
export function CableList() {
  const show = useShow();
  if (show.units.length === 0) return null;
  return (
    <Page aria-label="Cables">
      <h2>Cables</h2>
      <Soft style={{ fontSize: 14 }}>Choose a unit or a port in the drawing for all that is set of it.</Soft>
      <Heads aria-hidden>
        <span>Input from</span>
        <span>Output back to</span>
      </Heads>
      <ul>
        {show.units.map((unit) => (
          <li key={unit.id}>
            <b>{unit.name}</b>
            <Near height={HEIGHT}>{() => <CablePicksOf unit={unit} />}</Near>
          </li>
        ))}
      </ul>
    </Page>
  );
}
