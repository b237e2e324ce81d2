import { Link } from 'react-router';
import styled from 'styled-components';
import { indexShow, songsOfSet } from '../../../core/show';
import { worstFirst } from '../../../core/simulate';
import { offsetText, roomText, sumOf } from '../../features/runSum';
import { useProofs } from '../../state/proofs';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';

const Line = styled.span`
  color: ${desk.inkSoft};
  & a {
    color: ${desk.ink};
    font-weight: 600;
  }
`;

/** Which change of the set bears the least before it misses, and how little; nothing until every song was run. */
export function LeastRoom() {
  const show = useShow();
  const runs = useProofs((s) => s.runs);
  const songs = [...new Set(songsOfSet(show))];
  const worst = songs.flatMap((song) => {
    const run = runs[song.id];
    const verdict = run && sumOf(run).worst;
    return verdict ? [{ song, verdict }] : [];
  });
  const [first] = worstFirst(worst.map((w) => w.verdict));
  const found = worst.find((w) => w.verdict === first);
  if (!found || songs.some((s) => !runs[s.id])) return null;
  const { song, verdict } = found;
  const unit = indexShow(show).units.get(verdict.unitId)?.name ?? '';
  const lands = verdict.outcome === 'on-time';
  return (
    <Line>
      {lands ? `Least room: ${roomText(verdict)}, ` : `Misses by most: ${offsetText(verdict)}, `}
      <Link to={`/show/${show.id}/dry-run/${song.id}`}>
        {unit} in {song.title}
      </Link>
      .
    </Line>
  );
}
