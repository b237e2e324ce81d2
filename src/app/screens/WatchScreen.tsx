import { useEffect, useState, type FormEvent } from 'react';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { indexShow } from '../../core/show';
import { useNews } from '../state/news';
import { useApp } from '../state/store';
import { join, leave, useWatching, wasIn } from '../state/watching';
import { stage } from '../theme/tokens';
import { AskForm, AskGround } from './stage/ask';
import { OnStage } from './stage/OnStage';
import { useWakeLock } from './stage/useWakeLock';

const Lost = styled.p`
  margin: 0;
  padding: 12px 30px;
  background: ${stage.wrong};
  color: ${stage.ground};
  font-size: 24px;
  font-weight: 700;
`;

const PlayerLinks = styled.nav`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  padding: 4px 30px 10px;
  @media (max-width: 700px) {
    padding: 4px 16px 10px;
  }
  & a {
    padding: 8px 0;
    color: ${stage.text};
    font-size: 18px;
    text-decoration: none;
  }
  & a[aria-current='true'] {
    font-weight: 700;
    text-decoration: underline;
  }
`;

const Foot = styled.p`
  margin: 0;
  padding: 6px 30px 10px;
  font-size: 14px;
`;

/** The stage of a desk elsewhere, once this screen has been let in. */
export function WatchScreen() {
  const { state } = useWatching();
  const { playerId } = useParams();
  useEffect(() => {
    if (wasIn()) join(null);
    return leave;
  }, []);
  return <AskGround>{state === 'in' ? <Watched playerId={playerId ?? null} /> : <Asking />}</AskGround>;
}

function Asking() {
  const { state, refusal } = useWatching();
  const [code, setCode] = useState('');
  const onJoin = (event: FormEvent): void => {
    event.preventDefault();
    if (code.trim() !== '') join(code.trim());
  };
  return (
    <AskForm onSubmit={onJoin}>
      <h1 style={{ fontSize: 34, margin: 0 }}>Stage</h1>
      <label htmlFor="code">The code that the desk shows, in Set, Screens</label>
      <input
        id="code"
        inputMode="numeric"
        autoComplete="one-time-code"
        maxLength={6}
        value={code}
        onChange={(e) => setCode(e.target.value.replace(/\D/g, ''))}
      />
      <button type="submit">{state === 'joining' ? 'Joining …' : 'Join'}</button>
      {refusal !== null && (
        <p role="alert" style={{ color: stage.wrong, margin: 0 }}>
          {refusal}
        </p>
      )}
    </AskForm>
  );
}

function Watched({ playerId }: { readonly playerId: string | null }) {
  const show = useApp((s) => s.open?.show);
  const songId = useNews((s) => s.news.songId);
  const { lostSince, desk, wrong } = useWatching();
  const awake = useWakeLock(true);
  const song = show && (indexShow(show).songs.get(songId ?? '') ?? show.songs[0]);
  return (
    <>
      {song ? (
        <OnStage song={song} playerId={playerId} wrong={wrong} />
      ) : (
        <p style={{ padding: 30, fontSize: 24 }}>Nothing is on stage yet.</p>
      )}
      <div style={{ gridRow: 3 }}>
        {show && show.players.length > 0 && (
          <PlayerLinks aria-label="Players">
            {[{ id: '', name: 'All' }, ...show.players].map((p) => (
              <Link key={p.id} to={p.id === '' ? '/watch' : `/watch/${p.id}`} aria-current={(playerId ?? '') === p.id}>
                {p.name}
              </Link>
            ))}
          </PlayerLinks>
        )}
        {lostSince !== null ? (
          <Lost role="alert">The line to the desk is lost: what stands here is old. It is tried again by itself.</Lost>
        ) : !desk ? (
          <Lost role="alert">The desk has gone away: what stands here is old.</Lost>
        ) : (
          awake !== 'held' && (
            <Foot>
              {awake === 'film'
                ? 'A page from another machine may not keep the screen awake: an empty film does, as far as it can.'
                : 'The screen goes dark as it is set: this browser lets the page do nothing about it.'}
            </Foot>
          )
        )}
      </div>
    </>
  );
}
