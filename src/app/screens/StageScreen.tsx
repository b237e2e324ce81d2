import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { indexShow, songTime, type Song } from '../../core/show';
import { formatBar, barOfTick, microsToSeconds, secondsToTicks } from '../../core/time';
import { GoOn } from '../components/GoOn';
import { useCaret } from '../state/caret';
import { useNews } from '../state/news';
import { useSongMark } from '../state/marks';
import { useShow } from '../state/store';
import { useOpenShow } from '../state/useOpenShow';
import { stage } from '../theme/tokens';
import { StageKeys } from './stage/StageKeys';
import { Steps } from './stage/Steps';
import { ToneNow } from './stage/ToneNow';
import { stageOf } from './stage/stageOf';
import { WayToNext } from './stage/WayToNext';
import { useWakeLock } from './stage/useWakeLock';

const Ground = styled.main`
  position: fixed;
  inset: 0;
  display: grid;
  grid-template: auto minmax(0, 1fr) auto / minmax(0, 1fr);
  background: ${stage.ground};
  color: ${stage.text};
`;

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

const Nothing = styled.div`
  grid-row: 1 / -1;
  align-self: center;
  padding: 0 40px;
  font-size: 24px;
  & a {
    color: ${stage.lamp};
  }
`;

const Wrong = styled.p`
  grid-column: 1 / -1;
  margin: 0;
  padding: 4px 0 0;
  font-size: 24px;
  font-weight: 700;
  color: ${stage.wrong};
`;

/** What somebody on stage reads from two metres away: the sound that is on, the next one, and when. Locked but for what a player needs. */
export function StageScreen() {
  const { open, refusal } = useOpenShow();
  if (refusal !== null) {
    return (
      <Ground>
        <Wrong role="alert">{refusal}</Wrong>
        <Link to="/">Back to all shows</Link>
      </Ground>
    );
  }
  return open ? <OpenStage /> : null;
}

function OpenStage() {
  const show = useShow();
  const { playerId } = useParams();
  const playing = useNews((s) => s.news.playing);
  const songId = useNews((s) => s.news.songId);
  const caret = useCaret((s) => s.songId);
  const { songs } = indexShow(show);
  const song = songs.get(songId ?? caret ?? '') ?? show.songs[0];
  useWakeLock(playing);
  return (
    <Ground>
      {song ? (
        <>
          <OnStage song={song} playerId={playerId ?? null} />
          <StageKeys song={song} />
          <GoOn />
        </>
      ) : (
        <Nothing>
          <h1>No song yet</h1>
          <p>The stage shows the song that plays. Songs are added in the Book.</p>
          <Link to={`/show/${show.id}`}>To the Book</Link>
        </Nothing>
      )}
    </Ground>
  );
}

function OnStage({ song, playerId }: { readonly song: Song; readonly playerId: string | null }) {
  const show = useShow();
  const { bars, tempo } = songTime(song);
  const player = show.players.find((p) => p.id === playerId);
  const mark = useSongMark(song);
  // A new drawing for each whole beat is enough: nothing else moves.
  const tick = useNews(({ news }) => {
    if (news.songId !== song.id) return 0;
    const at = secondsToTicks(tempo, microsToSeconds(Math.max(0, news.place)));
    const { beatTicks, tick: start } = barOfTick(bars, at);
    return start + Math.floor((at - start) / beatTicks + 1e-6) * beatTicks;
  });
  const counting = useNews(({ news }) => news.playing && news.from !== null && news.place < news.from);
  const { now, next } = stageOf(show, song, tick);
  const bar = counting ? '…' : formatBar(bars, barOfTick(bars, tick).bar, song.bars);
  return (
    <>
      <Head>
        <h1>
          {song.title}
          {player && ` · ${player.name}`}
        </h1>
        {!song.stepped && <b aria-label="Bar">{bar}</b>}
      </Head>
      <Middle>
        {song.stepped ? (
          <Steps song={song} tick={tick} />
        ) : (
          <ToneNow show={show} song={song} now={now} next={next} playerId={playerId} />
        )}
        {!song.stepped && <WayToNext song={song} tick={tick} next={next?.at ?? null} />}
        {mark === 'cracked' && (
          <Wrong role="status">⚠ Something in this song does not land: see the dry run before it is played.</Wrong>
        )}
      </Middle>
    </>
  );
}
