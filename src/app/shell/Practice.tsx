import { Repeat } from 'lucide-react';
import {
  Button as AriaButton,
  Dialog,
  DialogTrigger,
  Group,
  Heading,
  NumberField,
  Popover,
} from 'react-aria-components';
import styled from 'styled-components';
import { SPEEDS, indexShow, sectionBars, songTime, type Song } from '../../core/show';
import { barAt, barOfTick, formatBar, parsePosition, type Ticks } from '../../core/time';
import { countInWords, millisWords, placeSentence } from '../../wording';
import { countIn, practiseLoop, practiseSpeed } from '../state/desk';
import { useNews } from '../state/news';
import { useRehearsal, useWay } from '../state/rehearsal';
import { useShow } from '../state/store';
import { desk, font } from '../theme/tokens';
import { Check } from '../widgets/Check';
import { Choices } from '../widgets/Choices';
import { Button, Input, Label, SignButton, Soft } from '../widgets/controls';
import { Pair, Rows } from '../widgets/dialogParts';
import { DraftField } from '../widgets/DraftField';
import { Pick } from '../widgets/Pick';

const Opener = styled(AriaButton)<{ $on: boolean }>`
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 2px;
  flex: none;
  min-width: 52px;
  min-height: 58px;
  margin-left: auto;
  padding: 2px 4px;
  border: 1.5px solid ${(p) => (p.$on ? desk.lamp : desk.nightLine)};
  border-radius: 4px 12px 4px 12px;
  background: ${(p) => (p.$on ? desk.nightRaised : 'transparent')};
  color: ${(p) => (p.$on ? desk.lamp : desk.nightSoft)};
  font: 700 13px/1.1 ${font.text};
  font-variant-numeric: tabular-nums;
  cursor: pointer;
  &[data-hovered] {
    background: ${desk.nightRaised};
    color: ${desk.nightText};
  }
`;

const Card = styled(Popover)`
  width: 340px;
  max-height: calc(100dvh - 120px);
  overflow: auto;
  padding: 16px 18px 18px;
  background: ${desk.sheet};
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 18px 4px 18px;
  box-shadow: 0 8px 22px rgb(19 38 45 / 22%);
  & h2 {
    margin: 0;
    font-size: 20px;
  }
`;

const Stepper = styled(Group)`
  display: flex;
  gap: 4px;
  /* The field within has a ring of its own. */
  outline: none;
  & input {
    min-width: 0;
    flex: 1;
  }
`;

/** Whether starts are counted in. */
function CountsIn({ bars }: { readonly bars: number }) {
  const on = useNews((s) => s.news.countsIn);
  return (
    <Check isSelected={on} onChange={(to) => void countIn(to)}>
      Count in: {countInWords(bars)}
    </Check>
  );
}

/** How a song is practised: a stretch again and again, slower or faster. Closed, it says what is on. */
export function Practice({ song }: { readonly song: Song }) {
  const { speed, loop } = useWay(song.id);
  const seam = useNews((s) => (loop ? s.news.seam[0] : undefined));
  const { bars } = songTime(song);
  const stretch = loop && stretchWords(song, loop);
  const percent = `${Math.round(speed * 100)} %`;
  return (
    <DialogTrigger>
      <Opener
        $on={loop !== null || speed !== 1}
        aria-label={[
          'Practice',
          stretch && `loop of bars ${stretch}`,
          seam && `each round begins ${millisWords(seam.late / 1000)} late`,
          speed !== 1 && percent,
        ]
          .filter(Boolean)
          .join(', ')}
      >
        {loop ? (
          <>
            <Repeat size={16} aria-hidden />
            <span>{stretch}</span>
            {seam && <Late>{millisWords(seam.late / 1000)} late</Late>}
          </>
        ) : (
          speed === 1 && (
            <>
              <Repeat size={18} aria-hidden />
              <span>Practice</span>
            </>
          )
        )}
        {speed !== 1 && <span>{percent}</span>}
      </Opener>
      <Card placement="top start">
        <Dialog aria-label="Practice">
          <Heading slot="title" level={2}>
            Practice
          </Heading>
          <Rows>
            <LoopFields
              song={song}
              first={loop && barOfTick(bars, loop.from).bar}
              last={loop && lastBar(song, loop.to)}
            />
            {seam && <SeamLine unitId={seam.unitId} late={seam.late} />}
            {song.click.countIn > 0 && <CountsIn bars={song.click.countIn} />}
            <SpeedField songId={song.id} speed={speed} hasRecordings={song.tracks.length > 0} />
          </Rows>
        </Dialog>
      </Card>
    </DialogTrigger>
  );
}

const Late = styled.span`
  color: ${desk.nightText};
  font-size: 12px;
`;

/** Where a loop comes round, a unit may be late, however early it is sent for: that is said. */
function SeamLine({ unitId, late }: { readonly unitId: string; readonly late: number }) {
  const { units } = indexShow(useShow());
  return (
    <p role="alert">
      Each round begins with {units.get(unitId)?.name ?? 'a unit'} {millisWords(late / 1000)} late: the end of the loop
      leaves it too little time to get back. End the loop later, or begin it elsewhere.
    </p>
  );
}

/** The bar that ends where a stretch does. */
const lastBar = (song: Song, to: Ticks): number => Math.min(song.bars, barOfTick(songTime(song).bars, to - 1).bar);

function stretchWords(song: Song, { from, to }: { readonly from: Ticks; readonly to: Ticks }): string {
  const { bars } = songTime(song);
  const [first, last] = [barOfTick(bars, from).bar, lastBar(song, to)];
  const words = (bar: number): string => formatBar(bars, bar, song.bars);
  return first === last ? words(first) : `${words(first)}–${words(last)}`;
}

const NO_LOOP = 'none';
const OWN_BARS = 'bars';

interface LoopProps {
  readonly song: Song;
  readonly first: number | null;
  readonly last: number | null;
}

function LoopFields({ song, first, last }: LoopProps) {
  const { bars } = songTime(song);
  const set = (from: number, until: number): void =>
    practiseLoop(song.id, { songId: song.id, from: barAt(bars, from).tick, to: barAt(bars, until + 1).tick });
  const stretches = song.sections.flatMap((s) => {
    const own = sectionBars(song, s.id);
    return own && own.count > 0
      ? [{ id: s.id, name: s.name || 'Section', first: own.first, last: own.first + own.count - 1 }]
      : [];
  });
  const words = (bar: number | null): string => (bar === null ? '' : formatBar(bars, bar, song.bars));
  const value =
    first === null ? NO_LOOP : (stretches.find((s) => s.first === first && s.last === last)?.id ?? OWN_BARS);
  /** Takes a bar as somebody typed it; gives what is wrong with it. */
  const bar = (text: string, put: (bar: number) => string | null): string | null => {
    const read = parsePosition(bars, text, song.bars);
    return read.ok ? put(Math.max(1, barOfTick(bars, read.ticks).bar)) : placeSentence(read.problem);
  };
  const between = (from: number, until: number): string | null => {
    if (from > until)
      return `Bar ${words(until)} lies before bar ${words(from)}: a loop ends at or behind the bar in which it begins.`;
    set(from, until);
    return null;
  };
  return (
    <>
      <Pick
        label="Loop"
        value={value}
        choices={[
          { id: NO_LOOP, name: 'none: play to the end' },
          ...stretches.map((s) => ({ id: s.id, name: `${s.name} (${words(s.first)}–${words(s.last)})` })),
          { id: OWN_BARS, name: 'bars of your own' },
        ]}
        onPick={(id) => {
          const stretch = stretches.find((s) => s.id === id);
          if (stretch) set(stretch.first, stretch.last);
          else if (id === NO_LOOP) practiseLoop(song.id, null);
          else set(first ?? 1, last ?? Math.min(4, song.bars));
        }}
      />
      {first !== null && last !== null && (
        <Pair>
          <DraftField label="From bar" value={words(first)} commit={(text) => bar(text, (b) => between(b, last))} />
          <DraftField
            label="To the end of bar"
            value={words(last)}
            commit={(text) => bar(text, (b) => between(first, b))}
          />
        </Pair>
      )}
      {first !== null && <Soft>At its end the rig is brought back, so that every round begins like the first.</Soft>}
    </>
  );
}

interface SpeedProps {
  readonly songId: string;
  readonly speed: number;
  readonly hasRecordings: boolean;
}

function SpeedField({ songId, speed, hasRecordings }: SpeedProps) {
  const recordings = useRehearsal((s) => s.recordings);
  return (
    <>
      <Pair>
        <NumberField
          value={speed}
          onChange={(to) => Number.isFinite(to) && practiseSpeed(songId, to)}
          minValue={SPEEDS.low}
          maxValue={SPEEDS.high}
          step={0.05}
          formatOptions={{ style: 'percent' }}
        >
          <Label>Speed (% of what is written)</Label>
          <Stepper>
            <SignButton slot="decrement">−</SignButton>
            <Input />
            <SignButton slot="increment">+</SignButton>
          </Stepper>
        </NumberField>
        <Button onPress={() => practiseSpeed(songId, 1)} style={{ flex: 'none' }}>
          As written
        </Button>
      </Pair>
      {speed !== 1 && hasRecordings && (
        <Choices
          label="Recordings"
          value={recordings}
          choices={[
            {
              id: 'pitch',
              name: 'at their own pitch',
              about: 'The browser stretches them; they may be a few hundredths of a second off.',
            },
            { id: 'silent', name: 'silent' },
          ]}
          onPick={(to) => useRehearsal.setState({ recordings: to })}
        />
      )}
    </>
  );
}
