import { Trash2, X } from 'lucide-react';
import styled from 'styled-components';
import { valueRange, isOnOff, type Control } from '../../../core/addressing';
import {
  indexShow,
  putSweep,
  removeSweep,
  songTime,
  stretchSweep,
  sweepable,
  type Show,
  type Song,
  type Sweep,
  RANGES,
  figureIn,
  rangeWords,
} from '../../../core/show';
import { playedSweeps, sweptOn } from '../../../core/meaning';
import { formatPosition, parsePosition, type Ticks, type BarMap } from '../../../core/time';
import { sweepWords } from '../../../wording';
import { Check } from '../../widgets/Check';
import { Button, SignButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { FindingList } from '../../features/FindingList';
import { LanternMark, lanternWords } from '../../widgets/LanternMark';
import { Pick } from '../../widgets/Pick';
import { perform } from '../../state/desk';
import { findingsOf, useSongFindings } from '../../state/findings';
import { useCueMark } from '../../state/marks';
import { DrawPad } from './DrawPad';
import { Halves } from './panelParts';
import { RecordPart } from './RecordPart';
import { SweepShape } from './SweepShape';

const Panel = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  padding: 16px;
  & h2 {
    font-size: 19px;
  }
`;

const Top = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  & > div {
    flex: 1;
    min-width: 0;
  }
`;

const NONE = 'none';

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly sweep: Sweep;
  readonly onClose: () => void;
}

/** One sweep: what it moves, from where to where, in which shape, and how it is left. */
export function SweepPanel({ show, song, sweep, onClose }: Props) {
  const mark = useCueMark(song.id, sweep.id);
  const found = findingsOf(useSongFindings(show, song), sweep.id);
  const { bars } = songTime(song);
  const unit = indexShow(show).units.get(sweep.unitId);
  const control = unit?.profile.controls.find((c) => c.id === sweep.controlId);
  const put = (part: Partial<Sweep>, label: string): string | null => {
    const edit = putSweep(show, song.id, { ...sweep, ...part });
    perform(edit, label);
    return edit ? null : 'an end after the start';
  };
  const stretch = (from: Ticks, to: Ticks): string | null => {
    const edit = putSweep(show, song.id, stretchSweep(sweep, from, to));
    perform(edit, 'change a sweep');
    return edit ? null : 'an end after the start';
  };
  if (!unit || !control) return null;
  const { low, high } = valueRange(control.encoding);
  const place = (text: string): number | undefined => {
    const at = parsePosition(bars, text, song.bars);
    return at.ok ? at.ticks : undefined;
  };
  const switches = unit.profile.controls.filter((c) => isOnOff(c.encoding));
  const sent = playedSweeps(show, song).find((s) => s.sweep.id === sweep.id)?.points.length ?? 0;
  return (
    <Panel aria-label="Chosen sweep">
      <Top>
        <LanternMark mark={sweep.muted ? 'hollow' : mark} size={34} silent />
        <div>
          <h2>{sweepWords(show, sweep)}</h2>
          <Soft>{sweep.muted ? 'muted' : `${lanternWords(mark)}, ${sent} values`}</Soft>
        </div>
        <SignButton aria-label="Close" onPress={onClose}>
          <X size={17} />
        </SignButton>
      </Top>
      {found.length > 0 && <FindingList findings={found} well="" inSong />}
      <Along sweep={sweep} show={show} put={put} bars={bars} song={song} place={place} stretch={stretch} />
      <SweepShape sweep={sweep} control={control} onShape={(next, label) => put({ shape: next }, label)} />
      <DrawPad
        sweep={sweep}
        low={low}
        high={high}
        onDraw={(points) => void put({ shape: { kind: 'line', points } }, 'draw a sweep')}
      />
      <HowItMoves
        show={show}
        song={song}
        sweep={sweep}
        put={put}
        low={low}
        high={high}
        switches={switches}
        control={control}
      />
      <SweepActs sweep={sweep} put={put} show={show} song={song} onClose={onClose} />
    </Panel>
  );
}

interface SweepActsProps {
  readonly sweep: Sweep;
  readonly put: (part: Partial<Sweep>, label: string) => string | null;
  readonly show: Show;
  readonly song: Song;
  readonly onClose: () => void;
}

/** Mutes the sweep, or takes it away. */
function SweepActs({ sweep, put, show, song, onClose }: SweepActsProps) {
  return (
    <Halves>
      <Check
        isSelected={sweep.muted}
        onChange={(muted) => void put({ muted }, muted ? 'mute a sweep' : 'unmute a sweep')}
      >
        Muted
      </Check>
      <Button
        onPress={() => {
          perform(removeSweep(show, song.id, sweep.id), 'remove a sweep');
          onClose();
        }}
      >
        <Trash2 size={15} aria-hidden /> Remove
      </Button>
    </Halves>
  );
}

interface HowItMovesProps {
  readonly show: Show;
  readonly song: Song;
  readonly sweep: Sweep;
  readonly put: (part: Partial<Sweep>, label: string) => string | null;
  readonly low: number;
  readonly high: number;
  readonly switches: Control[];
  readonly control: Control;
}

/** How the sweep moves, and what comes after it. */
function HowItMoves({ show, song, sweep, put, low, high, switches, control }: HowItMovesProps) {
  return (
    <>
      <RecordPart
        show={show}
        song={song}
        sweep={sweep}
        onRecorded={(points) =>
          void put(
            {
              shape: {
                kind: 'line',
                points: points.map((p) => ({ at: p.at, value: low + p.share * (high - low) })),
              },
            },
            'record a sweep',
          )
        }
      />
      <Pick
        label="Switch it on while it is swept"
        value={sweep.switchId ?? NONE}
        choices={[{ id: NONE, name: 'no switch' }, ...switches]}
        onPick={(id) => put({ switchId: id === NONE ? null : id }, 'change the switch of a sweep')}
      />
      <Pick
        label="Afterwards"
        value={sweep.after}
        choices={[
          { id: 'rest', name: control.rest === null ? 'to its rest (it has none)' : `to its rest, ${control.rest}` },
          { id: 'hold', name: 'stays where it is' },
        ]}
        onPick={(id) => put({ after: id }, 'change how a sweep ends')}
      />
      <DraftField
        label="Milliseconds between values, at least"
        value={String(sweep.spacing)}
        numeric
        commit={(text) => {
          const spacing = figureIn(RANGES.spacingMillis, text);
          if (spacing === undefined) return rangeWords(RANGES.spacingMillis);
          return put({ spacing }, 'thin a sweep');
        }}
      />
    </>
  );
}

interface AlongProps {
  readonly sweep: Sweep;
  readonly show: Show;
  readonly put: (part: Partial<Sweep>, label: string) => string | null;
  readonly bars: BarMap;
  readonly song: Song;
  readonly place: (text: string) => number | undefined;
  readonly stretch: (from: Ticks, to: Ticks) => string | null;
}

/** What is swept, and from where to where. */
function Along({ sweep, show, put, bars, song, place, stretch }: AlongProps) {
  return (
    <>
      <Pick
        label="Moves"
        value={`${sweep.unitId} ${sweep.controlId}`}
        choices={sweepable(show).map((s) => ({
          id: `${s.unit.id} ${s.control.id}`,
          name: `${s.unit.name}: ${s.control.name}`,
        }))}
        onPick={(id) => {
          const next = sweepable(show).find((s) => `${s.unit.id} ${s.control.id}` === id)!;
          put(sweptOn(sweep, next.unit, next.control), 'sweep another control');
        }}
      />
      <Halves>
        <DraftField
          label="From bar|beat"
          value={formatPosition(bars, sweep.from, song.bars)}
          commit={(text) => {
            const from = place(text);
            return from === undefined ? 'bar|beat' : stretch(from, sweep.to);
          }}
        />
        <DraftField
          label="To bar|beat"
          value={formatPosition(bars, sweep.to, song.bars)}
          commit={(text) => {
            const to = place(text);
            return to === undefined ? 'bar|beat' : stretch(sweep.from, to);
          }}
        />
      </Halves>
    </>
  );
}
