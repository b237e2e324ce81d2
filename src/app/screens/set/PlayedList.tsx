import { csvText } from '../../../core/csvText';
import { Download } from 'lucide-react';
import styled from 'styled-components';
import type { Played } from '../../../playback';
import { durationWords } from '../../../wording';
import { fileName } from '../../../core/formats/fileName';
import { download } from '../../adapters/download';
import { Button, Soft } from '../../widgets/controls';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';

const List = styled.ol`
  display: grid;
  gap: 3px;
  margin: 8px 0 12px;
  padding: 0;
  list-style: none;
  & li {
    display: grid;
    grid-template-columns: 74px minmax(0, 1fr) 52px;
    & > :last-child {
      grid-column: 2 / 4;
    }
    gap: 10px;
    padding: 3px 0;
    border-bottom: 1px solid ${desk.line};
    font-variant-numeric: tabular-nums;
  }
`;

const HOW = { asked: 'by hand', follows: 'by itself', launched: 'by a message' } as const;

const timeOf = (at: number): string => new Date(at / 1000).toTimeString().slice(0, 8);

/** What was played tonight, with when and how it was started; to keep as CSV. */
export function PlayedList({ history }: { readonly history: readonly Played[] }) {
  const show = useShow();
  if (history.length === 0) return null;
  const length = (p: Played): string => (p.until === null ? 'plays' : durationWords((p.until - p.at) / 1e6));
  return (
    <section aria-label="Played" style={{ marginTop: 22 }}>
      <h2>Played</h2>
      <List>
        {history.toReversed().map((p) => (
          <li key={p.at}>
            <span>{timeOf(p.at)}</span>
            <b>{p.title}</b>
            <span>{length(p)}</span>
            <Soft>{HOW[p.how]}</Soft>
          </li>
        ))}
      </List>
      <Button
        onPress={() =>
          download(
            fileName(`${show.title} played`, 'csv'),
            csvText([
              ['started', 'ended', 'song', 'how'],
              ...history.map((p) => [
                new Date(p.at / 1000).toISOString(),
                p.until === null ? '' : new Date(p.until / 1000).toISOString(),
                p.title,
                HOW[p.how],
              ]),
            ]),
            'text/csv',
          )
        }
      >
        <Download size={15} aria-hidden /> Export as CSV
      </Button>
    </section>
  );
}
