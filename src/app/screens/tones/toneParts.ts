/** The parts of the view of tones. */
export const TONE_PARTS = [
  ['', 'Tones'],
  ['moves', 'Moves'],
] as const;
