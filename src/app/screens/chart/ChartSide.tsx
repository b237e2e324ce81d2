import { memo } from 'react';
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import type { Cue, Show, Song, Sweep } from '../../../core/show';
import type { Ticks } from '../../../core/time';
import { desk } from '../../theme/tokens';
import { CorePart } from './CorePart';
import { CuePanel } from './CuePanel';
import { ExchangePart, type Typed } from './ExchangePart';
import { FramePanel } from './FramePanel';
import { LanesPanel } from './LanesPanel';
import { PlacePanel } from './PlacePanel';
import type { Placeable } from './placeables';
import { RemarkPart } from './RemarkPart';
import { SeveralPanel, WholeSong } from './SeveralPanel';
import { SoundPanel } from './SoundPanel';
import { SweepPanel } from './SweepPanel';
import type { Snap } from './snap';
import { TapsPart } from './TapsPart';
import { WritePart } from './WritePart';

const Box = styled.aside`
  display: grid;
  min-height: 0;
  grid-template-rows: auto minmax(0, 1fr);
  border-left: 1.5px solid ${desk.ink};
  background: ${desk.sheet};
`;

const Tabs = styled(ToggleButtonGroup)`
  display: flex;
  border-bottom: 1.5px solid ${desk.line};
`;

const Tab = styled(ToggleButton)`
  flex: 1;
  min-height: 36px;
  padding: 0 4px;
  border: 0;
  border-bottom: 4px solid transparent;
  background: none;
  font-weight: 600;
  color: ${desk.inkSoft};
  cursor: pointer;
  &[data-hovered] {
    background: ${desk.tideWash};
  }
  &[data-selected] {
    color: ${desk.ink};
    border-bottom-color: ${desk.lamp};
  }
`;

const Scroll = styled.div`
  position: relative;
  overflow: auto;
`;

const PARTS = [
  { id: 'here', name: 'Here' },
  { id: 'frame', name: 'Structure' },
  { id: 'sound', name: 'Sound' },
  { id: 'lanes', name: 'Lanes' },
] as const;
export type SidePart = (typeof PARTS)[number]['id'];

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly at: Ticks;
  readonly snapTo: Snap;
  readonly part: SidePart;
  readonly onPart: (part: SidePart) => void;
  /** The cues that are chosen. */
  readonly cues: readonly Cue[];
  readonly selected: ReadonlySet<string>;
  readonly sweep: Sweep | undefined;
  readonly onCopy: () => void;
  readonly onSweep: (sweepId: string) => void;
  readonly onClose: () => void;
  /** What was typed on a chosen cue. */
  readonly typed: Typed | null;
  readonly onTyped: () => void;
  readonly onExchange: (does: Placeable['does']) => void;
}

/** Beside the chart: what is chosen, or else one of the song's sides. */
export const ChartSide = memo(function ChartSide(props: Props) {
  const { show, song, at, part, onPart, cues, sweep, onClose } = props;
  const chosen = sweep || cues.length > 0;
  const exchange = (
    <ExchangePart show={show} cues={cues} typed={props.typed} onTyped={props.onTyped} onExchange={props.onExchange} />
  );
  return (
    <Box>
      <Tabs
        aria-label="Beside the chart"
        selectionMode="single"
        selectedKeys={chosen ? [] : [part]}
        onSelectionChange={(keys) => onPart(([...keys][0] as SidePart | undefined) ?? part)}
      >
        {PARTS.map(({ id, name }) => (
          <Tab key={id} id={id}>
            {name}
          </Tab>
        ))}
      </Tabs>
      <Scroll>
        {sweep ? (
          <SweepPanel key={sweep.id} show={show} song={song} sweep={sweep} onClose={onClose} />
        ) : cues.length > 1 ? (
          <SeveralPanel
            show={show}
            song={song}
            ids={props.selected}
            onCopy={props.onCopy}
            onSweep={props.onSweep}
            onClose={onClose}
            exchange={exchange}
          />
        ) : cues[0] ? (
          <CuePanel key={cues[0].id} song={song} cue={cues[0]} onClose={onClose} exchange={exchange} />
        ) : part === 'frame' ? (
          <FramePanel show={show} song={song} at={at} onClose={() => onPart('here')} />
        ) : part === 'sound' ? (
          <SoundPanel key={song.id} show={show} song={song} />
        ) : part === 'lanes' ? (
          <LanesPanel show={show} />
        ) : (
          <>
            <PlacePanel show={show} song={song} at={at} />
            <RemarkPart key={`${song.id} ${at}`} show={show} song={song} at={at} />
            <CorePart show={show} />
            <WritePart show={show} song={song} snapTo={props.snapTo} />
            <TapsPart show={show} song={song} />
            <WholeSong key={song.id} show={show} song={song} />
          </>
        )}
      </Scroll>
    </Box>
  );
});
