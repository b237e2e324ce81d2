import { useState, type FormEvent } from 'react';
import { Link, Navigate } from 'react-router';
import { pair } from '../state/desk';
import { usePair } from '../state/pair';
import { stage } from '../theme/tokens';
import { AskForm, AskGround } from './stage/ask';

/** This computer follows another one: where that is, and the code that it shows. Then its stage is here. */
export function FollowScreen() {
  const { seat, line, isThere, refusal, showId } = usePair();
  const [address, setAddress] = useState('');
  const [code, setCode] = useState('');
  if (showId !== null) return <Navigate to={`/show/${showId}/stage`} replace />;
  const onFollow = (event: FormEvent): void => {
    event.preventDefault();
    if (address.trim() !== '' && code !== '') void pair.follow(address.trim(), code);
  };
  const waits = seat === 'second' && line === 'open';
  return (
    <AskGround>
      <title>Follow · Hollow Lantern</title>
      <AskForm onSubmit={onFollow}>
        <h1 style={{ fontSize: 34, margin: 0 }}>Follow another computer</h1>
        <p style={{ margin: 0 }}>
          This one then has its show and its place, and is silent. When the other one ends, this one plays on.
        </p>
        <label htmlFor="address">Its address, as it shows it in Set, Screens</label>
        <input
          id="address"
          autoComplete="off"
          spellCheck={false}
          maxLength={120}
          value={address}
          style={{ fontSize: 26, letterSpacing: 0 }}
          onChange={(e) => setAddress(e.target.value)}
        />
        <label htmlFor="code">The code beside it</label>
        <input
          id="code"
          inputMode="numeric"
          autoComplete="one-time-code"
          maxLength={6}
          value={code}
          onChange={(e) => setCode(e.target.value.replace(/\D/g, ''))}
        />
        <button type="submit">{seat === 'second' ? 'Follow anew' : 'Follow'}</button>
        {waits && <p role="status">{isThere ? 'Its show is on the way …' : 'It is not there just now.'}</p>}
        {seat === 'second' && line !== 'open' && (
          <p role="status">
            {line === 'unreachable'
              ? 'The server of this computer does not share: start it with npm start -- --share.'
              : 'Asking …'}
          </p>
        )}
        {refusal !== null && (
          <p role="alert" style={{ color: stage.wrong, margin: 0 }}>
            {refusal}
          </p>
        )}
        <Link to="/" style={{ color: stage.lamp }}>
          All shows
        </Link>
      </AskForm>
    </AskGround>
  );
}
