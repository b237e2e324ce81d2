import { useVirtualizer, type VirtualItem } from '@tanstack/react-virtual';
import { ArrowDownLeft, ArrowUpRight, Pause, Play, Trash2 } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { toHex } from '../../../core/midi';
import { indexShow } from '../../../core/show';
import type { Meaning } from '../../../core/meaning';
import { MONITOR_LINES, type MonitorLine } from '../../../playback';
import { messageWords, monitorWords } from '../../../wording';
import { Button, Bytes, Soft } from '../../widgets/controls';
import { Pick } from '../../widgets/Pick';
import { StandInKeys } from '../../features/StandInKeys';
import { useNews } from '../../state/news';
import { useApp, useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { stacked, tallPane } from '../../theme/narrow';

const Page = styled.div`
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr) 330px;
  min-height: 0;
  height: 100%;
  ${stacked}
`;

const Tools = styled.div`
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px;
  padding: 10px 24px;
`;

const Scroller = styled.div`
  overflow: auto;
  background: ${desk.sheet};
  border-top: 1.5px solid ${desk.ink};
  ${tallPane}
`;

const Line = styled.div`
  position: absolute;
  left: 0;
  right: 0;
  display: grid;
  grid-template-columns: 104px 20px 74px minmax(0, 1fr) 194px 96px;
  gap: 9px;
  align-items: center;
  height: 30px;
  padding: 0 24px;
  border-bottom: 1px solid ${desk.line};
  & > * {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  & > b {
    font: 600 14px/1.2 ${font.text};
  }
`;

const Side = styled.div`
  display: grid;
  gap: 10px;
  align-content: start;
  padding: 14px 18px;
  border-left: 1.5px solid ${desk.ink};
  border-top: 1.5px solid ${desk.ink};
  background: ${desk.sheet};
  overflow: auto;
  & h2 {
    font-size: 17px;
  }
`;

const ALL = 'all';

const concerns = (line: MonitorLine, unitId: string): boolean =>
  line.meanings.some((m: Meaning) => m.unitId === unitId && m.what !== 'not-understood');

/** The time of day, to the millisecond: the player's clock counts from the epoch. */
const clock = (micros: number): string => {
  const at = new Date(micros / 1000);
  const two = (n: number): string => String(n).padStart(2, '0');
  const millis = String(at.getMilliseconds()).padStart(3, '0');
  return `${two(at.getHours())}:${two(at.getMinutes())}:${two(at.getSeconds())}.${millis}`;
};

const StandIns = () => (
  <Side>
    <h2>Stand-ins to play</h2>
    <StandInKeys />
  </Side>
);

/** Every message that leaves or arrives, in plain words and in bytes. */
export function MonitorSheet() {
  const all = useNews((s) => s.lines);
  const [unitId, setUnitId] = useState(ALL);
  const [way, setWay] = useState(ALL);
  const [held, setHeld] = useState<readonly MonitorLine[] | null>(null);
  const lines = held ?? all;
  const shown = useMemo(
    () => lines.filter((l) => (unitId === ALL || concerns(l, unitId)) && (way === ALL || l.direction === way)),
    [lines, unitId, way],
  );
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 30,
    overscan: 8,
  });
  const following = useRef(true);
  useEffect(() => {
    if (following.current && shown.length > 0) virtual.scrollToIndex(shown.length - 1);
  }, [shown, virtual]);
  return (
    <Page>
      <MonitorTools
        unitId={unitId}
        setUnitId={setUnitId}
        way={way}
        setWay={setWay}
        setHeld={setHeld}
        held={held}
        all={all}
        shown={shown}
      />
      <Scroller
        ref={scroller}
        tabIndex={0}
        role="log"
        aria-live="off"
        aria-label="Messages"
        onScroll={(e) => {
          const { scrollTop, scrollHeight, clientHeight } = e.currentTarget;
          following.current = scrollTop + clientHeight > scrollHeight - 40;
        }}
      >
        {shown.length === 0 && (
          <p style={{ padding: 24 }}>Nothing yet. Send a preset, play a song, or press a stand-in at the right.</p>
        )}
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map((item) => {
            const line = shown[item.index]!;
            return <MessageLine key={line.number} item={item} line={line} />;
          })}
        </div>
      </Scroller>
      <StandIns />
    </Page>
  );
}

interface MessageLineProps {
  readonly item: VirtualItem;
  readonly line: MonitorLine;
}

/** A message: when, where, its bytes and what it does. */
function MessageLine({ item, line }: MessageLineProps) {
  const show = useShow();
  const first = useApp((s) => (s.counting === 'one' ? 1 : 0));
  return (
    <Line style={{ transform: `translateY(${item.start}px)` }}>
      <Soft style={{ fontSize: 13 }}>{clock(line.at)}</Soft>
      {line.direction === 'out' ? (
        <ArrowUpRight size={17} aria-label="leaves" color={desk.tide} />
      ) : (
        <ArrowDownLeft size={17} aria-label="arrives" color={desk.lampDeep} />
      )}
      <Soft>{indexShow(show).ports.get(line.portId)?.name ?? 'a port'}</Soft>
      <b title={monitorWords(show, line)}>{monitorWords(show, line)}</b>
      <Soft style={{ fontSize: 13 }}>{messageWords(line.bytes, first)}</Soft>
      <Bytes>{toHex(line.bytes, ' ').toUpperCase()}</Bytes>
    </Line>
  );
}

interface MonitorToolsProps {
  readonly unitId: string;
  readonly setUnitId: (value: string) => void;
  readonly way: string;
  readonly setWay: (value: string) => void;
  readonly setHeld: (value: readonly MonitorLine[] | null) => void;
  readonly held: readonly MonitorLine[] | null;
  readonly all: readonly MonitorLine[];
  readonly shown: MonitorLine[];
}

/** Which messages are shown. */
function MonitorTools({ unitId, setUnitId, way, setWay, setHeld, held, all, shown }: MonitorToolsProps) {
  const show = useShow();
  return (
    <Tools>
      <Pick
        label="Unit"
        width="170px"
        value={unitId}
        choices={[{ id: ALL, name: 'all units' }, ...show.units]}
        onPick={setUnitId}
      />
      <Pick
        label="Direction"
        width="130px"
        value={way}
        choices={[
          { id: ALL, name: 'both' },
          { id: 'out', name: 'what leaves' },
          { id: 'in', name: 'what arrives' },
        ]}
        onPick={setWay}
      />
      <Button onPress={() => setHeld(held ? null : all)}>
        {held ? <Play size={15} aria-hidden /> : <Pause size={15} aria-hidden />}
        {held ? 'Resume' : 'Pause'}
      </Button>
      <Button onPress={() => useNews.setState({ lines: [] })}>
        <Trash2 size={15} aria-hidden /> Clear
      </Button>
      <Soft role="status">
        {shown.length} {shown.length === 1 ? 'message' : 'messages'}
        {all.length === MONITOR_LINES && `, the last ${MONITOR_LINES} are kept`}
      </Soft>
    </Tools>
  );
}
