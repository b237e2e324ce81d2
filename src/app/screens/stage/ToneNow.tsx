import styled from 'styled-components';
import type { Show, Song, TonePart } from '../../../core/show';
import { partWords } from '../../../wording';
import { UnitBadge } from '../../widgets/UnitBadge';
import { stage, font } from '../../theme/tokens';
import { partsOf, type NamedStop, type Placed } from './stageOf';

const Box = styled.section`
  display: flex;
  flex-direction: column;
  justify-content: center;
  min-width: 0;
  min-height: 0;
  gap: 14px;
  overflow: hidden;
  @media (max-width: 700px) {
    justify-content: start;
    padding-top: 10px;
  }
`;

const Now = styled.h2<{ $long: boolean }>`
  margin: 0;
  font: 800 ${(p) => (p.$long ? 104 : 132)}px / 0.95 ${font.display};
  letter-spacing: -0.01em;
  color: ${stage.lamp};
  overflow-wrap: anywhere;
  @media (max-width: 700px) {
    font-size: ${(p) => (p.$long ? 54 : 72)}px;
  }
`;

const Parts = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 26px;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 24px;
  & li {
    display: flex;
    align-items: center;
    gap: 10px;
  }
`;

const Next = styled.p`
  margin: 0;
  font: 700 52px/1.05 ${font.display};
  color: ${stage.text};
  & small {
    font: 600 24px/1 ${font.text};
    color: ${stage.soft};
  }
  @media (max-width: 700px) {
    font-size: 40px;
  }
`;

const Beside = styled.p`
  margin: 0;
  font: 700 60px/1 ${font.display};
  color: ${stage.lamp};
  @media (max-width: 700px) {
    font-size: 40px;
  }
`;

/** From so many letters on a name takes the smaller of its two sizes. */
const LONG = 12;

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly now: Placed | undefined;
  /** What came since beside it: a move, a value. */
  readonly beside: NamedStop | undefined;
  readonly next: NamedStop | undefined;
  /** Whose part is shown; null for all that the tone names. */
  readonly playerId: string | null;
}

/** The sound that is on, huge; what of it is one's own; and the one that comes. */
export function ToneNow({ show, song, now, beside, next, playerId }: Props) {
  return (
    <Box aria-label="Sound">
      <Now $long={(now?.tone.name.length ?? 0) > LONG} aria-label="On now">
        {now?.tone.name ?? (next ? 'not yet' : 'no tones')}
      </Now>
      {beside && <Beside aria-label="And since">{beside.name}</Beside>}
      {now && playerId !== null && <OwnParts show={show} parts={partsOf(show, song, now.at, playerId)} />}
      <Next aria-label="Next">
        <small>{next ? 'then ' : ''}</small>
        {next?.name ?? (now ? 'nothing more in this song' : 'none is placed in this song')}
      </Next>
    </Box>
  );
}

function OwnParts({ show, parts }: { readonly show: Show; readonly parts: ReadonlyMap<string, TonePart> }) {
  const own = show.units.flatMap((unit, index) => {
    const part = parts.get(unit.id);
    return part ? [{ part, unit, index }] : [];
  });
  return (
    <Parts aria-label="Your part">
      {own.map(({ part, unit, index }) => (
        <li key={unit.id}>
          <UnitBadge monogram={unit.monogram} index={index} size={34} />
          {Object.values(partWords(unit, part))
            .filter((w) => w !== '')
            .join(' · ')}
        </li>
      ))}
    </Parts>
  );
}
