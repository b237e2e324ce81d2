import {
  BarController,
  BarElement,
  CategoryScale,
  Chart as ChartJs,
  Legend,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
  ScatterController,
  Tooltip,
  type ChartOptions,
} from 'chart.js';
import { useMemo } from 'react';
import { Line, Scatter } from 'react-chartjs-2';
import { indexShow, type Show, type Song } from '../../../core/show';
import type { Verdict } from '../../../core/simulate';
import type { Run } from '../../state/proofs';
import { desk, font, unitColour } from '../../theme/tokens';
import { offsetText } from '../../features/runSum';
import { cueName, placeOf } from './runFacts';
import { Figure, usePaint, type Paint } from './chartFigure';
import type { Micros } from '../../../core/time';

ChartJs.register(
  BarController,
  BarElement,
  CategoryScale,
  Legend,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
  ScatterController,
  Tooltip,
);

ChartJs.defaults.font.family = font.text;

ChartJs.defaults.font.size = 12;

ChartJs.defaults.animation = false;

const POINTS = ['circle', 'rectRot', 'triangle', 'rect', 'star', 'crossRot', 'cross', 'rectRounded'] as const;

const DASHES = [[], [7, 4], [2, 3], [9, 3, 2, 3]] as const;

interface SongProps {
  readonly show: Show;
  readonly song: Song;
  readonly run: Run;
}

/** Seconds of a song along the bottom, named by their bars. */
const barAxis = (song: Song, end: Micros, paint: Paint) => ({
  min: 0,
  max: Math.ceil(end / 1e6),
  grid: { color: paint(desk.line) },
  ticks: {
    color: paint(desk.inkSoft),
    maxTicksLimit: 8,
    callback: (second: number | string) => placeOf(song, Number(second) * 1e6).split('|')[0]!,
  },
  title: { display: true, text: 'bar', color: paint(desk.inkSoft) },
});

/** What landed, unit by unit. */
const seriesOf = (show: Show, { picture }: Run) =>
  show.units.flatMap((unit, index) => {
    const own = picture.landings.filter((v) => v.unitId === unit.id && v.offset !== null);
    return own.length === 0 ? [] : [{ unit, index, own }];
  });

/** How far from its beat each change landed. */
export function LatenessChart({ show, song, run, onChoose }: SongProps & { readonly onChoose: (v: Verdict) => void }) {
  const paint = usePaint();
  const series = useMemo(() => seriesOf(show, run), [show, run]);
  const late = run.picture.landings.filter((v) => v.outcome === 'late').length;
  const data = useMemo(
    () => ({
      datasets: series.map(({ unit, index, own }) => ({
        label: unit.monogram,
        data: own.map((v) => ({ x: v.due / 1e6, y: v.offset! / 1000 })),
        pointStyle: POINTS[index % POINTS.length]!,
        pointRadius: own.map((v) => (v.outcome === 'on-time' ? 4.5 : 7)),
        backgroundColor: own.map((v) => paint(v.outcome === 'on-time' ? unitColour(index) : desk.rust)),
        borderColor: own.map((v) => paint(v.outcome === 'on-time' ? unitColour(index) : desk.rust)),
      })),
    }),
    [series, paint],
  );
  const grid = { color: paint(desk.line) };
  const options: ChartOptions<'scatter'> = {
    maintainAspectRatio: false,
    color: paint(desk.inkSoft),
    onClick: (_, [hit]) => {
      const chosen = hit && series[hit.datasetIndex]?.own[hit.index];
      if (chosen) onChoose(chosen);
    },
    scales: {
      x: barAxis(song, run.picture.end, paint),
      y: { grid, grace: '12%', ticks: { color: paint(desk.inkSoft), callback: (v) => `${v} ms` } },
    },
    plugins: {
      legend: { position: 'right', labels: { usePointStyle: true, boxHeight: 8, padding: 7, color: paint(desk.ink) } },
      tooltip: {
        callbacks: {
          label: ({ datasetIndex, dataIndex }) => {
            const v = series[datasetIndex]!.own[dataIndex]!;
            return `${placeOf(song, v.due)} ${cueName(show, song, v.cueId)}: ${offsetText(v)}`;
          },
        },
      },
    },
  };
  return (
    <Figure>
      <figcaption>From the beat</figcaption>
      <div>
        <Scatter
          data={data}
          options={options}
          role="img"
          aria-label={`How far each change landed from its beat: ${late === 0 ? 'none is late' : `${late} late`}`}
        />
      </div>
    </Figure>
  );
}

/** How busy each 5-pin cable was, second by second. */
export function LoadChart({ show, song, run }: SongProps) {
  const { load, end } = run.picture;
  const paint = usePaint();
  const data = useMemo(
    () => ({
      datasets: load.map(({ portId, seconds }, i) => ({
        label: indexShow(show).ports.get(portId)?.name ?? portId,
        data: seconds.map((share, x) => ({ x, y: Math.round(share * 1000) / 10 })),
        borderColor: paint(unitColour(i)),
        backgroundColor: paint(unitColour(i)),
        borderDash: [...DASHES[i % DASHES.length]!],
        borderWidth: 2,
        pointRadius: 0,
        stepped: 'before' as const,
      })),
    }),
    [load, show, paint],
  );
  const grid = { color: paint(desk.line) };
  const most = Math.max(0, ...load.flatMap((l) => l.seconds));
  const options: ChartOptions<'line'> = {
    maintainAspectRatio: false,
    color: paint(desk.inkSoft),
    parsing: false,
    scales: {
      x: { type: 'linear', ...barAxis(song, end, paint) },
      y: { min: 0, suggestedMax: 50, grid, ticks: { color: paint(desk.inkSoft), callback: (v) => `${v} %` } },
    },
    plugins: {
      legend: {
        position: 'top',
        align: 'end',
        labels: { boxHeight: 1, boxWidth: 26, padding: 8, color: paint(desk.ink) },
      },
    },
  };
  return (
    <Figure>
      <figcaption>Load of the cables</figcaption>
      <div>
        <Line
          data={data}
          options={options}
          role="img"
          aria-label={`How busy each cable is: at most ${Math.round(most * 100)} % of a second`}
        />
      </div>
    </Figure>
  );
}
