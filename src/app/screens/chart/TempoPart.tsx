import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import {
  addTempo,
  putTempo,
  removeTempo,
  songTime,
  structureEdit,
  type Song,
  RANGES,
  figureIn,
  rangeWords,
  type Show,
} from '../../../core/show';
import { barStart, formatPosition, tapTempo, type Ticks } from '../../../core/time';
import { Button, SignButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { newId, perform } from '../../state/desk';
import { Row } from './panelParts';
import { take, type FrameProps } from './frameParts';

const BEATS = [
  { id: '1', name: '♩ quarter' },
  { id: '1.5', name: '♩. dotted' },
  { id: '0.5', name: '♪ eighth' },
  { id: '2', name: 'half' },
];

export function TempoPart({ show, song, at }: FrameProps & { readonly at: Ticks }) {
  const { bars } = songTime(song);
  const [taps, setTaps] = useState<readonly number[]>([]);
  const active = song.tempo.findLast((m) => m.at <= at) ?? song.tempo[0]!;
  const put = (mark: Song['tempo'][number], label: string): void => {
    perform(putTempo(show, song.id, mark), label);
  };
  /** A ramp from the last tempo: to the caret, or where that stands before it, to the last bar. */
  const rampOn = (mark: Song['tempo'][number], text: string): string | null => {
    const rampTo = figureIn(RANGES.bpm, text);
    if (rampTo === undefined) return rangeWords(RANGES.bpm);
    const to = at > mark.at ? at : barStart(bars, song.bars);
    if (to <= mark.at) return 'a longer song';
    perform(structureEdit(show, song.id, { does: 'tempo', ...mark, rampTo, until: to }, newId), 'add a ramp');
    return null;
  };
  const tap = (): void => {
    const next = [...taps, performance.now()].slice(-16);
    setTaps(next);
    const bpm = tapTempo(next);
    if (bpm !== undefined && bpm >= RANGES.bpm[0] && bpm <= RANGES.bpm[1])
      put({ ...active, bpm: Math.round(bpm * 10) / 10 }, 'tap the tempo');
  };
  return (
    <>
      <h3>Tempo</h3>
      {song.tempo.map((mark, i) => {
        const place = formatPosition(bars, mark.at, song.bars);
        return (
          <TempoMark
            key={mark.at}
            place={place}
            mark={mark}
            put={put}
            index={i}
            show={show}
            song={song}
            rampOn={rampOn}
          />
        );
      })}
      <Row>
        <Button
          isDisabled={song.tempo.some((m) => m.at === at)}
          onPress={() => perform(addTempo(show, song.id, at), 'add a tempo')}
        >
          <Plus size={14} aria-hidden /> Tempo at {formatPosition(bars, at, song.bars)}
        </Button>
        <Button onPress={tap}>Tap</Button>
        {taps.length > 1 && <Soft role="status">{Math.round(active.bpm * 10) / 10}</Soft>}
      </Row>
    </>
  );
}

interface TempoMarkProps {
  readonly place: string;
  readonly mark: Song['tempo'][number];
  readonly put: (mark: Song['tempo'][number], label: string) => void;
  readonly index: number;
  readonly show: Show;
  readonly song: Song;
  readonly rampOn: (mark: Song['tempo'][number], text: string) => string | null;
}

/** A tempo mark: its beat, how fast, and where it ramps to. */
function TempoMark({ place, mark, put, index, show, song, rampOn }: TempoMarkProps) {
  return (
    <div role="group" aria-label={`Tempo at ${place}`}>
      <Row style={{ flexWrap: 'nowrap', marginTop: 8 }}>
        <span style={{ flex: 1, lineHeight: '34px', fontWeight: 700 }}>{place}</span>
        <Pick
          label="Beat"
          width="140px"
          value={String(mark.beat)}
          choices={
            BEATS.some((b) => b.id === String(mark.beat))
              ? BEATS
              : [...BEATS, { id: String(mark.beat), name: `${mark.beat} quarters` }]
          }
          onPick={(id) => put({ ...mark, beat: Number(id) }, 'change the beat of a tempo')}
        />
        {index > 0 && (
          <SignButton
            aria-label={`Remove the tempo at ${place}`}
            onPress={() => perform(removeTempo(show, song.id, mark.at), 'remove a tempo')}
          >
            <Trash2 size={15} />
          </SignButton>
        )}
      </Row>
      <TempoFigures mark={mark} show={show} song={song} index={index} rampOn={rampOn} />
    </div>
  );
}

interface TempoFiguresProps {
  readonly mark: Song['tempo'][number];
  readonly show: Show;
  readonly song: Song;
  readonly index: number;
  readonly rampOn: (mark: Song['tempo'][number], text: string) => string | null;
}

/** How fast, and the tempo that is come to by the next mark. */
function TempoFigures({ mark, show, song, index, rampOn }: TempoFiguresProps) {
  return (
    <Row style={{ flexWrap: 'nowrap', marginTop: 6 }}>
      <DraftField
        label="BPM"
        style={{ flex: 1 }}
        value={String(Math.round(mark.bpm * 1000) / 1000)}
        numeric
        commit={(text) => {
          const bpm = figureIn(RANGES.bpm, text);
          if (bpm === undefined) return rangeWords(RANGES.bpm);
          return take(putTempo(show, song.id, { ...mark, bpm }), 'change the tempo', 'another tempo');
        }}
      />
      {index === song.tempo.length - 1 ? (
        <DraftField
          label="Ramp to"
          value=""
          placeholder="none"
          numeric
          style={{ flex: 1 }}
          commit={(text) => (text.trim() === '' ? null : rampOn(mark, text))}
        />
      ) : (
        <DraftField
          label="Ramp to"
          value={mark.rampTo === null ? '' : String(Math.round(mark.rampTo * 1000) / 1000)}
          placeholder="step"
          numeric
          style={{ flex: 1 }}
          commit={(text) => {
            const rampTo = text.trim() === '' ? null : figureIn(RANGES.bpm, text);
            if (rampTo === undefined) return rangeWords(RANGES.bpm);
            return take(putTempo(show, song.id, { ...mark, rampTo }), 'change a ramp', 'another tempo');
          }}
        />
      )}
    </Row>
  );
}
