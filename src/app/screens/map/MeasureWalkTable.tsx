import styled from 'styled-components';
import { labelOf, timeText } from '../../../core/addressing';
import type { Slot, Unit } from '../../../core/show';
import { desk } from '../../theme/tokens';

/** What was heard of one preset, in milliseconds; null where no gap was heard. */
export interface HeardSlot {
  readonly slot: Slot;
  readonly trials: readonly (number | null)[];
}

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
  & th {
    text-align: left;
    font-size: 12.5px;
    color: ${desk.inkSoft};
  }
  & td {
    padding: 4px 8px 4px 0;
    border-top: 1px solid ${desk.line};
  }
`;

const Scroll = styled.div`
  max-height: 260px;
  overflow: auto;
`;

/** What was heard of each preset, beside what the map says. */
export function Numbers({ unit, heard }: { readonly unit: Unit; readonly heard: readonly HeardSlot[] }) {
  return (
    <Scroll tabIndex={0} role="region" aria-label="What was heard">
      <Table aria-label="Times of presets">
        <thead>
          <tr>
            <th>preset</th>
            <th>heard, ms</th>
            <th>on the map</th>
          </tr>
        </thead>
        <tbody>
          {heard.map(({ slot, trials }) => (
            <tr key={slot.id}>
              <td>
                {labelOf(unit.profile.plan, slot.index)} {slot.name}
              </td>
              <td>{trials.map((t) => (t === null ? 'no gap' : String(Math.round(t)))).join(', ')}</td>
              <td>{timeText(slot.recall ?? unit.profile.times.recall)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  );
}
