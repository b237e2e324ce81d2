import { useMemo } from 'react';
import styled from 'styled-components';
import type { Control } from '../../../core/addressing';
import { stateAt } from '../../../core/compile';
import { OPENING_CUE } from '../../../core/meaning';
import {
  indexShow,
  setOpening,
  setShowOpening,
  songTime,
  unitsInSong,
  type Show,
  type Song,
  type Unit,
} from '../../../core/show';
import { formatPosition, type Ticks } from '../../../core/time';
import { Soft } from '../../widgets/controls';
import { Pick } from '../../widgets/Pick';
import { UnitBadge } from '../../widgets/UnitBadge';
import { slotNumber } from '../../state/numbers';
import { perform } from '../../state/desk';
import { useApp, type Counting } from '../../state/store';
import { valueWords, variantWords, verdictSentence } from '../../../wording';
import { useCueProof } from '../../state/marks';
import { desk, font } from '../../theme/tokens';
import type { UnitState } from '../../../core/rig';

const Panel = styled.section`
  display: grid;
  gap: 14px;
  padding: 16px;
  & h2 {
    font-size: 21px;
  }
`;

const List = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  & li {
    display: grid;
    grid-template-columns: 36px minmax(0, 1fr);
    gap: 0 10px;
    padding: 9px 0;
    border-top: 1px solid ${desk.line};
  }
  & b {
    font: 700 17px/1.2 ${font.display};
  }
  & div {
    min-width: 0;
    line-height: 1.3;
  }
`;

const NONE = 'none';
const SHOW = 'show';

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly at: Ticks;
}

/** "From bar 58": what every unit is on at the caret, as playing from the start leaves it. */
export function PlacePanel({ show, song, at }: Props) {
  const counting = useApp((s) => s.counting);
  const opening = useCueProof(song.id, OPENING_CUE);
  const failures = opening?.verdicts.filter((v) => v.outcome !== 'on-time') ?? [];
  const rig = useMemo(() => stateAt(show, song, at), [show, song, at]);
  const used = useMemo(() => unitsInSong(show, song), [show, song]);
  return (
    <Panel aria-label="The rig here">
      <div>
        <h2>The rig at {formatPosition(songTime(song).bars, at, song.bars)}</h2>
        <Soft>as playing from the start leaves it</Soft>
      </div>
      <List>
        {show.units.map((unit, i) => {
          const state = rig[unit.id];
          const slot = state?.slot ?? null;
          const set = Object.entries(state?.controls ?? {}).filter(([, v]) => v !== 'stored');
          if (slot === null && (unit.profile.senders.length > 0 || !used.has(unit.id))) return null;
          return (
            <UnitHere key={unit.id} unit={unit} index={i} slot={slot} counting={counting} state={state} set={set} />
          );
        })}
      </List>
      <Pick
        label="The song opens with"
        choices={[
          {
            id: SHOW,
            name: `as all songs do: ${indexShow(show).tones.get(show.openingToneId ?? '')?.name ?? 'with nothing yet'}`,
          },
          { id: NONE, name: 'nothing: the rig stays as it was' },
          ...show.tones.map((t) => ({ id: t.id, name: t.name })),
        ]}
        value={song.opening === 'show' ? SHOW : (song.openingToneId ?? NONE)}
        onPick={(id) => perform(setOpening(show, song.id, id === NONE ? null : id), 'change the opening')}
      />
      {song.opening === 'show' && (
        <Pick
          label="All songs open with"
          choices={[{ id: NONE, name: 'nothing yet' }, ...show.tones.map((t) => ({ id: t.id, name: t.name }))]}
          value={show.openingToneId ?? NONE}
          onPick={(id) => perform(setShowOpening(show, id === NONE ? null : id), 'change the opening of all songs')}
        />
      )}
      {failures.map((v) => (
        <p key={v.unitId}>{verdictSentence(v, indexShow(show).units.get(v.unitId)!)}</p>
      ))}
    </Panel>
  );
}

interface UnitHereProps {
  readonly unit: Unit;
  readonly index: number;
  readonly slot: number | null;
  readonly counting: Counting;
  readonly state: UnitState | undefined;
  readonly set: [string, number | 'stored'][];
}

/** What a unit is on at the place. */
function UnitHere({ unit, index, slot, counting, state, set }: UnitHereProps) {
  return (
    <li>
      <UnitBadge monogram={unit.monogram} index={index} />
      <div>
        <b>{slot === null ? 'not known' : slotNumber(unit.profile.plan, slot, counting)}</b>{' '}
        {slot !== null && (unit.slots.find((s) => s.index === slot)?.name ?? '')}
        <br />
        <Soft>
          {[
            state && unit.profile.variants && state.variant !== null ? variantWords(unit.profile, state.variant) : '',
            ...set.map(([id, v]) =>
              controlWords(
                unit.profile.controls.find((c) => c.id === id),
                v,
              ),
            ),
          ]
            .filter((w) => w !== '')
            .join(', ')}
        </Soft>
      </div>
    </li>
  );
}

function controlWords(control: Control | undefined, value: number | 'stored'): string {
  return !control || value === 'stored' ? '' : `${control.name} ${valueWords(control, value)}`;
}
