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
  /** It may lie the other way, where its type becomes larger so. */
  readonly turns?: boolean;
  readonly type: SheetType;
}

/** How large the type of a sheet is, in points: at least, and at most where there is room. */
export interface SheetType {
  readonly least: number;
  readonly most: number;
}

/** Read on a music stand in bad light. */
export const DESK: SheetType = { least: 11, most: 15 };
/** Read standing, from the floor: a running order, and what comes in a song. */
export const FLOOR: SheetType = { least: 30, most: 64 };
export const FLOOR_SONG: SheetType = { least: 18, most: 44 };

export type SheetPart =
  | { readonly kind: 'text'; readonly text: string }
  | {
      readonly kind: 'table';
      readonly name: string;
      readonly columns: readonly SheetColumn[];
      readonly rows: readonly (readonly string[])[];
      /** The same rows in fewer letters, for where there is little room. */
      readonly tight?: readonly (readonly string[])[];
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
  /** It is left out where there is no room for it. */
  readonly spare?: boolean;
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
