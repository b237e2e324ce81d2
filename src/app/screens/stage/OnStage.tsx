import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { useShallow } from 'zustand/react/shallow';
import { songTime, type Song } from '../../../core/show';
import { differsTonight, tonightOf } from '../../../core/tonight';
import { formatBar, barOfTick, microsToSeconds, secondsToTicks } from '../../../core/time';
import { startOf, useCaret } from '../../state/caret';
import { useNews } from '../../state/news';
import { useShow } from '../../state/store';
import { stage } from '../../theme/tokens';
import { Steps } from './Steps';
import { ToneNow } from './ToneNow';
import { comesNext, driftOf, driftWords, nextWords, notesHere, type InSet } from './comesNext';
import { rigNow } from './rigNow';
import { remarkAt, stageOf } from './stageOf';
import { WayToNext } from './WayToNext';

const Head = styled.header`
  display: flex;
  align-items: baseline;
  gap: 22px;
  padding: 18px 30px 6px;
  @media (max-width: 900px) {
    flex-wrap: wrap;
    gap: 2px 16px;
  }
  @media (max-width: 700px) {
    gap: 2px 12px;
    padding: 10px 16px 4px;
  }
  & h1 {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    font-size: 30px;
    font-weight: 700;
    @media (max-width: 700px) {
      font-size: 24px;
    }
  }
  & b {
    font-size: 66px;
    line-height: 1;
    font-variant-numeric: tabular-nums;
  }
`;

/** A show is a lit field, a rehearsal a hollow one. */
const Kind = styled.b<{ readonly $show: boolean }>`
  flex: none;
  padding: 5px 14px;
  border: 2px ${(p) => (p.$show ? 'solid' : 'dashed')} ${(p) => (p.$show ? stage.lamp : stage.soft)};
  border-radius: 4px 14px 4px 14px;
  background: ${(p) => (p.$show ? stage.lamp : 'transparent')};
  color: ${(p) => (p.$show ? stage.ground : stage.soft)};
  ${Head} & {
    font-size: 24px;
    line-height: 1.15;
  }
  @media (max-width: 700px) {
    ${Head} & {
      font-size: 17px;
    }
  }
`;

/** What the rig is truly on, where it is not what is shown. */
const Truly = styled.p`
  grid-column: 1 / -1;
  margin: 0;
  font-size: 24px;
  font-weight: 600;
  color: ${stage.text};
`;

const Comes = styled.div<{ readonly $soon: boolean }>`
  display: flex;
  gap: 20px;
  margin: 0;
  min-width: 0;
  overflow: hidden;
  font-size: 30px;
  font-weight: ${(p) => (p.$soon ? 700 : 500)};
  color: ${(p) => (p.$soon ? stage.lamp : stage.soft)};
  white-space: nowrap;
  & > p {
    margin: 0;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  @media (max-width: 900px) {
    order: 3;
    flex: 1 0 100%;
  }
  @media (max-width: 700px) {
    font-size: 19px;
  }
`;

const Bars = styled.span`
  white-space: nowrap;
  & small {
    font-size: 30px;
    color: ${stage.soft};
    font-variant-numeric: tabular-nums;
  }
`;

const Middle = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 190px;
  min-height: 0;
  padding: 0 30px;
  gap: 6px 24px;
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: minmax(0, 1fr);
    grid-auto-rows: auto;
    gap: 10px;
    padding: 0 16px;
  }
`;

export const Wrong = styled.p`
  grid-column: 1 / -1;
  margin: 0;
  padding: 4px 0 0;
  font-size: 24px;
  font-weight: 700;
  color: ${stage.wrong};
`;

const Said = styled.p`
  grid-column: 1 / -1;
  margin: 0;
  font-size: 38px;
  font-weight: 600;
  font-style: italic;
  color: ${stage.text};
  @media (max-width: 700px) {
    font-size: 26px;
  }
`;

/** The song that comes next and what brings it; and whether the set is late. */
function ComesNext({ song }: { readonly song: Song }) {
  const show = useShow();
  const { entryId, queued, following, history, playing } = useInSet();
  const set = { entryId, queued, following, history, playing };
  const next = comesNext(show, song.id, set);
  const drift = driftOf(show, song.id, set, minutesOfDay);
  if (!next && drift === null) return null;
  return (
    <Comes $soon={next?.how === 'chosen' || next?.how === 'counted'}>
      {next && <p aria-label="Song that comes next">{nextWords(next)}</p>}
      {drift !== null && <p aria-label="Against the running order">{driftWords(drift)}</p>}
    </Comes>
  );
}

/** A change takes its time: what differs for longer than this is said, in milliseconds. */
const SETTLES = 1500;

/** What the rig is truly on, where that is not what the stage shows: after a stop, or when a port is gone. */
function RigNow({
  song,
  tick,
  playerId,
}: {
  readonly song: Song;
  readonly tick: number;
  readonly playerId: string | null;
}) {
  const show = useShow();
  const rig = useNews((s) => s.news.rig);
  const loads = useNews((s) => s.news.loading.length > 0);
  const now = loads ? null : rigNow(show, song, tick, rig, playerId);
  const said = useLasting(now, SETTLES);
  return said === null ? null : (
    <Truly role="status" aria-label="The rig now">
      {said}
    </Truly>
  );
}

/** A text once it has stood so long; null at once when there is none. */
function useLasting(text: string | null, millis: number): string | null {
  const [lasting, setLasting] = useState<string | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => setLasting(text), text === null ? 0 : millis);
    return () => clearTimeout(timer);
  }, [text, millis]);
  return text === null ? null : lasting === null ? null : text;
}

/** What the set says is to be done before a song, or behind it. */
function SetNotes({ song }: { readonly song: Song }) {
  const show = useShow();
  const notes = notesHere(show, song.id, useInSet());
  return notes.length > 0 ? <Said aria-label="Note of the set">{notes.join(' · ')}</Said> : null;
}

/** What differs tonight, as long as nothing plays. */
function Differs() {
  const show = useShow();
  const playing = useNews((s) => s.news.playing);
  const lines = differsTonight(tonightOf(show));
  if (playing || lines.length === 0) return null;
  return <Truly aria-label="Tonight differs">{lines.join(' ')}</Truly>;
}

/** What the playback says of the set: drawn again only where something of it changes. */
const useInSet = (): InSet =>
  useNews(
    useShallow(({ news: { playing, entryId, queued, following, history } }) => ({
      playing,
      entryId,
      queued,
      following,
      history,
    })),
  );

/** Of two computers of this show: whether this one leads, or follows and is silent. */
function OfTwo() {
  const pair = useNews((s) => s.news.pair);
  if (!pair) return null;
  return (
    <Kind $show={pair.leads} aria-label="Of two computers">
      {pair.leads ? (pair.ready ? 'Leads' : 'Leads alone') : 'Follows'}
    </Kind>
  );
}

/** Minutes after midnight of a clock time in microseconds, where the user is. */
function minutesOfDay(at: number): number {
  const time = new Date(at / 1000);
  return time.getHours() * 60 + time.getMinutes() + time.getSeconds() / 60;
}

interface Props {
  readonly song: Song;
  readonly playerId: string | null;
  /** What is wrong, in one line; null for nothing. */
  readonly wrong: string | null;
}

/** What is on, what comes and when: for a player, or for all. */
export function OnStage({ song, playerId, wrong }: Props) {
  const show = useShow();
  const { bars, tempo } = songTime(song);
  const player = show.players.find((p) => p.id === playerId);
  // A new drawing for each whole beat is enough: nothing else moves. A step may stand off the beat.
  const begins = useCaret((caret) => startOf(caret, song.id));
  const tick = useNews(({ news }) => {
    // Nothing plays: where the next start begins.
    if (!news.playing && !song.stepped) return begins;
    if (news.songId !== song.id) return 0;
    const at = secondsToTicks(tempo, microsToSeconds(Math.max(0, news.place)));
    if (song.stepped) return Math.round(at);
    const { beatTicks, tick: start } = barOfTick(bars, at);
    return start + Math.floor((at - start) / beatTicks + 1e-6) * beatTicks;
  });
  const night = useNews((s) => s.news.night);
  const counting = useNews(({ news }) => news.playing && news.from !== null && news.place < news.from);
  const { now, beside, next } = stageOf(show, song, tick);
  const remark = remarkAt(song, tick);
  // Where bars are numbered anew, how many there are says nothing.
  const last = song.open || formatBar(bars, song.bars, song.bars) !== String(song.bars) ? null : song.bars;
  // Behind the last change it still sounds: there is no bar 9 of 8.
  const at = barOfTick(bars, tick).bar;
  const bar = counting ? '…' : formatBar(bars, song.open ? at : Math.min(at, song.bars), song.bars);
  return (
    <>
      <Head>
        <Kind $show={night !== null} aria-label="Kind of playing">
          {night !== null ? 'Show' : 'Rehearsal'}
        </Kind>
        <OfTwo />
        <h1>
          {song.title}
          {player && ` · ${player.name}`}
        </h1>
        <ComesNext song={song} />
        {!song.stepped && (
          <Bars>
            <b aria-label="Bar">{bar}</b>
            {last !== null && <small aria-label="Last bar">/{last}</small>}
          </Bars>
        )}
      </Head>
      <Middle>
        {song.stepped ? (
          <Steps song={song} tick={tick} />
        ) : (
          <ToneNow show={show} song={song} now={now} beside={beside} next={next} playerId={playerId} />
        )}
        {!song.stepped && <WayToNext song={song} tick={tick} next={next?.at ?? null} />}
        <Differs />
        {/* One line at a time: what is wrong goes first, but whoever looks after all sees both. */}
        {(wrong === null || playerId === null) && <RigNow song={song} tick={tick} playerId={playerId} />}
        <SetNotes song={song} />
        {remark !== undefined && <Said aria-label="Remark">“{remark}”</Said>}
        {wrong !== null && <Wrong role="status">⚠ {wrong}</Wrong>}
      </Middle>
    </>
  );
}
