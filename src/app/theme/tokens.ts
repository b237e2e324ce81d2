/** The desk by day: paper under fog, ink of deep water, one lamp. Text on every ground meets WCAG AA. */
export const day = {
  paper: '#e9eeea',
  sheet: '#f8faf5',
  sheetDim: '#eff3ed',
  /** Ground of what is typed into. */
  field: '#ffffff',
  ink: '#13262d',
  inkSoft: '#43565b',
  line: '#c8d2cb',
  lineStrong: '#7f918f',
  tide: '#0a5160',
  /** Text on tide. */
  onTide: '#ffffff',
  tideWash: '#d3e5e4',
  lamp: '#f2a516',
  /** Text on the lamp. */
  onLamp: '#13262d',
  lampDeep: '#8a5400',
  lampWash: '#fdeec6',
  rust: '#a02c14',
  rustWash: '#f7dfd6',
  /** The strip at the foot: the pier at night. */
  night: '#13262d',
  nightRaised: '#1f3841',
  nightLine: '#3d5861',
  nightText: '#f3f0e2',
  nightSoft: '#b4c4c2',
} as const;

type Colour = keyof typeof day;

/** The desk by night: the same places in lamplight, for a dark room. AA as by day. */
export const dusk: Readonly<Record<Colour, string>> = {
  paper: '#0f1c22',
  sheet: '#172a31',
  sheetDim: '#13242a',
  field: '#0b171c',
  ink: '#eef0e6',
  inkSoft: '#afbfbd',
  line: '#2e464e',
  lineStrong: '#78929a',
  tide: '#84ccd5',
  onTide: '#06222a',
  tideWash: '#1d434c',
  lamp: '#f2a516',
  onLamp: '#13262d',
  lampDeep: '#f3bd5b',
  lampWash: '#47380f',
  rust: '#ff9f83',
  rustWash: '#4a2219',
  night: '#0a1418',
  nightRaised: '#182b33',
  nightLine: '#3d5861',
  nightText: '#f3f0e2',
  nightSoft: '#b4c4c2',
};

/** Where the computer has colours of its own for all pages (CSS Color Adjustment 1, forced colours), those. */
export const forced: Readonly<Record<Colour, string>> = {
  paper: 'Canvas',
  sheet: 'Canvas',
  sheetDim: 'Canvas',
  field: 'Field',
  ink: 'CanvasText',
  inkSoft: 'CanvasText',
  line: 'GrayText',
  lineStrong: 'CanvasText',
  tide: 'LinkText',
  onTide: 'Canvas',
  tideWash: 'Canvas',
  lamp: 'Highlight',
  onLamp: 'HighlightText',
  lampDeep: 'CanvasText',
  lampWash: 'Canvas',
  rust: 'CanvasText',
  rustWash: 'Canvas',
  night: 'Canvas',
  nightRaised: 'Canvas',
  nightLine: 'CanvasText',
  nightText: 'CanvasText',
  nightSoft: 'CanvasText',
};

/** Colours of the desk, in the light that it has. */
export const desk = Object.fromEntries(Object.keys(day).map((name) => [name, `var(--${name})`])) as Readonly<
  Record<Colour, string>
>;

/** The stage light: the pier at night, nothing but what is needed. Large text meets WCAG AAA on every ground. */
export const stage = {
  ground: '#081318',
  raised: '#132730',
  line: '#4a6872',
  text: '#fbf7e6',
  soft: '#b9cac8',
  lamp: '#ffc04a',
  wrong: '#ffab94',
  stop: '#6d2112',
} as const;

export const font = {
  // Letters of other scripts are those of the family behind, which is filled as they are wanted.
  display: "'Bricolage Grotesque Variable', 'IBM Plex Sans Variable', 'Lantern Letters', sans-serif",
  text: "'IBM Plex Sans Variable', 'Lantern Letters', sans-serif",
  bytes: "'JetBrains Mono Variable', 'Lantern Letters', monospace",
} as const;

/** Unit colours come after pattern and monogram; all are read on the ground of a field at AA. */
export const unitColours = {
  day: ['#0a5160', '#84470a', '#553a86', '#2c6524', '#8f2b57', '#2f5280', '#5a5314', '#6b3b3b'],
  dusk: ['#84ccd5', '#f0b57b', '#c3aef0', '#9fd590', '#f2a3c4', '#a9c8f2', '#d8cd7a', '#dcb0b0'],
} as const;

export const unitColour = (index: number): string => `var(--unit-${index % unitColours.day.length})`;

/** A colour as a canvas takes it, by day or by dusk. */
export function painted(colour: string, dark: boolean): string {
  const name = /^var\(--([\w-]+)\)$/.exec(colour)?.[1] ?? '';
  const unit = /^unit-(\d+)$/.exec(name)?.[1];
  if (unit !== undefined) return unitColours[dark ? 'dusk' : 'day'][Number(unit)] ?? colour;
  return name in day ? (dark ? dusk : day)[name as Colour] : colour;
}
