import { parseArgs } from 'node:util';
import { check, demo, dryRunShow, exportSmf, importFile, state, type Outcome } from './commands';
import { TABLES } from '../src/core/formats/csv';
import { SHEET_KINDS } from '../src/core/sheets';
import { Failure } from './failure';
import { nights } from './nights';
import { compare, pages, schema } from './handOver';
import { exclusive, names, part, table } from './exchange';
import { pack } from './pack';
import { sheet, sheetPdf } from './paper';

const USAGE = `usage:
  lantern demo [--faults] --out SHOW.json
  lantern import FILE.mid [--into SHOW.json] [--without CHANNEL]... --out SHOW.json
  lantern export SHOW.json --smf OUT.mid [--song "TITLE"] [--written|--sent] [--one-track]
  lantern dry-run SHOW.json [--song "TITLE"] [--json]
  lantern check SHOW.json [--json]
  lantern nights SHOW.json [--nights 1000] [--seed 1] [--share 0.99] [--song "TITLE"] [--json]
  lantern state SHOW.json --song "TITLE" --at "17|3" [--json]
  lantern sheet SHOW.json --kind ${SHEET_KINDS.join('|')} [--floor] [--json | --pdf OUT.pdf [--paper a4|letter]]
  lantern pages SHOW.json [--controller "NAME"] [--out SHOW.json] [--json]
  lantern pack SHOW.json --out FOLDER|OUT.zip [--paper a4|letter] [--json]
  lantern table SHOW.json --kind ${TABLES.join('|')} [--of "NAME"] [--in TABLE.csv [--made ask|keep|take]] --out FILE [--json]
  lantern part SHOW.json --kind song|set|pages|kit [--of "NAME"] --out PART.json [--json]
  lantern part SHOW.json --in PART.json --out SHOW.json [--json]
  lantern names SHOW.json --unit "NAME" --out NAMES.midnam [--json]
  lantern exclusive FILE.syx [--json]
  lantern compare SHOW.json OTHER.json [--json]
  lantern schema [--out SCHEMA.json]`;

const OPTIONS = {
  out: { type: 'string' },
  into: { type: 'string' },
  without: { type: 'string', multiple: true },
  in: { type: 'string' },
  made: { type: 'string' },
  of: { type: 'string' },
  unit: { type: 'string' },
  song: { type: 'string' },
  smf: { type: 'string' },
  at: { type: 'string' },
  kind: { type: 'string' },
  pdf: { type: 'string' },
  paper: { type: 'string' },
  controller: { type: 'string' },
  nights: { type: 'string' },
  seed: { type: 'string' },
  share: { type: 'string' },
  'one-track': { type: 'boolean' },
  written: { type: 'boolean' },
  sent: { type: 'boolean' },
  json: { type: 'boolean' },
  faults: { type: 'boolean' },
  floor: { type: 'boolean' },
  help: { type: 'boolean' },
} as const;

type Values = ReturnType<typeof parse>['values'];
type OptionName = keyof typeof OPTIONS;

function parse(args: readonly string[]) {
  try {
    return parseArgs({ args: [...args], options: OPTIONS, allowPositionals: true, strict: true });
  } catch (error) {
    throw new Failure((error as Error).message.split('\n')[0]);
  }
}

interface Command {
  /** What each file is, in their order. */
  readonly files: readonly string[];
  readonly needs: readonly OptionName[];
  readonly takes: readonly OptionName[];
  readonly run: (file: string, values: Values, second: string) => Outcome | Promise<Outcome>;
}

/** What comes out of a show or into it, as it was asked for. */
const exchange = (v: Values) => ({ of: v.of, take: v.in, out: v.out!, made: v.made, json: v.json ?? false });

const COMMANDS: Readonly<Record<string, Command>> = {
  demo: { files: [], needs: ['out'], takes: ['faults'], run: (_, v) => demo(v.out!, v.faults ?? false) },
  import: {
    files: ['FILE.mid'],
    needs: ['out'],
    takes: ['into', 'without'],
    run: (file, v) => importFile(file, v.into, v.out!, v.without ?? []),
  },
  export: {
    files: ['SHOW.json'],
    needs: ['smf'],
    takes: ['song', 'written', 'sent', 'one-track'],
    run: (file, v) => {
      if (v.written && v.sent) throw new Failure('Take --written or --sent, not both.');
      return exportSmf(file, v.song, v.smf!, v.sent ? 'sent' : 'written', v['one-track'] ? 0 : 1);
    },
  },
  'dry-run': {
    files: ['SHOW.json'],
    needs: [],
    takes: ['song', 'json'],
    run: (file, v) => dryRunShow(file, v.song, v.json ?? false),
  },
  nights: {
    files: ['SHOW.json'],
    needs: [],
    takes: ['nights', 'seed', 'share', 'song', 'json'],
    run: (file, { nights: count, seed, share, song, json = false }) =>
      nights(file, { nights: count, seed, share, song, json }, (line) => process.stderr.write(`${line}\n`)),
  },
  check: { files: ['SHOW.json'], needs: [], takes: ['json'], run: (file, v) => check(file, v.json ?? false) },
  state: {
    files: ['SHOW.json'],
    needs: ['song', 'at'],
    takes: ['json'],
    run: (file, v) => state(file, v.song!, v.at!, v.json ?? false),
  },
  sheet: {
    files: ['SHOW.json'],
    needs: ['kind'],
    takes: ['floor', 'json', 'pdf', 'paper'],
    run: (file, v) => {
      if (v.paper !== undefined && v.pdf === undefined) throw new Failure('--paper is for --pdf.');
      const use = v.floor ? 'floor' : 'desk';
      if (v.pdf === undefined) return sheet(file, v.kind!, use, v.json ?? false);
      if (v.json) throw new Failure('Take --json or --pdf, not both.');
      return sheetPdf(file, v.kind!, use, v.pdf, v.paper ?? 'a4');
    },
  },
  pages: {
    files: ['SHOW.json'],
    needs: [],
    takes: ['controller', 'out', 'json'],
    run: (file, v) => pages(file, v.controller, v.out, v.json ?? false),
  },
  pack: {
    files: ['SHOW.json'],
    needs: ['out'],
    takes: ['paper', 'json'],
    run: (file, v) => pack(file, v.out!, v.paper ?? 'a4', v.json ?? false),
  },
  table: {
    files: ['SHOW.json'],
    needs: ['kind', 'out'],
    takes: ['of', 'in', 'made', 'json'],
    run: (file, v) => table(file, v.kind!, exchange(v)),
  },
  part: {
    files: ['SHOW.json'],
    needs: ['out'],
    takes: ['kind', 'of', 'in', 'json'],
    run: (file, v) => part(file, v.kind, exchange(v)),
  },
  names: {
    files: ['SHOW.json'],
    needs: ['unit', 'out'],
    takes: ['json'],
    run: (file, v) => names(file, v.unit!, v.out!, v.json ?? false),
  },
  exclusive: { files: ['FILE.syx'], needs: [], takes: ['json'], run: (file, v) => exclusive(file, v.json ?? false) },
  compare: {
    files: ['SHOW.json', 'OTHER.json'],
    needs: [],
    takes: ['json'],
    run: (file, v, second) => compare(file, second, v.json ?? false),
  },
  schema: { files: [], needs: [], takes: ['out'], run: (_, v) => schema(v.out) },
};

function run(args: readonly string[]): Outcome | Promise<Outcome> {
  const { values, positionals } = parse(args);
  const [name, ...files] = positionals;
  if (values.help) return { lines: [USAGE], code: 0 };
  if (name === undefined) throw new Failure(`Which command? ${Object.keys(COMMANDS).join(', ')}; --help tells more.`);
  const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined;
  if (!command) {
    throw new Failure(`There is no command "${name}"; there are ${Object.keys(COMMANDS).join(', ')}.`);
  }
  const wanted = command.files.length;
  if (files.length < wanted) {
    throw new Failure(`${name} wants ${command.files[files.length]}; none was given.`);
  }
  if (files.length > wanted) throw new Failure(`${name} does not take "${files[wanted]}".`);
  for (const option of command.needs) {
    if (values[option] === undefined) throw new Failure(`${name} wants --${option}.`);
  }
  for (const option of Object.keys(values) as OptionName[]) {
    if (!command.needs.includes(option) && !command.takes.includes(option)) {
      throw new Failure(`${name} does not take --${option}.`);
    }
  }
  return command.run(files[0] ?? '', values, files[1] ?? '');
}

export interface Ended {
  /** 0 well, 1 something is not proven, 2 bad input. */
  readonly code: 0 | 1 | 2;
  readonly out: string;
  /** One line where the input was bad, else nothing. */
  readonly err: string;
}

const ended = ({ lines, code }: Outcome): Ended => ({
  code,
  out: lines.length === 0 ? '' : `${lines.join('\n')}\n`,
  err: '',
});

function failed(error: unknown): Ended {
  const text = error instanceof Failure ? error.message : `Something went wrong inside the program: ${String(error)}`;
  return { code: 2, out: '', err: `lantern: ${text.replace(/\s*\n\s*/g, ' ')}\n` };
}

/** Runs the command line on its arguments. */
export async function lantern(args: readonly string[]): Promise<Ended> {
  try {
    return ended(await run(args));
  } catch (error) {
    return failed(error);
  }
}
