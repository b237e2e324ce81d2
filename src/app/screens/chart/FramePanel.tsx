import { Plus, Scissors, Trash2, X } from 'lucide-react';
import { useState } from 'react';
import {
  fitText,
  cutIntoSongs,
  insertBars,
  putPrinted,
  removeBars,
  setPickup,
  setSongField,
  songTime,
  type Show,
  type Song,
  RANGES,
  figureIn,
  rangeWords,
} from '../../../core/show';
import { codeText, readCode } from '../../../core/clock';
import { TICKS_PER_QUARTER, barOfTick, formatBar, type Ticks } from '../../../core/time';
import { codeExample } from '../../../wording';
import { Check } from '../../widgets/Check';
import { Button, Field, Input, Label, SignButton } from '../../widgets/controls';
import { More } from '../../features/More';
import { Fold } from '../../widgets/Fold';
import { Pick } from '../../widgets/Pick';
import { SongNotes } from '../../features/SongNotes';
import { DraftField } from '../../widgets/DraftField';
import { newId, perform } from '../../state/desk';
import { useNews } from '../../state/news';
import { Panel, Row } from './panelParts';
import { take, type FrameProps } from './frameParts';
import { TempoPart } from './TempoPart';
import { MetrePart } from './MetrePart';
import { SectionPart } from './SectionPart';
import { StructureText } from './StructureText';

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly at: Ticks;
  readonly onClose: () => void;
}

/** What a song is made of before anything is placed: length, tempo, metre, sections, numbers in the score. */
export function FramePanel({ show, song, at, onClose }: Props) {
  const { bars } = songTime(song);
  const here = barOfTick(bars, at);
  return (
    <Panel aria-label="Song structure">
      <h2>
        Song structure
        <SignButton aria-label="Close song structure" onPress={onClose}>
          <X size={17} />
        </SignButton>
      </h2>
      <WholeFields show={show} song={song} />
      <TempoPart show={show} song={song} at={at} />
      <MetrePart show={show} song={song} bar={Math.max(1, here.bar)} />
      <SectionPart show={show} song={song} bar={here.bar} />
      <BarsPart show={show} song={song} bar={Math.max(1, here.bar)} />
      <Fold summary="Structure as text">{() => <StructureText key={song.id} show={show} song={song} />}</Fold>
    </Panel>
  );
}

const OWN = 'own';

function WholeFields({ show, song }: FrameProps) {
  return (
    <>
      <DraftField
        label="Title"
        value={song.title}
        commit={(text) =>
          text.trim() === ''
            ? 'Enter a title'
            : take(setSongField(show, song.id, 'title', fitText(text, 'title')), 'rename the song', 'another title')
        }
      />
      <Lengths song={song} show={show} />
      <SongNotes song={song} />
      <Rare song={song} show={show} />
      <Check
        isSelected={song.open}
        onChange={(open) =>
          perform(setSongField(show, song.id, 'open', open), open ? 'let the song have no end' : 'let the song end')
        }
      >
        Open-ended: click and count until it is stopped
      </Check>
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

interface RareProps {
  readonly song: Song;
  readonly show: Show;
}

/** Takes the time code that comes in now for the song's place: whoever presses it hears the song begin. */
function LearnCode({ song, show }: RareProps) {
  const text = useNews((s) => s.news.code?.text);
  if (show.timeCode.portId === null) return null;
  return (
    <Button
      isDisabled={text === undefined}
      onPress={() =>
        text !== undefined && perform(setSongField(show, song.id, 'code', text), 'learn its place in the time code')
      }
    >
      Take the time code of now
    </Button>
  );
}

/** What few songs have. */
function Rare({ song, show }: RareProps) {
  return (
    <More place="song" used={song.followsPortId !== null || song.code !== null}>
      <DraftField
        label="Time ahead of the song, ms"
        value={String(song.preRoll)}
        numeric
        commit={(text) => {
          const millis = figureIn(RANGES.preRollMillis, text);
          if (millis === undefined) return rangeWords(RANGES.preRollMillis);
          return take(
            setSongField(show, song.id, 'preRoll', millis),
            'change the time ahead of the song',
            'another length',
          );
        }}
      />
      <DraftField
        label="Time code at bar 1"
        value={song.code ?? ''}
        placeholder="none"
        commit={(text) => {
          const { rate } = show.timeCode;
          const label = text.trim() === '' ? null : readCode(text, rate);
          if (text.trim() !== '' && !label) return codeExample(rate);
          const code = label && codeText(label, rate);
          return take(setSongField(show, song.id, 'code', code), 'change its place in the time code', 'another place');
        }}
      />
      <LearnCode song={song} show={show} />
      <Pick
        label="Follows the clock of"
        value={song.followsPortId ?? OWN}
        choices={[{ id: OWN, name: 'none: its own tempo' }, ...show.ports]}
        onPick={(id) =>
          perform(setSongField(show, song.id, 'followsPortId', id === OWN ? null : id), 'change whose clock it follows')
        }
      />
    </More>
  );
}

interface LengthsProps {
  readonly song: Song;
  readonly show: Show;
}

/** How long the song is, and its pickup. */
function Lengths({ song, show }: LengthsProps) {
  return (
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
    </Row>
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
        <Button isDisabled={!removing} onPress={() => perform(removing, 'delete bars')}>
          Delete bars
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
        </Button>{' '}
        <Button
          isDisabled={bar < 2}
          onPress={() => perform(cutIntoSongs(show, song.id, [bar], newId), `cut ${song.title} at bar ${name}`)}
        >
          <Scissors size={14} aria-hidden /> A song of its own from bar {name}
        </Button>
      </div>
    </>
  );
}
