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
import { allReactions, echoesOf, heardSwitch, type HeardSwitch } from '../core/feet';
import { toHex, type Bytes } from '../core/midi';
import { indexShow, type Show, type Song } from '../core/show';
import type { Micros } from '../core/time';
import type { Arrival } from './ports';

/** What came of a message that arrived. */
export interface Outcome {
  readonly acts: readonly Act[];
  readonly steps: readonly ReactionStep[];
  readonly goesOn: boolean;
  /** The foot switch that was pressed, where a page has one for it. */
  readonly pressed: HeardSwitch | null;
}

/** What a switch sends beside its call comes within this: also what waits until the foot leaves it. */
const ECHOES: Micros = 5_000_000;

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
  /** What else is to come of switches that were pressed, by port: known already, and done. */
  private readonly echoes = new Map<string, { readonly bytes: string; readonly until: Micros }[]>();
  private last: { readonly due: Micros; readonly toneId: string } | undefined;

  constructor(private readonly slotOf: (unitId: string) => number | null | undefined) {}

  hear(show: Show, songId: string | null, { portId, at, bytes }: Arrival): Outcome {
    if (this.isEcho(portId, at, bytes)) return { steps: [], goesOn: false, acts: [], pressed: null };
    const reactions = allReactions(show);
    const { reacting, steps, goesOn } = react({ reactions }, this.reacting, { songId, at }, portId, bytes);
    this.reacting = reacting;
    const acts = steps.flatMap((s) => s.acts);
    this.remember(acts);
    const taken = steps.find((s) => s.miss === null);
    const pressed = (taken && heardSwitch(show, taken.reactionId)) ?? null;
    if (pressed) this.expect(portId, at, echoesOf(show, pressed));
    return { steps, goesOn, acts, pressed };
  }

  private expect(portId: string, at: Micros, messages: readonly Bytes[]): void {
    const still = (this.echoes.get(portId) ?? []).filter((e) => e.until > at);
    this.echoes.set(portId, [...still, ...messages.map((m) => ({ bytes: toHex(m), until: at + ECHOES }))]);
  }

  /** Whether a message is one that a switch sends beside its call. Each is passed over once. */
  private isEcho(portId: string, at: Micros, bytes: Bytes): boolean {
    const list = this.echoes.get(portId);
    if (!list || list.length === 0) return false;
    const text = toHex(bytes);
    const found = list.findIndex((e) => e.until > at && e.bytes === text);
    if (found < 0) return false;
    list.splice(found, 1);
    return true;
  }

  /** What comes of pedals that stand long enough where they are. */
  wake(show: Show, now: Micros): readonly Act[] {
    const { reacting, acts } = reactLater({ reactions: allReactions(show) }, this.reacting, now);
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
