/** The most that a show holds: what readers accept, forms allow and sentences name. In one place, so that they agree. */
export const LIMITS = {
  /** Letters of a title or a name: of a show, song, unit, port, tone, section … */
  title: 120,
  /** Letters of a name inside a unit: of a control, an effect, an option. */
  name: 60,
  notes: 20_000,
  players: 200,
  ports: 200,
  units: 500,
  /** Slots of a unit: as many as two banks of seven bits call, 128 to a bank. */
  slots: 16_384,
  tones: 5000,
  moves: 5000,
  songs: 400,
  sets: 200,
  /** What recordings are of, each with a way out of its own. */
  stems: 64,
  /** Mixes for ears. */
  ears: 32,
  reactions: 1000,
  /** Foot controllers that are programmed. */
  controllers: 32,
  /** Shared control numbers: as many as there are control numbers. */
  house: 128,
  /** Bytes of an exclusive file that is kept. */
  dumpBytes: 262_144,
  bars: 20_000,
  /** Pulses of a MIDI clock that a song sends: over an hour and a half at 120. */
  clockPulses: 300_000,
  /** How far from a song's start anything may stand, in ticks: six days at 120. */
  ticks: 1_000_000_000,
  /** The longest pickup, in ticks: longer than any bar. */
  pickup: 1_000_000,
  cues: 8000,
  sweeps: 1000,
  sections: 1000,
  remarks: 1000,
  /** Calls ahead of bars, of a song. */
  calls: 1000,
  /** Bars that a call counts. */
  countBars: 8,
  /** Letters of a remark at a bar: one line. */
  remark: 200,
  /** Values of one sweep that are sent: a longer one has them further apart. */
  sweepValues: 20_000,
  /** How deep a file of JSON may nest; a show nests eleven deep. */
  jsonDepth: 64,
} as const;

/** A text without blanks around it, cut to what such a text may have. */
export const fitText = (text: string, as: 'title' | 'name' | 'notes'): string => text.trim().slice(0, LIMITS[as]);

/** A text as a title: without blanks around it, cut to what a title may have; `otherwise` where nothing is left. */
export const asTitle = (text: string, otherwise: string): string =>
  text.trim().slice(0, LIMITS.title).trim() || otherwise;

/** The least and the greatest of a figure. */
export type Range = readonly [low: number, high: number];

/** What figures that are typed may be: schema, forms and sentences read it here. */
export const RANGES = {
  /** Quarter notes, or beats, a minute that are typed; a file may hold others. */
  bpm: [20, 400],
  preRollMillis: [0, 60_000],
  shiftMillis: [-10_000, 10_000],
  /** After and before its place that a change may land and still be on time. */
  lateMillis: [0, 1000],
  earlyMillis: [0, 10_000],
  /** How much sooner than their beat changes land, and how much longer settling is waited for. */
  marginMillis: [0, 200],
  guardMillis: [0, 200],
  /** Between the values of a sweep. */
  spacingMillis: [10, 1000],
  /** From a sound that is wanted until a hand has pressed for it. */
  reactionMillis: [0, 1000],
  /** Of a set: between songs, for breaks, and from a song to the next that goes on by itself. */
  pauseSeconds: [0, 600],
  betweenSeconds: [0, 3600],
  breakMinutes: [1, 600],
  /** In which a sound between songs goes away under the next one. */
  fadeSeconds: [0, 60],
  gain: [-60, 12],
  /** How long a value has to stand above or below before a reaction's switch goes over. */
  holdMillis: [0, 5000],
  /** That sound is later in the ears than the browser knows of. */
  delayMillis: [-1000, 1000],
  offsetMillis: [-600_000, 600_000],
  /** What a unit needs for something. */
  unitMillis: [0, 60_000],
} as const satisfies Readonly<Record<string, Range>>;

/** A figure that was typed, with a decimal point or comma; undefined where it is none or out of its range. */
export function figureIn([low, high]: Range, text: string): number | undefined {
  const typed = text.trim().replace(',', '.');
  const value = typed === '' ? Number.NaN : Number(typed);
  return value >= low && value <= high ? value : undefined;
}

/** A range in words: "0 to 60000". */
export const rangeWords = ([low, high]: Range): string => `${low} to ${high}`;
