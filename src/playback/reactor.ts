import {
  NOT_REACTED,
  moments,
  newTone,
  react,
  reactLater,
  type Act,
  type Reacting,
  type ReactionStep,
} from '../core/meaning';
import { indexShow, type Show, type Song } from '../core/show';
import type { Micros } from '../core/time';
import type { Arrival } from './ports';

/** What came of a message that arrived. */
export interface Outcome {
  readonly acts: readonly Act[];
  readonly steps: readonly ReactionStep[];
  readonly goesOn: boolean;
}

/** Tones of a song's cues by when they are due, made once a song. */
const toneLines = new WeakMap<Song, readonly { readonly due: Micros; readonly toneId: string }[]>();

function tonesOf(show: Show, song: Song) {
  let line = toneLines.get(song);
  if (!line) {
    line = moments(show, song).flatMap(({ due, action }) =>
      action.kind === 'tone' ? [{ due, toneId: action.toneId }] : [],
    );
    toneLines.set(song, line);
  }
  return line;
}

/** Goes through the reactions with what arrives, and remembers what they have to. */
export class Reactor {
  /** Presets that units were on when a pedal moved one of their controls. */
  private readonly slots = new Map<string, number | null | undefined>();
  private reacting: Reacting = NOT_REACTED;
  private last: { readonly due: Micros; readonly toneId: string } | undefined;

  constructor(private readonly slotOf: (unitId: string) => number | null | undefined) {}

  hear(show: Show, songId: string | null, { portId, at, bytes }: Arrival): Outcome {
    const { reacting, steps, goesOn } = react(show, this.reacting, { songId, at }, portId, bytes);
    this.reacting = reacting;
    const acts = steps.flatMap((s) => s.acts);
    this.remember(acts);
    return { steps, goesOn, acts };
  }

  /** What comes of pedals that stand long enough where they are. */
  wake(show: Show, now: Micros): readonly Act[] {
    const { reacting, acts } = reactLater(show, this.reacting, now);
    this.reacting = reacting;
    this.remember(acts);
    return acts;
  }

  private remember(acts: readonly Act[]): void {
    for (const act of acts) if (act.kind === 'set') this.slots.set(act.unitId, this.slotOf(act.unitId));
  }

  /** What a song has come to at a song time: where that is another tone, what pedals moved goes back. */
  passed(show: Show, song: Song, place: Micros): readonly Act[] {
    const now = tonesOf(show, song).findLast((t) => t.due <= place);
    if (now === this.last) return [];
    this.last = now;
    return now ? this.toneCame(show, now.toneId) : [];
  }

  /** A tone came: controls that pedals have moved go to what it wants of them, or to their rest. */
  toneCame(show: Show, toneId: string): readonly Act[] {
    const { reacting, touched } = newTone(this.reacting);
    this.reacting = reacting;
    const parts = indexShow(show).tones.get(toneId)?.parts ?? [];
    return touched.flatMap(({ unitId, controlId }): Act[] => {
      const part = parts.find((p) => p.unitId === unitId);
      const unit = indexShow(show).units.get(unitId);
      const slot = part?.slotId ? indexShow(show).slots(unitId).get(part.slotId)?.index : undefined;
      // Another preset brings its own value.
      if (slot !== undefined && slot !== this.slots.get(unitId) && unit?.profile.recallLoads.controls) return [];
      const wanted = part?.controls.find((c) => c.controlId === controlId)?.value;
      const control = unit?.profile.controls.find((c) => c.id === controlId);
      const value = wanted ?? control?.rest ?? (control?.encoding.kind === 'set-switch' ? 0 : null);
      return value === null ? [] : [{ kind: 'set', unitId, controlId, value }];
    });
  }
}
