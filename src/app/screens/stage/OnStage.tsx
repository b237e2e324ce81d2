import styled from 'styled-components';
import { indexShow, setOf, songTime, type Song } from '../../../core/show';
import { formatBar, barOfTick, microsToSeconds, secondsToTicks } from '../../../core/time';
import { useNews } from '../../state/news';
import { useShow } from '../../state/store';
import { stage } from '../../theme/tokens';
import { Steps } from './Steps';
import { ToneNow } from './ToneNow';
import { remarkAt, stageOf } from './stageOf';
import { WayToNext } from './WayToNext';

const Head = styled.header`
  display: flex;
  align-items: baseline;
  gap: 22px;
  padding: 18px 30px 6px;
  @media (max-width: 700px) {
    padding: 10px 16px 4px;
  }
  & h1 {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    font-size: 30px;
    font-weight: 700;
  }
  & b {
    font-size: 66px;
    line-height: 1;
    font-variant-numeric: tabular-nums;
  }
`;

const Comes = styled.p`
  margin: 0;
  overflow: hidden;
  font-size: 30px;
  font-weight: 700;
  color: ${stage.lamp};
  text-overflow: ellipsis;
  white-space: nowrap;
`;

const Middle = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 190px;
  min-height: 0;
  padding: 0 30px;
  gap: 24px;
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr) 84px;
    padding: 0 16px;
  }
`;

export const Wrong = styled.p`
  grid-column: 1 / -1;
  margin: 0;
  padding: 4px 0 0;
  font-size: 24px;
  font-weight: 700;
  color: ${stage.wrong};
`;

const Said = styled.p`
  grid-column: 1 / -1;
  margin: 0;
  font-size: 38px;
  font-weight: 600;
  font-style: italic;
  color: ${stage.text};
  @media (max-width: 700px) {
    font-size: 26px;
  }
`;

interface Props {
  readonly song: Song;
  readonly playerId: string | null;
  /** What is wrong, in one line; null for nothing. */
  readonly wrong: string | null;
}

/** What is on, what comes and when: for a player, or for all. */
export function OnStage({ song, playerId, wrong }: Props) {
  const show = useShow();
  const { bars, tempo } = songTime(song);
  const player = show.players.find((p) => p.id === playerId);
  // A new drawing for each whole beat is enough: nothing else moves. A step may stand off the beat.
  const tick = useNews(({ news }) => {
    if (news.songId !== song.id) return 0;
    const at = secondsToTicks(tempo, microsToSeconds(Math.max(0, news.place)));
    if (song.stepped) return Math.round(at);
    const { beatTicks, tick: start } = barOfTick(bars, at);
    return start + Math.floor((at - start) / beatTicks + 1e-6) * beatTicks;
  });
  const counting = useNews(({ news }) => news.playing && news.from !== null && news.place < news.from);
  const { now, beside, next } = stageOf(show, song, tick);
  const comes = useNews(({ news }) => {
    const entry = setOf(show).entries.find((e) => e.id === news.queued);
    return entry?.kind === 'song' ? indexShow(show).songs.get(entry.songId)?.title : undefined;
  });
  const remark = remarkAt(song, tick);
  const bar = counting ? '…' : formatBar(bars, barOfTick(bars, tick).bar, song.bars);
  return (
    <>
      <Head>
        <h1>
          {song.title}
          {player && ` · ${player.name}`}
        </h1>
        {comes !== undefined && <Comes aria-label="Song that comes next">next: {comes}</Comes>}
        {!song.stepped && <b aria-label="Bar">{bar}</b>}
      </Head>
      <Middle>
        {song.stepped ? (
          <Steps song={song} tick={tick} />
        ) : (
          <ToneNow show={show} song={song} now={now} beside={beside} next={next} playerId={playerId} />
        )}
        {!song.stepped && <WayToNext song={song} tick={tick} next={next?.at ?? null} />}
        {remark !== undefined && <Said aria-label="Remark">“{remark}”</Said>}
        {wrong !== null && <Wrong role="status">⚠ {wrong}</Wrong>}
      </Middle>
    </>
  );
}
