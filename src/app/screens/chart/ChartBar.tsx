import { ZoomIn, ZoomOut } from 'lucide-react';
import { memo } from 'react';
import { ToggleButton } from 'react-aria-components';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import type { Show, Song, sweepable } from '../../../core/show';
import type { Ticks } from '../../../core/time';
import { SCALES } from '../../chart/layout';
import { ExportSong } from './ExportSong';
import { LanternMark, lanternWords } from '../../widgets/LanternMark';
import { Pick } from '../../widgets/Pick';
import { SignButton } from '../../widgets/controls';
import { findingsWords } from '../../features/AllFindings';
import { isWrong, useSongFindings } from '../../state/findings';
import { useSongMark } from '../../state/marks';
import { desk } from '../../theme/tokens';
import { AddSweep } from './AddSweep';
import { PlaceLine } from './PlaceLine';
import type { Placeable } from './placeables';
import { SNAPS, type Snap } from './snap';

const Bar = styled.div`
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
  padding: 10px 14px;
  border-bottom: 1.5px solid ${desk.line};
  & > * {
    max-width: 100%;
  }
`;

const Count = styled(Link)<{ $wrong: boolean }>`
  display: grid;
  place-content: center;
  min-height: 34px;
  min-width: 34px;
  padding: 0 9px;
  border: 1.5px ${(p) => (p.$wrong ? `solid ${desk.rust}` : `dashed ${desk.inkSoft}`)};
  border-radius: 4px 12px 4px 12px;
  background: ${(p) => (p.$wrong ? desk.rustWash : 'transparent')};
  color: ${(p) => (p.$wrong ? desk.rust : desk.inkSoft)};
  font-weight: 700;
  text-decoration: none;
  &:hover {
    background: ${desk.sheet};
  }
`;

const Whole = styled(ToggleButton)`
  min-height: 34px;
  padding: 0 10px;
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 12px 4px 12px;
  background: ${desk.sheet};
  color: ${desk.ink};
  font-weight: 700;
  font-size: 14px;
  cursor: pointer;
  &[data-hovered] {
    background: ${desk.tideWash};
  }
  &[data-selected] {
    background: ${desk.ink};
    color: ${desk.sheet};
  }
`;

const SongLine = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
`;

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly caret: Ticks;
  readonly snapTo: Snap;
  readonly scale: number;
  /** Whether the whole song is drawn in the room there is. */
  readonly whole: boolean;
  readonly onCaret: (at: Ticks) => void;
  readonly onPlace: (does: Placeable['does'], at: Ticks) => void;
  readonly onSnap: (snap: Snap) => void;
  readonly onScale: (scale: number) => void;
  readonly onWhole: (whole: boolean) => void;
  readonly onSweep: (what: ReturnType<typeof sweepable>[number]) => void;
}

/** Above the chart: which song, what goes where, how close one looks, and what is done with the whole of it. */
export function ChartBar({
  show,
  song,
  caret,
  snapTo,
  scale,
  whole,
  onCaret,
  onPlace,
  onSnap,
  onScale,
  onWhole,
  onSweep,
}: Props) {
  return (
    <Bar>
      <SongPick show={show} song={song} />
      <PlaceLine show={show} song={song} caret={caret} onCaret={onCaret} onPlace={onPlace} />
      <SnapPick snapTo={snapTo} onSnap={onSnap} />
      <div style={{ display: 'flex' }}>
        <SignButton aria-label="Narrower bars" isDisabled={scale === 0 || whole} onPress={() => onScale(scale - 1)}>
          <ZoomOut size={18} />
        </SignButton>
        <SignButton aria-label="Wider bars" isDisabled={scale === SCALES.length - 1} onPress={() => onScale(scale + 1)}>
          <ZoomIn size={18} />
        </SignButton>
        <Whole isSelected={whole} onChange={onWhole}>
          Whole song
        </Whole>
      </div>
      <Rest show={show} song={song} onSweep={onSweep} />
    </Bar>
  );
}

type Part<K extends keyof Props> = { readonly [P in K]: Props[P] };

// The caret and the zoom go their ways many times a second: what does not depend on them is not drawn again.

const SongPick = memo(function SongPick({ show, song }: { readonly show: Show; readonly song: Song }) {
  const navigate = useNavigate();
  const mark = useSongMark(song);
  return (
    <SongLine>
      <LanternMark mark={mark} size={36} silent />
      <Pick
        label={`Song, ${lanternWords(mark)}`}
        width="186px"
        choices={show.songs.map((s) => ({ id: s.id, name: s.title }))}
        value={song.id}
        onPick={(id) => void navigate(`/show/${show.id}/chart/${id}`)}
      />
    </SongLine>
  );
});

const SnapPick = memo(function SnapPick({ snapTo, onSnap }: Part<'snapTo' | 'onSnap'>) {
  return <Pick label="Snap" width="112px" choices={SNAPS} value={snapTo} onPick={(id) => onSnap(id)} />;
});

const Rest = memo(function Rest({ show, song, onSweep }: Part<'show' | 'song' | 'onSweep'>) {
  return (
    <>
      <AddSweep show={show} onAdd={onSweep} />
      <Found show={show} song={song} />
      <ExportSong song={song} />
    </>
  );
});

/** How much the checks have to say of the song, and the way to it. */
function Found({ show, song }: { readonly show: Show; readonly song: Song }) {
  const findings = useSongFindings(show, song);
  if (findings.length === 0) return null;
  const wrong = findings.filter(isWrong).length;
  const words = findingsWords(findings.length, wrong);
  return (
    <Count
      $wrong={wrong > 0}
      to={`/show/${show.id}/dry-run/${song.id}`}
      aria-label={`${words}: to the dry run`}
      title={words}
    >
      {findings.length}
    </Count>
  );
}
