/** The most that a show holds: what readers accept, forms allow and sentences name. In one place, so that they agree. */
export const LIMITS = {
  /** Letters of a title or a name: of a show, song, unit, port, tone, section … */
  title: 120,
  /** Letters of a name inside a unit: of a control, an effect, an option. */
  name: 60,
  notes: 20_000,
  players: 200,
  ports: 5000,
  units: 5000,
  tones: 20_000,
  moves: 5000,
  songs: 2000,
  bars: 100_000,
  cues: 1_000_000,
  sweeps: 20_000,
  sections: 2000,
  /** Values of one sweep that are sent: a longer one has them further apart. */
  sweepValues: 20_000,
  /** How deep a file of JSON may nest; a show nests eleven deep. */
  jsonDepth: 64,
} as const;

/** A text as a title: without blanks around it, cut to what a title may have; `otherwise` where nothing is left. */
export const asTitle = (text: string, otherwise: string): string =>
  text.trim().slice(0, LIMITS.title).trim() || otherwise;
