import { useEffect, useState, type FormEvent } from 'react';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { indexShow } from '../../core/show';
import { useNews } from '../state/news';
import { useApp } from '../state/store';
import { join, leave, useWatching, wasIn } from '../state/watching';
import { font, stage } from '../theme/tokens';
import { OnStage } from './stage/OnStage';
import { useWakeLock } from './stage/useWakeLock';

const Ground = styled.main`
  position: fixed;
  inset: 0;
  display: grid;
  grid-template: auto minmax(0, 1fr) auto / minmax(0, 1fr);
  background: ${stage.ground};
  color: ${stage.text};
`;

const Middle = styled.form`
  grid-row: 1 / -1;
  place-self: center;
  display: grid;
  gap: 16px;
  width: min(420px, calc(100vw - 40px));
  font-size: 20px;
  & input {
    width: 100%;
    padding: 10px 14px;
    border: 2px solid ${stage.text};
    border-radius: 4px 14px 4px 14px;
    background: transparent;
    color: ${stage.text};
    font: 700 44px/1.1 ${font.display};
    letter-spacing: 0.1em;
  }
  & button {
    min-height: 56px;
    border: 0;
    border-radius: 4px 16px 4px 16px;
    background: ${stage.lamp};
    color: ${stage.ground};
    font: 700 22px/1 ${font.display};
    cursor: pointer;
  }
`;

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
  return <Ground>{state === 'in' ? <Watched playerId={playerId ?? null} /> : <Asking />}</Ground>;
}

function Asking() {
  const { state, refusal } = useWatching();
  const [code, setCode] = useState('');
  const onJoin = (event: FormEvent): void => {
    event.preventDefault();
    if (code.trim() !== '') join(code.trim());
  };
  return (
    <Middle onSubmit={onJoin}>
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
    </Middle>
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
