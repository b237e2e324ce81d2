import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { indexShow, type Show, type Song, type Unit } from '../../../core/show';
import { worstFirst, type Verdict } from '../../../core/simulate';
import { marginWords, sentenceOf, verdictSentence } from '../../../wording';
import { MainButton, Soft } from '../../widgets/controls';
import { FindingList } from '../../features/FindingList';
import { RoomPart } from '../../features/RoomPart';
import { Later } from '../../widgets/Later';
import { placePath } from '../../features/findingGroups';
import { isOfNow, useProofs } from '../../state/proofs';
import { useComparing } from '../../state/comparing';
import { openNight } from '../../state/desk';
import { useNights } from '../../state/nights';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { Body, Left, Right } from './runParts';
import { ChangeList, DifferenceList } from './ChangeList';
import { CloseUp } from './CloseUp';
import { LatenessChart, LoadChart } from './RunCharts';
import { NightsChart, SongNightsList } from './NightsPart';
import { WholeLine } from './WholeLine';
import { sumOf } from '../../features/runSum';
import { cueName, placeOf, tickOf } from './runFacts';
import type { Run } from '../../state/proofs';

const Pair = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 12px;
`;

const Caption = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  margin: 0;
  & b {
    font-size: 16px;
  }
  & a {
    color: ${desk.ink};
    font-weight: 600;
  }
`;

/** Pixels of a chart, until it is drawn. */
const CHART_HEIGHT = 230;

/** What a song's dry run saw: findings and changes beside their picture. */
export function SongRun({ song }: { readonly song: Song }) {
  const show = useShow();
  const planned = useProofs((s) => s.runs[song.id]);
  const opened = useNights((s) => (s.opened?.songId === song.id ? s.opened : null));
  const run = useMemo(() => (planned && opened ? { ...planned, picture: opened.picture } : planned), [planned, opened]);
  const compared = useComparing((s) => s.compared);
  const [key, setKey] = useState<string | null>(null);
  if (!run?.picture.detailed) return <p style={{ padding: 30 }}>The song is being played to the simulated rig …</p>;
  // An edit is shown against what is there until its own run is done.
  const shown = isOfNow(run, show, song) ? song : run.song;
  const { landings } = run.picture;
  const chosen = landings.find((v) => keyOf(v) === key) ?? worstFirst(landings)[0];
  const { changes, wrong } = sumOf(run);
  const choose = (v: Verdict): void => setKey(keyOf(v));
  const view = { show, song: shown, run, chosen, onChoose: choose };
  const unit = chosen && indexShow(show).units.get(chosen.unitId);
  return (
    <Body>
      <Left>
        {opened && <OpenedNight songId={song.id} night={opened.night} />}
        <section>
          <p role="status" style={{ margin: '0 0 10px', fontWeight: 600 }}>
            {changes === 0
              ? 'The song changes nothing yet.'
              : wrong === 0
                ? `All ${changes} changes land on their beat.`
                : `${wrong} of ${changes} changes ${wrong === 1 ? 'misses its' : 'miss their'} beat.`}
          </p>
          <FindingList findings={run.findings} well="No findings." inSong />
        </section>
        {compared && (
          <section>
            <h2>Before: {compared.before}</h2>
            <DifferenceList {...view} before={compared.runs[song.id]} isThere={hasSong(compared.show, song)} />
          </section>
        )}
        <SongNightsList song={song} />
        {changes > 0 && (
          <section>
            <h2>Changes, the worst first</h2>
            <ChangeList {...view} />
          </section>
        )}
      </Left>
      <Right>
        <WholeLine {...view} />
        {chosen && unit && <ChosenChange shown={shown} chosen={chosen} unit={unit} song={song} run={run} />}
        {chosen && <NightsChart song={song} verdict={chosen} />}
        <Pair>
          <Later height={CHART_HEIGHT}>
            {() => <LatenessChart show={show} song={shown} run={run} onChoose={choose} />}
          </Later>
          <Later height={CHART_HEIGHT}>{() => <LoadChart show={show} song={shown} run={run} />}</Later>
        </Pair>
      </Right>
    </Body>
  );
}

/** Says that a night is looked at, and leads back to the plan. */
function OpenedNight({ songId, night }: { readonly songId: string; readonly night: number }) {
  return (
    <section aria-label="The night that is open">
      <p role="status" style={{ margin: '0 0 8px', fontWeight: 700 }}>
        This is night {night + 1}, as it went. Lanterns stand for the plan.
      </p>
      <MainButton onPress={() => void openNight(songId, null)}>Back to the plan</MainButton>
    </section>
  );
}

interface ChosenChangeProps {
  readonly shown: Song;
  readonly chosen: Verdict;
  readonly unit: Unit;
  readonly song: Song;
  readonly run: Run;
}

/** The chosen change close up, with the way to its place. */
function ChosenChange({ shown, chosen, unit, song, run }: ChosenChangeProps) {
  const show = useShow();
  return (
    <section aria-label="The chosen change" style={{ display: 'grid', gap: 5 }}>
      <Caption>
        <b>
          {placeOf(shown, chosen.due)} {cueName(show, shown, chosen.cueId)}
        </b>
        <span>
          {verdictSentence(chosen, unit)} {sentenceOf(marginWords(chosen))}
        </span>
        <Link
          to={placePath(show, {
            in: 'song',
            songId: song.id,
            at: tickOf(shown, chosen.due),
            ...(song.cues.some((c) => c.id === chosen.cueId) ? { cueId: chosen.cueId } : {}),
          })}
        >
          on the chart
        </Link>
      </Caption>
      {isOfNow(run, show, song) && <RoomPart song={song} verdict={chosen} />}
      <CloseUp show={show} song={shown} run={run} verdict={chosen} />
      <Soft style={{ fontSize: 13 }}>
        Above: wanted. Box: what the unit is on; hatched while a preset loads. Below: bytes on the cable.
      </Soft>
    </section>
  );
}

const keyOf = (v: Verdict): string => `${v.cueId}\n${v.unitId}`;

const hasSong = (show: Show, song: Song): boolean => indexShow(show).songs.has(song.id);
