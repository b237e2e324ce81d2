import { writeSheetsPdf } from '../src/core/formats/pdf';
import { readShowFile, writeShowFile } from '../src/core/formats/show-file';
import { midiFiles, smfToShow } from '../src/core/formats/smf';
import { proveSong } from '../src/core/proof';
import { fontsOf } from '../src/core/testing/fonts';
import { paperOf } from '../src/core/testing/sheets';
import { applyEdit, removeCues, songsOfSet, type Show } from '../src/core/show';
import { problemLine } from '../src/wording';
import { LIMIT_CASES } from './limitCases';
import { tonightOf } from '../src/core/tonight';

// One case in a process of its own: prints how long each step took, in milliseconds.
const name = process.argv[2]!;
const took: Record<string, number> = {};
function timed<T>(step: string, run: () => T): T {
  const start = performance.now();
  const made = run();
  took[step] = performance.now() - start;
  return made;
}

const made = LIMIT_CASES[name]!();
let show: Show;
if (made instanceof Uint8Array) {
  const read = timed('open', () => smfToShow(made, 'file'));
  if (!read.value) throw new Error(`refused in ${took.open!.toFixed(0)} ms: ${read.problems.map(problemLine)[0]}`);
  show = read.value;
} else {
  const text = writeShowFile(made);
  const read = timed('open', () => readShowFile(text));
  if (!read.value) throw new Error(`${name} is not taken: ${JSON.stringify(read.problems.slice(0, 3))}`);
  show = read.value;
}
const song = songsOfSet(show)[0]!;
timed('prove', () => {
  for (const s of songsOfSet(show)) proveSong(tonightOf(show), s, 'bench', false);
});
timed('edit', () => {
  const [first] = song.cues;
  const edited = first ? applyEdit(show, removeCues(show, song.id, new Set([first.id]))!) : show;
  proveSong(tonightOf(edited), songsOfSet(edited)[0]!, 'bench', false);
});
timed('export', () => midiFiles(tonightOf(show), [song], 'x', { mode: 'sent', format: 1, per: 'all' }));
const start = performance.now();
for (const kind of ['cues', 'tones'] as const) {
  const sheets = paperOf(show, kind);
  await writeSheetsPdf(sheets, { paper: 'a4', show: 'x', asOf: 'today', fonts: fontsOf(sheets) });
}
took.print = performance.now() - start;
process.stdout.write(JSON.stringify({ took }));
