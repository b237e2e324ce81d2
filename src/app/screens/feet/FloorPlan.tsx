import { Plus, Trash2 } from 'lucide-react';
import { useState, type KeyboardEvent } from 'react';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import {
  fitText,
  addPedal,
  addRow,
  addSwitch,
  changeProfile,
  moveSwitch,
  removeFromFloor,
  type ProfileChange,
  type Unit,
} from '../../../core/show';
import { sentence } from '../../../wording';
import { Button, SignButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { perform, say } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { SmallHead } from './parts';
import type { Controller } from '../../../core/addressing';

const CELL = 54;

const Plan = styled.div`
  position: relative;
  overflow: auto;
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.sheetDim};
`;

const Spot = styled(AriaButton)`
  position: absolute;
  width: ${CELL - 8}px;
  height: ${CELL - 8}px;
  padding: 2px;
  overflow: hidden;
  border: 1.5px solid ${desk.ink};
  border-radius: 50%;
  background: ${desk.sheet};
  color: ${desk.ink};
  font: 600 12px/1.1 ${font.text};
  cursor: pointer;
  &[aria-pressed='true'] {
    background: ${desk.lampWash};
    border-width: 3px;
  }
`;

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;

const STEPS: Readonly<Record<string, { readonly rows: number; readonly columns: number }>> = {
  ArrowUp: { rows: -1, columns: 0 },
  ArrowDown: { rows: 1, columns: 0 },
  ArrowLeft: { rows: 0, columns: -1 },
  ArrowRight: { rows: 0, columns: 1 },
};

/** What a switch is called on a spot of a few letters: "Switch 11" is 11. */
const shortName = (name: string): string => /\d+$/.exec(name)?.[0] ?? name.slice(0, 6);

/** The floor as it lies: switches in their rows, the far side on top, moved by the arrow keys; and the pedals beside it. */
export function FloorPlan({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const { switches, pedals } = unit.profile.controller!;
  const [chosen, setChosen] = useState<string | null>(null);
  const nameOf = (id: string): string => unit.profile.senders.find((s) => s.id === id)?.name ?? id;
  const take = (change: ProfileChange, label: string, otherwise: string): void => {
    if (!change.ok) say(change.problems.map(sentence)[0] ?? otherwise);
    else if (!change.edit) say(otherwise);
    else perform(change.edit, label);
  };
  const rename = (id: string, name: string): string | null => {
    const own = fitText(name, 'name');
    if (own === '') return 'a name';
    const senders = unit.profile.senders.map((s) => (s.id === id ? { ...s, name: own } : s));
    take(changeProfile(show, unit.id, { ...unit.profile, senders }), 'rename a switch', 'It has that name.');
    return null;
  };
  const onKey = (id: string) => (event: KeyboardEvent) => {
    const by = STEPS[event.key];
    if (!by) return;
    event.preventDefault();
    setChosen(id);
    take(moveSwitch(show, unit.id, id, by), 'move a switch on the floor', 'The floor ends there.');
  };
  const rows = Math.max(...switches.map((s) => s.row)) + 1;
  const columns = Math.max(...switches.map((s) => s.column)) + 1;
  const placed = switches.find((s) => s.id === chosen);
  const inOrder = switches.toSorted((a, b) => a.row - b.row || a.column - b.column);
  const lastRow = placed?.row ?? rows - 1;
  return (
    <>
      <SmallHead>The floor</SmallHead>
      <Spots
        rows={rows}
        columns={columns}
        inOrder={inOrder}
        nameOf={nameOf}
        chosen={chosen}
        setChosen={setChosen}
        onKey={onKey}
      />
      <Soft style={{ fontSize: 13 }}>The far side is on top. Arrow keys move a switch; two change places.</Soft>
      <AddTools take={take} unit={unit} lastRow={lastRow} />
      {placed && (
        <PlacedSwitch nameOf={nameOf} placed={placed} rename={rename} take={take} unit={unit} setChosen={setChosen} />
      )}
      {pedals.map((id) => (
        <PedalFields key={id} nameOf={nameOf} id={id} rename={rename} take={take} unit={unit} />
      ))}
      <Soft style={{ fontSize: 13 }}>
        What each of them sends while nothing is programmed is set in its map, under Sends.
      </Soft>
    </>
  );
}

interface AddToolsProps {
  readonly take: (change: ProfileChange, label: string, otherwise: string) => void;
  readonly unit: Unit;
  readonly lastRow: number;
}

/** Adds switches, rows and pedals. */
function AddTools({ take, unit, lastRow }: AddToolsProps) {
  const show = useShow();
  return (
    <Tools>
      <Button onPress={() => take(addSwitch(show, unit.id, lastRow), 'add a switch', 'That row is full: add a row.')}>
        <Plus size={14} aria-hidden /> Switch in row {lastRow + 1}
      </Button>
      <Button onPress={() => take(addRow(show, unit.id), 'add a row of switches', 'A floor has up to 16 rows.')}>
        <Plus size={14} aria-hidden /> Row
      </Button>
      <Button onPress={() => take(addPedal(show, unit.id), 'add a pedal', 'A floor has up to 16 pedals.')}>
        <Plus size={14} aria-hidden /> Pedal
      </Button>
    </Tools>
  );
}

interface SpotsProps {
  readonly rows: number;
  readonly columns: number;
  readonly inOrder: Controller['switches'];
  readonly nameOf: (id: string) => string;
  readonly chosen: string | null;
  readonly setChosen: (value: string | null) => void;
  readonly onKey: (id: string) => (event: KeyboardEvent) => void;
}

/** The switches where they are on the floor. */
function Spots({ rows, columns, inOrder, nameOf, chosen, setChosen, onKey }: SpotsProps) {
  return (
    <Plan role="group" aria-label="Switches on the floor" style={{ height: rows * CELL + 12, minWidth: 0 }}>
      <div style={{ width: columns * CELL + 12, height: 1 }} />
      {inOrder.map(({ id, row, column }) => (
        <Spot
          key={id}
          aria-label={`${nameOf(id)}, row ${row + 1}, place ${column + 1}`}
          aria-pressed={id === chosen}
          style={{ left: column * CELL + 10, top: row * CELL + 10 }}
          onPress={() => setChosen(id === chosen ? null : id)}
          onKeyDown={onKey(id)}
        >
          {shortName(nameOf(id))}
        </Spot>
      ))}
    </Plan>
  );
}

interface PedalFieldsProps {
  readonly nameOf: (id: string) => string;
  readonly id: string;
  readonly rename: (id: string, name: string) => string | null;
  readonly take: (change: ProfileChange, label: string, otherwise: string) => void;
  readonly unit: Unit;
}

/** A pedal: its name, and away with it. */
function PedalFields({ nameOf, id, rename, take, unit }: PedalFieldsProps) {
  const show = useShow();
  return (
    <Tools style={{ alignItems: 'end', flexWrap: 'nowrap' }}>
      <DraftField label="Pedal" value={nameOf(id)} commit={(text) => rename(id, text)} style={{ flex: 1 }} />
      <SignButton
        aria-label={`Remove ${nameOf(id)}`}
        onPress={() => take(removeFromFloor(show, unit.id, id), `remove ${nameOf(id)}`, 'It is gone already.')}
      >
        <Trash2 size={15} />
      </SignButton>
    </Tools>
  );
}

interface PlacedSwitchProps {
  readonly nameOf: (id: string) => string;
  readonly placed: Controller['switches'][number];
  readonly rename: (id: string, name: string) => string | null;
  readonly take: (change: ProfileChange, label: string, otherwise: string) => void;
  readonly unit: Unit;
  readonly setChosen: (value: string | null) => void;
}

/** The chosen switch: its name, moved a place, or taken away. */
function PlacedSwitch({ nameOf, placed, rename, take, unit, setChosen }: PlacedSwitchProps) {
  const show = useShow();
  return (
    <Tools role="group" aria-label={`Chosen: ${nameOf(placed.id)}`} style={{ alignItems: 'end' }}>
      <DraftField
        key={placed.id}
        label="What is written on it"
        value={nameOf(placed.id)}
        commit={(text) => rename(placed.id, text)}
      />
      <Button
        onPress={() => {
          take(removeFromFloor(show, unit.id, placed.id), `remove ${nameOf(placed.id)}`, 'The last switch stays.');
          setChosen(null);
        }}
      >
        <Trash2 size={14} aria-hidden /> Remove {nameOf(placed.id)}
      </Button>
    </Tools>
  );
}
