import { X } from 'lucide-react';
import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import styled from 'styled-components';
import { FIRST_STEPS, firstSteps, type FirstStep } from '../../core/meaning';
import type { Show } from '../../core/show';
import { proofOf, songMark } from '../state/marks';
import { useProofs } from '../state/proofs';
import { useShow } from '../state/store';
import { narrow } from '../theme/narrow';
import { font } from '../theme/tokens';
import { SignButton } from '../widgets/controls';
import { LanternMark } from '../widgets/LanternMark';
import { HeadSlip, Unseen } from '../widgets/shellParts';

const Slip = styled(HeadSlip)`
  flex-wrap: nowrap;
  ${narrow} {
    flex-wrap: wrap;
  }
  & > p {
    min-width: 0;
    margin-right: auto;
  }
  & > ol {
    display: flex;
    flex: none;
    gap: 1px;
    margin: 0;
    padding: 0;
    list-style: none;
  }
  & > b {
    flex: none;
    font: 800 16px/1.2 ${font.display};
  }
`;

interface Words {
  /** As a step of five. */
  readonly name: string;
  /** What to do, and where. */
  readonly todo: string;
  readonly view: string;
  readonly path: string;
}

const WORDS: Readonly<Record<FirstStep, Words>> = {
  wire: {
    name: 'Wire a unit',
    todo: 'Add the first unit of your rig, with its port and channel.',
    view: 'Rig',
    path: '/rig',
  },
  preset: {
    name: 'Name a preset',
    todo: 'Name the presets that you use: type, or paste a list.',
    view: 'Map',
    path: '/map',
  },
  tone: {
    name: 'Make a tone',
    todo: 'Make a tone: what each unit is on for one sound of the whole rig.',
    view: 'Tones',
    path: '/tones',
  },
  song: { name: 'Add a song', todo: 'Add a song: a name, a tempo and a metre.', view: 'Set', path: '/set' },
  lantern: {
    name: 'Light a lantern',
    todo: 'Place the tone: bar, Enter, its name, Enter. The lantern lights when it is proven to land.',
    view: 'Chart',
    path: '/chart',
  },
};

/** The way from wiring to the first lit lantern: how far one is, and what comes next. It goes when the lantern is lit. */
export function FirstSteps() {
  const show = useShow();
  const [closed, setClosed] = useState<string | null>(null);
  // Whoever has placed cues in more than one song knows the way, and nothing is asked of large shows.
  const known = show.songs.filter((s) => s.cues.length > 0).length > 1;
  return known || closed === show.id ? null : <Steps show={show} onClose={() => setClosed(show.id)} />;
}

function Steps({ show, onClose }: { readonly show: Show; readonly onClose: () => void }) {
  const { pathname } = useLocation();
  const lit = useProofs((s) =>
    show.songs
      .filter((song) => song.cues.some((c) => proofOf(s, song.id, c.id)?.lantern === 'lit'))
      .map((song) => song.id)
      .join(' '),
  );
  const cracked = useProofs((s) => show.songs.some((song) => songMark(s, song) === 'cracked'));
  const lights = new Set(lit.split(' '));
  const done = firstSteps(show, (id) => lights.has(id));
  const next = FIRST_STEPS.find((step) => !done.has(step));
  if (next === undefined) return null;
  const { todo, view, path } = WORDS[next];
  const to = `/show/${show.id}${path}`;
  const fails = next === 'lantern' && cracked;
  return (
    <Slip as="section" aria-label="First steps">
      <b>
        {done.size} of {FIRST_STEPS.length}
      </b>
      <ol aria-label="Steps to the first lit lantern">
        {FIRST_STEPS.map((step) => (
          <li key={step}>
            <LanternMark mark={done.has(step) ? 'lit' : 'hollow'} size={26} silent />
            <Unseen>{`${WORDS[step].name}: ${done.has(step) ? 'done' : 'to do'}`}</Unseen>
          </li>
        ))}
      </ol>
      <p role="status">
        {fails ? 'The lantern is cracked: the dry run says why, and mends what it can.' : todo}{' '}
        {fails ? (
          <Link to={`/show/${show.id}/dry-run`}>Go to Dry run</Link>
        ) : (
          pathname !== to && !pathname.startsWith(`${to}/`) && <Link to={to}>Go to {view}</Link>
        )}
      </p>
      <SignButton aria-label="Close the first steps" onPress={onClose}>
        <X size={16} />
      </SignButton>
    </Slip>
  );
}
