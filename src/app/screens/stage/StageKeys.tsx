import {
  AudioLines,
  ChevronLeft,
  ChevronRight,
  ListPlus,
  Lock,
  LockOpen,
  Play,
  SkipForward,
  Square,
  Undo2,
} from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Button } from 'react-aria-components';
import { useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { tinykeys } from 'tinykeys';
import { setOf, type Song } from '../../../core/show';
import { chooseSong, goChange, goSong, panic, playSong, selectPlace, stopSong, takeStartBack } from '../../state/desk';
import { interludeHere, pressInterlude, useInterlude } from '../../state/interlude';
import { startOf, useCaret } from '../../state/caret';
import { useNews } from '../../state/news';
import { setStageOnly } from '../../state/device';
import { useApp, useShow } from '../../state/store';
import { stage, font } from '../../theme/tokens';

const Row = styled.footer`
  display: flex;
  flex-wrap: wrap;
  align-items: stretch;
  gap: 10px;
  padding: 12px 30px 18px;
  @media (max-width: 700px) {
    padding: 10px 12px 12px;
  }
`;

const Key = styled(Button)<{ $kind?: 'stop' | 'start' }>`
  display: flex;
  align-items: center;
  justify-content: center;
  gap: 10px;
  min-height: 76px;
  min-width: ${(p) => (p.$kind === 'stop' ? 220 : 104)}px;
  padding: 0 18px;
  border: 2px solid ${(p) => (p.$kind === 'stop' ? stage.wrong : stage.line)};
  border-radius: 6px 20px 6px 20px;
  background: ${(p) => (p.$kind === 'stop' ? stage.stop : stage.raised)};
  color: ${stage.text};
  font: 700 24px/1 ${font.text};
  cursor: pointer;
  &[data-hovered] {
    border-color: ${stage.lamp};
  }
  &[data-disabled] {
    color: ${stage.line};
  }
  @media (max-width: 700px) {
    min-height: 58px;
    min-width: ${(p) => (p.$kind === 'stop' ? 130 : 62)}px;
    padding: 0 12px;
    font-size: 18px;
  }
`;

/** So long a start and the lock are held. */
const HOLD_MILLIS = 1000;
const START_MILLIS = 400;
const DESK_MILLIS = 3000;

/** A button that works when it was held so long: by pointer, or by Space or Enter. */
function HeldKey({
  label,
  millis,
  onHeld,
  children,
}: {
  readonly label: string;
  readonly millis: number;
  readonly onHeld: () => void;
  readonly children: React.ReactNode;
}) {
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const [held, setHeld] = useState(false);
  const end = (): void => {
    clearTimeout(timer.current);
    setHeld(false);
  };
  useEffect(() => () => clearTimeout(timer.current), []);
  return (
    <Key
      aria-label={label}
      $kind="start"
      style={held ? { borderColor: stage.lamp } : {}}
      onPressStart={() => {
        setHeld(true);
        timer.current = setTimeout(() => {
          setHeld(false);
          onHeld();
        }, millis);
      }}
      onPressEnd={end}
    >
      {children}
    </Key>
  );
}

/** The sound between songs, where there is one now: its name, and whether it plays. */
function InterludeKey() {
  const show = useShow();
  const plays = useInterlude((i) => i.entryId);
  const news = useNews((s) => s.news);
  const here = plays ?? (news.playing ? null : interludeHere()?.id) ?? null;
  const entry = setOf(show).entries.find((e) => e.id === here);
  if (entry?.kind !== 'sound') return null;
  const name = show.audio.find((a) => a.id === entry.audioId)?.name ?? 'the sound between songs';
  return (
    <Key aria-label={plays ? `Stop ${name}` : `Play ${name}`} onPress={pressInterlude}>
      {plays ? <Square size={24} fill="currentColor" aria-hidden /> : <AudioLines size={26} aria-hidden />}
      <span style={{ maxWidth: 160, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{name}</span>
    </Key>
  );
}

/** What a player needs within reach: stop, large; start, a little harder; next and previous; a wrong start taken back. The rest is behind the lock. */
export function StageKeys({ song }: { readonly song: Song }) {
  const show = useShow();
  const { playerId } = useParams();
  const playing = useNews((s) => s.news.playing);
  const canGoBack = useNews((s) => s.news.canGoBack);
  const entryId = useNews((s) => s.news.entryId);
  const [locked, setLocked] = useState(true);
  const only = useApp((s) => s.stageOnly.includes(show.id));
  const start = useCaret((caret) => startOf(caret, song.id));
  const begin = (): void => {
    if (song.stepped) void selectPlace(song.id, start, entryId);
    else void playSong(song.id, start, entryId);
  };
  useStageKeys();
  return (
    <Row aria-label="Stage keys">
      {playing ? (
        <StopKey />
      ) : (
        <HeldKey label="Start, hold" millis={START_MILLIS} onHeld={begin}>
          <Play size={34} fill="currentColor" aria-hidden /> Hold to start
        </HeldKey>
      )}
      <Key aria-label="Previous change" onPress={() => void goChange(-1)}>
        <ChevronLeft size={36} aria-hidden />
      </Key>
      <Key aria-label="Next change" onPress={() => void goChange(1)}>
        <ChevronRight size={36} aria-hidden />
      </Key>
      <Key aria-label="Choose the next song" onPress={() => void chooseSong(1)}>
        <ListPlus size={30} aria-hidden />
      </Key>
      <Key aria-label="Next song" onPress={() => void goSong(1)}>
        <SkipForward size={30} aria-hidden />
      </Key>
      <InterludeKey />
      {canGoBack && (
        <Key aria-label="Undo the start" onPress={() => void takeStartBack()}>
          <Undo2 size={28} aria-hidden />
        </Key>
      )}
      <span style={{ flex: 1 }} />
      {locked ? (
        <HeldKey label="Unlock, hold for a second" millis={HOLD_MILLIS} onHeld={() => setLocked(false)}>
          <Lock size={26} aria-hidden />
        </HeldKey>
      ) : (
        <OpenKeys playerId={playerId} only={only} setLocked={setLocked} />
      )}
    </Row>
  );
}

/** The same by keyboard: a page turner's pedals send such keys. */
function useStageKeys(): void {
  useEffect(() =>
    tinykeys(window, {
      ArrowRight: () => void goChange(1),
      ArrowLeft: () => void goChange(-1),
      PageDown: () => void goSong(1),
      PageUp: () => void goSong(-1),
      'Shift+PageDown': () => void chooseSong(1),
      'Shift+PageUp': () => void chooseSong(-1),
      Escape: () => void stopSong(),
    }),
  );
}

function StopKey() {
  return (
    <Key $kind="stop" aria-label="Stop" onPress={() => void stopSong()}>
      <Square size={34} fill="currentColor" aria-hidden /> Stop
    </Key>
  );
}

interface OpenKeysProps {
  readonly playerId: string | undefined;
  readonly only: boolean;
  readonly setLocked: (value: boolean) => void;
}

/** The keys that a locked stage does not have. */
function OpenKeys({ playerId, only, setLocked }: OpenKeysProps) {
  const show = useShow();
  const navigate = useNavigate();
  return (
    <>
      <Key onPress={() => void panic()}>All sound off</Key>
      {[{ id: '', name: 'All' }, ...show.players].map((p) => (
        <Key
          key={p.id}
          aria-pressed={(playerId ?? '') === p.id}
          onPress={() => void navigate(`/show/${show.id}/stage${p.id === '' ? '' : `/${p.id}`}`)}
        >
          {p.name}
        </Key>
      ))}
      {only ? (
        <HeldKey
          label="Unlock the desk, hold for three seconds"
          millis={DESK_MILLIS}
          onHeld={() => setStageOnly(show.id, false)}
        >
          Hold: unlock the desk
        </HeldKey>
      ) : (
        <Key onPress={() => void navigate(`/show/${show.id}/set`)}>{setOf(show).title}</Key>
      )}
      <Key aria-label="Lock" onPress={() => setLocked(true)}>
        <LockOpen size={26} aria-hidden />
      </Key>
    </>
  );
}
