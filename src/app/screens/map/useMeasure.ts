import { useEffect, useRef, useState } from 'react';
import { slotCount, isOnOff } from '../../../core/addressing';
import type { UnitAim } from '../../../core/rig';
import type { Unit } from '../../../core/show';
import { findGap, timeFromPresses, type TakenTime } from '../../../core/sound';
import { beep } from '../../adapters/ear';
import { openEarFor } from '../../state/measuring';
import { audition } from '../../state/desk';

/** What can be measured of a unit. */
export type Measured = 'recall' | 'variant' | 'control';

/** How often each is taken. */
export const BEEPS = 5;
export const TAKES = 5;

/** The pause before each is not the same twice, so that nobody presses by the clock. */
const PAUSES = [1300, 1900, 1500, 2200, 1700] as const;
/** How long after a message the sound input is looked at. */
const LISTEN_MILLIS = 2500;

/** Two things to go between, back and forth, for what is measured; undefined where the unit has not two. */
export function twoAims(unit: Unit, what: Measured): readonly [UnitAim, UnitAim] | undefined {
  const { plan, variants, controls } = unit.profile;
  if (what === 'recall') {
    const [a = 0, b = a === 0 ? 1 : 0] = unit.slots.map((s) => s.index);
    return slotCount(plan) < 2
      ? undefined
      : [
          { slot: a, controls: {} },
          { slot: b, controls: {} },
        ];
  }
  if (what === 'variant') {
    return variants && variants.names.length > 1
      ? [
          { variant: 0, controls: {} },
          { variant: 1, controls: {} },
        ]
      : undefined;
  }
  const control = controls.find((c) => isOnOff(c.encoding));
  return control && [{ controls: { [control.id]: 1 } }, { controls: { [control.id]: 0 } }];
}

export type Phase = 'ready' | 'beeps' | 'changes' | 'listening' | 'done';

export interface Measure {
  readonly phase: Phase;
  readonly taken: number;
  readonly result: TakenTime | null;
  /** What went wrong with the sound input. */
  readonly trouble: string | null;
  /** A beep or a change is out and was not answered. */
  readonly waiting: boolean;
  readonly start: (what: Measured) => void;
  readonly press: () => void;
  readonly listen: (what: Measured) => void;
}

/** A measurement under way. */
interface Run {
  readonly what: Measured;
  readonly reactions: number[];
  readonly presses: number[];
  sentAt: number;
}

/** Measures a time of a unit: by ear and key, or through the sound input. */
export function useMeasure(unit: Unit): Measure {
  const [phase, setPhase] = useState<Phase>('ready');
  const [taken, setTaken] = useState(0);
  const [result, setResult] = useState<TakenTime | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [waiting, setWaiting] = useState(false);
  const run = useRef<Run>({ what: 'recall', reactions: [], presses: [], sentAt: 0 });
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);

  const next = (count: number): void => {
    setWaiting(false);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => void send(count), PAUSES[count % PAUSES.length]);
  };
  const send = async (count: number): Promise<void> => {
    const { what, reactions } = run.current;
    run.current.sentAt = performance.now();
    if (reactions.length < BEEPS) beep();
    else await audition(unit.id, twoAims(unit, what)![count % 2]!);
    setWaiting(true);
  };
  const begin = (first: Phase): void => {
    setResult(null);
    setTrouble(null);
    setTaken(0);
    setPhase(first);
  };
  const start = (what: Measured): void => {
    run.current = { what, reactions: [], presses: [], sentAt: 0 };
    begin('beeps');
    next(0);
  };
  const press = (): void => {
    const { reactions, presses, sentAt } = run.current;
    if (!waiting) return;
    const after = performance.now() - sentAt;
    if (reactions.length < BEEPS) reactions.push(after);
    else presses.push(after);
    if (presses.length === TAKES) {
      setWaiting(false);
      setResult(timeFromPresses(presses, reactions));
      setPhase('done');
      return;
    }
    setPhase(reactions.length < BEEPS ? 'beeps' : 'changes');
    setTaken(reactions.length < BEEPS ? reactions.length : presses.length);
    next(reactions.length + presses.length);
  };
  const listen = (what: Measured): void => {
    begin('listening');
    void hearGaps(unit, what, setTaken).then((heard) => {
      const failed = typeof heard === 'string';
      if (failed) setTrouble(heard);
      else setResult(heard);
      setPhase(failed ? 'ready' : 'done');
    });
  };
  return { phase, taken, result, trouble, waiting, start, press, listen };
}

const pause = (millis: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, millis));

/** Sends changes and finds the end of each gap in what comes in; a sentence where that cannot be done. */
async function hearGaps(unit: Unit, what: Measured, onTaken: (n: number) => void): Promise<TakenTime | string> {
  let ear;
  try {
    ear = await openEarFor(unit, () => unit.profile.times[what]);
  } catch {
    return 'There is no sound input, or the browser does not let it be used.';
  }
  try {
    const heard: number[] = [];
    for (let i = 0; i < TAKES; i++) {
      await pause(600);
      const sent = performance.now();
      await audition(unit.id, twoAims(unit, what)![i % 2]!);
      await pause(LISTEN_MILLIS);
      // A little of the sound before it, so that the gap has two ends.
      const before = 400;
      const recording = ear.since(sent - before);
      const gap = recording && findGap(recording.samples, recording.rate);
      if (gap) heard.push(gap.to * 1000 - before);
      onTaken(i + 1);
    }
    return (
      timeFromPresses(heard, [0, 0, 0]) ??
      `A gap was heard in ${heard.length} of ${TAKES} changes only. Hold a steady note while it listens, and see that the input is loud enough.`
    );
  } finally {
    ear.close();
  }
}
