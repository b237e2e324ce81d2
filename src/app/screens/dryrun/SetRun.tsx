import { Link } from 'react-router';
import styled from 'styled-components';
import { acceptedReason } from '../../../core/checks';
import { indexShow, setTolerance, type Song, RANGES, figureIn, rangeWords, type Range } from '../../../core/show';
import { Unseen } from '../../widgets/shellParts';
import { LanternMark } from '../../widgets/LanternMark';
import { AllFindings } from '../../features/AllFindings';
import { Button, Soft } from '../../widgets/controls';
import { Later } from '../../widgets/Later';
import { DraftField } from '../../widgets/DraftField';
import { perform } from '../../state/desk';
import { useComparing, type Compared } from '../../state/comparing';
import { useSongMark } from '../../state/marks';
import { NIGHTS } from '../../state/nights';
import { useProofs, type Run } from '../../state/proofs';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { SetNights, nightsText, useSongNights } from './NightsPart';
import { PlayedNights } from './PlayedNights';
import { KeptFree, TimesBasis } from './TimesBasis';
import { SetChart } from './SetChart';
import { Body, Left, Right } from './runParts';
import { offsetText, roomText, sumOf } from '../../features/runSum';
import { placeOf } from './runFacts';

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  background: ${desk.sheet};
  outline: 1.5px solid ${desk.ink};
  border-radius: 4px 16px 4px 16px;
  & th {
    padding: 8px 10px;
    text-align: left;
    font-size: 12.5px;
    color: ${desk.inkSoft};
  }
  & td {
    padding: 4px 10px;
    border-top: 1px solid ${desk.line};
    font-variant-numeric: tabular-nums;
  }
  & td > a {
    color: ${desk.ink};
    font: 700 17px/1.2 ${font.display};
  }
  & strong {
    color: ${desk.rust};
  }
`;

interface Props {
  readonly songs: readonly Song[];
}

/** Pixels of the chart, until it is drawn. */
const CHART_HEIGHT = 260;

/** The set as a whole: each song's lantern, its worst change and how much was found in it. */
export function SetRun({ songs }: Props) {
  const runs = useProofs((s) => s.runs);
  const compared = useComparing((s) => s.compared);
  const notRun = songs.filter((s) => !runs[s.id]).length;
  return (
    <Body>
      <Left>
        <section>
          <h2>Findings</h2>
          <AllFindings
            renderTrigger={(words, open) => (
              <Button>{open === 0 ? 'No findings' : `${words}: read and mend them`}</Button>
            )}
          />
        </section>
        <SetNights songs={songs} />
        <PlayedNights />
        <TimesBasis />
        <Tolerance />
        <KeptFree />
        {notRun > 0 && (
          <p>
            <Soft>
              {notRun} {notRun === 1 ? 'song is' : 'songs are'} still to be run.
            </Soft>
          </p>
        )}
      </Left>
      <SongTable compared={compared} songs={songs} runs={runs} />
    </Body>
  );
}

interface SongTableProps {
  readonly compared: Compared | null;
  readonly songs: readonly Song[];
  readonly runs: Readonly<Record<string, Run>>;
}

/** Each song with what the dry run found. */
function SongTable({ compared, songs, runs }: SongTableProps) {
  return (
    <Right>
      <Table aria-label="Songs of the set">
        <thead>
          <tr>
            <th>
              <Unseen>Lantern</Unseen>
            </th>
            <th>song</th>
            <th>changes</th>
            <th>off their beat</th>
            <th>least room</th>
            <th>nights</th>
            {compared && <th>before</th>}
            <th>findings</th>
          </tr>
        </thead>
        <tbody>
          {songs.map((song) => (
            <SongRow key={song.id} song={song} run={runs[song.id]} before={compared?.runs[song.id]} />
          ))}
        </tbody>
      </Table>
      <Later height={CHART_HEIGHT}>{() => <SetChart songs={songs} runs={runs} />}</Later>
    </Right>
  );
}

/** How far from its place a change may land; every lantern depends on it. */
function Tolerance() {
  const show = useShow();
  const { tolerance } = show;
  const field = (key: 'after' | 'before', label: string, range: Range) => (
    <DraftField
      label={label}
      value={String(tolerance[key])}
      numeric
      commit={(text) => {
        const millis = figureIn(range, text);
        if (millis === undefined) return rangeWords(range);
        perform(setTolerance(show, { ...tolerance, [key]: millis }), 'change what is on time');
        return null;
      }}
    />
  );
  return (
    <section aria-label="On time">
      <h2>On time is</h2>
      <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 10 }}>
        {field('after', 'up to ms after the beat', RANGES.lateMillis)}
        {field('before', 'up to ms before it', RANGES.earlyMillis)}
      </div>
    </section>
  );
}

interface RowProps {
  readonly song: Song;
  readonly run: Run | undefined;
  /** Its run in the state that is compared with. */
  readonly before: Run | undefined;
}

function SongRow({ song, run, before }: RowProps) {
  const show = useShow();
  const compares = useComparing((s) => s.compared !== null);
  const mark = useSongMark(song);
  const nights = useSongNights(song);
  const sum = run && sumOf(run);
  const old = before && sumOf(before);
  const open = run?.findings.filter((f) => acceptedReason(show, f) === undefined).length;
  return (
    <tr>
      <td style={{ width: 40 }}>
        <LanternMark mark={mark} size={28} />
      </td>
      <td>
        <Link to={`/show/${show.id}/dry-run/${song.id}`}>{song.title}</Link>
      </td>
      <td>{sum ? sum.changes : <Soft>…</Soft>}</td>
      <td>{sum && (sum.wrong > 0 ? <strong>{sum.wrong}</strong> : '0')}</td>
      <td>
        {sum?.worst && (
          <>
            {sum.worst.outcome === 'on-time' ? roomText(sum.worst) : <strong>{offsetText(sum.worst)}</strong>}{' '}
            <Soft>
              {indexShow(show).units.get(sum.worst.unitId)?.monogram} at {placeOf(song, sum.worst.due)}
            </Soft>
          </>
        )}
      </td>
      <td>{nights ? nightsText(NIGHTS - nights.missed.length) : <Soft>–</Soft>}</td>
      {compares && <td>{old ? `${old.wrong} off, ${old.worst ? offsetText(old.worst) : ''}` : '–'}</td>}
      <td>{open}</td>
    </tr>
  );
}
