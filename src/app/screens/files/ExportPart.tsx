import { Download, Package } from 'lucide-react';
import { useState } from 'react';
import { TABLES, type TableKind } from '../../../core/formats/csv';
import type { ExportWish } from '../../../core/formats/exportFile';
import type { PartWish } from '../../../core/formats/part-file';
import type { MidiWish } from '../../../core/formats/smf';
import { indexShow, setOf, songsOfSet, type Show } from '../../../core/show';
import { sentence } from '../../../wording';
import { Button, MainButton, Soft } from '../../widgets/controls';
import { Pick, type Choice } from '../../widgets/Pick';
import { useShow } from '../../state/store';
import { SET, exportPack, exportShow, exportToFile, type Exported } from '../../state/exports';
import { PAPERS, usualPaper, type PaperSize } from './exportPdf';
import { Aside, Fields, Ledger, Line } from './filesParts';
import { today } from './today';

const TABLE_NAMES: Readonly<Record<TableKind, string>> = {
  cues: 'Cues of a song',
  set: 'Running order',
  tones: 'Tones',
  controls: 'Controls of a unit',
  presets: 'Presets of a unit',
};

const MODES = [
  { id: 'written', name: 'As written: all on its beat' },
  { id: 'sent', name: 'With early sends' },
] as const;
const PER = [
  { id: 'all', name: 'One for all units' },
  { id: 'player', name: 'One for each player' },
  { id: 'unit', name: 'One for each unit' },
] as const;
const FORMATS = [
  { id: '1', name: 'Type 1: a track for each unit' },
  { id: '0', name: 'Type 0: all in one track' },
] as const;

const KITS: readonly Choice[] = [
  { id: 'all', name: 'All tones and moves' },
  { id: 'tones', name: 'All tones' },
  { id: 'moves', name: 'All moves' },
];

const kitOf = ({ tones, moves }: Show, id: string): PartWish => ({
  kind: 'kit',
  toneIds: id === 'moves' ? [] : tones.map((t) => t.id),
  moveIds: id === 'tones' ? [] : moves.map((m) => m.id),
});

/** What was chosen where it is there, else the first. */
const chosenOf = (choices: readonly Choice[], id: string): string =>
  choices.some((c) => c.id === id) ? id : (choices[0]?.id ?? '');

interface Taking {
  readonly onTake: (wish: ExportWish) => void;
}

/** Everything that leaves the show as a file, and what each file could not carry. */
export function ExportPart() {
  const show = useShow();
  const [told, setTold] = useState<Told>(null);
  const fails = (error: unknown): void => setTold({ failed: `It was not exported: ${(error as Error).message}.` });
  const take = (wish: ExportWish): void => void exportToFile(wish).then(setTold, fails);
  const [paper, setPaper] = useState<PaperSize>(usualPaper);
  const [packing, setPacking] = useState(false);
  const pack = (): void => {
    setPacking(true);
    exportPack(show, { paper, asOf: today() })
      .then((name) => setTold({ name, problems: [] }), fails)
      .finally(() => setPacking(false));
  };
  const takeShow = (withSounds: boolean): void =>
    void exportShow(show, withSounds).then((name) => setTold({ name, problems: [] }), fails);
  return (
    <Ledger>
      <div>
        <Line aria-label="The whole show">
          <h2>The whole show</h2>
          <Fields>
            <MainButton onPress={() => takeShow(true)}>
              <Download size={16} aria-hidden /> Export show
            </MainButton>
            {show.audio.length > 0 && <Button onPress={() => takeShow(false)}>Without recordings</Button>}
          </Fields>
          <p>One JSON file; with recordings a zip. The way to keep it, and to another computer.</p>
        </Line>
        <Line aria-label="For the road">
          <h2>For the road</h2>
          <Fields>
            <Pick label="Paper" width="90px" value={paper} choices={PAPERS} onPick={setPaper} />
            <Button isDisabled={packing} onPress={pack}>
              <Package size={16} aria-hidden /> {packing ? 'Packing …' : 'Pack everything'}
            </Button>
          </Fields>
          <p>
            A zip with the show, all its paper, MIDI files, names, maps and tables, and a page that says what is what.
          </p>
        </Line>
        <PartLines onTake={take} />
        <MidiLine onTake={take} />
        <TableLine onTake={take} />
        <NamesLine onTake={take} />
      </div>
      <Exports told={told} />
    </Ledger>
  );
}

type Told = Exported | { readonly failed: string } | null;

/** What was exported last, and what its file could not carry. */
function Exports({ told }: { readonly told: Told }) {
  return (
    <Aside aria-label="What was exported">
      <h2>What was exported</h2>
      <div role="status">
        {told === null ? (
          <Soft>Nothing yet. What a file cannot carry stands here after each export.</Soft>
        ) : 'failed' in told ? (
          <p>{told.failed}</p>
        ) : (
          <>
            <p style={{ overflowWrap: 'anywhere' }}>
              <b>{told.name}</b>
            </p>
            {told.problems.length > 0 && (
              <ul>
                {told.problems.map((p, i) => (
                  <li key={i}>{sentence(p)}</li>
                ))}
              </ul>
            )}
          </>
        )}
      </div>
    </Aside>
  );
}

const songChoices = (show: Show): readonly Choice[] => show.songs.map((s) => ({ id: s.id, name: s.title }));

/** Parts of the show that go into another one. */
function PartLines({ onTake }: Taking) {
  const show = useShow();
  const feet = show.feet
    .filter((f) => f.pages.length > 0 || f.everywhere.switches.length > 0)
    .map((f) => ({ id: f.id, name: indexShow(show).units.get(f.id)?.name ?? '' }));
  return (
    <Line aria-label="Part of a show">
      <h2>Part of a show</h2>
      <div style={{ display: 'grid', gap: 10 }}>
        <PartLine
          label="Song, with its tones"
          choices={songChoices(show)}
          onTake={(id) => onTake({ kind: 'part', part: { kind: 'songs', songIds: [id] } })}
        />
        <PartLine
          label="Set, with its songs"
          choices={show.sets.map((s) => ({ id: s.id, name: s.title }))}
          onTake={(id) => onTake({ kind: 'part', part: { kind: 'set', setId: id } })}
        />
        <PartLine label="Map of a unit" choices={show.units} onTake={(id) => onTake({ kind: 'unit', unitId: id })} />
        <PartLine
          label="Pages of a controller"
          choices={feet}
          onTake={(id) => onTake({ kind: 'part', part: { kind: 'pages', unitId: id } })}
        />
        <PartLine
          label="Kit, without songs"
          choices={KITS}
          onTake={(id) => onTake({ kind: 'part', part: kitOf(show, id) })}
        />
      </div>
    </Line>
  );
}

/** A song or the set as MIDI files. */
function MidiLine({ onTake }: Taking) {
  const show = useShow();
  const [song, setSong] = useState(SET);
  const [midi, setMidi] = useState<Omit<MidiWish, 'format'>>({ mode: 'written', per: 'all' });
  const [format, setFormat] = useState<'0' | '1'>('1');
  const choices = [
    ...(songsOfSet(show).length > 0 ? [{ id: SET, name: `The set: ${setOf(show).title}` }] : []),
    ...songChoices(show),
  ];
  const songId = chosenOf(choices, song);
  return (
    <Line aria-label="MIDI file">
      <h2>MIDI file</h2>
      <Fields>
        <Pick label="Songs" width="230px" value={songId} choices={choices} onPick={setSong} />
        <Pick
          label="Times"
          width="230px"
          value={midi.mode}
          choices={MODES}
          onPick={(mode) => setMidi({ ...midi, mode })}
        />
        <Pick label="Files" width="230px" value={midi.per} choices={PER} onPick={(per) => setMidi({ ...midi, per })} />
        <Pick label="Format" width="230px" value={format} choices={FORMATS} onPick={setFormat} />
        <Button
          isDisabled={choices.length === 0}
          onPress={() => onTake({ kind: 'midi', songId, midi: { ...midi, format: format === '0' ? 0 : 1 } })}
        >
          <Download size={16} aria-hidden /> Export MIDI file
        </Button>
      </Fields>
    </Line>
  );
}

/** Tables for a spreadsheet. */
function TableLine({ onTake }: Taking) {
  const show = useShow();
  const [kind, setKind] = useState<TableKind>('cues');
  const [chosen, setChosen] = useState('');
  const things = kind === 'cues' ? songChoices(show) : show.units;
  const needs = kind === 'cues' || kind === 'controls' || kind === 'presets';
  const id = chosenOf(things, chosen);
  return (
    <Line aria-label="Table">
      <h2>Table (CSV)</h2>
      <Fields>
        <Pick
          label="Table of"
          width="190px"
          value={kind}
          choices={TABLES.map((t) => ({ id: t, name: TABLE_NAMES[t] }))}
          onPick={(next) => {
            setKind(next);
            setChosen('');
          }}
        />
        {needs && (
          <Pick
            label={kind === 'cues' ? 'Song' : 'Unit'}
            width="210px"
            value={id}
            choices={things}
            onPick={setChosen}
          />
        )}
        <Button isDisabled={needs && things.length === 0} onPress={() => onTake({ kind: 'table', table: kind, id })}>
          <Download size={16} aria-hidden /> Export table
        </Button>
      </Fields>
      <p>For a spreadsheet, and back in under Import.</p>
    </Line>
  );
}

/** The names of a unit as a MIDI name document. */
function NamesLine({ onTake }: Taking) {
  const { units } = useShow();
  const [chosen, setChosen] = useState('');
  const unitId = chosenOf(units, chosen);
  return (
    <Line aria-label="MIDI names">
      <h2>MIDI names</h2>
      <Fields>
        <Pick label="Unit" width="210px" value={unitId} choices={units} onPick={setChosen} />
        <Button isDisabled={units.length === 0} onPress={() => onTake({ kind: 'names', unitId })}>
          <Download size={16} aria-hidden /> Export name document
        </Button>
      </Fields>
      <p>
        Presets and controls by name, in the open XML format of the MIDI association. Exclusive files are kept in Feet.
      </p>
    </Line>
  );
}

interface PartLineProps {
  readonly label: string;
  readonly choices: readonly Choice[];
  readonly onTake: (id: string) => void;
}

/** A part of a kind: which one, and the button that hands it on. */
function PartLine({ label, choices, onTake }: PartLineProps) {
  const [value, setValue] = useState('');
  const chosen = chosenOf(choices, value);
  return (
    <Fields>
      <Pick label={label} width="290px" value={chosen} choices={choices} onPick={setValue} />
      <Button aria-label={`Export: ${label}`} isDisabled={chosen === ''} onPress={() => onTake(chosen)}>
        <Download size={16} aria-hidden /> Export
      </Button>
    </Fields>
  );
}
