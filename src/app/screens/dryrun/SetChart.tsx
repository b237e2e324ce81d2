import type { ChartOptions } from 'chart.js';
import { Bar } from 'react-chartjs-2';
import type { Song } from '../../../core/show';
import type { Run } from '../../state/proofs';
import { desk } from '../../theme/tokens';
import { sumOf } from '../../features/runSum';
import { Figure, usePaint, type Paint } from './chartFigure';

const optionsOf = (paint: Paint): ChartOptions<'bar'> => ({
  maintainAspectRatio: false,
  scales: {
    x: { grid: { display: false }, ticks: { color: paint(desk.ink) } },
    y: {
      beginAtZero: true,
      suggestedMax: 4,
      grid: { color: paint(desk.line) },
      ticks: { color: paint(desk.inkSoft), precision: 0 },
      title: { display: true, text: 'changes', color: paint(desk.inkSoft) },
    },
    load: {
      position: 'right',
      beginAtZero: true,
      suggestedMax: 50,
      grid: { display: false },
      ticks: { color: paint(desk.inkSoft), callback: (v) => `${v} %` },
    },
  },
  plugins: { legend: { align: 'end', labels: { boxWidth: 12, boxHeight: 12, color: paint(desk.ink) } } },
});

/** The worst change of each song of the set. */
export function SetChart({
  songs,
  runs,
}: {
  readonly songs: readonly Song[];
  readonly runs: Readonly<Record<string, Run>>;
}) {
  const paint = usePaint();
  const sums = songs.map((s) => (runs[s.id] ? sumOf(runs[s.id]!) : undefined));
  const busiest = songs.map((s) => Math.max(0, ...(runs[s.id]?.picture.load ?? []).flatMap((l) => l.seconds)) * 100);
  const data = {
    labels: songs.map((s) => s.title),
    datasets: [
      {
        label: 'not on their beat',
        data: sums.map((s) => s?.wrong ?? 0),
        backgroundColor: paint(desk.rust),
        yAxisID: 'y',
      },
      {
        label: 'busiest second of a cable',
        data: busiest,
        backgroundColor: paint(desk.tide),
        yAxisID: 'load',
      },
    ],
  };
  return (
    <Figure style={{ gridTemplateRows: 'auto 210px' }}>
      <figcaption>The set</figcaption>
      <div>
        <Bar
          data={data}
          options={optionsOf(paint)}
          role="img"
          aria-label={`Changes off their beat in each song: ${songs.map((s, i) => `${s.title} ${sums[i]?.wrong ?? 'not run'}`).join(', ')}`}
        />
      </div>
    </Figure>
  );
}
