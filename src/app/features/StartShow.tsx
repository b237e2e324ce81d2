import { Check, TriangleAlert } from 'lucide-react';
import type { ReactElement } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { songsOfSet, type Show } from '../../core/show';
import { startShow } from '../state/desk';
import { useAllFindings } from '../state/findings';
import { soundTrouble, useHearing } from '../state/hearing';
import { useLanes } from '../state/lanes';
import { songMark } from '../state/marks';
import { useNight } from '../state/night';
import { usePorts } from '../state/ports';
import { useProofs } from '../state/proofs';
import { useRehearsal } from '../state/rehearsal';
import { useShow } from '../state/store';
import { desk } from '../theme/tokens';
import { DialogButton } from '../widgets/DialogButton';
import { HeldButton } from '../widgets/HeldButton';
import { Button, Soft } from '../widgets/controls';
import { Last, Rows } from '../widgets/dialogParts';
import { readiness, type NotReady } from './readiness';

const List = styled.ul`
  display: grid;
  gap: 9px;
  max-height: 46dvh;
  margin: 0;
  padding: 0;
  overflow: auto;
  list-style: none;
  & > li {
    display: grid;
    grid-template-columns: 22px minmax(0, 1fr) auto;
    gap: 10px;
    align-items: start;
  }
  & svg {
    margin-top: 2px;
    color: ${desk.rust};
  }
`;

/** So long the start of a show is held, in milliseconds. */
const HOLD_MILLIS = 1000;

/** Begins the show for its audience, once it was seen what is not ready. */
export function StartShow({ trigger }: { readonly trigger?: ReactElement }) {
  const isOn = useNight((s) => s.id !== null);
  if (isOn) return null;
  return (
    <DialogButton face="Start the show …" title="Start the show" width={620} {...(trigger ? { trigger } : {})}>
      {(close) => <Ready close={close} />}
    </DialogButton>
  );
}

function Ready({ close }: { readonly close: () => void }) {
  const show = useShow();
  const navigate = useNavigate();
  const lines = useNotReady(show);
  const begin = async (): Promise<void> => {
    const has = await startShow();
    close();
    if (has) void navigate(`/show/${show.id}/stage`);
  };
  return (
    <Rows>
      <p>
        Songs are played as the audience gets them, from the first on. What is played is kept as a list of its own.
        Edits are held off until the show is over; what differs tonight can still be changed.
      </p>
      {lines.length === 0 ? (
        <p>
          <Check size={18} aria-hidden /> All is ready.
        </p>
      ) : (
        <List aria-label="Not ready">
          {lines.map(({ text, to, mends }) => (
            <li key={text}>
              {mends ? <Check size={18} aria-hidden /> : <TriangleAlert size={18} aria-hidden />}
              <span>{text}</span>
              {to !== null && (
                <Link to={`/show/${show.id}/${to}`} onClick={close}>
                  Go there
                </Link>
              )}
            </li>
          ))}
        </List>
      )}
      <Last>
        <Button onPress={close}>Not yet</Button>
        <HeldButton main disabled={songsOfSet(show).length === 0} millis={HOLD_MILLIS} onHeld={() => void begin()}>
          {lines.some((l) => !l.mends) ? 'Hold: start the show all the same' : 'Hold: start the show'}
        </HeldButton>
      </Last>
      <Soft>Hold it for a second.</Soft>
    </Rows>
  );
}

function useNotReady(show: Show): readonly NotReady[] {
  const { uses, lost, refusing } = usePorts();
  const proofs = useProofs();
  const { wrong: findings } = useAllFindings(show);
  const ways = useRehearsal((s) => s.ways);
  const muted = useLanes((s) => s.muted.size + s.solo.size);
  const sound = useHearing(soundTrouble);
  const markOf = (songId: string) => {
    const song = show.songs.find((s) => s.id === songId);
    return song ? songMark(proofs, song) : 'hollow';
  };
  return readiness(show, { uses, lost, refusing, markOf, findings, ways, muted, sound });
}
