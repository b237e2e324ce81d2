import { Slider, SliderOutput, SliderThumb, SliderTrack } from 'react-aria-components';
import styled from 'styled-components';
import { SOURCES, type Source } from '../../../core/sound';
import {
  RANGES,
  figureIn,
  indexShow,
  rangeWords,
  setLevel,
  songsOfSet,
  type Levels,
  type Song,
} from '../../../core/show';
import { PrintButton } from '../../components/PrintButton';
import { Button, Soft } from '../../components/controls';
import { DraftField } from '../../components/DraftField';
import { Pick } from '../../components/Pick';
import { NearRows } from '../../components/NearRows';
import { PlainTable } from '../../components/plainTable';
import { liveContext } from '../../adapters/audio';
import { ALL_BOTH, BOTH, type Route, type Routes } from '../../adapters/mixer';
import { perform } from '../../state/desk';
import { liveMixer, setDelay, setRoutes, setTrim, useMix } from '../../state/mix';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';

const Page = styled.div`
  display: grid;
  gap: 22px;
  align-content: start;
  overflow: auto;
  height: 100%;
  padding: 16px 24px 30px;
  & h2 {
    font-size: 19px;
  }
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 12px;
`;

const Outs = styled.div`
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 1fr));
  gap: 14px;
`;

const Out = styled.div`
  display: grid;
  gap: 10px;
  padding: 12px;
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.sheet};
  & > b {
    font: 700 16px/1.2 ${font.display};
  }
`;

const Trim = styled(Slider)`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 52px;
  align-items: center;
  gap: 10px;
  height: 26px;
`;

const Track = styled(SliderTrack)`
  position: relative;
  height: 4px;
  border-radius: 2px;
  background: ${desk.lineStrong};
`;

const Thumb = styled(SliderThumb)`
  top: 2px;
  width: 14px;
  height: 24px;
  border: 1.5px solid ${desk.ink};
  border-radius: 3px 7px 3px 7px;
  background: ${desk.lamp};
  &[data-focus-visible] {
    outline: 3px solid ${desk.tide};
  }
`;

const NAMES: Readonly<Record<Source, string>> = {
  click: 'Click',
  calls: 'Calls',
  backing: 'Backing',
  guide: 'Guide',
  samples: 'Samples',
};
const LEVELS = ['click', 'calls', 'backing', 'guide'] as const satisfies readonly (keyof Levels)[];

/** Two channels: what only the ears want on the left, what the house gets on the right. */
const SPLIT: Routes = { click: [0], calls: [0], backing: [1], guide: [0], samples: [1] };

const keyOf = (route: Route): string => route.join();

function routesOf(outputs: number): readonly { readonly id: string; readonly name: string; readonly route: Route }[] {
  const pairs = Array.from({ length: Math.floor(outputs / 2) }, (_, i): Route => [2 * i, 2 * i + 1]);
  const singles = Array.from({ length: outputs }, (_, i): Route => [i]);
  const name = (route: Route): string => {
    if (outputs <= 2) return route.length === 2 ? 'left and right' : route[0] === 0 ? 'left' : 'right';
    return route.length === 2 ? `outputs ${route[0]! + 1} and ${route[1]! + 1}` : `output ${route[0]! + 1}`;
  };
  const all: readonly Route[] = [...(pairs.length > 0 ? pairs : [BOTH]), ...singles, []];
  return all.map((route) => ({ id: keyOf(route), name: route.length === 0 ? 'nowhere' : name(route), route }));
}

/** Pixels of a song's row. */
const ROW_HEIGHT = 49;

/** What goes to which output, how loud in each song, and how loud just now. */
export function MixPart() {
  const show = useShow();
  const { routes, delay, trims } = useMix();
  const outputs = liveMixer()?.outputs ?? 2;
  const choices = routesOf(outputs);
  return (
    <Page>
      <Row>
        <h2 style={{ marginRight: 'auto' }}>Outputs and levels now</h2>
        <Button onPress={() => setRoutes(ALL_BOTH)}>Everything left and right</Button>
        <Button onPress={() => setRoutes(SPLIT)}>Click left, backing right</Button>
      </Row>
      <Outs>
        {SOURCES.map((source) => (
          <Out key={source} role="group" aria-label={NAMES[source]}>
            <b>{NAMES[source]}</b>
            <Pick
              label={`${NAMES[source]} goes to`}
              hideLabel
              value={keyOf(routes[source])}
              choices={
                choices.some((c) => c.id === keyOf(routes[source]))
                  ? choices
                  : [...choices, { id: keyOf(routes[source]), name: 'an output that is not there' }]
              }
              onPick={(id) => {
                const chosen = choices.find((c) => c.id === id);
                if (chosen) setRoutes({ ...routes, [source]: chosen.route });
              }}
            />
            <Trim
              aria-label={`${NAMES[source]} now, in dB`}
              minValue={-30}
              maxValue={12}
              value={trims[source]}
              onChange={(gain) => setTrim(source, Number(gain))}
            >
              <Track>
                <Thumb />
              </Track>
              <SliderOutput>{trims[source] > 0 ? `+${trims[source]}` : trims[source]} dB</SliderOutput>
            </Trim>
          </Out>
        ))}
      </Outs>
      <Row>
        <Soft style={{ flex: '1 1 300px' }}>
          The sliders hold until the next song, which begins as it is programmed. Outputs belong to this computer.
        </Soft>
        <Delay delay={delay} />
      </Row>
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
                {NAMES[l]}
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
            label={`${NAMES[source]} in ${song.title}`}
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
