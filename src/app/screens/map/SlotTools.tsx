import { LayoutGrid, List } from 'lucide-react';
import { memo, useState, type RefObject } from 'react';
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import { indexShow } from '../../../core/show';
import { Field, Input } from '../../widgets/controls';
import { Find, type Found } from '../../widgets/Find';
import { Pick } from '../../widgets/Pick';
import { useApp } from '../../state/store';
import { desk } from '../../theme/tokens';
import { FillRun } from './FillRun';
import { findSlots } from './findSlots';
import { ListIn } from './ListIn';
import { ListOut } from './ListOut';
import type { ListSort } from './listOrder';
import type { SlotView } from './SlotSheet';
import type { Run } from './useSlotSheet';
import { WalkDialog } from './WalkDialog';

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 6px;
  padding: 0 20px 8px;
  & > button {
    min-height: 34px;
  }
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
    color: ${desk.sheet};
  }
`;

const SORTS: readonly { readonly id: ListSort; readonly name: string }[] = [
  { id: 'place', name: 'by place' },
  { id: 'name', name: 'by name' },
  { id: 'songs', name: 'by songs' },
];

interface Props {
  readonly unitId: string;
  readonly view: SlotView;
  readonly onView: (view: SlotView) => void;
  readonly onVisit: (index: number) => void;
  /** What is chosen in the sheet; asked only when something is done with it. */
  readonly run: RefObject<Run>;
}

/** What can be done with many slots at once. Nothing in it changes while names are typed, so that it is not drawn again. */
export const SlotTools = memo(function SlotTools({ unitId, view, onView, onVisit, run }: Props) {
  return (
    <Tools role="toolbar" aria-label="Slots">
      <Layouts
        aria-label="Layout"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[view.layout]}
        onSelectionChange={(keys) => onView({ ...view, layout: [...keys][0] === 'list' ? 'list' : 'grid' })}
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
            width="102px"
            value={view.sort}
            choices={SORTS}
            onPick={(sort) => onView({ ...view, sort: sort })}
          />
          <Field
            value={view.find}
            onChange={(find) => onView({ ...view, find })}
            aria-label="Filter the list"
            style={{ width: 98 }}
          >
            <Input placeholder="name" />
          </Field>
        </>
      ) : (
        <GoTo unitId={unitId} onVisit={onVisit} />
      )}
      <FillRun unitId={unitId} run={run} />
      <ListIn unitId={unitId} run={run} />
      <ListOut unitId={unitId} />
      <WalkDialog unitId={unitId} run={run} />
    </Tools>
  );
});

function GoTo({ unitId, onVisit }: { readonly unitId: string; readonly onVisit: (index: number) => void }) {
  const [text, setText] = useState('');
  const search = (typed: string): Found[] => {
    const unit = indexShow(useApp.getState().open!.show).units.get(unitId);
    return unit ? findSlots(unit, typed, useApp.getState().counting) : [];
  };
  const visit = (id: string): void => {
    setText('');
    onVisit(Number(id));
  };
  return (
    <div style={{ width: 170 }}>
      <Find
        label="Go to"
        hideLabel
        placeholder="number or name"
        text={text}
        onText={setText}
        search={search}
        onPick={visit}
        onEnter={() => {
          const [first] = search(text);
          if (first && text.trim() !== '') visit(first.id);
        }}
      />
    </div>
  );
}
