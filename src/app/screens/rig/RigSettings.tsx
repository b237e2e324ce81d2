import { Trash2 } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { hearers } from '../../../core/meaning';
import {
  LIMITS,
  indexShow,
  removePort,
  removeUnit,
  setPortField,
  setUnitField,
  type Edit,
  type Port,
  type Unit,
} from '../../../core/show';
import { Check } from '../../components/Check';
import { Button, Soft } from '../../components/controls';
import { DraftField } from '../../components/DraftField';
import { Pick } from '../../components/Pick';
import { perform } from '../../state/desk';
import { useShow } from '../../state/store';

const Box = styled.section`
  display: grid;
  gap: 11px;
  padding: 16px 18px;
  align-content: start;
  & h2 {
    font-size: 22px;
  }
`;

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  align-items: end;
`;

const NONE = 'none';
const CHANNELS = Array.from({ length: 16 }, (_, i) => ({ id: String(i + 1), name: String(i + 1) }));

/** Takes an edit of a field over, or says what was expected. */
const take = (edit: Edit | null, label: string): null => {
  perform(edit, label);
  return null;
};

/** How one unit is wired and set: both ends of its cable, and of its channel. */
export function UnitSettings({ unit, onGone }: { readonly unit: Unit; readonly onGone: () => void }) {
  const show = useShow();
  const set = <K extends keyof Unit>(field: K, value: Unit[K], label: string): void => {
    perform(setUnitField(show, unit.id, field, value), label);
  };
  const others = show.units.filter((u) => u.id !== unit.id);
  const { input, returns } = unit;
  const fed =
    input === null
      ? NONE
      : input.from === 'port'
        ? `port ${input.portId}`
        : `${input.thru ? 'thru' : 'out'} ${input.unitId}`;
  const feed = (key: string): void => {
    const [from, ...rest] = key.split(' ');
    const id = rest.join(' ');
    if (from === NONE) set('input', null, 'pull a cable');
    else if (from === 'port') set('input', { from: 'port', portId: id }, 'move a cable');
    else set('input', { from: 'unit', unitId: id, thru: from === 'thru' }, 'move a cable');
  };
  return (
    <Box aria-label={`Settings of ${unit.name}`}>
      <h2>{unit.name}</h2>
      <Pair>
        <DraftField
          label="Name"
          value={unit.name}
          commit={(name) =>
            name.trim() === ''
              ? 'Enter a name'
              : take(setUnitField(show, unit.id, 'name', name.trim().slice(0, LIMITS.title)), 'rename a unit')
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
      <Pick
        label="Player"
        value={unit.playerId ?? NONE}
        choices={[{ id: NONE, name: 'nobody' }, ...show.players]}
        onPick={(id) => set('playerId', id === NONE ? null : id, 'give a unit to a player')}
      />
      <Pick
        label="Input from"
        value={fed}
        onPick={feed}
        choices={[
          { id: NONE, name: 'nothing' },
          ...show.ports.map((p) => ({ id: `port ${p.id}`, name: `port ${p.name}` })),
          ...others.flatMap((u) => [
            { id: `out ${u.id}`, name: `${u.name}, out` },
            { id: `thru ${u.id}`, name: `${u.name}, thru` },
          ]),
        ]}
      />
      <Pair>
        <Pick
          label="The map sends on"
          value={String(unit.channel)}
          choices={CHANNELS}
          onPick={(id) => set('channel', Number(id), 'change the channel')}
        />
        <Pick
          label="The unit listens on"
          value={String(unit.listens)}
          choices={[{ id: 'all', name: 'all channels' }, ...CHANNELS]}
          onPick={(id) => set('listens', id === 'all' ? 'all' : Number(id), 'change the channel')}
        />
      </Pair>
      <Pair>
        <Pick
          label="Output back to"
          value={returns?.portId ?? NONE}
          choices={[{ id: NONE, name: 'nothing' }, ...show.ports.map((p) => ({ id: p.id, name: `port ${p.name}` }))]}
          onPick={(id) =>
            set('returns', id === NONE ? null : { portId: id, thru: returns?.thru ?? false }, 'move a cable')
          }
        />
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
      <Soft style={{ fontSize: 13 }}>Tones, rules and songs lose what they say of it; Undo brings all back.</Soft>
    </Box>
  );
}

/** One port: its cable, whether it is used, and what passes through it. */
export function PortSettings({ port, onGone }: { readonly port: Port; readonly onGone: () => void }) {
  const show = useShow();
  const heard = hearers(show, port.id);
  const back = show.units.filter((u) => u.returns?.portId === port.id);
  return (
    <Box aria-label={`Settings of port ${port.name}`}>
      <h2>{port.name}</h2>
      <DraftField
        label="Name"
        value={port.name}
        commit={(name) =>
          name.trim() === ''
            ? 'Enter a name'
            : take(setPortField(show, port.id, 'name', name.trim().slice(0, LIMITS.title)), 'rename a port')
        }
      />
      <Pair>
        <Pick
          label="Cable"
          value={port.cable}
          choices={[
            { id: 'din', name: '5-pin, 31,250 baud' },
            { id: 'usb', name: 'USB' },
          ]}
          onPick={(id) => perform(setPortField(show, port.id, 'cable', id as Port['cable']), 'change a cable')}
        />
        <Pick
          label="It is"
          value={port.active ? 'on' : 'off'}
          choices={[
            { id: 'on', name: 'used' },
            { id: 'off', name: 'switched off' },
          ]}
          onPick={(id) => perform(setPortField(show, port.id, 'active', id === 'on'), 'switch a port')}
        />
      </Pair>
      <Pick
        label="Incoming messages"
        value={port.softThru ? 'thru' : 'stays'}
        choices={[
          { id: 'stays', name: 'are not passed on' },
          { id: 'thru', name: 'are sent out again (soft thru)' },
        ]}
        onPick={(id) => perform(setPortField(show, port.id, 'softThru', id === 'thru'), 'switch soft thru')}
      />
      {port.cable === 'din' && (
        <Check
          isSelected={port.splitter}
          onChange={(on) =>
            perform(setPortField(show, port.id, 'splitter', on), on ? 'add a splitter' : 'remove a splitter')
          }
        >
          Splitter in its out socket (several cables)
        </Check>
      )}
      <DraftField
        label="Spare"
        value={port.spare}
        placeholder="used when it fails"
        commit={(text) => take(setPortField(show, port.id, 'spare', text.trim().slice(0, 200)), 'note a spare')}
      />
      <p>
        <Soft>
          {heard.length === 0 ? 'No unit hears it.' : `Heard by ${heard.map((u) => u.name).join(', ')}.`}{' '}
          {back.length > 0 && `Hears ${back.map((u) => u.name).join(', ')}.`}
        </Soft>
      </p>
      <div>
        <Button
          onPress={() => {
            perform(removePort(show, port.id), `remove port ${port.name}`);
            onGone();
          }}
        >
          <Trash2 size={15} aria-hidden /> Delete the port
        </Button>
      </div>
      <Soft style={{ fontSize: 13 }}>
        {indexShow(show).ports.size > 0 && 'Its cables are pulled with it; Undo brings them back.'}
      </Soft>
    </Box>
  );
}
