import { Play, Square, Trash2 } from 'lucide-react';
import { useState, type PointerEvent } from 'react';
import styled from 'styled-components';
import { layBars, songTime, type Show, type Song, type Track, type Edit } from '../../../core/show';
import { PEAKS_PER_SECOND, beatAt, numberTaps, steadyBeats, tapsOff, type Tap } from '../../../core/sound';
import { barAt } from '../../../core/time';
import { Check } from '../../widgets/Check';
import { Choices } from '../../widgets/Choices';
import { Button, FormProblem, MainButton, SignButton, Soft } from '../../widgets/controls';
import { DialogButton } from '../../widgets/DialogButton';
import { Last, Rows } from '../../widgets/dialogParts';
import { DraftField } from '../../widgets/DraftField';
import { perform } from '../../state/desk';
import { useSounds } from '../../state/sound';
import { desk, font } from '../../theme/tokens';
import { useTapping, type Tapping } from './useTapping';

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly track: Track;
  readonly name: string;
  /** Seconds that the recording plays. */
  readonly length: number;
}

/** Lays the bars of the song onto a recording that is there: where bar 1 is, and the tempo, by tapping along. */
export const LayBars = (props: Props) => (
  <DialogButton
    face="Lay bars onto it"
    label={`Lay bars onto ${props.name}`}
    title={`Bars onto ${props.name}`}
    width={720}
  >
    {(close) => <LayForm {...props} close={close} />}
  </DialogButton>
);

const TapKey = styled(Button)`
  min-height: 64px;
  min-width: 150px;
  font: 700 20px/1 ${font.display};
`;

const Taps = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(196px, 1fr));
  gap: 2px 14px;
  max-height: 150px;
  overflow: auto;
`;

const bars = (count: number): string => (count === 1 ? '1 bar' : `${count} bars`);
const tenth = (millis: number): string => `${millis > 0 ? '+' : ''}${Math.round(millis)} ms`;

/** What of the metre the taps mean, and what comes of them. */
function laidBy(song: Song, times: readonly number[], first: number | null, follows: boolean) {
  const taps = numberTaps(times);
  const steady = steadyBeats(taps);
  const where = (beat: number): number | null =>
    follows ? beatAt(taps, beat) : steady && steady.first + steady.length * beat;
  const begins = first ?? where(0) ?? times[0] ?? 0;
  const map = songTime(song).bars;
  const last = taps.at(-1)?.beat ?? 0;
  const starts: number[] = [];
  if (follows && taps.length > 1) {
    let beat = 0;
    for (let n = 1; beat <= last; n++) {
      starts.push(n === 1 ? begins : where(beat)!);
      beat += barAt(map, n).beats;
    }
    // The last bar that was tapped into has an end.
    starts.push(where(beat)!);
  }
  return { taps, steady, where, begins, starts };
}

function LayForm({ show, song, track, length, close }: Props & { readonly close: () => void }) {
  const peaks = useSounds((s) => s.peaks[track.audioId]);
  const tapping = useTapping(show.id, track.audioId);
  const { times } = tapping;
  const [first, setFirst] = useState<number | null>(null);
  const [follows, setFollows] = useState(false);
  const [fits, setFits] = useState(true);
  const { taps, steady, where, begins, starts } = laidBy(song, times, first, follows);
  const off = tapsOff(taps, where);
  const tapped = taps.length > 1;
  const beat = tapped && !follows ? steady!.length : null;
  const time = songTime(song);
  const bar1 = barAt(time.bars, 1);
  const barSeconds = tapped
    ? follows
      ? (starts.at(-1)! - starts[0]!) / (starts.length - 1)
      : beat! * bar1.beats
    : (bar1.length / 960) * (60 / (song.tempo[0]!.bpm * song.tempo[0]!.beat));
  const barsInIt = Math.max(1, Math.floor((length - begins) / barSeconds + 0.05));
  const edit = layBars(
    show,
    song.id,
    track.id,
    { first: begins, beat, bars: tapped && follows ? starts : [] },
    fits ? barsInIt : null,
  );
  const worst = off.reduce((most, o) => Math.max(most, Math.abs(o)), 0);
  return (
    <Rows>
      <TapWave peaks={peaks} length={length} taps={times} first={begins} now={tapping.now} onPick={setFirst} />
      <TapTools tapping={tapping} begins={begins} length={length} setFirst={setFirst} times={times} />
      {tapping.trouble !== null && <FormProblem>{tapping.trouble}</FormProblem>}
      <Soft>
        Play it and tap along, with the button or its Space key: the first tap is the first beat of bar 1. Or press on
        the picture where bar 1 is, and keep the tempo.
      </Soft>
      {taps.length > 0 && (
        <TapList taps={taps} length={length} tapping={tapping} times={times} tapped={tapped} off={off} />
      )}
      {tapped && <TempoChoice follows={follows} setFollows={setFollows} />}
      <p role="status" aria-label="What comes of it">
        {tapped
          ? `${follows ? `${bars(starts.length - 1)} with tempos of their own` : `${(60 / beat!).toFixed(2)} beats a minute`}, taps off by up to ${Math.round(worst * 1000)} ms. `
          : 'The tempo stays. '}
        Behind bar 1 the recording has {bars(barsInIt)}; the song has {bars(song.bars)}.
      </p>
      {tapped && !edit && (
        <FormProblem>A song has 20 to 400 quarter notes a minute: correct the taps, or tap anew.</FormProblem>
      )}
      <Check isSelected={fits} onChange={setFits}>
        As many bars as the recording has
      </Check>
      <Decision close={close} edit={edit} />
    </Rows>
  );
}

interface TempoChoiceProps {
  readonly follows: boolean;
  readonly setFollows: (value: boolean) => void;
}

/** One tempo for all, or one that follows the taps. */
function TempoChoice({ follows, setFollows }: TempoChoiceProps) {
  return (
    <Choices
      label="Tempo"
      value={follows ? 'follow' : 'steady'}
      choices={[
        { id: 'steady', name: 'one tempo', about: 'For what was played to a click.' },
        {
          id: 'follow',
          name: 'follow the player',
          about: 'A tempo for each bar, smoothed over the taps around it.',
        },
      ]}
      onPick={(id) => setFollows(id === 'follow')}
    />
  );
}

interface TapListProps {
  readonly taps: readonly Tap[];
  readonly length: number;
  readonly tapping: Tapping;
  readonly times: readonly number[];
  readonly tapped: boolean;
  readonly off: readonly number[];
}

/** All taps, in their order. */
function TapList({ taps, length, tapping, times, tapped, off }: TapListProps) {
  return (
    <Taps aria-label="Taps" role="list">
      {taps.map((tap, i) => (
        <TapItem
          key={tap.beat}
          tap={tap}
          index={i}
          length={length}
          tapping={tapping}
          times={times}
          tapped={tapped}
          off={off}
        />
      ))}
    </Taps>
  );
}

interface DecisionProps {
  readonly close: () => void;
  readonly edit: Edit | null;
}

/** Lays the bars, or leaves them. */
function Decision({ close, edit }: DecisionProps) {
  return (
    <Last>
      <Button onPress={close}>Cancel</Button>
      <MainButton
        isDisabled={!edit}
        onPress={() => {
          if (perform(edit, 'lay bars onto a recording')) close();
        }}
      >
        Lay the bars
      </MainButton>
    </Last>
  );
}

interface TapToolsProps {
  readonly tapping: Tapping;
  readonly begins: number;
  readonly length: number;
  readonly setFirst: (value: number | null) => void;
  readonly times: readonly number[];
}

/** Taps along the recording, plays it, and takes times that are typed. */
function TapTools({ tapping, begins, length, setFirst, times }: TapToolsProps) {
  return (
    <div style={{ display: 'flex', flexWrap: 'wrap', alignItems: 'end', gap: 10 }}>
      <Button onPress={() => (tapping.plays ? tapping.stop() : void tapping.play(0))}>
        {tapping.plays ? <Square size={15} aria-hidden /> : <Play size={15} aria-hidden />}
        {tapping.plays ? 'Stop' : 'Play it'}
      </Button>
      <TapKey isDisabled={!tapping.plays} onPressStart={() => tapping.tap()}>
        Tap the beat
      </TapKey>
      <DraftField
        label="Bar 1 is at (s)"
        numeric
        style={{ width: 110 }}
        value={begins.toFixed(3)}
        commit={(text) => {
          const seconds = Number(text.replace(',', '.'));
          if (!(seconds >= 0 && seconds < length)) return `0 to ${length.toFixed(1)}`;
          setFirst(seconds);
          return null;
        }}
      />
      <DraftField
        label="Another tap (s)"
        numeric
        style={{ width: 110 }}
        value=""
        commit={(text) => {
          const seconds = text.trim() === '' ? null : Number(text.replace(',', '.'));
          if (seconds === null) return null;
          if (!(seconds >= 0 && seconds < length)) return `0 to ${length.toFixed(1)}`;
          tapping.set([...times, seconds]);
          return null;
        }}
      />
      <Button isDisabled={times.length === 0} onPress={() => tapping.set([])}>
        Tap anew
      </Button>
    </div>
  );
}

interface TapItemProps {
  readonly tap: Tap;
  readonly index: number;
  readonly length: number;
  readonly tapping: Tapping;
  readonly times: readonly number[];
  readonly tapped: boolean;
  readonly off: readonly number[];
}

/** A tap: its time, corrected or taken out. */
function TapItem({ tap, index, length, tapping, times, tapped, off }: TapItemProps) {
  return (
    <span role="listitem" style={{ display: 'flex', alignItems: 'center', gap: 6 }}>
      <b style={{ width: 34, textAlign: 'right' }}>{tap.beat + 1}</b>
      <DraftField
        label={`Tap ${index + 1}, in seconds`}
        hideLabel
        numeric
        style={{ width: 82 }}
        value={tap.at.toFixed(3)}
        commit={(text) => {
          const seconds = Number(text.replace(',', '.'));
          if (!(seconds >= 0 && seconds < length)) return 'seconds';
          tapping.set(times.map((t) => (t === tap.at ? seconds : t)));
          return null;
        }}
      />
      <Soft style={{ width: 58 }}>{tapped ? tenth(off[index]! * 1000) : ''}</Soft>
      <SignButton aria-label={`Remove tap ${index + 1}`} onPress={() => tapping.set(times.filter((t) => t !== tap.at))}>
        <Trash2 size={14} />
      </SignButton>
    </span>
  );
}

const WIDTH = 640;
const HEIGHT = 92;

interface WaveProps {
  readonly peaks: Uint8Array | undefined;
  readonly length: number;
  readonly taps: readonly number[];
  readonly first: number;
  readonly now: number | null;
  readonly onPick: (seconds: number) => void;
}

/** The recording's picture, with where bar 1 is, the taps, and where it plays. Bar 1 is where it is pressed, and slides along with the pointer. */
function TapWave({ peaks, length, taps, first, now, onPick }: WaveProps) {
  const xOf = (seconds: number): number => (seconds / length) * WIDTH;
  const pick = (event: PointerEvent<SVGSVGElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    onPick(Math.min(length, Math.max(0, ((event.clientX - box.left) / box.width) * length)));
  };
  const columns = Array.from({ length: WIDTH / 2 }, (_, i) => {
    const from = Math.floor(((i * 2) / WIDTH) * length * PEAKS_PER_SECOND);
    const to = Math.max(from + 1, Math.floor((((i + 1) * 2) / WIDTH) * length * PEAKS_PER_SECOND));
    let high = 0;
    for (const loud of peaks?.subarray(from, to) ?? []) high = Math.max(high, loud);
    return Math.max(0.6, (high / 255) * (HEIGHT / 2 - 4));
  });
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`The recording; bar 1 at ${first.toFixed(3)} s`}
      style={{
        width: '100%',
        border: `1.5px solid ${desk.ink}`,
        borderRadius: '3px 12px 3px 12px',
        cursor: 'ew-resize',
        touchAction: 'none',
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        pick(event);
      }}
      onPointerMove={(event) => event.currentTarget.hasPointerCapture(event.pointerId) && pick(event)}
    >
      <path
        d={columns.map((h, i) => `M${i * 2 + 1} ${HEIGHT / 2 - h}V${HEIGHT / 2 + h}`).join('')}
        stroke={desk.lineStrong}
        strokeWidth={1.4}
      />
      {taps.map((t) => (
        <path key={t} d={`M${xOf(t)} 0V12`} stroke={desk.tide} strokeWidth={2} />
      ))}
      <path d={`M${xOf(first)} 0V${HEIGHT}`} stroke={desk.lampDeep} strokeWidth={3} />
      {now !== null && <path d={`M${xOf(now)} 0V${HEIGHT}`} stroke={desk.ink} strokeWidth={1.5} />}
    </svg>
  );
}
