import { useVirtualizer, type VirtualItem } from '@tanstack/react-virtual';
import { ArrowRight, Download } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { labelOf, slotMessages } from '../../../core/addressing';
import { toHex } from '../../../core/midi';
import { writeReorderList } from '../../../core/formats/preset-list';
import {
  leftOver,
  reorderList,
  reorderSlots,
  slotDependents,
  type Destination,
  type ListedName,
  type Matching,
  type ReorderLine,
  type Unit,
  type Edit,
} from '../../../core/show';
import { dependentsWords } from '../../../wording';
import { fileName } from '../../../core/formats/fileName';
import { download } from '../../adapters/download';
import { Button, Bytes, MainButton, Soft } from '../../widgets/controls';
import { Last, Rows } from '../../widgets/dialogParts';
import { Pick } from '../../widgets/Pick';
import { newId, perform } from '../../state/desk';
import { slotNumber } from '../../state/numbers';
import { useApp, useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';

const Table = styled.div`
  height: 330px;
  overflow: auto;
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.field};
`;

const Line = styled.div<{ $what: ReorderLine['what']; $sure: boolean }>`
  position: absolute;
  left: 0;
  right: 0;
  display: grid;
  grid-template-columns: 104px minmax(0, 1fr) 20px minmax(0, 1.25fr) 92px;
  align-items: center;
  gap: 10px;
  height: 42px;
  padding: 0 12px;
  border-bottom: 1px solid ${desk.line};
  background: ${(p) => (p.$what === 'gone' ? desk.rustWash : p.$sure ? 'transparent' : desk.lampWash)};
  & > b {
    font: 700 14px/1.2 ${font.display};
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  & > span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const Sums = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  font-weight: 600;
`;

const WORDS: Readonly<Record<ReorderLine['what'], string>> = {
  same: 'stays',
  moved: 'moved',
  renamed: 'renamed',
  'moved-renamed': 'moved, renamed',
  gone: 'gone',
  new: 'new',
};

const GONE = 'gone';

interface Props {
  readonly unit: Unit;
  readonly matching: Matching;
  readonly now: readonly ListedName[];
  readonly onBack: () => void;
  readonly onDone: () => void;
}

/** Where every preset went: sure matches told, others asked, numbers before and after. Nothing happens before it is confirmed. */
export function ReorderForm({ unit, matching, now, onBack, onDone }: Props) {
  const show = useShow();
  const counting = useApp((s) => s.counting);
  const [chosen, setChosen] = useState<ReadonlyMap<string, Destination>>(new Map());
  const unsure = useMemo(
    () => new Set(matching.matches.filter((m) => m.how === 'nearest' || m.how === 'none').map((m) => m.slotId)),
    [matching],
  );
  const destinations = useMemo(
    () => new Map(matching.matches.map((m) => [m.slotId, chosen.has(m.slotId) ? chosen.get(m.slotId)! : m.after])),
    [matching, chosen],
  );
  const fresh = useMemo(() => leftOver(now, destinations), [now, destinations]);
  const lines = useMemo(() => {
    const order = { gone: 1, 'moved-renamed': 2, renamed: 2, new: 3, moved: 4, same: 5 } as const;
    const rank = (l: ReorderLine): number =>
      l.what !== 'gone' && l.slotId !== null && unsure.has(l.slotId) ? 0 : order[l.what];
    return reorderList(unit.slots, destinations, fresh).sort((a, b) => rank(a) - rank(b));
  }, [unit.slots, destinations, fresh, unsure]);
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 42,
    overscan: 6,
  });

  const move = (slotId: string, to: string): void => {
    const next = new Map(chosen);
    const entry = to === GONE ? null : now.find((n) => String(n.index) === to)!;
    // One preset of the unit can be only one slot of the map: who had it before lets go.
    for (const [id, place] of destinations)
      if (entry && place?.index === entry.index && id !== slotId) next.set(id, null);
    next.set(slotId, entry);
    setChosen(next);
  };
  const count = (what: ReorderLine['what'][]): number => lines.filter((l) => what.includes(l.what)).length;
  const moved = new Set(lines.filter((l) => l.what !== 'same').flatMap((l) => l.slotId ?? []));
  const gone = new Set(lines.filter((l) => l.what === 'gone').flatMap((l) => l.slotId ?? []));
  const follow = dependentsWords(slotDependents(show, unit.id, new Set([...moved].filter((id) => !gone.has(id)))));
  const lost = slotDependents(show, unit.id, gone);
  const edit = reorderSlots(show, unit.id, destinations, fresh, newId);
  const place = (p: ListedName | null) => (p ? slotNumber(unit.profile.plan, p.index, counting) : '');
  const bytes = (p: ListedName | null): string =>
    p
      ? (slotMessages(unit.profile.plan, unit.channel, p.index, null) ?? [])
          .map((m) => toHex(m, ' ').toUpperCase())
          .join(' · ')
      : '';
  return (
    <Rows>
      <Sums>
        <span>{count(['moved', 'moved-renamed'])} moved</span>
        <span>{count(['renamed', 'moved-renamed'])} renamed</span>
        <span>{count(['gone'])} gone</span>
        <span>{count(['new'])} new</span>
        <span>{count(['same'])} as before</span>
      </Sums>
      <Soft>
        {follow} {unsure.size > 0 && 'Matches by a similar name stand first: look at each.'}
        {lost.tones > 0 &&
          ` ${lost.tones} ${lost.tones === 1 ? 'tone wants' : 'tones want'} a preset that is gone; they keep its name until it comes back.`}
      </Soft>
      <Table ref={scroller} role="table" aria-label="Before and after" tabIndex={0}>
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }} role="rowgroup">
          {virtual.getVirtualItems().map((item) => {
            const line = lines[item.index]!;
            const asked = line.slotId !== null && unsure.has(line.slotId);
            return (
              <SlotLine
                key={item.key}
                line={line}
                asked={asked}
                item={item}
                place={place}
                bytes={bytes}
                move={move}
                fresh={fresh}
                unit={unit}
              />
            );
          })}
        </div>
      </Table>
      <Decision unit={unit} lines={lines} onBack={onBack} edit={edit} onDone={onDone} />
    </Rows>
  );
}

interface DecisionProps {
  readonly unit: Unit;
  readonly lines: ReorderLine[];
  readonly onBack: () => void;
  readonly edit: Edit | null;
  readonly onDone: () => void;
}

/** Takes the list over, or leaves it. */
function Decision({ unit, lines, onBack, edit, onDone }: DecisionProps) {
  return (
    <Last>
      <Button
        onPress={() =>
          download(fileName(`${unit.name} before and after`, 'csv'), writeReorderList(unit, lines), 'text/csv')
        }
      >
        <Download size={16} aria-hidden /> Export this list
      </Button>
      <Button onPress={onBack}>Back to the list</Button>
      <MainButton
        isDisabled={edit === null}
        onPress={() => {
          perform(edit, `reorder ${unit.name}`);
          onDone();
        }}
      >
        {edit === null ? 'Nothing moved' : 'Use this order'}
      </MainButton>
    </Last>
  );
}

interface SlotLineProps {
  readonly line: ReorderLine;
  readonly asked: boolean;
  readonly item: VirtualItem;
  readonly place: (p: ListedName | null) => string;
  readonly bytes: (p: ListedName | null) => string;
  readonly move: (slotId: string, to: string) => void;
  readonly fresh: readonly ListedName[];
  readonly unit: Unit;
}

/** A slot before and after. */
function SlotLine({ line, asked, item, place, bytes, move, fresh, unit }: SlotLineProps) {
  return (
    <Line role="row" $what={line.what} $sure={!asked} style={{ transform: `translateY(${item.start}px)` }}>
      <b role="cell">{place(line.before)}</b>
      <span role="cell">
        {line.before?.name} <Bytes>{bytes(line.before)}</Bytes>
      </span>
      <span role="cell">
        <ArrowRight size={15} aria-hidden />
      </span>
      <span role="cell" style={{ overflow: 'visible' }}>
        {asked ? (
          <Pick
            label={`${line.before?.name || 'Nameless slot'} is now`}
            hideLabel
            value={line.after ? String(line.after.index) : GONE}
            onPick={(to) => move(line.slotId!, to)}
            choices={[
              ...(line.after ? [line.after, ...fresh] : fresh).map((n) => ({
                id: String(n.index),
                name: `${labelOf(unit.profile.plan, n.index)} ${n.name}`,
              })),
              { id: GONE, name: 'gone from the unit' },
            ]}
          />
        ) : (
          <>
            <b style={{ marginRight: 10 }}>{place(line.after)}</b>
            {line.after?.name} <Bytes>{bytes(line.after)}</Bytes>
          </>
        )}
      </span>
      <Soft role="cell" style={{ fontSize: 13 }}>
        {WORDS[line.what]}
      </Soft>
    </Line>
  );
}
