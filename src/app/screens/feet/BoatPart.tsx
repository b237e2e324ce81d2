import { Plus, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { PRESS_TIME, reachOf, stepWorked, type Rehearsal, type RehearsalSum } from '../../../core/feet';
import {
  changeFeet,
  feetOf,
  indexShow,
  pageTitle,
  songTime,
  songsOfSet,
  type Feet,
  type Show,
  type Song,
  type Unit,
} from '../../../core/show';
import { formatPosition } from '../../../core/time';
import { doingWords, pressWords, verdictSentence } from '../../../wording';
import { Button, SignButton, Soft } from '../../widgets/controls';
import { Fold } from '../../widgets/Fold';
import { NearRows } from '../../widgets/NearRows';
import { LanternMark } from '../../widgets/LanternMark';
import { Pick } from '../../widgets/Pick';
import { Unseen } from '../../widgets/shellParts';
import { PlainTable } from '../../widgets/plainTable';
import { perform, rehearseAllByFoot, rehearseByFoot } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { ControllerPick, Say, SmallHead, Stack, Tools } from './parts';

const Chain = styled.ol`
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
  max-width: 640px;
  & > li {
    display: grid;
    grid-template-columns: 22px minmax(0, 1fr) 84px minmax(0, 1fr) 34px;
    align-items: end;
    gap: 8px;
  }
  & > li > b {
    font: 700 15px/34px ${font.display};
  }
`;

const Arrow = styled.span`
  line-height: 34px;
  color: ${desk.inkSoft};
`;

/** How the rig is played when the computer is gone: which plug goes where, and each song by foot. */
export function BoatPart({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  return (
    <Stack>
      <Tools className="screen-only">
        <ControllerPick unit={unit} part="without" />
        <Link to={`/show/${show.id}/files?sheet=fallback`} style={{ lineHeight: '34px' }}>
          Songs by foot on paper
        </Link>
        <Link to={`/show/${show.id}/rig/patch`} style={{ lineHeight: '34px' }}>
          Emergency wiring on the patch sheet
        </Link>
      </Tools>
      <Wiring unit={unit} />
      <Songs unit={unit} />
    </Stack>
  );
}

/** Which plug goes where: one cable after the other, from the controller on. */
function Wiring({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const { boat } = feetOf(show, unit.id);
  const units = show.units.filter((u) => u.profile.controller === null);
  const plugged = new Set(boat.map((b) => b.id));
  const free = units.filter((u) => !plugged.has(u.id));
  const set = (next: Feet['boat'], label: string): void =>
    void perform(
      changeFeet(show, unit.id, (f) => ({ ...f, boat: next })),
      label,
    );
  return (
    <section style={{ display: 'grid', gap: 10 }} aria-label="Emergency wiring">
      <SmallHead>Emergency wiring</SmallHead>
      <Soft style={{ fontSize: 14 }}>
        When the computer is gone, plug these cables: the controller’s out into the first unit, from its thru into the
        next. Cables between units that are not named here stay.
      </Soft>
      {boat.length === 0 && <p>No cable yet: without the computer the controller reaches nothing.</p>}
      <Chain>
        {boat.map((plug, i) => (
          <li key={plug.id}>
            <b>{i + 1}</b>
            <Pick
              label={`From, cable ${i + 1}`}
              hideLabel
              value={plug.from}
              choices={[unit, ...units.filter((u) => u.id !== plug.id)]}
              onPick={(from) => set(boat.with(i, { ...plug, from }), 'change the emergency wiring')}
            />
            <Arrow>{plug.from === unit.id ? 'out → in of' : 'thru → in of'}</Arrow>
            <Pick
              label={`Into, cable ${i + 1}`}
              hideLabel
              value={plug.id}
              choices={units.filter((u) => u.id === plug.id || !plugged.has(u.id))}
              onPick={(id) => set(boat.with(i, { ...plug, id }), 'change the emergency wiring')}
            />
            <SignButton
              aria-label={`Take cable ${i + 1} away`}
              onPress={() => set(boat.toSpliced(i, 1), 'remove a cable from the emergency wiring')}
            >
              <Trash2 size={16} aria-hidden />
            </SignButton>
          </li>
        ))}
      </Chain>
      <div>
        <Button
          isDisabled={free.length === 0}
          onPress={() =>
            set([...boat, { id: free[0]!.id, from: boat.at(-1)?.id ?? unit.id }], 'add a cable to the emergency wiring')
          }
        >
          <Plus size={15} aria-hidden /> Add a cable
        </Button>
      </div>
    </section>
  );
}

const SONG_HEADS = [
  <Unseen key="l">Works</Unseen>,
  'Song',
  'Page',
  'Changes',
  'Most presses',
  'Slowest unit after the foot',
  <Unseen key="s">Steps</Unseen>,
];

const KEEP_STILL = 250;

/** Each song of the set as steps, rehearsed against the simulated rig as it is wired then. */
function Songs({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const songs = songsOfSet(show);
  const [songId, setSongId] = useState(songs[0]?.id ?? '');
  const [ran, setRan] = useState<{ readonly show: Show; readonly all: readonly RehearsalSum[] } | null>(null);
  useEffect(() => {
    let left = false;
    // Typing is not waited on: the rehearsal follows when it rests.
    const wait = setTimeout(() => {
      void rehearseAllByFoot(
        unit.id,
        songsOfSet(show).map((s) => s.id),
      )
        .then((all) => left || setRan({ show, all }))
        .catch(() => undefined);
    }, KEEP_STILL);
    return () => {
      left = true;
      clearTimeout(wait);
    };
  }, [show, unit.id]);
  const song = songs.find((s) => s.id === songId) ?? songs[0];
  if (!song) return <p>The set has no song yet.</p>;
  const sums = new Map(ran?.show === show ? ran.all.map((r) => [r.songId, r]) : []);
  return (
    <section style={{ display: 'grid', gap: 12 }} aria-label="Songs by foot">
      <SmallHead>Songs by foot</SmallHead>
      <PlainTable aria-label="Songs of the set by foot">
        <thead>
          <tr>
            {SONG_HEADS.map((h, i) => (
              <th key={i} scope="col">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {songs.map((s) => (
            <SongRow
              key={s.id}
              show={show}
              unit={unit}
              song={s}
              sum={sums.get(s.id)}
              onOpen={() => setSongId(s.id)}
              open={s.id === song.id}
            />
          ))}
        </tbody>
      </PlainTable>
      <OneSong unit={unit} song={song} />
      <ReachTable unit={unit} />
    </section>
  );
}

/** The song that is open, step by step. */
function OneSong({ unit, song }: { readonly unit: Unit; readonly song: Song }) {
  const show = useShow();
  const [ran, setRan] = useState<{ readonly show: Show; readonly song: Song; readonly run: Rehearsal } | null>(null);
  useEffect(() => {
    let left = false;
    const wait = setTimeout(() => {
      void rehearseByFoot(unit.id, song.id)
        .then((run) => left || (run && setRan({ show, song, run })))
        .catch(() => undefined);
    }, KEEP_STILL);
    return () => {
      left = true;
      clearTimeout(wait);
    };
  }, [show, unit.id, song]);
  if (ran?.show !== show || ran.song !== song) return <Say role="status">{song.title} is rehearsed …</Say>;
  return <Steps unit={unit} song={song} run={ran.run} />;
}

interface RowProps {
  readonly show: Show;
  readonly unit: Unit;
  readonly song: Song;
  readonly sum: RehearsalSum | undefined;
  readonly open: boolean;
  readonly onOpen: () => void;
}

function SongRow({ show, unit, song, sum, open, onOpen }: RowProps) {
  return (
    <tr>
      <td>
        <LanternMark mark={sum === undefined ? 'hollow' : sum.works ? 'lit' : 'cracked'} size={20} />
      </td>
      <th scope="row">{song.title}</th>
      <td>{sum?.startPageId ? pageTitle(show, unit.id, sum.startPageId) : <Soft>none</Soft>}</td>
      <td>{sum?.changes}</td>
      <td>{sum?.presses}</td>
      <td>{sum && `${sum.slowest.toFixed(0)} ms`}</td>
      <td>
        <Button onPress={onOpen} aria-pressed={open}>
          {open ? 'Open' : 'Show the steps'}
        </Button>
      </td>
    </tr>
  );
}

const STEP_HEADS = [
  <Unseen key="l">Works</Unseen>,
  'Bar',
  'What',
  'Page',
  'Press',
  'The rig is there after',
  <Unseen key="f">What fails</Unseen>,
];
/** Pixels of a step on one line. */
const STEP_ROW = 38;

/** A song as steps: the bar as it is printed, the page, the switch. */
function Steps({ unit, song, run }: { readonly unit: Unit; readonly song: Song; readonly run: Rehearsal }) {
  const show = useShow();
  const { bars } = songTime(song);
  const { left } = run.fallback;
  const names = run.unreached.map((id) => indexShow(show).units.get(id)?.name ?? id);
  const leftOut = [
    left.controls > 0 && `${left.controls} single controls`,
    left.messages > 0 && `${left.messages} raw messages`,
    left.sweeps > 0 && `${left.sweeps} sweeps`,
  ].filter((x) => x !== false);
  return (
    <>
      <SmallHead>{song.title}</SmallHead>
      {names.length > 0 && <Say $wrong>No cable leads to {names.join(', ')} then.</Say>}
      {leftOut.length > 0 && <Soft>Left out, as no switch does them: {leftOut.join(', ')}.</Soft>}
      <PlainTable aria-label={`Steps of ${song.title}`} aria-rowcount={run.outcomes.length + 1}>
        <thead>
          <tr>
            {STEP_HEADS.map((h, i) => (
              <th key={i} scope="col">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <NearRows rows={run.outcomes} columns={STEP_HEADS.length} height={STEP_ROW}>
          {(o, i) => {
            const { step } = o;
            const last = step.presses?.at(-1);
            return (
              <tr key={`${step.cueId}/${i}`} aria-rowindex={i + 2}>
                <td>
                  <LanternMark mark={stepWorked(o) ? 'lit' : 'cracked'} size={18} />
                </td>
                <td>{step.since === null && step.due === 0 ? 'before' : formatPosition(bars, step.at, song.bars)}</td>
                <th scope="row">{doingWords(show, unit.id, step.does)}</th>
                <td>{last ? pageTitle(show, unit.id, last.pageId) : ''}</td>
                <td>
                  {step.presses === null
                    ? 'no switch does it'
                    : step.presses.map((p) => pressWords(show, unit.id, p)).join(', then ')}
                </td>
                <td>{o.after === null ? '' : `${o.after.toFixed(0)} ms`}</td>
                <td>
                  {o.hurried && `No time for ${step.presses!.length} presses. `}
                  {o.failed.map((v) => verdictSentence(v, indexShow(show).units.get(v.unitId)!)).join(' ')}
                </td>
              </tr>
            );
          }}
        </NearRows>
      </PlainTable>
    </>
  );
}

/** Every tone of the set: how many presses away it is, and whether there is the time for them. */
function ReachTable({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  return (
    <Fold summary="How far each tone of the set is">
      {() => <Reach rows={reachOf(show, unit.id, songsOfSet(show))} />}
    </Fold>
  );
}

function Reach({ rows }: { readonly rows: ReturnType<typeof reachOf> }) {
  const { tones, songs } = indexShow(useShow());
  return (
    <>
      <Soft style={{ fontSize: 13 }}>A foot takes {(PRESS_TIME / 1e6).toFixed(1)} s from one press to the next.</Soft>
      <PlainTable aria-label="How far each tone is" style={{ marginTop: 8 }}>
        <thead>
          <tr>
            {['Tone', 'Presses at the most', 'In', 'Seconds it needs', 'Seconds there are'].map((h) => (
              <th key={h} scope="col">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.toneId}>
              <th scope="row">{tones.get(r.toneId)?.name}</th>
              <td>{r.presses ?? 'no switch calls it'}</td>
              <td>{songs.get(r.songId)?.title}</td>
              <td>{r.needs.toFixed(1)}</td>
              <td>{r.has === null ? 'before the song' : r.has.toFixed(1)}</td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
    </>
  );
}
