import { Volume1 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import {
  RANGES,
  figureIn,
  indexShow,
  rangeWords,
  setLevel,
  songsOfSet,
  sourcesOf,
  type Levels,
  type Song,
} from '../../../core/show';
import { PrintButton } from '../../features/PrintButton';
import { Button, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { NearRows } from '../../widgets/NearRows';
import { PlainTable } from '../../widgets/plainTable';
import { liveContext } from '../../adapters/audio';
import { perform } from '../../state/desk';
import { wakeSound } from '../../state/heard';
import { liveMixer, setDelay, setRoutes, useMix, type Routes } from '../../state/mix';
import { useShow } from '../../state/store';
import { EarMixes } from './EarMixes';
import { SourceCard } from './SourceCard';
import { Row, routesOf } from './mixParts';

const Page = styled.div`
  display: grid;
  gap: 22px;
  align-content: start;
  grid-auto-rows: max-content;
  overflow: auto;
  height: 100%;
  padding: 16px 24px 30px;
  & h2 {
    font-size: 19px;
  }
`;

const Outs = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(208px, 1fr));
  gap: 14px;
`;

const LEVELS = ['click', 'calls', 'backing', 'guide'] as const satisfies readonly (keyof Levels)[];
const LEVEL_NAMES: Readonly<Record<keyof Levels, string>> = {
  click: 'Click',
  calls: 'Calls',
  backing: 'Backing',
  guide: 'Guide',
};

/** Two channels: what only the ears want on the left, what the house gets on the right. */
const SPLIT: Routes = { click: [0], calls: [0], backing: [1], guide: [0], samples: [1] };

/** Pixels of a song's row. */
const ROW_HEIGHT = 49;

/** What goes to which output and to whose ears, how loud in each song, and how loud just now. */
export function MixPart() {
  const show = useShow();
  const { delay } = useMix();
  const outputs = liveMixer()?.outputs ?? 2;
  const choices = routesOf(outputs);
  const sources = sourcesOf(show);
  const all = (routes: Routes): void => {
    const stems = routes === SPLIT ? Object.fromEntries(show.stems.map((s) => [s.id, SPLIT['backing']!])) : {};
    setRoutes({ ...routes, ...stems });
  };
  return (
    <Page>
      <Row>
        <h2 style={{ marginRight: 'auto' }}>Outputs and levels now</h2>
        <Button onPress={() => all({})}>Everything left and right</Button>
        <Button onPress={() => all(SPLIT)}>Click left, backing right</Button>
      </Row>
      <Outs>
        {sources.map((source) => (
          <SourceCard key={source.id} source={source} choices={choices} />
        ))}
      </Outs>
      <Row>
        <Soft style={{ flex: '1 1 300px' }}>
          Sliders and switches hold until the next song, which begins as it is programmed. Outputs belong to this
          computer. A recording gets a way of its own by a stem: name it at the recording, on the chart.
        </Soft>
        <Delay delay={delay} />
      </Row>
      <TryOutputs outputs={outputs} />
      <EarMixes choices={choices} />
      <Row>
        <h2 style={{ marginRight: 'auto' }}>Levels of each song (dB)</h2>
        <PrintButton>Print the mix sheet</PrintButton>
      </Row>
      <PlainTable aria-label="Mix sheet">
        <thead>
          <tr>
            <th scope="col">Song</th>
            {LEVELS.map((l) => (
              <th key={l} scope="col" style={{ width: 110 }}>
                {LEVEL_NAMES[l]}
              </th>
            ))}
            <th scope="col">What is in it</th>
          </tr>
        </thead>
        <NearRows rows={songsOfSet(show)} columns={LEVELS.length + 2} height={ROW_HEIGHT}>
          {(song, i) => <SongRow key={`${song.id} ${i}`} song={song} />}
        </NearRows>
      </PlainTable>
    </Page>
  );
}

/** Each output of the sound card with a tone: where it comes out. */
function TryOutputs({ outputs }: { readonly outputs: number }) {
  const [played, setPlayed] = useState<number | null>(null);
  return (
    <Row role="group" aria-label="Try the outputs">
      <Soft>
        The browser offers {outputs === 1 ? '1 output' : `${outputs} outputs`} of the sound card. A tone on each alone:
      </Soft>
      {Array.from({ length: outputs }, (_, i) => (
        <Button
          key={i}
          aria-label={`Tone on output ${i + 1}`}
          onPress={() => {
            wakeSound();
            liveMixer()?.tone(i);
            setPlayed(i);
          }}
        >
          <Volume1 size={16} aria-hidden /> {i + 1}
        </Button>
      ))}
      {played !== null && <Soft role="status">A tone was sent to output {played + 1}.</Soft>}
    </Row>
  );
}

function SongRow({ song }: { readonly song: Song }) {
  const show = useShow();
  const { players } = indexShow(show);
  const calls = song.sections.filter((s) => s.call).length;
  const names = song.tracks.map((t) => {
    const name = show.audio.find((a) => a.id === t.audioId)?.name ?? 'a recording';
    return t.role === 'part'
      ? `${name} (${t.playerId === null ? 'a part' : `for ${players.get(t.playerId)?.name ?? ''}`})`
      : `${name} (${t.role})`;
  });
  const contents = [
    song.click.on ? 'click' : '',
    song.announce ? 'announced' : '',
    calls > 0 ? (calls === 1 ? '1 call' : `${calls} calls`) : '',
    ...names,
  ].filter((t) => t !== '');
  return (
    <tr>
      <th scope="row">{song.title}</th>
      {LEVELS.map((source) => (
        <td key={source}>
          <DraftField
            label={`${LEVEL_NAMES[source]} in ${song.title}`}
            hideLabel
            numeric
            value={String(song.levels[source])}
            commit={(text) => {
              const gain = figureIn(RANGES.gain, text);
              if (gain === undefined) return rangeWords(RANGES.gain);
              perform(setLevel(show, song.id, source, gain), `change the ${source} of ${song.title}`);
              return null;
            }}
          />
        </td>
      ))}
      <td>{contents.length === 0 ? <Soft>nothing is heard</Soft> : contents.join(', ')}</td>
    </tr>
  );
}

/** How much later sound is in the ears than the messages: what the browser measures is reckoned with already. */
function Delay({ delay }: { readonly delay: number }) {
  const context = liveContext();
  const measured = context && Math.round((context.outputLatency + context.baseLatency) * 1000);
  return (
    <Row>
      <Soft style={{ fontSize: 13, maxWidth: 330 }}>
        {measured === null
          ? 'The browser has no sound here.'
          : `The browser measures ${measured} ms until sound leaves this computer, and takes it off. What comes after that, in a desk or wireless ears:`}
      </Soft>
      <DraftField
        label="Further delay (ms)"
        numeric
        style={{ width: 120 }}
        value={String(delay)}
        commit={(text) => {
          const typed = figureIn(RANGES.delayMillis, text);
          if (typed === undefined) return rangeWords(RANGES.delayMillis);
          setDelay(typed);
          return null;
        }}
      />
    </Row>
  );
}
