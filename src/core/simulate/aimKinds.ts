import { meets, sameControl, type UnitAim, type UnitSpec, type UnitState } from '../rig';
import type { Instant } from './unitLine';

/** One thing that an aim names: the slot, the variant, or a control. */
export type Item = 'slot' | 'variant' | `control ${string}`;

/** All that an aim names, one after the other, with the value that it wants. */
export function* itemsOf(aim: UnitAim): Generator<readonly [item: Item, value: number]> {
  if (aim.slot !== undefined) yield ['slot', aim.slot];
  if (aim.variant !== undefined) yield ['variant', aim.variant];
  for (const id in aim.controls) yield [`control ${id}`, aim.controls[id]!];
}

/** What an aim wants of one thing; undefined where it leaves that alone. */
export const itemIn = (aim: UnitAim, item: Item): number | undefined =>
  item === 'slot' ? aim.slot : item === 'variant' ? aim.variant : aim.controls[item.slice(8)];

/** What a unit has for one thing: a value, "stored" where the preset decides, or nothing that is known. */
export const valueOf = (state: UnitState, item: Item): number | 'stored' | null | undefined =>
  item === 'slot' ? state.slot : item === 'variant' ? state.variant : state.controls[item.slice(8)];

/** Whether two values of one thing are the same to the unit, controls by the bytes that they become. */
export const sameValue = (unit: UnitSpec, item: Item, a: ReturnType<typeof valueOf>, b: number): boolean =>
  item === 'slot' || item === 'variant' ? a === b : sameControl(unit.profile, item.slice(8), a ?? undefined, b);

/** Whether two aims name the same thing with different values. */
function contradicts({ profile }: UnitSpec, a: UnitAim, b: UnitAim): boolean {
  if (a.slot !== undefined && b.slot !== undefined && a.slot !== b.slot) return true;
  if (a.variant !== undefined && b.variant !== undefined && a.variant !== b.variant) return true;
  for (const id in a.controls) {
    const other = b.controls[id];
    if (other !== undefined && !sameControl(profile, id, a.controls[id], other)) return true;
  }
  return false;
}

/** Whether another aim names something of an aim, and nothing against it. */
const agrees = (unit: UnitSpec, aim: UnitAim, other: UnitAim): boolean =>
  sharesItem(aim, other) && !contradicts(unit, aim, other);

function sharesItem(a: UnitAim, b: UnitAim): boolean {
  if (a.slot !== undefined && b.slot !== undefined) return true;
  if (a.variant !== undefined && b.variant !== undefined) return true;
  for (const id in a.controls) if (b.controls[id] !== undefined) return true;
  return false;
}

const NO = 1;
const YES = 2;

/**
 * The aims of a unit's wants by kind: a song says the same few things again and again. What is
 * asked of two of them is worked out once, so that thousands of changes that all come late stay
 * cheap to judge. Nothing is worked out before it is asked.
 */
export class AimKinds {
  private readonly ids = new Map<string, number>();
  private readonly aims: UnitAim[] = [];
  private readonly ofWant: Int32Array;
  /** What is known of two kinds; 0 is what was not asked yet. */
  private readonly contradicted: Uint8Array[] = [];
  private readonly agreed: Uint8Array[] = [];
  private complete = false;
  private readonly arrivals = new Map<number, Int32Array>();

  constructor(
    private readonly unit: UnitSpec,
    private readonly wanted: readonly UnitAim[],
  ) {
    this.ofWant = new Int32Array(wanted.length).fill(-1);
  }

  /** The kind of a want's aim. */
  of(k: number): number {
    const known = this.ofWant[k]!;
    if (known >= 0) return known;
    const aim = this.wanted[k]!;
    const text = JSON.stringify([aim.slot, aim.variant, aim.controls]);
    let id = this.ids.get(text);
    if (id === undefined) {
      id = this.aims.length;
      this.ids.set(text, id);
      this.aims.push(aim);
    }
    this.ofWant[k] = id;
    return id;
  }

  contradict(a: number, b: number): boolean {
    const known = this.contradicted[a]?.[b];
    return known ? known === YES : this.ask(this.contradicted, a, b, contradicts);
  }

  /** Whether the second names something of the first, and nothing against it. */
  agree(a: number, b: number): boolean {
    const known = this.agreed[a]?.[b];
    return known ? known === YES : this.ask(this.agreed, a, b, agrees);
  }

  /** The kinds of all wants' aims, in their order. */
  all(): Int32Array {
    if (this.complete) return this.ofWant;
    for (let k = 0; k < this.wanted.length; k++) this.of(k);
    this.complete = true;
    return this.ofWant;
  }

  /** Indexes of the instants at which a unit becomes what a kind of aim wants. */
  comes(kind: number, instants: readonly Instant[]): Int32Array {
    let found = this.arrivals.get(kind);
    if (!found) {
      const aim = this.aims[kind]!;
      const list: number[] = [];
      let was = false;
      for (const [i, { state }] of instants.entries()) {
        const is = meets(this.unit.profile, state, aim);
        if (is && !was) list.push(i);
        was = is;
      }
      this.arrivals.set(kind, (found = Int32Array.from(list)));
    }
    return found;
  }

  private ask(
    table: Uint8Array[],
    a: number,
    b: number,
    question: (unit: UnitSpec, a: UnitAim, b: UnitAim) => boolean,
  ): boolean {
    const row = table[a];
    if (!row || row.length <= b) {
      const grown = new Uint8Array(Math.max(this.aims.length, 2 * (b + 1)));
      if (row) grown.set(row);
      table[a] = grown;
    }
    const answer = question(this.unit, this.aims[a]!, this.aims[b]!);
    table[a]![b] = answer ? YES : NO;
    return answer;
  }
}

/** How many of a sorted list of indexes lie after one and not after another. */
export function countBetween(sorted: Int32Array, after: number, to: number): number {
  const upTo = (limit: number): number => {
    let low = 0;
    let high = sorted.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (sorted[middle]! <= limit) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  return upTo(to) - upTo(after);
}
