import { Play, Square } from 'lucide-react';
import { useEffect } from 'react';
import { Button as AriaButton } from 'react-aria-components';
import styled, { css, keyframes } from 'styled-components';
import { tinykeys } from 'tinykeys';
import { UNKNOWN_STATE, type UnitState } from '../../core/rig';
import { songTime, type Song, type Unit } from '../../core/show';
import { countInTimes } from '../../core/sound';
import { formatPosition, microsToSeconds, secondsToTicks, tempoAt } from '../../core/time';
import { variantWords } from '../../wording';
import { useCaret } from '../state/caret';
import { playSong, stopSong } from '../state/desk';
import { slotNumber } from '../state/numbers';
import { useNews } from '../state/news';
import { useApp, useShow } from '../state/store';
import { desk, font } from '../theme/tokens';
import { LanternMark } from './LanternMark';
import { UnitBadge } from './UnitBadge';

const Strip = styled.footer`
  grid-column: 1 / -1;
  display: flex;
  align-items: stretch;
  background: ${desk.night};
  color: ${desk.nightText};
  min-height: 78px;
`;

const Deck = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 8px 16px;
  width: 270px;
  flex: none;
  @media (max-width: 1150px) {
    width: 262px;
  }
  border-right: 1.5px solid ${desk.nightLine};
`;

const PlayButton = styled(AriaButton)<{ $on: boolean }>`
  display: grid;
  place-items: center;
  width: 58px;
  height: 58px;
  flex: none;
  border: 2px solid ${(p) => (p.$on ? '#ffb39c' : desk.lamp)};
  border-radius: 6px 18px 6px 18px;
  background: ${(p) => (p.$on ? '#6d2112' : 'transparent')};
  color: ${(p) => (p.$on ? '#fff' : desk.lamp)};
  cursor: pointer;
  &[data-hovered] {
    background: ${(p) => (p.$on ? desk.rust : desk.nightRaised)};
  }
  &[data-disabled] {
    border-color: ${desk.nightLine};
    color: ${desk.nightLine};
  }
`;

const Place = styled.div`
  min-width: 0;
  & > b {
    display: block;
    font: 700 30px/1 ${font.display};
    font-variant-numeric: tabular-nums;
    white-space: nowrap;
  }
  & > span {
    display: block;
    margin-top: 5px;
    font-size: 13px;
    color: ${desk.nightSoft};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
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

/** Transport, and one lamp a unit with what it shows now; hollow while nobody knows. */
export function LampStrip() {
  const show = useShow();
  const rig = useNews((s) => s.news.rig);
  const loading = useNews((s) => s.news.loading);
  return (
    <Strip>
      <Transport />
      <Lamps aria-label="Units now" tabIndex={show.units.length > 8 ? 0 : undefined}>
        {show.units.map((unit, i) => (
          <UnitLamp
            key={unit.id}
            unit={unit}
            index={i}
            state={rig[unit.id] ?? UNKNOWN_STATE}
            loading={loading.includes(unit.id)}
          />
        ))}
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

function Transport() {
  const show = useShow();
  const news = useNews((s) => s.news);
  const caret = useCaret();
  const shown: Song | undefined =
    show.songs.find((s) => s.id === (news.playing ? news.songId : caret.songId)) ?? show.songs[0];
  const time = shown && songTime(shown);
  const ticks = time && news.playing ? secondsToTicks(time.tempo, microsToSeconds(news.place)) : caret.at;
  /** Ahead of the place that is played from: the beats that are still to come. */
  const before = shown && time && news.playing && news.from !== null && news.place < news.from ? waiting() : null;
  function waiting(): string {
    const at = Math.round(secondsToTicks(time!.tempo, microsToSeconds(news.from!)));
    const left = countInTimes(shown!, at).filter((t) => t >= news.place - BEAT_IN_SIGHT).length;
    return left > 0 ? `in ${left}` : 'ready …';
  }
  const toggle = (): void => {
    if (news.playing) void stopSong();
    else if (shown) void playSong(shown.id, caret.songId === shown.id ? caret.at : 0);
  };
  useEffect(() =>
    tinykeys(window, {
      Space: (event) => {
        const { target } = event;
        if (target instanceof HTMLElement && target.closest('input, textarea, button, a, [role]')) return;
        event.preventDefault();
        toggle();
      },
    }),
  );
  return (
    <Deck role="group" aria-label="Transport">
      <PlayButton $on={news.playing} aria-label={news.playing ? 'Stop' : 'Play'} isDisabled={!shown} onPress={toggle}>
        {news.playing ? <Square size={26} fill="currentColor" /> : <Play size={28} fill="currentColor" />}
      </PlayButton>
      <Place>
        <b aria-label="Position">
          {shown && time
            ? before !== null
              ? before
              : formatPosition(time.bars, wholeBeat(time.bars, ticks), shown.bars)
            : '–'}
        </b>
        <span>
          {shown && time
            ? `${shown.title} · ${Math.round(tempoAt(time.tempo, Math.max(0, ticks)) * 10) / 10} ♩`
            : 'No song yet'}
        </span>
      </Place>
    </Deck>
  );
}

/** A beat of the count-in stays in sight a moment after it is heard. */
const BEAT_IN_SIGHT = 120_000;

/** The start of the beat that a tick lies in: what a display shows while time runs. */
function wholeBeat(bars: ReturnType<typeof songTime>['bars'], ticks: number): number {
  const { beatTicks } = bars.runs.findLast((r) => r.tick <= ticks) ?? bars.runs[0]!;
  const start = bars.runs.findLast((r) => r.tick <= ticks)?.tick ?? bars.pickup;
  return start + Math.floor((ticks - start) / beatTicks) * beatTicks;
}
