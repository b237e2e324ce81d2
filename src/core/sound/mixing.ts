import type { EarMix } from '../show';

/** Outputs of a sound card, from 0: of one, both sides of a sound go there; of two, left and right; none is nowhere. */
export type Route = readonly number[];

/** One way of a sound to one output. */
export interface Send {
  readonly source: string;
  /** What of its two sides; `both` is the two as one. */
  readonly side: 'left' | 'right' | 'both';
  readonly output: number;
  /** What it is multiplied by: 1 is as loud as it comes. */
  readonly factor: number;
}

export interface MixWish {
  readonly sources: readonly string[];
  /** Where each source goes for all to hear. One that is not in it goes to the first two outputs. */
  readonly routes: Readonly<Record<string, Route>>;
  readonly ears: readonly EarMix[];
  /** Where each mix for ears goes, by its id. One that is not in it goes nowhere. */
  readonly earRoutes: Readonly<Record<string, Route>>;
  /** How many outputs there are. */
  readonly outputs: number;
}

const FIRST_TWO: Route = [0, 1];

/** A level in decibels as what it is multiplied by. */
const factorOf = (decibels: number): number => 10 ** (decibels / 20);

/**
 * The ways from sources to outputs: what all hear, and what each pair of ears hears of it. Ways that meet in one output
 * add up. An output that the sound card has not is the first one instead: nothing that was meant to be heard falls silent.
 */
export function mixing({ sources, routes, ears, earRoutes, outputs }: MixWish): readonly Send[] {
  const sends = new Map<string, Send>();
  const there = (output: number): number => (output < outputs ? output : 0);
  const send = (source: string, side: Send['side'], output: number, factor: number): void => {
    const key = `${source}/${side}/${output}`;
    sends.set(key, { source, side, output, factor: (sends.get(key)?.factor ?? 0) + factor });
  };
  const put = (source: string, route: Route, factor: number): void => {
    const [left, right] = route;
    if (left === undefined) return;
    if (right === undefined || there(left) === there(right)) send(source, 'both', there(left), factor);
    else {
      send(source, 'left', there(left), factor);
      send(source, 'right', there(right), factor);
    }
  };
  for (const source of sources) put(source, routes[source] ?? FIRST_TWO, 1);
  for (const { id, hears } of ears) {
    for (const { of, gain } of hears) if (sources.includes(of)) put(of, earRoutes[id] ?? [], factorOf(gain));
  }
  return [...sends.values()];
}
