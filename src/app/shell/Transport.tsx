import { Play, Square } from 'lucide-react';
import { useEffect } from 'react';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import { tinykeys } from 'tinykeys';
import { songAsPlayed, songTime } from '../../core/show';
import { countInTimes } from '../../core/sound';
import { formatPosition, microsToSeconds, secondsToTicks, tempoAt } from '../../core/time';
import { startOf, useCaret } from '../state/caret';
import { practiseSong, stopSong } from '../state/desk';
import { useWay } from '../state/rehearsal';
import { useNews } from '../state/news';
import { useNight } from '../state/night';
import { useSongStanding } from '../state/useSongStanding';
import { useShow } from '../state/store';
import { narrow } from '../theme/narrow';
import { desk, font } from '../theme/tokens';
import { LeadButton } from './LeadButton';
import { Practice } from './Practice';

const Deck = styled.div<{ $wide: boolean }>`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 8px 16px;
  width: ${(p) => (p.$wide ? 404 : 300)}px;
  flex: none;
  @media (max-width: 1150px) {
    width: ${(p) => (p.$wide ? 374 : 270)}px;
  }
  border-right: 1.5px solid ${desk.nightLine};
  ${narrow} {
    width: auto;
    border-right: 0;
    border-bottom: 1px solid ${desk.nightLine};
  }
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
  flex: 1;
  min-width: 0;
  & > b {
    display: block;
    font: 700 29px/1 ${font.display};
    font-variant-numeric: tabular-nums;
    white-space: nowrap;
  }
  & > span {
    display: block;
    font-size: 13px;
    line-height: 1.2;
    color: ${desk.nightSoft};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

/** A show is a lit field in the place of the practice, which it has none of. */
const ShowSign = styled.b`
  display: grid;
  place-items: center;
  flex: none;
  width: 60px;
  height: 58px;
  margin-left: auto;
  border-radius: 4px 12px 4px 12px;
  background: ${desk.lamp};
  color: ${desk.onLamp};
  font: 800 17px/1 ${font.display};
`;

/** Play and stop, where the song is, and how it is practised. */
export function Transport() {
  const show = useShow();
  const news = useNews((s) => s.news);
  const caret = useCaret();
  const isOn = useNight((s) => s.id !== null);
  const shown = useSongStanding(show);
  const time = shown && songTime(shown);
  const { speed } = useWay(shown?.id ?? '');
  const ticks =
    time && news.playing ? secondsToTicks(time.tempo, microsToSeconds(news.place)) : startOf(caret, shown?.id ?? '');
  /** Ahead of the place that is played from: the beats that are still to come. */
  const before = shown && time && news.playing && news.from !== null && news.place < news.from ? waiting() : null;
  function waiting(): string {
    const at = Math.round(secondsToTicks(time!.tempo, microsToSeconds(news.from!)));
    const left = countInTimes(songAsPlayed(shown!, { speed: 1, outside: null, counted: news.counted }), at).filter(
      (t) => t >= news.place - BEAT_IN_SIGHT,
    ).length;
    return left > 0 ? `in ${left}` : 'ready';
  }
  const place = shown && time ? (before ?? formatPosition(time.bars, wholeBeat(time.bars, ticks), shown.bars)) : '–';
  const isLedFromOutside =
    show.timeCode.portId !== null || (shown?.followsPortId ?? null) !== null || news.pair?.leads === false;
  const toggle = (): void => {
    if (news.playing) void stopSong();
    else if (shown) void practiseSong(shown.id, startOf(caret, shown.id));
  };
  useEffect(() =>
    tinykeys(window, {
      Space: (event) => {
        const { target } = event;
        if (target instanceof HTMLElement && target.closest('input, textarea, button, a, [role]')) return;
        event.preventDefault();
        toggle();
      },
      'Alt+KeyP': (event) => {
        event.preventDefault();
        toggle();
      },
    }),
  );
  return (
    <Deck $wide={isLedFromOutside} role="group" aria-label="Transport">
      <PlayButton $on={news.playing} aria-label={news.playing ? 'Stop' : 'Play'} isDisabled={!shown} onPress={toggle}>
        {news.playing ? <Square size={26} fill="currentColor" /> : <Play size={28} fill="currentColor" />}
      </PlayButton>
      <Place>
        <b aria-label="Position" style={place.length > SHORT_PLACE ? { fontSize: 21 } : {}}>
          {place}
        </b>
        <span>{shown ? shown.title : 'No song yet'}</span>
        {time && <span>♩ = {Math.round(tempoAt(time.tempo, Math.max(0, ticks)) * speed * 10) / 10}</span>}
      </Place>
      <LeadButton />
      {isOn ? <ShowSign>Show</ShowSign> : shown && <Practice song={shown} />}
    </Deck>
  );
}

/** Letters of a place that there is room for in large type; the second bar 18 is `18(2)|1`. */
const SHORT_PLACE = 6;

/** A beat of the count-in stays in sight a moment after it is heard. */
const BEAT_IN_SIGHT = 120_000;

/** The start of the beat that a tick lies in: what a display shows while time runs. */
function wholeBeat(bars: ReturnType<typeof songTime>['bars'], ticks: number): number {
  const { beatTicks } = bars.runs.findLast((r) => r.tick <= ticks) ?? bars.runs[0]!;
  const start = bars.runs.findLast((r) => r.tick <= ticks)?.tick ?? bars.pickup;
  return start + Math.floor((ticks - start) / beatTicks) * beatTicks;
}
