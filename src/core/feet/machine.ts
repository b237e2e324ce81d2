import type { Trigger } from '../addressing';
import { controlChange, type Bytes } from '../midi';
import type { Micros } from '../time';
import { pedalValue, type FootMemory, type StoredAction, type StoredPageTo, type StoredPage } from './memory';

/** A switch is held, not pressed, from here on. */
export const LONG_PRESS: Micros = 600_000;
/** A second press within this belongs to the first. */
export const DOUBLE_PRESS: Micros = 300_000;

/** A switch that is down or was pressed a moment ago. */
interface Pressed {
  /** The page that it was pressed on: what it does when it is let go is that page's. */
  readonly page: number;
  readonly at: Micros;
  readonly down: boolean;
  /** What waits: the press, for the time in which it could become another. */
  readonly pending: boolean;
  readonly held: boolean;
}

/** A foot controller at work: which page it is on, which switches are down, how those that flip stand. */
export interface FootState {
  readonly page: number;
  readonly pressed: ReadonlyMap<number, Pressed>;
  /** Switches that flip, by page and place, that were pressed once. */
  readonly flipped: ReadonlySet<string>;
}

export const FOOT_AT_REST: FootState = { page: 0, pressed: new Map(), flipped: new Set() };

export type FootInput =
  | { readonly kind: 'press' | 'release'; readonly switch: number; readonly at: Micros }
  /** How far a pedal is down, from 0 to 1. */
  | { readonly kind: 'pedal'; readonly pedal: number; readonly share: number }
  /** One page on or back, by the controller's own switches. */
  | { readonly kind: 'step'; readonly by: 1 | -1 }
  /** A page was called from outside. */
  | { readonly kind: 'go'; readonly page: number }
  | { readonly kind: 'wake'; readonly at: Micros };

export interface FootStep {
  readonly state: FootState;
  readonly sends: readonly Bytes[];
}

const pageAt = (memory: FootMemory, place: number): StoredPage | undefined =>
  memory.pages.find((p) => p.place === place);

const actionOf = (memory: FootMemory, page: number, place: number, trigger: Trigger): StoredAction | undefined =>
  pageAt(memory, page)
    ?.switches.find((s) => s.place === place)
    ?.actions.find((a) => a.trigger === trigger);

const flipKey = (page: number, place: number): string => `${page}/${place}`;

/** Where a controller that goes from a page to another comes to; from the last page on it is the first again. */
function turned(memory: FootMemory, from: number, to: StoredPageTo): number {
  if (typeof to === 'number') return to;
  const places = memory.pages.map((p) => p.place).sort((a, b) => a - b);
  if (places.length === 0) return from;
  if (to === 'next') return places.find((p) => p > from) ?? places[0]!;
  return places.findLast((p) => p < from) ?? places.at(-1)!;
}

/** What a controller does when it is played; it works from its own memory and knows nothing of the show. */
export function footStep(memory: FootMemory, state: FootState, input: FootInput): FootStep {
  const hand = new FootHand(memory, state);
  switch (input.kind) {
    case 'press':
      hand.wake(input.at);
      hand.press(input.switch, input.at);
      break;
    case 'release':
      hand.wake(input.at);
      hand.release(input.switch, input.at);
      break;
    case 'pedal':
      hand.pedal(input.pedal, input.share);
      break;
    case 'step':
      hand.page = turned(memory, hand.page, input.by > 0 ? 'next' : 'previous');
      break;
    case 'go':
      hand.page = input.page;
      break;
    case 'wake':
      hand.wake(input.at);
  }
  return { state: hand.state, sends: hand.sends };
}

/** One step in the making. */
class FootHand {
  readonly sends: Bytes[] = [];
  page: number;
  private readonly pressed: Map<number, Pressed>;
  private readonly flipped: Set<string>;
  private changed = false;

  constructor(
    private readonly memory: FootMemory,
    private readonly before: FootState,
  ) {
    this.page = before.page;
    this.pressed = new Map(before.pressed);
    this.flipped = new Set(before.flipped);
  }

  get state(): FootState {
    const same = !this.changed && this.page === this.before.page;
    return same ? this.before : { page: this.page, pressed: this.pressed, flipped: this.flipped };
  }

  press(place: number, at: Micros): void {
    this.changed = true;
    const was = this.pressed.get(place);
    const { page } = this;
    const has = (trigger: Trigger): boolean => actionOf(this.memory, page, place, trigger) !== undefined;
    if (was?.pending && !was.down && was.page === page && has('double')) {
      this.pressed.set(place, { page, at, down: true, pending: false, held: false });
      this.act(page, place, 'double');
      return;
    }
    // A press that could become another waits until it cannot.
    const waits = has('double') || has('long');
    this.pressed.set(place, { page, at, down: true, pending: waits, held: false });
    if (!waits) this.firePress(page, place);
  }

  release(place: number, at: Micros): void {
    const was = this.pressed.get(place);
    if (!was?.down) return;
    this.changed = true;
    const double = actionOf(this.memory, was.page, place, 'double') !== undefined;
    const stillOpen = was.pending && double && at - was.at < DOUBLE_PRESS;
    this.pressed.set(place, { ...was, down: false, pending: stillOpen });
    if (was.pending && !stillOpen) this.firePress(was.page, place);
    this.act(was.page, place, 'release');
    if (!stillOpen) this.pressed.delete(place);
  }

  /** Presses that have become long ones, or will not become double ones any more. */
  wake(at: Micros): void {
    for (const [place, was] of this.pressed) {
      if (!was.pending) continue;
      const long = actionOf(this.memory, was.page, place, 'long') !== undefined;
      if (was.down && long) {
        if (at - was.at < LONG_PRESS) continue;
        this.changed = true;
        this.pressed.set(place, { ...was, pending: false, held: true });
        this.act(was.page, place, 'long');
      } else if (at - was.at >= DOUBLE_PRESS) {
        this.changed = true;
        if (was.down) this.pressed.set(place, { ...was, pending: false });
        else this.pressed.delete(place);
        this.firePress(was.page, place);
      }
    }
  }

  pedal(place: number, share: number): void {
    const pedal = pageAt(this.memory, this.page)?.pedals.find((p) => p.place === place);
    if (pedal) this.sends.push(controlChange(pedal.channel, pedal.number, pedalValue(pedal, share)));
  }

  /** A press: of a switch that flips, every second one is the other. */
  private firePress(page: number, place: number): void {
    const key = flipKey(page, place);
    const again = actionOf(this.memory, page, place, 'again') !== undefined && this.flipped.has(key);
    this.act(page, place, again ? 'again' : 'press');
    if (again) this.flipped.delete(key);
    else if (actionOf(this.memory, page, place, 'again')) this.flipped.add(key);
  }

  private act(page: number, place: number, trigger: Trigger): void {
    const action = actionOf(this.memory, page, place, trigger);
    if (!action) return;
    this.sends.push(...action.messages);
    if (action.page !== null) this.page = turned(this.memory, page, action.page);
  }
}

/** Whether a switch of the page that the controller is on stands lit: it flips, and was pressed once. */
export const isLit = ({ page, flipped, pressed }: FootState, place: number): boolean =>
  flipped.has(flipKey(page, place)) || pressed.get(place)?.down === true;
