import type { Bytes } from '../midi';
import type { Micros } from '../time';
import { PIECES, codeMessage, codeMicros, frameMicros, frameOf, fromPieces, type CodeRate } from './timeCode';

/** A quarter frame that arrived: how many quarter frames its place is from midnight, and when it came. */
interface CodeMark {
  readonly quarter: number;
  readonly at: Micros;
}

/** Time code from outside that is followed. Plain data; `hearCode` makes the next. */
export interface FollowedCode {
  readonly rate: CodeRate | null;
  /** The last nibble of each piece, and the piece that came last. */
  readonly nibbles: readonly number[];
  readonly last: number;
  /** So many pieces came one after the other, forwards and backwards. */
  readonly run: number;
  readonly back: number;
  /** Quarter frames from midnight of the piece that is furthest, and which piece that is; null until two labels agree. */
  readonly quarter: number | null;
  readonly furthest: number;
  /** What a label said that the place does not agree with: the next one says whether that was an error. */
  readonly claim: CodeMark | null;
  readonly marks: readonly CodeMark[];
  readonly heard: Micros;
  /** Where the machine stands: a full message said so, and nothing has run since. */
  readonly standing: Micros | null;
}

export const NO_CODE: FollowedCode = {
  rate: null,
  nibbles: Array.from({ length: PIECES }, () => 0),
  last: -1,
  run: 0,
  back: 0,
  quarter: null,
  furthest: -1,
  claim: null,
  marks: [],
  heard: Number.NEGATIVE_INFINITY,
  standing: null,
};

/** So many pieces backwards in a row, and the machine runs backwards; fewer may have overtaken each other. */
const BACKWARDS = 3;
/** The place is reckoned from what came in this time, at most from so many marks. */
const WINDOW: Micros = 2_000_000;
const MARKS = 256;
/** With fewer marks the speed is taken for that which the rate says. */
const TO_KNOW_SPEED = 48;
/** What came last is off the line by more than this: it runs at another speed by now. */
const BENT: Micros = 3000;
const LATEST = 12;
/** Nothing that winds sends so many times as much as at its own speed. */
const WILD = 40;
/** A machine that is wound is no time to play by. */
const SPEED_BOUNDS: readonly [slowest: number, fastest: number] = [0.85, 1.15];

const quarterMicros = (rate: CodeRate): Micros => frameMicros(rate) / 4;

/**
 * Hears a message of time code (MIDI 1.0, MIDI time code). Null for any other message. A piece that is lost, comes twice
 * or is overtaken moves nothing; a label that says another place counts when the next one agrees.
 */
export function hearCode(code: FollowedCode, at: Micros, bytes: Bytes): FollowedCode | null {
  const message = codeMessage(bytes);
  if (!message) return null;
  if (message.kind === 'full') {
    const { label, rate } = message;
    return { ...NO_CODE, rate, heard: at, standing: codeMicros(label, rate) };
  }
  const { piece, nibble } = message;
  const step = (piece - code.last + PIECES) % PIECES;
  const known = code.last >= 0;
  const nibbles = code.nibbles.with(piece, nibble);
  const back = known && step === PIECES - 1 ? code.back + 1 : 0;
  if (back >= BACKWARDS) {
    return {
      ...code,
      nibbles,
      last: piece,
      run: 0,
      back,
      quarter: null,
      claim: null,
      marks: [],
      heard: at,
      standing: null,
    };
  }
  const run = known && step === 1 ? code.run + 1 : 1;
  const tracked = tracks(code, at, (piece - code.furthest + PIECES) % PIECES);
  // It came late or twice: the place is told by those that came in their order.
  if (tracked !== null && tracked <= code.quarter!) {
    return { ...code, nibbles, last: piece, run, back, heard: Math.max(at, code.heard) };
  }
  const next: FollowedCode = {
    ...code,
    nibbles,
    last: piece,
    run,
    back,
    quarter: tracked,
    furthest: piece,
    heard: at,
    standing: null,
  };
  const whole = piece === PIECES - 1 && run >= PIECES ? fromPieces(nibbles) : null;
  return whole
    ? believed(marked(next, at), frameOf(whole.label, whole.rate) * 4 + PIECES - 1, whole.rate, at)
    : marked(next, at);
}

/** The quarter frame that a piece must be, from where the code was and how long ago that is; null where that is not known. */
function tracks({ quarter, rate, heard }: FollowedCode, at: Micros, step: number): number | null {
  if (quarter === null || rate === null) return null;
  const passed = (at - heard) / quarterMicros(rate);
  return quarter + step + PIECES * Math.round((passed - step) / PIECES);
}

/** What a label says: the place goes on where it agrees, and is another one where two labels do. */
function believed(code: FollowedCode, quarter: number, rate: CodeRate, at: Micros): FollowedCode {
  const claim = { quarter, at };
  if (code.quarter === quarter && code.rate === rate) return { ...code, claim: null };
  const before = code.claim;
  const agrees = before !== null && code.rate === rate && quarter - before.quarter === PIECES;
  if (agrees) return { ...code, quarter, claim: null, marks: [claim] };
  // At another rate nothing of before counts: its quarter frames are others.
  if (code.rate !== rate) return { ...code, rate, quarter: null, claim, marks: [] };
  return { ...code, claim };
}

/** The last marks with one more; where it runs at another speed than before, the latest of them. */
function marked(code: FollowedCode, at: Micros): FollowedCode {
  const { quarter, rate } = code;
  if (quarter === null || rate === null) return code;
  const kept = code.marks.filter((m) => m.at > at - WINDOW).slice(1 - MARKS);
  const marks = [...kept, { quarter, at }];
  const latest = marks.slice(-LATEST);
  if (marks.length <= TO_KNOW_SPEED) return { ...code, marks };
  const { place, speed, at: last } = lineThrough(marks, rate);
  const off = latest.reduce((sum, m) => sum + (m.quarter * quarterMicros(rate) - (place + (m.at - last) * speed)), 0);
  return { ...code, marks: Math.abs(off / latest.length) > BENT ? latest : marks };
}

/** Where a code is at a clock time, and how fast it runs; 1 is as fast as its rate says. */
export interface CodePlace {
  /** Time from midnight, as the wall clock has it. */
  readonly place: Micros;
  readonly at: Micros;
  readonly speed: number;
}

/** The line that marks lie on, by least squares; of few marks with the speed that the rate says. */
function lineThrough(marks: readonly CodeMark[], rate: CodeRate): CodePlace {
  const micros = quarterMicros(rate);
  const { at } = marks.at(-1)!;
  const count = marks.length;
  const meanAt = marks.reduce((sum, m) => sum + (m.at - at), 0) / count;
  const base = marks.at(-1)!.quarter;
  const mean = marks.reduce((sum, m) => sum + (m.quarter - base) * micros, 0) / count;
  let speed = 1;
  if (count > TO_KNOW_SPEED) {
    let [over, under] = [0, 0];
    for (const m of marks) {
      const x = m.at - at - meanAt;
      over += x * ((m.quarter - base) * micros - mean);
      under += x * x;
    }
    if (under > 0) speed = over / under;
  }
  return { place: base * micros + mean - meanAt * speed, at, speed };
}

/** How fast it runs, roughly, from its latest marks; null while there are too few. */
function roughSpeed({ rate, marks }: FollowedCode): number | null {
  const latest = marks.slice(-LATEST);
  if (rate === null || latest.length < PIECES) return null;
  const [first, last] = [latest[0]!, latest.at(-1)!];
  const span = last.at - first.at;
  return span > 0 ? ((last.quarter - first.quarter) * quarterMicros(rate)) / span : Infinity;
}

/** Where the code runs, as far as can be told: null while it stands, runs backwards or is wound. */
export function codePlace(code: FollowedCode): CodePlace | null {
  const { rate, marks, quarter } = code;
  if (rate === null || quarter === null || marks.length === 0) return null;
  const line = lineThrough(marks, rate);
  const [slowest, fastest] = SPEED_BOUNDS;
  const rough = roughSpeed(code) ?? 1;
  const isWound = rough < slowest / 1.5 || rough > fastest * 1.5;
  return isWound || line.speed < slowest || line.speed > fastest ? null : line;
}

/** Whether it has run long enough to begin something by it. */
export const isSteady = (code: FollowedCode): boolean => roughSpeed(code) !== null;

/** Whether it runs at a speed at which a machine winds; what comes still faster is no machine. */
export function isWound(code: FollowedCode): boolean {
  const speed = roughSpeed(code);
  return speed !== null && codePlace(code) === null && speed < WILD;
}

/** Whether quarter frames come faster than any machine winds. */
export const isWild = (code: FollowedCode): boolean => (roughSpeed(code) ?? 0) >= WILD;

/** Whether it runs backwards. */
export const runsBackwards = ({ back }: FollowedCode): boolean => back >= BACKWARDS;
