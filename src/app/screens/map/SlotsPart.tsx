import { LayoutGrid, List } from 'lucide-react';
import { useCallback, useMemo, useState } from 'react';
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { labelOf, type UnitAim } from '../../../core/addressing';
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
import { Find } from '../../components/Find';
import { Field, Input } from '../../components/controls';
import { Pick } from '../../components/Pick';
import { Told } from '../../components/Told';
import { newId, perform, say } from '../../state/desk';
import { useApp, useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { ControlList } from './ControlList';
import { FillRun } from './FillRun';
import { findSlots } from './findSlots';
import { ListIn } from './ListIn';
import { ListOut } from './ListOut';
import type { ListSort } from './listOrder';
import { SlotCard } from './SlotCard';
import { SlotSheet, type SlotView } from './SlotSheet';
import type { Run, SlotActions } from './useSlotSheet';
import { WalkDialog } from './WalkDialog';

const Middle = styled.section`
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  min-height: 0;
`;

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
  padding: 0 20px 8px;
  & > button {
    min-height: 34px;
  }
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

const Layouts = styled(ToggleButtonGroup)`
  display: flex;
  & button {
    display: grid;
    place-items: center;
    width: 36px;
    height: 34px;
    border: 1.5px solid ${desk.ink};
    background: ${desk.sheet};
    cursor: pointer;
  }
  & button:first-child {
    border-radius: 4px 0 0 4px;
    border-right-width: 0;
  }
  & button:last-child {
    border-radius: 0 10px 4px 0;
  }
  & button[data-selected] {
    background: ${desk.ink};
    color: #fff;
  }
`;

const SORTS: readonly { readonly id: ListSort; readonly name: string }[] = [
  { id: 'place', name: 'by place' },
  { id: 'name', name: 'by name' },
  { id: 'songs', name: 'by songs' },
];

interface Props {
  readonly unit: Unit;
  readonly onSend: (aim: UnitAim) => void;
}

/** A unit's presets: typed, pasted, filled, found, moved, tried. */
export function SlotsPart({ unit, onSend }: Props) {
  const show = useShow();
  const navigate = useNavigate();
  const counting = useApp((s) => s.counting);
  const on = useApp((s) => s.news.rig[unit.id]?.slot ?? null);
  const { plan } = unit.profile;
  const [index, setIndex] = useState(unit.slots[0]?.index ?? 0);
  const [run, setRun] = useState<Run>({ first: index, count: 1 });
  const [view, setView] = useState<SlotView>({ layout: 'grid', sort: 'place', find: '' });
  const [goTo, setGoTo] = useState('');
  const [summons, setSummons] = useState(0);
  const [faults, setFaults] = useState<readonly Problem[]>([]);
  const songs = useMemo(() => songsBySlot(show, unit.id), [show, unit.id]);
  const slot = slotAt(show, unit.id, index);
  const takeRun = useCallback((next: Run) => setRun(next), []);
  const visit = (i: number): void => {
    setIndex(i);
    setGoTo('');
    setSummons(summons + 1);
  };

  /** Does an edit of slots and says what depends on those it touched. */
  const touch = (edit: Edit | null, label: string, first: number, count: number): void => {
    const touched = unit.slots.filter((s) => s.index >= first && s.index < first + count).map((s) => s.id);
    setFaults([]);
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
      const { value, problems } = readPresetList(text, { plan, unit: unit.name, first });
      if (!value) {
        setFaults(problems);
        return;
      }
      const places = value.map((v) => v.index);
      const low = Math.min(...places);
      touch(nameSlots(show, unit.id, value, newId), `paste ${value.length} names`, low, Math.max(...places) - low + 1);
      setFaults(problems);
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
        <Tools role="toolbar" aria-label="Slots">
          <Layouts
            aria-label="Layout"
            selectionMode="single"
            disallowEmptySelection
            selectedKeys={[view.layout]}
            onSelectionChange={(keys) => setView({ ...view, layout: [...keys][0] === 'list' ? 'list' : 'grid' })}
          >
            <ToggleButton id="grid" aria-label="Grid">
              <LayoutGrid size={17} />
            </ToggleButton>
            <ToggleButton id="list" aria-label="List">
              <List size={18} />
            </ToggleButton>
          </Layouts>
          {view.layout === 'list' ? (
            <>
              <Pick
                label="Sorted"
                hideLabel
                width="112px"
                value={view.sort}
                choices={SORTS}
                onPick={(sort) => setView({ ...view, sort: sort as ListSort })}
              />
              <Field
                value={view.find}
                onChange={(find) => setView({ ...view, find })}
                aria-label="Narrow the list"
                style={{ width: 150 }}
              >
                <Input placeholder="part of a name" />
              </Field>
            </>
          ) : (
            <div style={{ width: 170 }}>
              <Find
                label="Go to a slot"
                hideLabel
                placeholder="go to label or name"
                text={goTo}
                onText={setGoTo}
                search={(text) => findSlots(unit, text)}
                onPick={(id) => visit(Number(id))}
                onEnter={() => {
                  const [first] = findSlots(unit, goTo);
                  if (first && goTo.trim() !== '') visit(Number(first.id));
                }}
              />
            </div>
          )}
          <FillRun unit={unit} run={run} />
          <ListIn unit={unit} first={run.first} />
          <ListOut unit={unit} />
          <WalkDialog unit={unit} run={run} />
        </Tools>
        <Hint>
          {faults.length > 0 ? (
            <Told problems={faults} label="About what was pasted" />
          ) : (
            <>
              Type to name · <kbd>Space</kbd> sends · <kbd>Shift</kbd> + arrow reaches · <kbd>Alt</kbd> + arrow moves ·{' '}
              <kbd>Ctrl V</kbd> pastes a column
            </>
          )}
        </Hint>
        <SlotSheet
          unit={unit}
          view={view}
          counting={counting}
          selected={index}
          on={on}
          songs={songs}
          summons={summons}
          actions={actions}
          onRun={takeRun}
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
        <ControlList unit={unit} counting={counting} onSend={onSend} />
      </Right>
    </>
  );
}
