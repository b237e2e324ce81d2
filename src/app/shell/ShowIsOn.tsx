import { Link } from 'react-router';
import { clockWords } from '../../wording';
import { endShow } from '../state/desk';
import { useNight } from '../state/night';
import { useShow } from '../state/store';
import { HeldButton } from '../widgets/HeldButton';
import { HeadSlip } from '../widgets/shellParts';

/** So long the end of a show is held, in milliseconds. */
const HOLD_MILLIS = 1000;

/** On the desk, while the show is on: why nothing is edited, and how it ends. */
export function ShowIsOn() {
  const show = useShow();
  const { id, begun } = useNight();
  if (id === null) return null;
  const at = new Date(begun);
  return (
    <HeadSlip role="status" aria-label="The show is on">
      <b>The show is on since {clockWords(at.getHours() * 60 + at.getMinutes())}.</b>
      Edits wait until it is over; what differs tonight can be changed.
      <Link to={`/show/${show.id}/stage`}>To the stage</Link>
      <HeldButton millis={HOLD_MILLIS} onHeld={() => void endShow()}>
        Hold: end the show
      </HeldButton>
    </HeadSlip>
  );
}
