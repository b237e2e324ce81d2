import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import {
  RANGES,
  figureIn,
  indexShow,
  rangeWords,
  songTime,
  ticksAt,
  writeTones,
  type Press,
  type Show,
  type Song,
  type Tone,
} from '../../../core/show';
import { Check } from '../../widgets/Check';
import { Button, Soft } from '../../widgets/controls';
import { More } from '../../features/More';
import { DraftField } from '../../widgets/DraftField';
import { goHome } from '../../widgets/home';
import { takesText } from '../../widgets/takesText';
import { goToTone, newId, perform } from '../../state/desk';
import { useNews } from '../../state/news';
import { useApp } from '../../state/store';
import { snapped, type Snap } from './snap';

const Box = styled.section`
  display: grid;
  gap: 8px;
  padding: 0 16px 16px;
  & h3 {
    font-size: 15px;
  }
`;

const Keys = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 6px;
  & button {
    min-height: 44px;
    justify-content: start;
    text-align: left;
    white-space: normal;
    line-height: 1.2;
  }
`;

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly snapTo: Snap;
}

/** Where the song is just now, in its own time: the news of it are up to a thirtieth of a second old. */
function placeNow(): number {
  const { zero, speed, looping, place } = useNews.getState().news;
  if (zero === null || looping) return place;
  return ((performance.timeOrigin + performance.now()) * 1000 - zero) * speed;
}

/**
 * Cues written by playing: while the song runs, core tones that are pressed go to the rig at once and stand
 * in the chart when it stops, snapped, all of a take as one edit.
 */
export function WritePart({ show, song, snapTo }: Props) {
  const { tones } = indexShow(show);
  const running = useNews((s) => s.news.playing && s.news.songId === song.id);
  const [on, setOn] = useState(false);
  const [reaction, setReaction] = useState(0);
  const writes = on && running;
  const { count, press } = useTake(song, snapTo, reaction, writes);
  useCoreKeys(show, writes, press);
  if (show.core.length === 0) return null;
  return (
    <Box aria-label="Write by playing">
      <h3>Write by playing</h3>
      <Check
        isSelected={on}
        onChange={(now) => {
          setOn(now);
          // Space plays and digits press tones, which a box takes for itself.
          if (now) goHome();
        }}
      >
        Pressed core tones become cues
      </Check>
      {on && (
        <Writing
          running={running}
          count={count}
          show={show}
          press={press}
          tones={tones}
          reaction={reaction}
          setReaction={setReaction}
        />
      )}
    </Box>
  );
}

/** Takes down what is pressed while a song runs, and writes it when that ends; `reaction` in milliseconds. */
function useTake(song: Song, snapTo: Snap, reaction: number, writes: boolean) {
  const [count, setCount] = useState(0);
  const take = useRef<Press[]>([]);
  const note = (toneId: string, place: number): void => {
    const at = Math.max(0, place - reaction * 1000 * useNews.getState().news.speed);
    take.current.push({ toneId, at: snapped(song, ticksAt(songTime(song), at), snapTo) });
    setCount(take.current.length);
  };
  const press = (toneId: string): void => {
    note(toneId, placeNow());
    void goToTone(toneId);
  };
  // Pads and feet bring the rig to the tone by themselves.
  const pressed = useNews((s) => s.pressed);
  const noted = useRef(pressed);
  useEffect(() => {
    if (pressed === noted.current) return;
    noted.current = pressed;
    if (writes && pressed?.songId === song.id) note(pressed.toneId, pressed.place);
  });
  useEffect(() => {
    if (writes || take.current.length === 0) return;
    const now = useApp.getState().open?.show;
    const words = take.current.length === 1 ? 'write a cue by playing' : `write ${take.current.length} cues by playing`;
    if (now) perform(writeTones(now, song.id, take.current, newId), words);
    take.current = [];
    setCount(0);
  }, [writes, song.id]);
  return { count, press };
}

/** Digits press core tones while somebody writes: before the chart, where the same keys place at the caret. */
function useCoreKeys(show: Show, writes: boolean, press: (toneId: string) => void): void {
  useEffect(() => {
    if (!writes) return undefined;
    const onKey = (event: KeyboardEvent): void => {
      const toneId = /^[1-9]$/.test(event.key) ? show.core[Number(event.key) - 1] : undefined;
      const { repeat, ctrlKey, altKey, metaKey } = event;
      if (toneId === undefined || takesText(event.target) || repeat || ctrlKey || altKey || metaKey) return;
      event.preventDefault();
      event.stopPropagation();
      press(toneId);
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  });
}

interface WritingProps {
  readonly running: boolean;
  readonly count: number;
  readonly show: Show;
  readonly press: (toneId: string) => void;
  readonly tones: ReadonlyMap<string, Tone>;
  readonly reaction: number;
  readonly setReaction: (value: number) => void;
}

/** What is said and set while changes are written by playing. */
function Writing({ running, count, show, press, tones, reaction, setReaction }: WritingProps) {
  return (
    <>
      <Soft role="status">
        {running
          ? `${count === 0 ? 'Press a tone here, or on pads and feet that reactions know' : count === 1 ? '1 tone' : `${count} tones`}: in the chart when the song stops.`
          : 'Press Play, then the tones as they are wanted.'}
      </Soft>
      <Keys>
        {show.core.map((id, i) => (
          <Button key={id} isDisabled={!running} onPressStart={() => press(id)}>
            {i + 1} {tones.get(id)?.name}
          </Button>
        ))}
      </Keys>
      <More place="write">
        <DraftField
          label="Subtract my reaction time (ms)"
          value={String(reaction)}
          numeric
          commit={(text) => {
            const late = figureIn(RANGES.reactionMillis, text);
            if (late === undefined) return rangeWords(RANGES.reactionMillis);
            setReaction(late);
            return null;
          }}
        />
      </More>
    </>
  );
}
