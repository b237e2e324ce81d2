/** How large the parts of a line are, in pixels. */
export interface Density {
  /** Bar numbers, and over them names of sections and tempos. */
  readonly numbers: number;
  readonly names: number;
  /** A row of flags, or what stands there on a line without any. */
  readonly flag: number;
  readonly noFlags: number;
  readonly lane: number;
  /** The row that sums up the lanes in which nothing happens. */
  readonly thin: number;
  readonly foot: number;
  readonly text: {
    readonly number: number;
    readonly name: number;
    readonly flag: number;
    readonly lane: number;
    readonly thin: number;
  };
}

const density = (
  [numbers, names, flag, lane, thin, foot]: readonly number[],
  [number, name, flagText, laneText, thinText]: readonly number[],
): Density => ({
  numbers: numbers!,
  names: names!,
  flag: flag!,
  noFlags: Math.round(flag! / 3),
  lane: lane!,
  thin: thin!,
  foot: foot!,
  text: { number: number!, name: name!, flag: flagText!, lane: laneText!, thin: thinText! },
});

/** From what one works in to what still can be read: nothing under 9 pixels. */
export const DENSITIES: readonly Density[] = [
  density([17, 21, 28, 18, 15, 10], [12.5, 17, 14, 12, 11]),
  density([16, 18, 25, 16, 14, 8], [12, 15, 13, 11.5, 10.5]),
  density([15, 16, 22, 14, 13, 6], [11, 13.5, 12, 10.5, 10]),
  density([13, 14, 19, 12, 12, 5], [10, 12, 11, 9.5, 9.5]),
  density([11, 11, 15, 10.5, 10.5, 3], [9, 10, 9, 9, 9]),
];

/** What one works in. */
export const ROOMY = DENSITIES[0]!;
