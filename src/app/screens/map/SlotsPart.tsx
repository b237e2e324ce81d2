import { extent } from '../../../core/groups';
import { useCallback, useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { useLocation, useNavigate } from 'react-router';
import styled from 'styled-components';
import { labelOf } from '../../../core/addressing';
import type { UnitAim } from '../../../core/rig';
import { readPresetList } from '../../../core/formats/preset-list';
import type { Problem } from '../../../core/problems';
import {
  addTone,
  moveSlots,
  nameSlot,
  nameSlots,
  newPart,
  newTone,
  slotAt,
  slotDependents,
  songsBySlot,
  type Edit,
  type Unit,
} from '../../../core/show';
import { dependentsWords } from '../../../wording';
import { Told } from '../../features/Told';
import { newId, perform, say } from '../../state/desk';
import { useNews } from '../../state/news';
import { useApp, useShow, type Counting } from '../../state/store';
import { desk } from '../../theme/tokens';
import { ControlList } from './ControlList';
import { SlotCard } from './SlotCard';
import { SlotSheet, type SlotView } from './SlotSheet';
import { SlotTools } from './SlotTools';
import type { Run, SlotActions } from './useSlotSheet';

const Middle = styled.section`
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  min-height: 0;
`;

const Hint = styled.p`
  padding: 0 20px 8px;
  font-size: 13px;
  color: ${desk.inkSoft};
`;

const Right = styled.div`
  border-left: 1.5px solid ${desk.ink};
  background: ${desk.sheet};
  overflow: auto;
  padding-bottom: 16px;
`;

interface Props {
  readonly unit: Unit;
  readonly onSend: (aim: UnitAim) => void;
}

/** Milliseconds until a dialog is gone. */
const DIALOG_CLOSES = 60;

/** A unit's presets: typed, pasted, filled, found, moved, tried. */
export function SlotsPart({ unit, onSend }: Props) {
  const show = useShow();
  const navigate = useNavigate();
  const counting = useApp((s) => s.counting);
  const on = useNews((s) => s.news.rig[unit.id]?.slot ?? null);
  const { plan } = unit.profile;
  const [index, setIndex] = useState(unit.slots[0]?.index ?? 0);
  const run = useRef<Run>({ first: index, count: 1 });
  const [view, setView] = useState<SlotView>({ layout: 'grid', sort: 'place', find: '' });
  const { state } = useLocation() as { state: { readonly added?: boolean } | null };
  const [summons, setSummons] = useState(0);
  useEffect(() => {
    if (!state?.added) return undefined;
    // After the dialog that added the unit has given the keyboard back.
    const wait = setTimeout(() => setSummons((n) => n + 1), DIALOG_CLOSES);
    return () => clearTimeout(wait);
  }, [state]);
  const [numberProblems, setNumberProblems] = useState<readonly Problem[]>([]);
  const songs = useMemo(() => songsBySlot(show, unit.id), [show, unit.id]);
  const slot = slotAt(show, unit.id, index);
  const visit = useCallback((i: number): void => {
    setIndex(i);
    setSummons((n) => n + 1);
  }, []);

  /** Does an edit of slots and says what depends on those it touched. */
  const touch = (edit: Edit | null, label: string, first: number, count: number): void => {
    const touched = unit.slots.filter((s) => s.index >= first && s.index < first + count).map((s) => s.id);
    setNumberProblems([]);
    if (!perform(edit, label)) return;
    say(dependentsWords(slotDependents(show, unit.id, new Set(touched))));
  };
  const at = (i: number): string => labelOf(plan, i);
  const actions: SlotActions = {
    onSelect: setIndex,
    onSend: (i) => onSend({ slot: i, controls: {} }),
    onName: (i, text) => touch(nameSlot(show, unit.id, i, text, newId()), `name ${at(i)}`, i, 1),
    onClear: (first, count) => {
      const none = Array.from({ length: count }, (_, i) => ({ index: first + i, name: '' }));
      touch(nameSlots(show, unit.id, none, newId), `clear ${count === 1 ? at(first) : `${count} slots`}`, first, count);
    },
    onMove: (first, count, to) => {
      const edit = moveSlots(show, unit.id, first, to, count);
      touch(edit, `move ${at(first)} to ${at(to)}`, Math.min(first, to), Math.abs(to - first) + count);
    },
    onPaste: (first, text) => {
      const { value, problems } = readPresetList(text, {
        plan,
        unit: unit.name,
        slots: unit.slots,
        first,
        made: 'ask',
      });
      if (!value) {
        setNumberProblems(problems);
        return;
      }
      const places = value.map((v) => v.index);
      const [low, high] = extent(places);
      touch(nameSlots(show, unit.id, value, newId), `paste ${value.length} names`, low, high - low + 1);
      setNumberProblems(problems);
    },
    textOf: (first, count) =>
      Array.from({ length: count }, (_, i) => slotAt(show, unit.id, first + i)?.name ?? '').join('\n'),
  };
  const makeTone = (): void => {
    if (!slot) return;
    const id = newId();
    const tone = newTone(id, slot.name || at(index), [newPart(unit.id, { slotId: slot.id })]);
    perform(addTone(show, tone), `make a tone of ${slot.name}`);
    void navigate(`/show/${show.id}/tones/${id}`);
  };
  return (
    <>
      <Middle>
        <SlotTools unitId={unit.id} view={view} onView={setView} onVisit={visit} run={run} />
        <Hint>
          {numberProblems.length > 0 ? (
            <Told problems={numberProblems} label="About what was pasted" />
          ) : (
            <>
              Type to name · <kbd>Space</kbd> sends · <kbd>Shift</kbd> + arrow reaches · <kbd>Alt</kbd> + arrow moves ·{' '}
              <kbd>Ctrl V</kbd> pastes a column
            </>
          )}
        </Hint>
        <Sheet
          unit={unit}
          view={view}
          counting={counting}
          index={index}
          on={on}
          songs={songs}
          summons={summons}
          actions={actions}
          run={run}
        />
      </Middle>
      <Right>
        <SlotCard
          unit={unit}
          index={index}
          slot={slot}
          onSend={() => onSend({ slot: index, controls: {} })}
          onTone={makeTone}
        />
        <ControlList profile={unit.profile} channel={unit.channel} counting={counting} onSend={onSend} />
      </Right>
    </>
  );
}

interface SheetProps {
  readonly unit: Unit;
  readonly view: SlotView;
  readonly counting: Counting;
  readonly index: number;
  readonly on: number | null;
  readonly songs: ReadonlyMap<string, ReadonlySet<string>>;
  readonly summons: number;
  readonly actions: SlotActions;
  readonly run: RefObject<Run>;
}

function Sheet({ unit, view, counting, index, on, songs, summons, actions, run }: SheetProps) {
  return (
    <SlotSheet
      unit={unit}
      view={view}
      counting={counting}
      selected={index}
      on={on}
      songs={songs}
      summons={summons}
      actions={actions}
      run={run}
    />
  );
}
