import { GraduationCap } from 'lucide-react';
import { encodeValue, valueRange, type Control } from '../../../core/addressing';
import { toHex } from '../../../core/midi';
import { routeTo } from '../../../core/meaning';
import type { Unit } from '../../../core/show';
import { DialogButton } from '../../widgets/DialogButton';
import { Bytes, MainButton, Soft } from '../../widgets/controls';
import { Last, Rows } from '../../widgets/dialogParts';
import { stopTeaching, teach } from '../../state/desk';
import { useNews } from '../../state/news';
import { useShow } from '../../state/store';

/** Sends a control's message again and again, while the unit waits to learn it. */
export function Teach({ unit, control }: { readonly unit: Unit; readonly control: Control }) {
  const { low, high } = valueRange(control.encoding);
  const messages = encodeValue(control.encoding, unit.channel, low === 0 && high === 1 ? 1 : low);
  return (
    <DialogButton
      face={
        <>
          <GraduationCap size={16} aria-hidden /> Teach
        </>
      }
      title={`Teach ${control.name} to ${unit.name}`}
      onOpen={() => void teach({ unitId: unit.id, messages })}
      onClosed={() => void stopTeaching()}
    >
      {(close) => (
        <Lesson unit={unit} bytes={messages.map((m) => toHex(m, ' ').toUpperCase()).join(' · ')} close={close} />
      )}
    </DialogButton>
  );
}

function Lesson({ unit, bytes, close }: { readonly unit: Unit; readonly bytes: string; readonly close: () => void }) {
  const show = useShow();
  const lesson = useNews((s) => s.news.lesson);
  const reached = routeTo(show, unit) !== undefined;
  return (
    <Rows>
      <p>Set {unit.name} to learn. The message goes out until it has, or until you stop.</p>
      <Bytes>{bytes}</Bytes>
      <p role="status" aria-label="Lesson">
        {!reached
          ? `Nothing reaches ${unit.name}: it has no cable from a port.`
          : lesson?.learnt
            ? `${unit.name} has learnt ${toHex(lesson.learnt, ' ').toUpperCase()}.`
            : `Sent ${lesson?.sent ?? 0} times. ${unit.name} has not taken it in yet.`}
      </p>
      {reached && lesson?.learnt === null && lesson.sent > 3 && <Soft>Does it listen on channel {unit.channel}?</Soft>}
      <Last>
        <MainButton onPress={close}>{lesson?.learnt ? 'Done' : 'Stop'}</MainButton>
      </Last>
    </Rows>
  );
}
