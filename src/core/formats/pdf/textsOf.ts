import type { Sheet } from '../../sheets';

/** All that stands on some sheets, and what every page has. */
export function* textsOf(sheets: readonly Sheet[], show: string, asOf: string): Generator<string> {
  yield show;
  yield `${asOf} as of page of 0123456789 continued`;
  for (const { kind, title, about, parts } of sheets) {
    yield* [kind, title, about];
    for (const part of parts) {
      if (part.kind === 'text') yield part.text;
      else if (part.kind === 'strips') {
        yield part.name;
        for (const row of part.rows) for (const cell of row) yield* [cell.name, cell.shown];
      } else {
        yield part.name;
        for (const c of part.columns) yield c.head;
        for (const rows of [part.rows, part.tight ?? []]) for (const row of rows) yield* row;
      }
    }
  }
}
