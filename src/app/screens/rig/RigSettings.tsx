import { Trash2 } from 'lucide-react';
import { Link } from 'react-router';
import { fitText, removeUnit, setUnitField, type Unit } from '../../../core/show';
import { Check } from '../../widgets/Check';
import { Button, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { InputFrom, OutputTo } from './CablePicks';
import { Box, Pair, take } from './settingsParts';

const NONE = 'none';

const CHANNELS = Array.from({ length: 16 }, (_, i) => ({ id: String(i + 1), name: String(i + 1) }));

/** How one unit is wired and set: both ends of its cable, and of its channel. */
export function UnitSettings({ unit, onGone }: { readonly unit: Unit; readonly onGone: () => void }) {
  const show = useShow();
  const set = <K extends keyof Unit>(field: K, value: Unit[K], label: string): void => {
    perform(setUnitField(show, unit.id, field, value), label);
  };
  const { returns } = unit;
  return (
    <Box aria-label={`Settings of ${unit.name}`}>
      <h2>{unit.name}</h2>
      <UnitNames unit={unit} />
      <Pick
        label="Player"
        value={unit.playerId ?? NONE}
        choices={[{ id: NONE, name: 'nobody' }, ...show.players]}
        onPick={(id) => set('playerId', id === NONE ? null : id, 'give a unit to a player')}
      />
      <InputFrom unit={unit} label="Input from" />
      <Pair>
        <Pick
          label="We send on"
          value={String(unit.channel)}
          choices={CHANNELS}
          onPick={(id) => set('channel', Number(id), 'change the channel')}
        />
        <Pick
          label="Unit is set to"
          value={String(unit.listens)}
          choices={[{ id: 'all', name: 'all channels' }, ...CHANNELS]}
          onPick={(id) => set('listens', id === 'all' ? 'all' : Number(id), 'change the channel')}
        />
      </Pair>
      <WayBack unit={unit} returns={returns} set={set} />
      {show.units.some((u) => u.input?.from === 'unit' && u.input.unitId === unit.id) && (
        <Check
          isSelected={unit.splitter}
          onChange={(on) =>
            perform(setUnitField(show, unit.id, 'splitter', on), on ? 'add a splitter' : 'remove a splitter')
          }
        >
          Splitter in its out socket (several cables)
        </Check>
      )}
      <DraftField
        label="Spare"
        value={unit.spare}
        placeholder="used when it fails"
        commit={(text) => take(setUnitField(show, unit.id, 'spare', text.trim().slice(0, 200)), 'note a spare')}
      />
      <p>
        <Link to={`/show/${show.id}/map/${unit.id}`}>Its numbers on the map</Link> <Soft>{unit.profile.name}</Soft>
      </p>
      <RemoveUnit unit={unit} onGone={onGone} />
      <Soft style={{ fontSize: 13 }}>Tones, rules and songs lose what they say of it; Undo brings all back.</Soft>
    </Box>
  );
}

interface RemoveUnitProps {
  readonly unit: Unit;
  readonly onGone: () => void;
}

function RemoveUnit({ unit, onGone }: RemoveUnitProps) {
  const show = useShow();
  return (
    <div>
      <Button
        onPress={() => {
          perform(removeUnit(show, unit.id), `delete ${unit.name}`);
          onGone();
        }}
      >
        <Trash2 size={15} aria-hidden /> Delete the unit
      </Button>
    </div>
  );
}

interface WayBackProps {
  readonly unit: Unit;
  readonly returns: Unit['returns'];
  readonly set: <K extends keyof Unit>(field: K, value: Unit[K], label: string) => void;
}

/** Where what the unit sends comes in. */
function WayBack({ unit, returns, set }: WayBackProps) {
  return (
    <Pair>
      <OutputTo unit={unit} label="Output back to" />
      {returns ? (
        <Pick
          label="from its"
          value={returns.thru ? 'thru' : 'out'}
          choices={[
            { id: 'out', name: 'out socket' },
            { id: 'thru', name: 'thru socket' },
          ]}
          onPick={(id) => set('returns', { ...returns, thru: id === 'thru' }, 'move a cable')}
        />
      ) : (
        <span />
      )}
    </Pair>
  );
}

/** What the unit is called. */
function UnitNames({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  return (
    <Pair>
      <DraftField
        label="Name"
        value={unit.name}
        commit={(name) =>
          name.trim() === ''
            ? 'Enter a name'
            : take(setUnitField(show, unit.id, 'name', fitText(name, 'title')), 'rename a unit')
        }
      />
      <DraftField
        label="Short name"
        value={unit.monogram}
        commit={(text) =>
          text.trim() === ''
            ? 'one to three letters'
            : take(setUnitField(show, unit.id, 'monogram', text.trim().slice(0, 3)), 'change its letters')
        }
      />
    </Pair>
  );
}
