import { Download } from 'lucide-react';
import { useState } from 'react';
import { TABLES, type TableKind } from '../../../core/formats/csv';
import type { ExportWish } from '../../../core/formats/exportFile';
import type { PartWish } from '../../../core/formats/part-file';
import type { MidiWish } from '../../../core/formats/smf';
import { setOf, songsOfSet, type Show } from '../../../core/show';
import { sentence } from '../../../wording';
import { Button, MainButton, Soft } from '../../widgets/controls';
import { Pick, type Choice } from '../../widgets/Pick';
import { useShow } from '../../state/store';
import { SET, exportShow, exportToFile, type Exported } from '../../state/exports';
import { Aside, Fields, Ledger, Line } from './filesParts';

const TABLE_NAMES: Readonly<Record<TableKind, string>> = {
  cues: 'Cues of a song',
  set: 'Running order',
  tones: 'Tones',
  controls: 'Controls of a unit',
  presets: 'Presets of a unit',
};

const MODES: readonly Choice[] = [
  { id: 'written', name: 'As written: all on its beat' },
  { id: 'sent', name: 'With early sends' },
];
const PER: readonly Choice[] = [
  { id: 'all', name: 'One for all units' },
  { id: 'player', name: 'One for each player' },
  { id: 'unit', name: 'One for each unit' },
];
const FORMATS: readonly Choice[] = [
  { id: '1', name: 'Type 1: a track for each unit' },
  { id: '0', name: 'Type 0: all in one track' },
];

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

/** Everything that leaves the show as a file, and what each file could not carry. */
export function ExportPart() {
  const show = useShow();
  const [told, setTold] = useState<Exported | { readonly failed: string } | null>(null);
  const [midi, setMidi] = useState({ song: SET, mode: 'written', per: 'all', format: '1' });
  const [part, setPart] = useState({ song: '', set: '', unit: '', pages: '', kit: '' });
  const [table, setTable] = useState<{ kind: TableKind; id: string }>({ kind: 'cues', id: '' });
  const [names, setNames] = useState('');

  const fails = (error: unknown): void => setTold({ failed: `It was not exported: ${(error as Error).message}.` });
  const take = (wish: ExportWish): void => void exportToFile(wish).then(setTold, fails);
  const takeShow = (withSounds: boolean): void =>
    void exportShow(show, withSounds).then((name) => setTold({ name, problems: [] }), fails);
  const songs = show.songs.map((s) => ({ id: s.id, name: s.title }));
  const units = show.units.map((u) => ({ id: u.id, name: u.name }));
  const feet = show.feet
    .filter((f) => f.pages.length > 0 || f.everywhere.switches.length > 0)
    .map((f) => ({ id: f.id, name: show.units.find((u) => u.id === f.id)?.name ?? '' }));
  const midiSongs = [
    ...(songsOfSet(show).length > 0 ? [{ id: SET, name: `The set: ${setOf(show).title}` }] : []),
    ...songs,
  ];
  const things = table.kind === 'cues' ? songs : units;
  const needs = table.kind === 'cues' || table.kind === 'controls' || table.kind === 'presets';
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
        <Line aria-label="Part of a show">
          <h2>Part of a show</h2>
          <div style={{ display: 'grid', gap: 10 }}>
            <PartLine
              label="Song, with its tones"
              choices={songs}
              value={part.song}
              onPick={(song) => setPart({ ...part, song })}
              onTake={(id) => take({ kind: 'part', part: { kind: 'songs', songIds: [id] } })}
            />
            <PartLine
              label="Set, with its songs"
              choices={show.sets.map((s) => ({ id: s.id, name: s.title }))}
              value={part.set}
              onPick={(set) => setPart({ ...part, set })}
              onTake={(id) => take({ kind: 'part', part: { kind: 'set', setId: id } })}
            />
            <PartLine
              label="Map of a unit"
              choices={units}
              value={part.unit}
              onPick={(unit) => setPart({ ...part, unit })}
              onTake={(id) => take({ kind: 'unit', unitId: id })}
            />
            <PartLine
              label="Pages of a controller"
              choices={feet}
              value={part.pages}
              onPick={(pages) => setPart({ ...part, pages })}
              onTake={(id) => take({ kind: 'part', part: { kind: 'pages', unitId: id } })}
            />
            <PartLine
              label="Kit, without songs"
              choices={KITS}
              value={part.kit}
              onPick={(kit) => setPart({ ...part, kit })}
              onTake={(id) => take({ kind: 'part', part: kitOf(show, id) })}
            />
          </div>
        </Line>
        <Line aria-label="MIDI file">
          <h2>MIDI file</h2>
          <Fields>
            <Pick
              label="Songs"
              width="230px"
              value={chosenOf(midiSongs, midi.song)}
              choices={midiSongs}
              onPick={(song) => setMidi({ ...midi, song })}
            />
            <Pick
              label="Times"
              width="230px"
              value={midi.mode}
              choices={MODES}
              onPick={(mode) => setMidi({ ...midi, mode })}
            />
            <Pick
              label="Files"
              width="230px"
              value={midi.per}
              choices={PER}
              onPick={(per) => setMidi({ ...midi, per })}
            />
            <Pick
              label="Format"
              width="230px"
              value={midi.format}
              choices={FORMATS}
              onPick={(format) => setMidi({ ...midi, format })}
            />
            <Button
              isDisabled={midiSongs.length === 0}
              onPress={() =>
                take({
                  kind: 'midi',
                  songId: chosenOf(midiSongs, midi.song),
                  midi: {
                    mode: midi.mode as MidiWish['mode'],
                    per: midi.per as MidiWish['per'],
                    format: midi.format === '0' ? 0 : 1,
                  },
                })
              }
            >
              <Download size={16} aria-hidden /> Export MIDI file
            </Button>
          </Fields>
        </Line>
        <Line aria-label="Table">
          <h2>Table (CSV)</h2>
          <Fields>
            <Pick
              label="Table of"
              width="190px"
              value={table.kind}
              choices={TABLES.map((id) => ({ id, name: TABLE_NAMES[id] }))}
              onPick={(kind) => setTable({ kind: kind, id: '' })}
            />
            {needs && (
              <Pick
                label={table.kind === 'cues' ? 'Song' : 'Unit'}
                width="210px"
                value={chosenOf(things, table.id)}
                choices={things}
                onPick={(id) => setTable({ ...table, id })}
              />
            )}
            <Button
              isDisabled={needs && things.length === 0}
              onPress={() => take({ kind: 'table', table: table.kind, id: chosenOf(things, table.id) })}
            >
              <Download size={16} aria-hidden /> Export table
            </Button>
          </Fields>
          <p>For a spreadsheet, and back in under Import.</p>
        </Line>
        <Line aria-label="MIDI names">
          <h2>MIDI names</h2>
          <Fields>
            <Pick label="Unit" width="210px" value={chosenOf(units, names)} choices={units} onPick={setNames} />
            <Button
              isDisabled={units.length === 0}
              onPress={() => take({ kind: 'names', unitId: chosenOf(units, names) })}
            >
              <Download size={16} aria-hidden /> Export name document
            </Button>
          </Fields>
          <p>
            Presets and controls by name, in the open XML format of the MIDI association. Exclusive files are kept in
            Feet.
          </p>
        </Line>
      </div>
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
    </Ledger>
  );
}

/** A part of a kind: which one, and the button that hands it on. */
function PartLine({
  label,
  choices,
  value,
  onPick,
  onTake,
}: {
  readonly label: string;
  readonly choices: readonly Choice[];
  readonly value: string;
  readonly onPick: (id: string) => void;
  readonly onTake: (id: string) => void;
}) {
  const chosen = chosenOf(choices, value);
  return (
    <Fields>
      <Pick label={label} width="290px" value={chosen} choices={choices} onPick={onPick} />
      <Button aria-label={`Export: ${label}`} isDisabled={chosen === ''} onPress={() => onTake(chosen)}>
        <Download size={16} aria-hidden /> Export
      </Button>
    </Fields>
  );
}
