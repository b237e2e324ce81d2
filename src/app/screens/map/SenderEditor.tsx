import { fitText } from '../../../core/show';
import { Trash2 } from 'lucide-react';
import type { Sender } from '../../../core/addressing';
import type { Unit } from '../../../core/show';
import { Button } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { EditorBox } from './ControlEditor';
import { EncodingEditor } from './EncodingEditor';
import { Learn } from './Learn';
import { useProfile } from './useProfile';

const CHANNELS = Array.from({ length: 16 }, (_, i) => ({ id: String(i + 1), name: String(i + 1) }));

/** A switch, pad or pedal of a controller: what it sends when it is moved. */
export function SenderEditor({ unit, sender }: { readonly unit: Unit; readonly sender: Sender }) {
  const change = useProfile(unit);
  const { profile } = unit;
  const put = (next: Sender, label: string): string | null =>
    change({ ...profile, senders: profile.senders.map((s) => (s.id === next.id ? next : s)) }, label);
  return (
    <EditorBox aria-label={`Switch ${sender.name}`}>
      <DraftField
        label="What is written on it"
        value={sender.name}
        commit={(name) =>
          name.trim() === '' ? 'a name' : put({ ...sender, name: fitText(name, 'name') }, 'rename a switch')
        }
      />
      <Pick
        label="It sends on channel"
        value={String(sender.channel)}
        choices={CHANNELS}
        onPick={(id) => void put({ ...sender, channel: Number(id) }, 'change the channel of a switch')}
      />
      <EncodingEditor
        key={sender.id}
        encoding={sender.encoding}
        channel={sender.channel}
        onEncoding={(encoding) => put({ ...sender, encoding }, `change what ${sender.name} sends`)}
      />
      <div style={{ display: 'flex', gap: 8 }}>
        <Learn
          unit={unit}
          onTake={(encoding, channel) =>
            put({ ...sender, encoding, channel: channel ?? sender.channel }, `learn ${sender.name}`)
          }
        />
        <Button
          onPress={() =>
            void change(
              { ...profile, senders: profile.senders.filter((s) => s.id !== sender.id) },
              `remove ${sender.name}`,
            )
          }
        >
          <Trash2 size={16} aria-hidden /> Remove
        </Button>
      </div>
    </EditorBox>
  );
}
