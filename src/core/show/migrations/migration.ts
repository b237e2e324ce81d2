/** Lifts a show file's plain data from `from` to `from` + 1. */
export interface Migration {
  readonly from: number;
  /** What changed, in a few words. */
  readonly name: string;
  readonly up: (data: Readonly<Record<string, unknown>>) => Record<string, unknown>;
}
