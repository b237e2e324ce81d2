import { create } from 'zustand';
import { TRIAL_LIMIT, measured, type Time } from '../../core/addressing';
import type { Millis } from '../../core/time';
import type { Lateness, RealName } from '../persistence/rows';
import { LATENESS_TRIALS } from '../persistence/rows';

/** What is known of a real port, by `portKey`. */
export type PortsLateness = Readonly<Record<string, Lateness>>;

/** How late messages left this computer, by real port: whatever show it was. */
export const useLateness = create<{ readonly ports: PortsLateness }>(() => ({ ports: {} }));

/** What a real port is remembered by, whichever show is open and wherever it is plugged in. */
export const portKey = ({ name, maker }: Pick<RealName, 'name' | 'maker'>): string => `${name}\n${maker}`;

const tenths = (millis: Millis): Millis => Math.round(millis * 10) / 10;

/** One message more that was planned to leave, and left so much later; 0 for at its time. */
export function withMessage(known: Lateness | undefined, millis: Millis, date: string): Lateness {
  const trials = [...(known?.trials ?? []), tenths(Math.max(0, Math.min(60_000, millis)))];
  return { count: (known?.count ?? 0) + 1, trials: trials.slice(-LATENESS_TRIALS), date };
}

/** The share of messages that a port's worst time covers; what is later is a hiccup, which no plan can wait for. */
const COVERED = 0.99;

/** What a port adds to the time of its cable, as a time of the map: of its last messages, but for the latest hundredth. */
export function latenessTime({ trials, date }: Lateness): Time {
  const sorted = trials.toSorted((a, b) => a - b);
  const covered = sorted.slice(0, Math.max(1, Math.ceil(sorted.length * COVERED)));
  // Of many as many as a time keeps, from the least to the latest.
  const count = Math.min(TRIAL_LIMIT, covered.length);
  const last = covered.length - 1;
  const kept = Array.from(
    { length: count },
    (_, i) => covered[count === 1 ? last : Math.round((i * last) / (count - 1))]!,
  );
  return measured(kept, date);
}

export interface LatenessNeeds {
  readonly later: (run: () => void, millis: number) => void;
  readonly today: () => string;
  readonly keep: (ports: PortsLateness) => void;
}

/** Milliseconds after which what left meanwhile is shown and kept. */
const KEPT_AFTER = 2000;

/** Notes how late messages leave; what left is shown and kept a moment later, all at once. */
export function createLateness({ later, today, keep }: LatenessNeeds) {
  const fresh = new Map<string, Lateness>();
  const takeIn = (): void => {
    const ports = { ...useLateness.getState().ports, ...Object.fromEntries(fresh) };
    fresh.clear();
    useLateness.setState({ ports });
    keep(ports);
  };
  return {
    left: (port: Pick<RealName, 'name' | 'maker'>, millis: Millis): void => {
      if (fresh.size === 0) later(takeIn, KEPT_AFTER);
      const key = portKey(port);
      fresh.set(key, withMessage(fresh.get(key) ?? useLateness.getState().ports[key], millis, today()));
    },
    /** What was measured so far counts no more. */
    forget: (port: Pick<RealName, 'name' | 'maker'>): void => {
      const key = portKey(port);
      fresh.delete(key);
      const { [key]: _, ...ports } = useLateness.getState().ports;
      useLateness.setState({ ports });
      keep(ports);
    },
  };
}
