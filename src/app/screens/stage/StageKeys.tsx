import {
  AudioLines,
  ChevronLeft,
  ChevronRight,
  Crown,
  Gauge,
  ListPlus,
  Lock,
  LockOpen,
  Play,
  SkipForward,
  Square,
  Undo2,
  VolumeX,
} from 'lucide-react';
import { useEffect, useState, type ReactNode } from 'react';
import { Button } from 'react-aria-components';
import { useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { tinykeys } from 'tinykeys';
import { setOf, type Song } from '../../../core/show';
import { countInWords } from '../../../wording';
import { StartShow } from '../../features/StartShow';
import { VIEWS, pathOf } from '../../features/views';
import {
  audition,
  chooseSong,
  countIn,
  endShow,
  goChange,
  goSong,
  pair,
  panic,
  playSong,
  selectPlace,
  stopSong,
  takeStartBack,
} from '../../state/desk';
import { interludeHere, pressInterlude, useInterlude } from '../../state/interlude';
import { startOf, useCaret } from '../../state/caret';
import { useNews } from '../../state/news';
import { setStageOnly } from '../../state/device';
import { useNight } from '../../state/night';
import { useApp, useShow } from '../../state/store';
import { stage, font } from '../../theme/tokens';
import { useHeld } from '../../widgets/useHeld';
import { tunersOf } from './tuners';

const Row = styled.footer`
  display: flex;
  align-items: stretch;
  gap: 10px;
  padding: 12px 30px 18px;
  @media (max-width: 900px) {
    gap: 8px;
    padding: 12px 16px 14px;
  }
  @media (max-width: 700px) {
    flex-wrap: wrap;
    padding: 10px 12px 12px;
  }
`;

const OpenRow = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 10px 30px 0;
  @media (max-width: 900px) {
    padding: 10px 16px 0;
  }
`;

/** The words on a key, where there is room for them. */
const Word = styled.span`
  white-space: nowrap;
  @media (max-width: 900px) {
    display: none;
  }
`;

const Key = styled(Button)<{ $kind?: 'stop' | 'start' | 'small' }>`
  display: flex;
  align-items: center;
  justify-content: center;
  gap: 10px;
  min-height: ${(p) => (p.$kind === 'small' ? 52 : 76)}px;
  min-width: ${(p) => (p.$kind === 'stop' ? 220 : p.$kind === 'small' ? 52 : 92)}px;
  padding: 0 18px;
  border: 2px solid ${(p) => (p.$kind === 'stop' ? stage.wrong : stage.line)};
  border-radius: 6px 20px 6px 20px;
  background: ${(p) => (p.$kind === 'stop' ? stage.stop : stage.raised)};
  color: ${stage.text};
  font: 700 ${(p) => (p.$kind === 'small' ? 18 : 24)}px / 1 ${font.text};
  cursor: pointer;
  &[aria-pressed='true'] {
    border-color: ${stage.lamp};
    color: ${stage.lamp};
  }
  &[data-hovered] {
    border-color: ${stage.lamp};
  }
  &[data-disabled] {
    color: ${stage.line};
  }
  @media (max-width: 900px) {
    min-width: ${(p) => (p.$kind === 'stop' ? 130 : p.$kind === 'small' ? 48 : 68)}px;
    padding: 0 12px;
  }
  @media (max-width: 700px) {
    min-height: ${(p) => (p.$kind === 'small' ? 46 : 58)}px;
    min-width: ${(p) => (p.$kind === 'stop' ? 120 : 48)}px;
    padding: 0 10px;
    font-size: 18px;
  }
`;

/** So long a start and the lock are held. */
const HOLD_MILLIS = 1000;
const START_MILLIS = 400;
const DESK_MILLIS = 3000;

/** What is said where somebody presses too shortly. */
const Hint = styled.span`
  position: absolute;
  bottom: calc(100% + 6px);
  right: 0;
  padding: 8px 14px;
  border-radius: 4px 14px 4px 14px;
  background: ${stage.text};
  color: ${stage.ground};
  font: 700 20px/1.1 ${font.text};
  white-space: nowrap;
  z-index: 3;
`;

interface HeldKeyProps {
  readonly label: string;
  /** What is said when it is let go too soon. */
  readonly hint: string;
  readonly millis: number;
  readonly onHeld: () => void;
  readonly pressed?: boolean;
  readonly small?: boolean;
  readonly children: ReactNode;
}

/** A key that works when it was held so long: by pointer, or by Space or Enter. */
function HeldKey({ label, hint, millis, onHeld, pressed, small = false, children }: HeldKeyProps) {
  const { held, tooShort, press } = useHeld(millis, onHeld);
  return (
    <span style={{ position: 'relative', display: 'flex' }}>
      <Key
        aria-label={label}
        {...(pressed === undefined ? {} : { 'aria-pressed': pressed })}
        $kind={small ? 'small' : 'start'}
        style={held ? { borderColor: stage.lamp } : {}}
        {...press}
      >
        {children}
      </Key>
      {tooShort && <Hint role="status">{hint}</Hint>}
    </span>
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

/** A computer that follows another one has one key: it leads from then on. The rest is behind the lock there too. */
function FollowKeys({ playerId }: { readonly playerId: string | undefined }) {
  const [locked, setLocked] = useState(true);
  return (
    <div>
      {!locked && <OpenKeys playerId={playerId} follows />}
      <Row aria-label="Stage keys">
        <HeldKey label="Lead here, hold" hint="Hold it to lead" millis={START_MILLIS} onHeld={pair.lead}>
          <Crown size={30} aria-hidden /> <Word>Hold to lead here</Word>
        </HeldKey>
        <p style={{ margin: 0, alignSelf: 'center', fontSize: 22 }}>Silent: the other computer plays the rig.</p>
        <span style={{ flex: 1 }} />
        <LockKey locked={locked} setLocked={setLocked} />
      </Row>
      {locked && <PressHint />}
    </div>
  );
}

/** What a player needs within reach: stop, large; start, a little harder; next and previous; a wrong start taken back; and, held, quiet. The rest is behind the lock. */
export function StageKeys({ song }: { readonly song: Song }) {
  const { playerId } = useParams();
  const playing = useNews((s) => s.news.playing);
  // Of another song than the playback is on, it says where that stands in the set.
  const entryId = useNews((s) => (s.news.songId === song.id ? s.news.entryId : null));
  const [locked, setLocked] = useState(true);
  const start = useCaret((caret) => startOf(caret, song.id));
  const begin = (): void => {
    if (song.stepped) void selectPlace(song.id, start, entryId);
    else void playSong(song.id, start, entryId);
  };
  useStageKeys();
  const follows = useNews((s) => s.news.pair?.leads === false);
  if (follows) return <FollowKeys playerId={playerId} />;
  return (
    <div>
      {!locked && <OpenKeys playerId={playerId} />}
      <Row aria-label="Stage keys">
        {playing ? (
          <StopKey />
        ) : (
          <HeldKey label="Start, hold" hint="Hold it to start" millis={START_MILLIS} onHeld={begin}>
            <Play size={34} fill="currentColor" aria-hidden /> <Word>Hold to start</Word>
          </HeldKey>
        )}
        {!playing && song.click.countIn > 0 && <CountKey bars={song.click.countIn} />}
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
        <Seldom playerId={playerId ?? null} />
        <span style={{ flex: 1 }} />
        <LockKey locked={locked} setLocked={setLocked} />
      </Row>
      {locked && <PressHint />}
    </div>
  );
}

/** Whether the next start is counted in: a choice where the start is. */
function CountKey({ bars }: { readonly bars: number }) {
  const on = useNews((s) => s.news.countsIn);
  return (
    <Key aria-label="Count-in" aria-pressed={on} onPress={() => void countIn(!on)}>
      <span style={{ fontSize: 18, lineHeight: 1.1 }}>
        count-in
        <br />
        {on ? countInWords(bars) : 'off'}
      </span>
    </Key>
  );
}

/** How long it is said where the finger was, in milliseconds. */
const SAID_FOR = 1800;

/** A press on anything but a key says there what unlocks it. */
function PressHint() {
  const [at, setAt] = useState<{ readonly x: number; readonly y: number } | null>(null);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const onDown = ({ target, clientX: x, clientY: y }: PointerEvent): void => {
      if (!(target instanceof Element) || target.closest('button, a, [role=status], [role=dialog]')) return;
      setAt({ x, y });
      clearTimeout(timer);
      timer = setTimeout(() => setAt(null), SAID_FOR);
    };
    window.addEventListener('pointerdown', onDown);
    return () => {
      window.removeEventListener('pointerdown', onDown);
      clearTimeout(timer);
    };
  }, []);
  if (!at) return null;
  const right = Math.max(8, window.innerWidth - at.x - 20);
  return (
    <Hint role="status" style={{ position: 'fixed', right, bottom: Math.max(8, window.innerHeight - at.y + 14) }}>
      Hold the lock to unlock
    </Hint>
  );
}

/** Always at the same place: it opens what is above the keys, and closes it. */
function LockKey({ locked, setLocked }: { readonly locked: boolean; readonly setLocked: (locked: boolean) => void }) {
  return locked ? (
    <HeldKey
      label="Unlock, hold for a second"
      hint="Hold to unlock"
      millis={HOLD_MILLIS}
      onHeld={() => setLocked(false)}
    >
      <Lock size={26} aria-hidden />
    </HeldKey>
  ) : (
    <Key aria-label="Lock" onPress={() => setLocked(true)}>
      <LockOpen size={26} aria-hidden />
    </Key>
  );
}

/** What is pressed seldom: held, so that no finger does it by accident. */
function Seldom({ playerId }: { readonly playerId: string | null }) {
  const show = useShow();
  const rig = useNews((s) => s.news.rig);
  const canGoBack = useNews((s) => s.news.canGoBack);
  const tuners = tunersOf(show, playerId);
  const isOn = tuners.length > 0 && tuners.every(({ unit, control }) => rig[unit.id]?.controls[control.id] === 1);
  const tune = (): void => {
    for (const { unit, control } of tuners) void audition(unit.id, { controls: { [control.id]: isOn ? 0 : 1 } });
  };
  return (
    <>
      {tuners.length > 0 && (
        <HeldKey label="Tuner, hold" hint="Hold it for the tuner" millis={START_MILLIS} pressed={isOn} onHeld={tune}>
          <Gauge size={28} aria-hidden />
          {isOn && <Word>Tuner on</Word>}
        </HeldKey>
      )}
      <HeldKey label="All sound off, hold" hint="Hold it for silence" millis={START_MILLIS} onHeld={() => void panic()}>
        <VolumeX size={28} aria-hidden />
      </HeldKey>
      <InterludeKey />
      {canGoBack && (
        <Key aria-label="Undo the start" onPress={() => void takeStartBack()}>
          <Undo2 size={28} aria-hidden />
        </Key>
      )}
    </>
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

/** The keys that a locked stage does not have: whose part is shown, the show begun or over, and the way to the desk. */
function OpenKeys({
  playerId,
  follows = false,
}: {
  readonly playerId: string | undefined;
  readonly follows?: boolean;
}) {
  const show = useShow();
  const navigate = useNavigate();
  const isOn = useNight((s) => s.id !== null);
  const only = useApp((s) => s.stageOnly.includes(show.id));
  const base = `/show/${show.id}`;
  useEffect(() => {
    if (only) return undefined;
    return tinykeys(
      window,
      Object.fromEntries(
        VIEWS.map(({ path, key }) => [
          `Alt+Digit${key}`,
          (event: KeyboardEvent) => {
            event.preventDefault();
            void navigate(pathOf(base, path));
          },
        ]),
      ),
    );
  }, [base, navigate, only]);
  return (
    <OpenRow role="group" aria-label="Behind the lock">
      {[{ id: '', name: 'All' }, ...show.players].map((p) => (
        <Key
          key={p.id}
          $kind="small"
          aria-pressed={(playerId ?? '') === p.id}
          onPress={() => void navigate(`${base}/stage${p.id === '' ? '' : `/${p.id}`}`)}
        >
          {p.name}
        </Key>
      ))}
      <span style={{ flex: 1 }} />
      {follows ? null : isOn ? (
        <HeldKey
          small
          label="End the show, hold"
          hint="Hold it to end the show"
          millis={HOLD_MILLIS}
          onHeld={() => void endShow()}
        >
          Hold: end the show
        </HeldKey>
      ) : (
        !only && <StartShow trigger={<Key $kind="small">Start the show …</Key>} />
      )}
      {only ? (
        <HeldKey
          small
          label="Unlock the desk, hold for three seconds"
          hint="Hold it for three seconds"
          millis={DESK_MILLIS}
          onHeld={() => setStageOnly(show.id, false)}
        >
          Hold: unlock the desk
        </HeldKey>
      ) : (
        <Key $kind="small" onPress={() => void navigate(`${base}/set`)}>
          Leave the stage
        </Key>
      )}
    </OpenRow>
  );
}
