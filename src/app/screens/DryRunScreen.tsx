import { useEffect, useMemo } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { indexShow, type Show, type Song, songEntries } from '../../core/show';
import { Soft } from '../widgets/controls';
import { LanternMark, lanternWords } from '../widgets/LanternMark';
import { Pick } from '../widgets/Pick';
import { ProgressGauge } from '../widgets/ProgressGauge';
import { compareWith, earlierStates, useComparing } from '../state/comparing';
import { runOther } from '../state/desk';
import { useShowMark, useSongMark } from '../state/marks';
import { useProofs } from '../state/proofs';
import { useApp, useShow } from '../state/store';
import { useSight } from '../state/useSight';
import { desk } from '../theme/tokens';
import { SetRun } from './dryrun/SetRun';
import { SongRun } from './dryrun/SongRun';

const Page = styled.div`
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
`;

const Head = styled.header`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px 12px;
  padding: 10px 20px;
  border-bottom: 1.5px solid ${desk.line};
  & > h1 {
    font-size: 26px;
  }
`;

const SET = 'set';
const NONE = 'none';

/** The proof: every change of a song or of the set against the simulated rig, the worst first, and why. It shows the present. */
export function DryRunScreen() {
  const show = useShow();
  const navigate = useNavigate();
  const { songId } = useParams();
  const song = indexShow(show).songs.get(songId ?? '');
  const set = useMemo(() => songsOfSet(show), [show]);
  const base = `/show/${show.id}/dry-run`;
  useSight(song ? { songId: song.id } : 'set');
  if (show.songs.length === 0) {
    return (
      <p style={{ padding: 30 }}>
        There is nothing to run yet: the first song is made in the <Link to={`/show/${show.id}/set`}>Set</Link>.
      </p>
    );
  }
  return (
    <Page>
      <Head>
        {song ? <SongLantern song={song} /> : <SetLantern show={show} />}
        <h1>Dry run</h1>
        <Pick
          label="What to run"
          hideLabel
          width="230px"
          value={song?.id ?? SET}
          choices={[{ id: SET, name: 'the whole set' }, ...show.songs.map((s) => ({ id: s.id, name: s.title }))]}
          onPick={(id) => void navigate(id === SET ? base : `${base}/${id}`)}
        />
        <Progress of={song ? 1 : set.length} />
        <span style={{ flex: 1 }} />
        <CompareWith songs={song ? [song] : set} />
      </Head>
      {song ? <SongRun key={song.id} song={song} /> : <SetRun songs={set} />}
    </Page>
  );
}

/** How far proving is: it goes on by itself. */
function Progress({ of }: { readonly of: number }) {
  const waiting = useProofs((s) => s.waiting);
  const trouble = useProofs((s) => s.trouble);
  if (trouble !== null) return <strong role="alert">The dry run failed: {trouble}</strong>;
  if (waiting === 0) return <Soft role="status">up to date with every edit</Soft>;
  if (of < 2) return <Soft role="status">being played to the simulated rig …</Soft>;
  return (
    <ProgressGauge
      label="Dry run"
      value={Math.max(0, of - waiting)}
      max={of}
      words={waiting === 1 ? '1 song to go' : `${waiting} songs to go`}
    />
  );
}

/** Chooses an earlier state of the show that the present one is compared with. */
function CompareWith({ songs }: { readonly songs: readonly Song[] }) {
  const open = useApp((s) => s.open);
  const compared = useComparing((s) => s.compared);
  const show = compared?.show;
  const ids = songs.map((s) => s.id).join(' ');
  useEffect(() => {
    if (show) void runOther(ids.split(' '));
  }, [show, ids]);
  if (!open || (open.past.length === 0 && !compared)) return null;
  const states = earlierStates(open);
  const chosen = compared === null ? NONE : CHOSEN;
  return (
    <Pick
      label="Compare with"
      width="300px"
      value={chosen}
      choices={[
        { id: NONE, name: 'nothing' },
        ...(compared ? [{ id: CHOSEN, name: `before: ${compared.before}` }] : []),
        ...states.map(({ at, done }) => ({
          id: String(at),
          name: at === 0 ? `as it was opened, before: ${done.label}` : `before: ${done.label}`,
        })),
      ]}
      onPick={(id) => id !== CHOSEN && compareWith(open, id === NONE ? null : Number(id))}
    />
  );
}

const CHOSEN = 'chosen';

const songsOfSet = (show: Show): readonly Song[] => {
  const { songs } = indexShow(show);
  const inSet = new Set(songEntries(show).map((e) => e.songId));
  return [...inSet].flatMap((id) => songs.get(id) ?? []);
};

function SongLantern({ song }: { readonly song: Song }) {
  const mark = useSongMark(song);
  return (
    <span title={lanternWords(mark)}>
      <LanternMark mark={mark} size={40} />
    </span>
  );
}

function SetLantern({ show }: { readonly show: Show }) {
  const mark = useShowMark(show);
  return (
    <span title={lanternWords(mark)}>
      <LanternMark mark={mark} size={40} />
    </span>
  );
}
