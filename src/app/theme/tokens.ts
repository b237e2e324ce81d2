/**
 * Colours and type of the desk light: paper under fog, ink of deep water, one lamp. Text
 * on every ground meets WCAG AA.
 */
export const desk = {
  paper: '#e9eeea',
  sheet: '#f8faf5',
  sheetDim: '#eff3ed',
  ink: '#13262d',
  inkSoft: '#43565b',
  line: '#c8d2cb',
  lineStrong: '#7f918f',
  tide: '#0a5160',
  tideWash: '#d3e5e4',
  lamp: '#f2a516',
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
  display: "'Bricolage Grotesque Variable', 'IBM Plex Sans Variable', sans-serif",
  text: "'IBM Plex Sans Variable', sans-serif",
  bytes: "'JetBrains Mono Variable', monospace",
} as const;

/** Unit colours come after pattern and monogram; all carry white text at AA. */
export const unitColours = [
  '#0a5160',
  '#84470a',
  '#553a86',
  '#2c6524',
  '#8f2b57',
  '#2f5280',
  '#5a5314',
  '#6b3b3b',
] as const;

export const unitColour = (index: number): string => unitColours[index % unitColours.length]!;
