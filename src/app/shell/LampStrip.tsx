import { useMemo } from 'react';
import styled, { css, keyframes } from 'styled-components';
import { UNKNOWN_STATE, type UnitState } from '../../core/rig';
import { unitsInSong, type Unit } from '../../core/show';
import { listWords, variantWords } from '../../wording';
import { slotNumber } from '../state/numbers';
import { useNews } from '../state/news';
import { useApp, useShow } from '../state/store';
import { useSongStanding } from '../state/useSongStanding';
import { narrow } from '../theme/narrow';
import { desk, font } from '../theme/tokens';
import { LanternMark } from '../widgets/LanternMark';
import { Transport } from './Transport';
import { UnitBadge } from '../widgets/UnitBadge';

const Strip = styled.footer`
  grid-column: 1 / -1;
  display: flex;
  align-items: stretch;
  background: ${desk.night};
  color: ${desk.nightText};
  min-height: 78px;
  ${narrow} {
    flex-direction: column;
    position: sticky;
    bottom: 0;
    z-index: 4;
    max-height: 76px;
    overflow: hidden auto;
  }
`;

const Lamps = styled.ul`
  display: flex;
  flex: 1;
  min-width: 0;
  margin: 0;
  padding: 0;
  list-style: none;
  overflow-x: auto;
  scrollbar-width: thin;
  scrollbar-color: ${desk.nightLine} transparent;
  ${narrow} {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(108px, 1fr));
    flex: none;
    overflow: visible;
  }
`;

const flare = keyframes`
  from { background: #6f4e0c; }
  to { background: transparent; }
`;

const Lamp = styled.li<{ $fresh: boolean }>`
  display: flex;
  align-items: center;
  gap: 6px;
  flex: 1 1 0;
  min-width: 108px;
  padding: 6px 5px 6px 7px;
  border-right: 1px solid ${desk.nightLine};
  ${(p) =>
    p.$fresh &&
    css`
      animation: ${flare} 1.6s ease-out;
      @media (prefers-reduced-motion: reduce) {
        animation: none;
      }
    `}
  & > div {
    min-width: 0;
  }
`;

const Sign = styled.div`
  display: grid;
  justify-items: center;
  gap: 2px;
  flex: none;
`;

const line = css`
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;

const SlotLabel = styled.b`
  ${line}
  font: 700 20px/1.1 ${font.display};
  font-variant-numeric: tabular-nums;
`;

/** A label of several words takes two lines. */
const LongLabel = styled.b`
  display: block;
  font: 700 14px/1.05 ${font.display};
  font-variant-numeric: tabular-nums;
`;

const LampWords = styled.span`
  ${line}
  font-size: 13px;
  line-height: 1.3;
`;

const UnitName = styled.span`
  display: block;
  font-weight: 600;
  font-size: 14px;
  line-height: 1.15;
  overflow-wrap: anywhere;
`;

const Unknown = styled(LampWords)`
  color: ${desk.nightSoft};
`;

/** Units that the song has nothing for, and that nobody sent anything to. */
const Dark = styled.li`
  align-self: center;
  flex: none;
  width: 92px;
  padding: 0 10px;
  line-height: 1.25;
  color: ${desk.nightSoft};
  font-size: 13px;
  font-weight: 600;
`;

/** Transport, and one lamp a unit with what it shows now; hollow while nobody knows. */
export function LampStrip() {
  const show = useShow();
  const rig = useNews((s) => s.news.rig);
  const loading = useNews((s) => s.news.loading);
  const song = useSongStanding(show);
  const used = useMemo(() => (song ? unitsInSong(show, song) : undefined), [show, song]);
  const dark = used?.size ? show.units.filter((u) => !used.has(u.id) && (rig[u.id]?.slot ?? null) === null) : [];
  const lamps = show.units.filter((u) => !dark.includes(u));
  return (
    <Strip>
      <Transport />
      <Lamps aria-label="Units now" tabIndex={lamps.length > 8 ? 0 : undefined}>
        {lamps.map((unit) => (
          <UnitLamp
            key={unit.id}
            unit={unit}
            index={show.units.indexOf(unit)}
            state={rig[unit.id] ?? UNKNOWN_STATE}
            loading={loading.includes(unit.id)}
          />
        ))}
        {dark.length > 0 && (
          <Dark title={`Not in ${song!.title}: ${listWords(dark.map((u) => u.name))}`}>
            +{dark.length} not in the song
          </Dark>
        )}
      </Lamps>
    </Strip>
  );
}

interface LampProps {
  readonly unit: Unit;
  readonly index: number;
  readonly state: UnitState;
  readonly loading: boolean;
}

function UnitLamp({ unit, index, state, loading }: LampProps) {
  const counting = useApp((s) => s.counting);
  const known = state.slot !== null;
  const { plan } = unit.profile;
  const name = unit.slots.find((s) => s.index === state.slot)?.name;
  const slot = state.slot === null ? '' : slotNumber(plan, state.slot, counting);
  const variant = unit.profile.variants && state.variant !== null ? variantWords(unit.profile, state.variant) : '';
  // A new key per state starts the flare anew.
  return (
    <Lamp key={`${state.slot} ${state.variant}`} $fresh={known} aria-label={unit.name} title={unit.name}>
      <Sign>
        <LanternMark mark={known ? 'lit' : 'hollow'} size={26} night silent />
        <UnitBadge monogram={unit.monogram} index={index} size={20} />
      </Sign>
      <div>
        {loading ? (
          <SlotLabel>· · ·</SlotLabel>
        ) : (
          known && (slot.length > 7 ? <LongLabel>{slot}</LongLabel> : <SlotLabel>{slot}</SlotLabel>)
        )}
        {known ? <LampWords>{name ?? ''}</LampWords> : <UnitName>{unit.name}</UnitName>}
        {known ? variant !== '' && <LampWords>{variant}</LampWords> : <Unknown>not known</Unknown>}
      </div>
    </Lamp>
  );
}
