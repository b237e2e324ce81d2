import { Link } from 'react-router';
import { timesBasis } from '../../../core/meaning';
import { RANGES, figureIn, rangeWords, setRoom, type RoomField, type Unit } from '../../../core/show';
import { listWords } from '../../../wording';
import { DraftField } from '../../widgets/DraftField';
import { Soft } from '../../widgets/controls';
import { perform } from '../../state/desk';
import { useShow } from '../../state/store';

/** On whose times the lanterns stand, with the way to measuring those that are guesses. */
export function TimesBasis() {
  const show = useShow();
  const { guess, typed, measured } = timesBasis(show);
  if (guess.length + typed.length + measured.length === 0) return null;
  const names = (units: readonly Unit[]): string => listWords(units.map((u) => u.name));
  return (
    <section aria-label="What the lanterns stand on">
      <h2>What the lanterns stand on</h2>
      {guess.length > 0 ? (
        <p style={{ margin: 0 }}>
          Times of{' '}
          {guess.map((unit, i) => (
            <span key={unit.id}>
              {i > 0 && (i === guess.length - 1 ? ' and ' : ', ')}
              <Link to={`/show/${show.id}/map/${unit.id}`}>{unit.name}</Link>
            </span>
          ))}{' '}
          are guesses: measure them on the map.
        </p>
      ) : (
        <p style={{ margin: 0 }}>No guesses: every time was typed or measured.</p>
      )}
      {measured.length > 0 && <Soft>Measured: {names(measured)}. </Soft>}
      {typed.length > 0 && <Soft>Typed: {names(typed)}.</Soft>}
    </section>
  );
}

const FIELDS: readonly (readonly [RoomField, string])[] = [
  ['margin', 'margin: ms before the beat'],
  ['guard', 'guard: ms after settling'],
];

/** What plans keep free around changes, where there is room. */
export function KeptFree() {
  const show = useShow();
  const rangeOf = { margin: RANGES.marginMillis, guard: RANGES.guardMillis };
  return (
    <section aria-label="Kept free">
      <h2>Kept free where there is room</h2>
      <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 10 }}>
        {FIELDS.map(([field, label]) => (
          <DraftField
            key={field}
            label={label}
            value={String(show[field])}
            numeric
            commit={(text) => {
              const millis = figureIn(rangeOf[field], text);
              if (millis === undefined) return rangeWords(rangeOf[field]);
              perform(setRoom(show, field, millis), `change the ${field}`);
              return null;
            }}
          />
        ))}
      </div>
    </section>
  );
}
