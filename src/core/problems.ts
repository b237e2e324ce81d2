/** Where a problem is: in a file's bytes, in a text, in a show, or in what was typed. */
export type Place =
  | { readonly in: 'bytes'; readonly offset: number; readonly track?: number | undefined }
  | { readonly in: 'text'; readonly row: number; readonly column: number }
  | { readonly in: 'show'; readonly path: readonly (string | number)[] }
  | { readonly in: 'nowhere' };

export type Severity = 'error' | 'warning' | 'note';

/** Everything that can go wrong, by code, with the data that a sentence about it needs. */
export interface ProblemData {
  'json.too-deep': { readonly limit: number };
  'json.syntax': { readonly detail: string };
  'bundle.not-zip': Record<never, never>;
  'bundle.damaged': { readonly name: string };
  'bundle.too-many': { readonly count: number; readonly limit: number };
  'bundle.path': { readonly name: string };
  'bundle.twice': { readonly name: string };
  'bundle.no-show': { readonly name: string };
  'bundle.too-large': { readonly name: string; readonly size: number; readonly limit: number };
  'bundle.extra': { readonly name: string };
  'bundle.sound-size': { readonly name: string; readonly expected: number; readonly found: number };
  'bundle.sound-missing': { readonly name: string };
  'show.not-a-show': { readonly found: string };
  'show.newer': { readonly version: number; readonly known: number };
  'show.version': { readonly found: string };
  'show.shape': { readonly expected: string; readonly found: string };
  'show.twice': { readonly what: string; readonly id: string };
  'show.missing': { readonly what: string; readonly id: string };
  'show.range': { readonly low: number; readonly high: number };
  'plan.group-too-long': {
    readonly unit: string;
    readonly group: number;
    readonly count: number;
    readonly room: number;
  };
  'plan.letters-run-out': {
    readonly unit: string;
    readonly group: number;
    readonly from: string;
    readonly count: number;
  };
  'plan.same-label': { readonly unit: string; readonly label: string; readonly first: number; readonly second: number };
  'plan.table-index': { readonly unit: string; readonly row: number; readonly index: number; readonly slots: number };
  'plan.table-twice': { readonly unit: string; readonly row: number; readonly bank: number; readonly program: number };
  'plan.bank-out-of-reach': { readonly unit: string; readonly slots: number; readonly reach: number };
  'encoding.past-127': { readonly unit: string; readonly control: string; readonly last: number };
  'encoding.on-is-off': { readonly unit: string; readonly control: string; readonly on: number; readonly off: number };
  'encoding.flat-range': {
    readonly unit: string;
    readonly control: string;
    readonly low: number;
    readonly high: number;
  };
  'encoding.same-value': { readonly unit: string; readonly control: string; readonly value: number };
  'encoding.template': { readonly unit: string; readonly control: string; readonly template: string };
  'encoding.template-value': {
    readonly unit: string;
    readonly control: string;
    readonly high: number;
    readonly most: number;
  };
  'encoding.checksum-range': {
    readonly unit: string;
    readonly control: string;
    readonly from: number;
    readonly to: number;
    readonly length: number;
  };
  'encoding.table-points': {
    readonly unit: string;
    readonly control: string;
    readonly low: number;
    readonly high: number;
  };
  'encoding.log-through-zero': {
    readonly unit: string;
    readonly control: string;
    readonly low: number;
    readonly high: number;
  };
  'exclusive.left-out': { readonly kind: 'filling' | 'realTime'; readonly count: number };
  'exclusive.not-one': { readonly expected: string; readonly found: string };
  'feet.memory': { readonly expected: string };
  'dump.not-one': { readonly expected: string; readonly found: string };
  'dump.beyond': { readonly what: string; readonly size: number; readonly to: number };
  'dump.overlap': { readonly other: string; readonly at: number };
  /** `page` and `switch` count from 0; null where it is the page itself. */
  'dump.no-room': { readonly page: number; readonly switch: number | null; readonly what: string };
  'dump.form': { readonly expected: string; readonly found: string };
  'controller.same-place': { readonly unit: string; readonly first: string; readonly second: string };
  'show.order': { readonly what: string };
  'show.slot-range': { readonly unit: string; readonly index: number; readonly slots: number };
  'show.slot-shared': { readonly unit: string; readonly label: string };
  'show.ramp-nowhere': { readonly bpm: number };
  'show.worst-below': { readonly unit: string; readonly typical: number; readonly worst: number };
  'show.value-range': {
    readonly unit: string;
    readonly control: string;
    readonly value: number;
    readonly low: number;
    readonly high: number;
  };
  'show.variant-range': {
    readonly unit: string;
    readonly word: string;
    readonly value: number;
    readonly count: number;
  };
  'show.variants-reach': {
    readonly unit: string;
    readonly word: string;
    readonly count: number;
    readonly reach: number;
  };

  'show.sweep-selector': { readonly unit: string; readonly control: string };
  'show.sweep-empty': { readonly unit: string; readonly control: string };
  'show.not-tapped': { readonly unit: string; readonly control: string };

  'smf.not-midi': { readonly found: string };
  'smf.header-cut': { readonly bytes: number };
  'smf.header-length': { readonly length: number };
  'smf.format': { readonly format: number };
  'smf.division': { readonly division: number };
  'smf.no-tracks': Record<never, never>;
  'smf.missing-tracks': { readonly announced: number; readonly found: number };
  'smf.extra-bytes': { readonly bytes: number };
  'smf.unknown-chunk': { readonly name: string; readonly length: number };
  'smf.chunk-too-long': { readonly name: string; readonly length: number; readonly left: number };
  'smf.event-cut': { readonly wanted: number; readonly left: number };
  'smf.variable-length': Record<never, never>;
  'smf.no-status': { readonly byte: number };
  'smf.bad-status': { readonly byte: number };
  'smf.data-byte': { readonly byte: number };
  'smf.no-end': Record<never, never>;
  'smf.after-end': { readonly bytes: number };
  'smf.tempo': { readonly micros: number };
  'smf.meta-length': { readonly meta: string; readonly expected: number; readonly length: number };
  'smf.metre': { readonly beats: number; readonly unit: number };
  'smf.too-many-songs': { readonly songs: number; readonly limit: number };
  'smf.too-long': { readonly bars: number; readonly limit: number };
  'smf.too-many': { readonly events: number; readonly limit: number };
  'smf.metre-moved': { readonly bar: number };
  'smf.marker-moved': { readonly name: string; readonly bar: number };
  'smf.ports-assumed': { readonly ports: number };
  'smf.left-out': { readonly what: string; readonly count: number };
  'smf.smpte': { readonly frames: number; readonly ticks: number };
  'smf.lead-in': { readonly bars: number; readonly millis: number };
  'smf.lead-ins': { readonly songs: number };
  'smf.one-track': { readonly channels: readonly number[] };
  'export.left-out': { readonly what: readonly string[] };
  'smf.ramp-steps': { readonly steps: number; readonly micros: number };
  'smf.division-fallback': { readonly division: number };
  'smf.metre-unit': { readonly bar: number };
  'smf.too-wide': { readonly ticks: number };
  'smf.last-moment': { readonly count: number; readonly song: string };
  'smf.no-slot': { readonly unit: string; readonly at: string };
  'smf.selector-ramp': {
    readonly unit: string;
    readonly what: string;
    readonly from: string;
    readonly to: string;
    readonly steps: boolean;
  };

  'list.encoding': { readonly offset: number };
  'list.not-text': { readonly code: number };
  'list.empty': Record<never, never>;
  'list.too-long': { readonly rows: number; readonly limit: number };
  'list.quotes': Record<never, never>;
  'list.no-names': { readonly columns: readonly string[] };
  'list.no-such-slot': { readonly label: string; readonly example: string; readonly unit: string };
  'list.slot-twice': { readonly label: string; readonly row: number };
  'list.past-end': { readonly name: string; readonly slots: number };
  'list.name-long': { readonly length: number; readonly limit: number };
  'list.same-name': { readonly name: string; readonly row: number };
  'list.gaps': { readonly count: number };

  'csv.empty': Record<never, never>;
  'csv.too-long': { readonly limit: number };
  'csv.columns': { readonly missing: readonly string[]; readonly columns: readonly string[] };
  /** `of`: the unit that should have it; empty for the show. */
  'csv.no-such': { readonly of: string; readonly what: string; readonly name: string };
  'csv.many': { readonly of: string; readonly what: string; readonly name: string; readonly count: number };
  'csv.made-of': { readonly found: string; readonly meant: readonly string[] };
  'csv.number-taken': { readonly control: string; readonly other: string; readonly number: number };
  'csv.twice': { readonly what: string; readonly name: string };
  'csv.value': { readonly found: string; readonly expected: readonly string[] };
  'csv.no-value': { readonly control: string; readonly found: string };
  'csv.place': { readonly found: string; readonly song: string };
  'csv.other-name': {
    readonly unit: string;
    readonly label: string;
    readonly found: string;
    readonly there: string;
  };
  'csv.control': {
    readonly control: string;
    readonly part: string;
    readonly expected: string;
    readonly found: string;
  };

  'xml.too-long': { readonly bytes: number; readonly limit: number };
  'xml.declarations': Record<never, never>;
  'xml.too-deep': { readonly limit: number };
  'xml.syntax': { readonly detail: string };
  'xml.root': { readonly expected: string; readonly found: string };
  'xml.element': { readonly element: string; readonly parent: string; readonly expected: readonly string[] };
  'xml.missing': { readonly element: string; readonly expected: readonly string[] };
  'xml.attribute': { readonly element: string; readonly attribute: string };
  'xml.attribute-missing': { readonly element: string; readonly attribute: string };
  'xml.value': {
    readonly element: string;
    readonly attribute: string;
    readonly found: string;
    readonly expected: string;
  };
  'xml.text': { readonly element: string; readonly found: string };
  'names.list-missing': { readonly kind: string; readonly name: string };
  'names.no-slot': { readonly name: string; readonly bank: number; readonly program: number };
  'names.slot-twice': { readonly label: string; readonly name: string };
  'names.control-taken': { readonly name: string; readonly number: number };
  'names.letters': { readonly count: number };
  'names.left-out': { readonly control: string; readonly kind: string };

  'unit.not-a-unit': { readonly found: string };

  'part.not-a-part': { readonly found: string };
  'part.lost': { readonly where: string; readonly unit: string; readonly what: string };
  /** `tone` is what it opens with; null for nothing. */
  'part.opening': { readonly song: string; readonly tone: string | null };
  'part.no-place': { readonly unit: string; readonly name: string; readonly index: number };

  'compile.no-port': { readonly unit: string };
  'compile.port-off': { readonly unit: string; readonly port: string };

  'structure.form': { readonly text: string };
  'structure.metre': { readonly text: string };
  'structure.tempo': { readonly from: number; readonly to: number };
  'structure.cannot': { readonly text: string };

  'position.form': { readonly text: string };
  'position.bar': { readonly number: number; readonly last: number; readonly meant: string };
  'position.time': { readonly number: number; readonly times: number };
  'position.beat': { readonly beat: number; readonly from: number; readonly to: number };
  'position.tick': { readonly tick: number; readonly beatTicks: number };
}

export type ProblemCode = keyof ProblemData;

export type Problem = {
  readonly [C in ProblemCode]: {
    readonly code: C;
    readonly severity: Severity;
    readonly place: Place;
    readonly data: ProblemData[C];
  };
}[ProblemCode];

export const NOWHERE: Place = { in: 'nowhere' };

/** A problem with the data that its code wants. The sentence for it is in `wording/`. */
export function problem<C extends ProblemCode>(
  code: C,
  severity: Severity,
  place: Place,
  data: ProblemData[C],
): Extract<Problem, { code: C }> {
  return { code, severity, place, data } as Extract<Problem, { code: C }>;
}

/** A reader's answer: a value where there is one, and all that it has to say. */
export interface Read<T> {
  readonly value: T | undefined;
  readonly problems: readonly Problem[];
}

/** Whether anything stands in the way of taking what was read; warnings do not. */
export const hasErrors = (problems: readonly Problem[]): boolean => problems.some((p) => p.severity === 'error');
