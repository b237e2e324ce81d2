/** Tables that are written, and read again. */
export const TABLES = ['cues', 'set', 'tones', 'controls', 'presets'] as const;
export type TableKind = (typeof TABLES)[number];
