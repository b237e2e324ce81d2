/** A sheet of paper, as data: what stands on it, in which order. How it looks is for whoever prints it. */
export interface Sheet {
  readonly id: string;
  /** What it is, and of what: "Cue sheet", "Fog Bell". */
  readonly kind: string;
  readonly title: string;
  /** A line under the title; empty for none. */
  readonly about: string;
  readonly parts: readonly SheetPart[];
  /** It is wider than high. */
  readonly wide: boolean;
}

export type SheetPart =
  | { readonly kind: 'text'; readonly text: string }
  | {
      readonly kind: 'table';
      readonly name: string;
      readonly columns: readonly SheetColumn[];
      readonly rows: readonly (readonly string[])[];
    }
  /** Strips for switches, in their true size. */
  | {
      readonly kind: 'strips';
      readonly name: string;
      /** Millimetres from switch to switch. */
      readonly pitch: number;
      readonly rows: readonly (readonly {
        readonly name: string;
        /** What a display shows; nothing where there is none. */
        readonly shown: string;
        /** Another switch of the page shows the same for something else. */
        readonly clash: boolean;
      }[])[];
    };

export interface SheetColumn {
  readonly head: string;
  /** Shares of the width. */
  readonly width: number;
  /** What one looks for: set in bold. */
  readonly strong?: boolean;
  /** Figures, one below the other. */
  readonly figures?: boolean;
}

export type SheetTable = Extract<SheetPart, { kind: 'table' }>;

/** A column of a printed table. `width` is its share of the room. */
export const column = (head: string, width: number, rest: Partial<SheetColumn> = {}): SheetColumn => ({
  head,
  width,
  ...rest,
});

/** A table of a sheet; each row has a text for each column. */
export const table = (
  name: string,
  columns: readonly SheetColumn[],
  rows: readonly (readonly string[])[],
): SheetTable => ({ kind: 'table', name, columns, rows });

/** How many lines a sheet has, about: rows of its tables and strips, and texts. */
export const linesOf = ({ parts }: Sheet): number =>
  parts.reduce((sum, p) => sum + (p.kind === 'text' ? 1 : p.rows.length), 0);
