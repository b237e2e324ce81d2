import { useMemo } from 'react';
import { Bar } from 'react-chartjs-2';
import type { ChartOptions } from 'chart.js';
import styled from 'styled-components';
import { nightsOfSet, type NightMiss, type SongNights } from '../../../core/nights';
import { indexShow, type Song } from '../../../core/show';
import type { Verdict } from '../../../core/simulate';
import { tonightOf } from '../../../core/tonight';
import { nightMissWords } from '../../../wording';
import { Button, MainButton, Soft } from '../../widgets/controls';
import { ProgressGauge } from '../../widgets/ProgressGauge';
import { openNight, playNights } from '../../state/desk';
import { useNews } from '../../state/news';
import { NIGHTS, nightsOf, stopNights, useNights } from '../../state/nights';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { Figure, usePaint } from './chartFigure';
import { cueName } from './runFacts';

const Count = styled.p`
  margin: 0;
  font: 700 22px/1.2 ${font.display};
  font-variant-numeric: tabular-nums;
`;

const Misses = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  & > li {
    padding: 7px 0;
    border-top: 1px solid ${desk.line};
    font-size: 13.5px;
  }
  & b {
    font-variant-numeric: tabular-nums;
  }
  & button {
    display: block;
    margin-top: 3px;
    padding: 2px 0;
    border: 0;
    background: none;
    color: ${desk.ink};
    font: inherit;
    text-align: left;
    text-decoration: underline;
    cursor: pointer;
  }
`;

const many = (n: number): string => n.toLocaleString('en-GB');

/** "998 of 1,000". */
export const nightsText = (landed: number): string => `${many(landed)} of ${many(NIGHTS)}`;

/** The nights of a song as it is now; undefined where they were not played. */
export function useSongNights(song: Song): SongNights | undefined {
  const show = useShow();
  const kept = useNights((s) => s.kept);
  return useMemo(() => nightsOf({ kept }, tonightOf(show), song), [kept, show, song]);
}

/** Plays the set on a thousand nights, and says on how many all of it lands. */
export function SetNights({ songs }: { readonly songs: readonly Song[] }) {
  const show = useShow();
  const { kept, running, trouble } = useNights();
  const plays = useNews((s) => s.news.playing);
  const nights = useMemo(() => {
    const tonight = tonightOf(show);
    return songs.map((song) => nightsOf({ kept }, tonight, song));
  }, [kept, show, songs]);
  const missing = nights.filter((n) => n === undefined).length;
  return (
    <section aria-label="A thousand nights" style={{ display: 'grid', gap: 8 }}>
      <h2>A thousand nights</h2>
      {missing === 0 && songs.length > 0 ? (
        <>
          <Count role="status">{nightsText(nightsOfSet(nights as SongNights[], NIGHTS))}</Count>
          <Soft>nights on which every change of the set lands. Choose a song to see what misses, and why.</Soft>
        </>
      ) : (
        <Soft>
          Plays the set again and again, each night with its own times: units that are slow that day, messages that
          leave late, now and then a hiccup.
          {missing < songs.length && ` ${missing} ${missing === 1 ? 'song has' : 'songs have'} changed since.`}
        </Soft>
      )}
      {trouble !== null && <strong role="alert">The nights broke off: {trouble}</strong>}
      {running ? (
        <>
          <ProgressGauge
            label="Nights"
            value={running.done}
            max={running.of}
            words={`${many(running.done)} of ${many(running.of)} nights of songs`}
          />
          <div>
            <Button onPress={stopNights}>Stop</Button>
          </div>
        </>
      ) : (
        missing > 0 && (
          <div>
            <MainButton isDisabled={plays} onPress={() => void playNights()}>
              Play {many(NIGHTS)} nights
            </MainButton>
            {plays && <Soft> when nothing plays</Soft>}
          </div>
        )
      )}
    </section>
  );
}

/** What of a song missed on some nights, the worst first, with the way to those nights. */
export function SongNightsList({ song }: { readonly song: Song }) {
  const show = useShow();
  const nights = useSongNights(song);
  if (!nights) return null;
  const { units } = indexShow(show);
  const missed = Object.entries(nights.cues)
    .filter(([, c]) => c.landed < NIGHTS)
    .sort(([, a], [, b]) => a.landed - b.landed);
  const why = (miss: NightMiss): string => {
    const unit = units.get(miss.unitId);
    return unit ? nightMissWords(miss, unit) : '';
  };
  return (
    <section aria-label="On a thousand nights">
      <h2>On a thousand nights</h2>
      <p style={{ margin: '0 0 6px' }} role="status">
        All of the song lands on {nightsText(NIGHTS - nights.missed.length)} nights.
      </p>
      <Misses>
        {missed.map(([cueId, c]) => (
          <li key={cueId}>
            <b>{nightsText(c.landed)}</b> {cueName(show, song, cueId)}
            {c.misses.slice(0, 2).map((miss) => (
              <button key={miss.night} type="button" onClick={() => void openNight(song.id, miss.night)}>
                Open night {miss.night + 1}: {why(miss)}
              </button>
            ))}
          </li>
        ))}
      </Misses>
    </section>
  );
}

const optionsOf = (paint: (c: string) => string, unit: string): ChartOptions<'bar'> => ({
  maintainAspectRatio: false,
  scales: {
    x: {
      grid: { display: false },
      ticks: { color: paint(desk.inkSoft) },
      title: { display: true, text: 'ms from the beat', color: paint(desk.inkSoft) },
    },
    y: {
      beginAtZero: true,
      grid: { color: paint(desk.line) },
      ticks: { color: paint(desk.inkSoft), precision: 0 },
      title: { display: true, text: 'times it landed', color: paint(desk.inkSoft) },
    },
  },
  plugins: { legend: { display: false }, tooltip: { callbacks: { title: ([at]) => `${unit}, ${at?.label} ms` } } },
});

/** When one change was there on its unit, over the nights. */
export function NightsChart({ song, verdict }: { readonly song: Song; readonly verdict: Verdict }) {
  const show = useShow();
  const paint = usePaint();
  const bins = useSongNights(song)?.cues[verdict.cueId]?.spread[verdict.unitId];
  if (!bins) return null;
  const at = Object.keys(bins).map(Number);
  const [low, high] = [Math.min(...at), Math.max(...at)];
  const list = Array.from({ length: high - low + 1 }, (_, i) => low + i);
  const late = show.tolerance.after;
  const name = indexShow(show).units.get(verdict.unitId)?.name ?? '';
  const data = {
    labels: list.map(String),
    datasets: [
      {
        data: list.map((bin) => bins[bin] ?? 0),
        backgroundColor: list.map((bin) => paint(bin >= late ? desk.rust : desk.tide)),
        barPercentage: 1,
        categoryPercentage: 0.92,
      },
    ],
  };
  return (
    <Figure>
      <figcaption>
        {name} on {many(NIGHTS)} nights: {cueName(show, song, verdict.cueId)}
      </figcaption>
      <div>
        <Bar
          data={data}
          options={optionsOf(paint, name)}
          role="img"
          aria-label={`${name} was there from ${low} to ${high + 1} ms from the beat`}
        />
      </div>
    </Figure>
  );
}
