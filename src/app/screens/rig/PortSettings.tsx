import { Trash2 } from 'lucide-react';
import { timeText, worstOf } from '../../../core/addressing';
import { hearers } from '../../../core/meaning';
import { fitText, indexShow, removePort, setPortField, type Port } from '../../../core/show';
import { millisWords } from '../../../wording';
import { Check } from '../../widgets/Check';
import { Button, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { TimeField } from '../../features/TimeField';
import { Pick } from '../../widgets/Pick';
import { forgetLateness, perform } from '../../state/desk';
import { latenessTime, portKey, useLateness } from '../../state/lateness';
import { usePorts } from '../../state/ports';
import { useShow } from '../../state/store';
import { Box, Pair, take } from './settingsParts';

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
            : take(setPortField(show, port.id, 'name', fitText(name, 'title')), 'rename a port')
        }
      />
      <CableAndUse port={port} />
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
      <TimeField
        label="What it adds to the cable's own time (ms)"
        time={port.delay}
        set={(time) => (time ? take(setPortField(show, port.id, 'delay', time), 'change what a port adds') : null)}
      />
      <LeftThere port={port} />
      <p>
        <Soft>
          {heard.length === 0 ? 'No unit hears it.' : `Heard by ${heard.map((u) => u.name).join(', ')}.`}{' '}
          {back.length > 0 && `Hears ${back.map((u) => u.name).join(', ')}.`}
        </Soft>
      </p>
      <RemovePort port={port} onGone={onGone} />
      <Soft style={{ fontSize: 13 }}>
        {indexShow(show).ports.size > 0 && 'Its cables are pulled with it; Undo brings them back.'}
      </Soft>
    </Box>
  );
}

/** How late messages left this computer on the real port that it is, and the way to have plans reckon with that. */
function LeftThere({ port }: { readonly port: Port }) {
  const show = useShow();
  const out = usePorts((s) => s.uses[port.id]?.out ?? null);
  const known = useLateness((s) => (out ? s.ports[portKey(out)] : undefined));
  if (!out) return null;
  if (!known) {
    return (
      <p>
        <Soft>Nothing has left {out.name} by plan yet: play a song, and how late it leaves is measured here.</Soft>
      </p>
    );
  }
  const time = latenessTime(known);
  const inUse = port.delay.source === 'measured' && timeText(port.delay) === timeText(time);
  return (
    <section aria-label={`${out.name} on this computer`} style={{ display: 'grid', gap: 6 }}>
      <p style={{ margin: 0 }}>
        {known.count === 1 ? '1 message' : `${known.count.toLocaleString('en-GB')} messages`} left {out.name} by plan:
        usually {millisWords(time.typical)} late, at the worst {millisWords(worstOf(time))}, but for one in a hundred.
      </p>
      <div style={{ display: 'flex', flexWrap: 'wrap', gap: 8 }}>
        <Button
          isDisabled={inUse}
          onPress={() => perform(setPortField(show, port.id, 'delay', time), 'use what was measured')}
        >
          {inUse ? 'Plans reckon with it' : 'Reckon with it'}
        </Button>
        <Button onPress={() => forgetLateness(out)}>Measure anew</Button>
      </div>
    </section>
  );
}

interface RemovePortProps {
  readonly port: Port;
  readonly onGone: () => void;
}

function RemovePort({ port, onGone }: RemovePortProps) {
  const show = useShow();
  return (
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
  );
}

/** Which cable it is, and whether it is used. */
function CableAndUse({ port }: { readonly port: Port }) {
  const show = useShow();
  return (
    <Pair>
      <Pick
        label="Cable"
        value={port.cable}
        choices={[
          { id: 'din', name: '5-pin, 31,250 baud' },
          { id: 'usb', name: 'USB' },
        ]}
        onPick={(id) => perform(setPortField(show, port.id, 'cable', id), 'change a cable')}
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
  );
}
