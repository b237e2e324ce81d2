import {
  NOT_REACTED,
  moments,
  newTone,
  partAims,
  react,
  reactLater,
  type Act,
  type Reacting,
  type ReactionStep,
} from '../core/meaning';
import { allReactions, echoesOf, heardSwitch, type HeardSwitch } from '../core/feet';
import { toHex, type Bytes } from '../core/midi';
import { stateAt } from '../core/compile';
import { sameControl, type RigState, type Stored } from '../core/rig';
import { indexShow, songTime, ticksAt, type Show, type Song } from '../core/show';
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

/** What is known of the rig. */
export interface Rig {
  readonly now: () => RigState;
  /** When all that was sent has had its effect. */
  readonly eventual: () => RigState;
}

/** A control that a pedal moved, and the value it goes back to. */
export interface Restored {
  readonly unitId: string;
  readonly controlId: string;
  readonly value: number;
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
  /** What controls were on before a pedal moved them, by unit and control, as far as it was known. */
  private readonly before = new Map<string, number>();
  private reacting: Reacting = NOT_REACTED;
  /** What else is to come of switches that were pressed, by port: known already, and done. */
  private readonly echoes = new Map<string, { readonly bytes: string; readonly until: Micros }[]>();
  private last: { readonly due: Micros; readonly toneId: string } | undefined;

  constructor(private readonly rig: Rig) {}

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
    for (const act of acts) {
      if (act.kind !== 'set') continue;
      const value = this.rig.now()[act.unitId]?.controls[act.controlId];
      const key = keyOf(act);
      if (typeof value === 'number' && !this.before.has(key)) this.before.set(key, value);
    }
  }

  /** The song has reached a song time: where another tone is due there, controls that pedals moved go back to what the song wants. */
  passed(show: Show, song: Song, place: Micros): readonly Restored[] {
    const now = tonesOf(show, song).findLast((t) => t.due <= place);
    if (now === this.last) return [];
    this.last = now;
    if (!now || this.reacting.touched.size === 0) return [];
    const state = stateAt(show, song, ticksAt(songTime(song), now.due));
    return this.restored(show, (unitId, controlId) => state[unitId]?.controls[controlId]);
  }

  /** A tone came by itself: what pedals moved goes to what it wants. */
  toneCame(show: Show, toneId: string): readonly Restored[] {
    const tone = indexShow(show).tones.get(toneId);
    if (!tone) return [];
    const aims = partAims(show, tone);
    return this.restored(show, (unitId, controlId) => aims.get(unitId)?.controls[controlId]);
  }

  /**
   * Controls that pedals have moved, with the value each goes back to: what is wanted of it, its rest, or
   * what it was on before. One that a preset has set anew since is left alone.
   */
  private restored(
    show: Show,
    wantedOf: (unitId: string, controlId: string) => number | Stored | undefined,
  ): Restored[] {
    const { reacting, touched } = newTone(this.reacting);
    this.reacting = reacting;
    const eventual = touched.length > 0 ? this.rig.eventual() : {};
    const restored = touched.flatMap(({ unitId, controlId }): Restored[] => {
      const profile = indexShow(show).units.get(unitId)?.profile;
      const control = profile?.controls.find((c) => c.id === controlId);
      if (!profile || !control) return [];
      const wanted = wantedOf(unitId, controlId);
      const is = eventual[unitId]?.controls[controlId];
      // Another preset has come, and brought its own value.
      if (typeof wanted !== 'number' && typeof is !== 'number') return [];
      const rest = control.rest ?? (control.encoding.kind === 'set-switch' ? 0 : undefined);
      const value = typeof wanted === 'number' ? wanted : (rest ?? this.before.get(keyOf({ unitId, controlId })));
      if (value === undefined || sameControl(profile, controlId, is, value)) return [];
      return [{ unitId, controlId, value }];
    });
    this.before.clear();
    return restored;
  }
}

const keyOf = ({ unitId, controlId }: { unitId: string; controlId: string }): string => `${unitId} ${controlId}`;
