import { useEffect } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { indexShow, type Song } from '../../core/show';
import { useSongMark } from '../state/marks';
import { usePorts } from '../state/ports';
import { soundTrouble, useHearing } from '../state/hearing';
import { isCodeLost, pairTrouble, stageWrong } from '../state/stageWrong';
import { FollowShow } from '../features/FollowShow';
import { GoOn } from '../features/GoOn';
import { KeysHelp } from '../features/KeysHelp';
import { StandInFloor } from '../features/StandInFloor';
import { songStanding, useCaret } from '../state/caret';
import { versions } from '../state/desk';
import { useJournal } from '../state/journal';
import { useNews } from '../state/news';
import { useNight } from '../state/night';
import { useShow } from '../state/store';
import { useOpenShow } from '../state/useOpenShow';
import { stage } from '../theme/tokens';
import { StageKeys } from './stage/StageKeys';
import { useWakeLock } from './stage/useWakeLock';
import { Wrong, OnStage } from './stage/OnStage';

const Ground = styled.main`
  position: fixed;
  inset: 0;
  display: grid;
  grid-template: auto minmax(0, 1fr) auto auto / minmax(0, 1fr);
  background: ${stage.ground};
  color: ${stage.text};
`;

/** A foot controller's stand-in under the sound: on a tablet both are in reach. */
const Beside = styled.div`
  max-height: 46dvh;
  overflow: auto;
  border-top: 2px solid ${stage.line};
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
  const isOn = useNight((s) => s.id !== null);
  const standing = songStanding({ playing, songId, isShowOn: isOn }, { songId: caret });
  const song = indexShow(show).songs.get(standing ?? '') ?? show.songs[0];
  useWakeLock(playing || isOn);
  useEffect(() => void versions.keepForToday(), []);
  const [search] = useSearchParams();
  const asked = indexShow(show).units.get(search.get('floor') ?? '');
  const floor = asked?.profile.controller ? asked : undefined;
  return (
    <Ground>
      <title>{`Stage · ${show.title} · Hollow Lantern`}</title>
      {song ? (
        <>
          <MarkedStage song={song} playerId={playerId ?? null} />
          <StageKeys song={song} />
          {floor && (
            <Beside>
              <StandInFloor unit={floor} />
            </Beside>
          )}
          <GoOn onStage />
          <FollowShow />
          <KeysHelp />
        </>
      ) : (
        <Nothing>
          <h1>No song yet</h1>
          <p>The stage shows the song that plays. Songs are added in the Set.</p>
          <Link to={`/show/${show.id}`}>To the Set</Link>
        </Nothing>
      )}
    </Ground>
  );
}

function MarkedStage({ song, playerId }: { readonly song: Song; readonly playerId: string | null }) {
  const show = useShow();
  const mark = useSongMark(song);
  const lost = usePorts((s) => s.lost);
  const refusing = usePorts((s) => s.refusing);
  const late = usePorts((s) => s.late);
  const sound = useHearing(soundTrouble);
  const codeLost = useNews((s) => isCodeLost(s.news));
  const pair = useNews((s) => pairTrouble(s.news));
  const forgets = useJournal((s) => s.fails);
  const wrong = stageWrong(show, mark, { lost, refusing, late, sound, codeLost, pair, forgets });
  return <OnStage song={song} playerId={playerId} wrong={wrong} />;
}
