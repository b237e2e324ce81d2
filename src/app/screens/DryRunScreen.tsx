import { FlaskConical, Flag, X } from 'lucide-react';
import { useEffect, useMemo } from 'react';
import { ProgressBar } from 'react-aria-components';
import { Link, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { checkRig } from '../../core/checks';
import { indexShow, type Show, type Song } from '../../core/show';
import { Button, MainButton, SignButton, Soft } from '../components/controls';
import { LanternMark, lanternWords } from '../components/LanternMark';
import { Pick } from '../components/Pick';
import { prove } from '../state/desk';
import { useShowMark, useSongMark } from '../state/marks';
import { cancelRuns, isOfNow, markRuns, runAll, useRuns } from '../state/runs';
import { useApp, useShow } from '../state/store';
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

const Gauge = styled(ProgressBar)`
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: 13px;
  font-weight: 600;
  & > div {
    width: 130px;
    height: 12px;
    border: 1.5px solid ${desk.ink};
    border-radius: 3px 7px 3px 7px;
    overflow: hidden;
  }
  & > div > div {
    height: 100%;
    background: ${desk.lamp};
  }
`;

const SET = 'set';
const clock = new Intl.DateTimeFormat('en', { hour: '2-digit', minute: '2-digit', second: '2-digit', hour12: false });

/** The proof: every change of a song or of the set against the simulated rig, the worst first, and why. */
export function DryRunScreen() {
  const show = useShow();
  const navigate = useNavigate();
  const { songId } = useParams();
  const song = indexShow(show).songs.get(songId ?? '');
  const set = useMemo(() => songsOfSet(show), [show]);
  const { going, kept, runs } = useRuns();
  const proving = useApp((s) => s.proving);
  const base = `/show/${show.id}/dry-run`;
  const rigFindings = useMemo(() => checkRig(show), [show]);
  useFreshRuns(show, song, set);
  if (show.songs.length === 0) {
    return (
      <p style={{ padding: 30 }}>
        There is nothing to run yet: the first song is made in the <Link to={`/show/${show.id}`}>book</Link>.
      </p>
    );
  }
  const again = (): void => void (song ? prove(song.id) : runAll(set, prove));
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
        <MainButton isDisabled={going !== null || proving.length > 0} onPress={again}>
          <FlaskConical size={16} aria-hidden /> {song ? 'Run it again' : 'Run the set'}
        </MainButton>
        {going && (
          <>
            <Gauge aria-label="Dry run" value={going.done} maxValue={going.of}>
              {({ percentage }) => (
                <>
                  <div>
                    <div style={{ width: `${percentage ?? 0}%` }} />
                  </div>
                  <span>
                    {going.done + 1} of {going.of}: {going.title}
                  </span>
                </>
              )}
            </Gauge>
            <Button onPress={cancelRuns}>Cancel</Button>
          </>
        )}
        <span style={{ flex: 1 }} />
        {kept ? (
          <Soft style={{ display: 'flex', alignItems: 'center', gap: 4 }}>
            <Flag size={15} aria-hidden /> compared with the run of {clock.format(kept.at)}
            <SignButton aria-label="Stop comparing" onPress={() => markRuns(null)}>
              <X size={16} />
            </SignButton>
          </Soft>
        ) : (
          <Button isDisabled={Object.keys(runs).length === 0} onPress={() => markRuns(new Date())}>
            <Flag size={15} aria-hidden /> Keep, to compare with
          </Button>
        )}
      </Head>
      {song ? <SongRun key={song.id} song={song} /> : <SetRun songs={set} rigFindings={rigFindings} />}
    </Page>
  );
}

const songsOfSet = (show: Show): readonly Song[] => {
  const { songs } = indexShow(show);
  const inSet = new Set(show.set.map((e) => e.songId));
  return [...inSet].flatMap((id) => songs.get(id) ?? []);
};

/** A song that is looked at is run; of the set, what was run is run again when it has changed. */
function useFreshRuns(show: Show, song: Song | undefined, set: readonly Song[]): void {
  const runs = useRuns((s) => s.runs);
  const busy = useRuns((s) => s.going !== null);
  const proving = useApp((s) => s.proving.length > 0);
  useEffect(() => {
    if (busy || proving) return;
    const stale = (s: Song): boolean => {
      const run = runs[s.id];
      return run ? !isOfNow(run, show, s) : s === song;
    };
    const next = song ? (stale(song) ? song : undefined) : set.find(stale);
    if (next) void prove(next.id);
  }, [show, song, set, runs, busy, proving]);
}

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
