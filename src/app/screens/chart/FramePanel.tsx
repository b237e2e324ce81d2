import { Plus, Trash2, X } from 'lucide-react';
import { useState } from 'react';
import {
  LIMITS,
  applyEdit,
  copySection,
  insertBars,
  moveSection,
  newSection,
  putMetre,
  putPrinted,
  putSection,
  putTempo,
  removeBars,
  removeMetre,
  removeSection,
  removeTempo,
  setPickup,
  setSongField,
  songTime,
  type Edit,
  type Show,
  type Song,
  RANGES,
  figureIn,
  rangeWords,
} from '../../../core/show';
import {
  TICKS_PER_QUARTER,
  barOfTick,
  barStart,
  formatBar,
  formatPosition,
  parsePosition,
  tapTempo,
  type Ticks,
} from '../../../core/time';
import { Check } from '../../components/Check';
import { Button, Field, Input, Label, SignButton, Soft } from '../../components/controls';
import { DraftField } from '../../components/DraftField';
import { Pick } from '../../components/Pick';
import { newId, perform } from '../../state/desk';
import { Panel, Row } from './panelParts';

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly at: Ticks;
  readonly onClose: () => void;
}

/** Takes an edit over, or says what was expected where it is none. */
const take = (edit: Edit | null, label: string, expected: string): string | null => {
  if (!edit) return expected;
  perform(edit, label);
  return null;
};

const BEATS = [
  { id: '1', name: '♩ quarter' },
  { id: '1.5', name: '♩. dotted' },
  { id: '0.5', name: '♪ eighth' },
  { id: '2', name: 'half' },
];

const METRE = /^\s*(\d{1,3})\s*\/\s*(1|2|4|8|16|32|64|128)\s*$/;

/** What a song is made of before anything is placed: length, tempo, metre, sections, numbers in the score. */
export function FramePanel({ show, song, at, onClose }: Props) {
  const { bars } = songTime(song);
  const here = barOfTick(bars, at);
  return (
    <Panel aria-label="Frame of the song">
      <h2>
        Frame of the song
        <SignButton aria-label="Close the frame" onPress={onClose}>
          <X size={17} />
        </SignButton>
      </h2>
      <WholeFields show={show} song={song} />
      <TempoPart show={show} song={song} at={at} />
      <MetrePart show={show} song={song} bar={Math.max(1, here.bar)} />
      <SectionPart show={show} song={song} bar={here.bar} />
      <BarsPart show={show} song={song} bar={Math.max(1, here.bar)} />
    </Panel>
  );
}

interface FrameProps {
  readonly show: Show;
  readonly song: Song;
}

function WholeFields({ show, song }: FrameProps) {
  return (
    <>
      <DraftField
        label="Title"
        value={song.title}
        commit={(text) =>
          text.trim() === ''
            ? 'Enter a title'
            : take(
                setSongField(show, song.id, 'title', text.trim().slice(0, LIMITS.title)),
                'rename the song',
                'another title',
              )
        }
      />
      <Row style={{ flexWrap: 'nowrap' }}>
        <DraftField
          label="Bars"
          value={String(song.bars)}
          numeric
          commit={(text) => {
            const bars = Number(text);
            if (!Number.isInteger(bars) || bars < 1 || bars > 100000) return 'a whole number from 1 to 100000';
            return take(setSongField(show, song.id, 'bars', bars), 'change the length', 'another length');
          }}
        />
        <DraftField
          label="Pickup, ♩"
          value={String(song.pickup / TICKS_PER_QUARTER)}
          numeric
          commit={(text) => {
            const quarters = Number(text.replace(',', '.'));
            if (text.trim() === '' || !(quarters >= 0)) return '0 or more';
            const edit = setPickup(show, song.id, Math.round(quarters * TICKS_PER_QUARTER));
            return take(edit, 'change the pickup', 'less than a bar');
          }}
        />
        <DraftField
          label="Pre-roll, ms"
          value={String(song.preRoll)}
          numeric
          commit={(text) => {
            const millis = figureIn(RANGES.preRollMillis, text);
            if (millis === undefined) return rangeWords(RANGES.preRollMillis);
            return take(setSongField(show, song.id, 'preRoll', millis), 'change the pre-roll', 'another length');
          }}
        />
      </Row>
      <Check
        isSelected={song.pattern}
        onChange={(pattern) =>
          perform(
            setSongField(show, song.id, 'pattern', pattern),
            pattern ? 'make it a pattern' : 'no pattern any more',
          )
        }
      >
        A pattern for new songs
      </Check>
    </>
  );
}

function TempoPart({ show, song, at }: FrameProps & { readonly at: Ticks }) {
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
    const first = putTempo(show, song.id, { ...mark, rampTo });
    const then = putTempo(first ? applyEdit(show, first) : show, song.id, {
      ...mark,
      at: to,
      bpm: rampTo,
      rampTo: null,
    });
    perform({ kind: 'group', edits: [first, then].filter((e) => e !== null) }, 'add a ramp');
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
          <div key={mark.at} role="group" aria-label={`Tempo at ${place}`}>
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
              {i > 0 && (
                <SignButton
                  aria-label={`Remove the tempo at ${place}`}
                  onPress={() => perform(removeTempo(show, song.id, mark.at), 'remove a tempo')}
                >
                  <Trash2 size={15} />
                </SignButton>
              )}
            </Row>
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
              {i === song.tempo.length - 1 ? (
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
          </div>
        );
      })}
      <Row>
        <Button
          isDisabled={song.tempo.some((m) => m.at === at)}
          onPress={() => put({ ...active, at, rampTo: null }, 'add a tempo')}
        >
          <Plus size={14} aria-hidden /> Tempo at {formatPosition(bars, at, song.bars)}
        </Button>
        <Button onPress={tap}>Tap</Button>
        {taps.length > 1 && <Soft role="status">{Math.round(active.bpm * 10) / 10}</Soft>}
      </Row>
    </>
  );
}

function MetrePart({ show, song, bar }: FrameProps & { readonly bar: number }) {
  const { bars } = songTime(song);
  const set = (n: number, text: string): string | null => {
    const [, beats, unit] = METRE.exec(text) ?? [];
    if (beats === undefined || Number(beats) < 1) return 'beats/unit, as in 7/8';
    const edit = putMetre(show, song.id, n, Number(beats), Number(unit));
    return take(edit, 'change the metre', 'another metre');
  };
  const now = song.metre.findLast((m) => m.bar <= bar) ?? song.metre[0]!;
  return (
    <>
      <h3>Metre</h3>
      {song.metre.map((m) => (
        <Row key={m.bar}>
          <DraftField
            label={`From bar ${formatBar(bars, m.bar, song.bars)}`}
            value={`${m.beats}/${m.unit}`}
            commit={(text) => set(m.bar, text)}
          />
          {m.bar > 1 && (
            <SignButton
              aria-label={`Remove the metre of bar ${formatBar(bars, m.bar, song.bars)}`}
              onPress={() => perform(removeMetre(show, song.id, m.bar), 'remove a metre')}
            >
              <Trash2 size={15} />
            </SignButton>
          )}
        </Row>
      ))}
      <div>
        <Button
          isDisabled={song.metre.some((m) => m.bar === bar)}
          onPress={() => perform(putMetre(show, song.id, bar, now.beats, now.unit), 'add a metre')}
        >
          <Plus size={14} aria-hidden /> Metre at bar {formatBar(bars, bar, song.bars)}
        </Button>
      </div>
    </>
  );
}

function SectionPart({ show, song, bar }: FrameProps & { readonly bar: number }) {
  const { bars } = songTime(song);
  const [before, setBefore] = useState('');
  const target = parsePosition(bars, before, song.bars);
  const targetBar = before.trim() === 'end' ? song.bars + 1 : target.ok ? barOfTick(bars, target.ticks).bar : undefined;
  const first = song.pickup > 0 ? 0 : 1;
  return (
    <>
      <h3>Sections</h3>
      {song.sections.map((section) => (
        <Row key={section.id} style={{ flexWrap: 'nowrap' }} role="group" aria-label={`Section ${section.name}`}>
          <DraftField
            label="Bar"
            value={formatBar(bars, section.bar, song.bars)}
            style={{ width: 52 }}
            commit={(text) => {
              const to = parsePosition(bars, text, song.bars);
              if (!to.ok) return 'a bar';
              const edit = putSection(show, song.id, { ...section, bar: barOfTick(bars, to.ticks).bar });
              return take(edit, 'move the start of a section', 'a bar where no section begins');
            }}
          />
          <DraftField
            label="Section"
            value={section.name}
            style={{ flex: 1 }}
            commit={(name) => take(putSection(show, song.id, { ...section, name }), 'rename a section', 'a name')}
          />
          <SignButton
            aria-label={`Remove the section ${section.name}`}
            onPress={() => perform(removeSection(show, song.id, section.id), 'remove a section')}
          >
            <Trash2 size={15} />
          </SignButton>
        </Row>
      ))}
      <div>
        <Button
          isDisabled={song.sections.some((s) => s.bar === Math.max(first, bar))}
          onPress={() => {
            const section = newSection(newId(), `Section ${song.sections.length + 1}`, Math.max(first, bar));
            perform(putSection(show, song.id, section), 'add a section');
          }}
        >
          <Plus size={14} aria-hidden /> Section at bar {formatBar(bars, Math.max(first, bar), song.bars)}
        </Button>
      </div>
      {song.sections.length > 0 && (
        <>
          <Field value={before} onChange={setBefore} style={{ width: 170 }}>
            <Label>Put a section before bar (or end)</Label>
            <Input placeholder="17" />
          </Field>
          {targetBar !== undefined &&
            song.sections.map((s) => {
              const moving = moveSection(show, song.id, s.id, targetBar);
              return (
                <Row key={s.id}>
                  <span style={{ flex: 1, lineHeight: '34px' }}>{s.name}</span>
                  <Button isDisabled={!moving} onPress={() => perform(moving, `move ${s.name}`)}>
                    Move
                  </Button>
                  <Button onPress={() => perform(copySection(show, song.id, s.id, targetBar, newId), `copy ${s.name}`)}>
                    Copy
                  </Button>
                </Row>
              );
            })}
        </>
      )}
    </>
  );
}

function BarsPart({ show, song, bar }: FrameProps & { readonly bar: number }) {
  const { bars } = songTime(song);
  const [count, setCount] = useState('4');
  const many = Number(count);
  const fits = /^\d{1,4}$/.test(count.trim()) && many > 0;
  const name = formatBar(bars, bar, song.bars);
  const removing = fits ? removeBars(show, song.id, bar, many) : null;
  return (
    <>
      <h3>Bars and their numbers</h3>
      <Row>
        <Field value={count} onChange={setCount} isInvalid={!fits} style={{ width: 58 }}>
          <Label>Bars</Label>
          <Input inputMode="numeric" />
        </Field>
        <Button isDisabled={!fits} onPress={() => perform(insertBars(show, song.id, bar, many), 'insert bars')}>
          Insert before {name}
        </Button>
        <Button isDisabled={!removing} onPress={() => perform(removing, 'take bars out')}>
          Take out
        </Button>
      </Row>
      {song.printed.map((mark) => (
        <Row key={mark.bar}>
          <DraftField
            label={`Bar ${mark.bar} is printed as`}
            value={String(mark.number)}
            numeric
            commit={(text) =>
              /^-?\d{1,5}$/.test(text.trim())
                ? take(putPrinted(show, song.id, mark.bar, Number(text)), 'change a printed number', 'another number')
                : 'a whole number'
            }
          />
          <SignButton
            aria-label={`Let bar ${mark.bar} count on`}
            onPress={() => perform(putPrinted(show, song.id, mark.bar, null), 'remove a printed number')}
          >
            <Trash2 size={15} />
          </SignButton>
        </Row>
      ))}
      <div>
        <Button
          isDisabled={song.printed.some((m) => m.bar === bar)}
          onPress={() => perform(putPrinted(show, song.id, bar, 1), 'number a bar anew')}
        >
          <Plus size={14} aria-hidden /> Renumber from bar {bar}
        </Button>
      </div>
    </>
  );
}
