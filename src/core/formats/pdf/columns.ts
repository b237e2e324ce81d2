import type { SheetColumn } from '../../sheets';
import { piecesOf } from './wrap';

/** Measures a text at size 1. */
export type Measure = (text: string, column: number) => number;

interface Need {
  /** The widest cell, on one line. */
  readonly whole: number;
  /** The widest piece that should stay whole, and the widest word. */
  readonly piece: number;
  readonly word: number;
}

/** What a column needs at size 1: of a long table its widest cells by their letters are measured. */
export function needsOf(
  columns: readonly SheetColumn[],
  rows: readonly (readonly string[])[],
  measure: Measure,
): readonly Need[] {
  return columns.map((_, i) => {
    let cells: readonly string[] = [...new Set(rows.map((row) => row[i]!))];
    if (cells.length > MEASURED) cells = cells.toSorted((a, b) => b.length - a.length).slice(0, MEASURED);
    const pieces = (unbroken: number): ReadonlySet<string> =>
      new Set(cells.flatMap((c) => c.split('\n').flatMap((line) => piecesOf(line, unbroken))));
    const widest = (texts: Iterable<string>): number => Math.max(0, ...Array.from(texts, (t) => measure(t, i)));
    return {
      whole: widest(cells.flatMap((c) => c.split('\n'))),
      piece: widest(pieces(UNBROKEN)),
      word: widest(pieces(0)),
    };
  });
}

const MEASURED = 200;
/** Letters of the longest place in a unit that is kept on one line. */
export const UNBROKEN = 18;

/**
 * How wide each column is, in points: as its cells need it, so that no word is broken that need not be; what is left
 * goes by the shares of the columns.
 */
export function widthsOf(
  columns: readonly SheetColumn[],
  needs: readonly Need[],
  heads: readonly number[],
  size: number,
  pad: number,
  inner: number,
): readonly number[] {
  const leastBy = (own: 'piece' | 'word'): number[] =>
    needs.map((need, i) => Math.max(need[own] * size, heads[i]!) + pad);
  const words = leastBy('word');
  const pieces = leastBy('piece');
  const least = pieces.reduce((a, b) => a + b, 0) <= inner ? pieces : words;
  const whole = needs.map((need, i) => Math.max(need.whole * size + pad, least[i]!));
  const sum = (all: readonly number[]): number => all.reduce((a, b) => a + b, 0);
  if (sum(whole) <= inner) {
    const shares = sum(columns.map((c) => c.width));
    const left = inner - sum(whole);
    return whole.map((w, i) => w + (left * columns[i]!.width) / shares);
  }
  if (sum(least) <= inner) {
    const wanted = whole.map((w, i) => w - least[i]!);
    const left = inner - sum(least);
    return least.map((w, i) => w + (left * wanted[i]!) / sum(wanted));
  }
  // Something is broken: what is narrow stays whole, the wide ones share the rest.
  const order = [...least.keys()].sort((a, b) => least[a]! - least[b]!);
  const widths: number[] = [];
  let left = inner;
  for (const [nth, i] of order.entries()) {
    widths[i] = Math.min(least[i]!, left / (order.length - nth));
    left -= widths[i];
  }
  return widths;
}
