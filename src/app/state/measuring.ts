import { measured, type Time } from '../../core/addressing';
import { setSlotField, type Unit } from '../../core/show';
import { standInGap } from '../../core/sound';
import { openEar, type Ear } from '../adapters/ear';
import { today } from '../adapters/today';
import { newId, perform } from './desk';
import { usePorts } from './ports';
import { useApp } from './store';

/** What a stand-in unit sounds like, at this rate. */
const RATE = 8000;

/** Whether a stand-in answers for a unit, and nothing real. */
export function isStandIn({ input }: Unit): boolean {
  const { units } = useApp.getState().open?.show ?? { units: [] };
  let at = input;
  // Along the cables to the port.
  for (let n = 0; at?.from === 'unit' && n <= units.length; n++) {
    const from: string = at.unitId;
    at = units.find((u) => u.id === from)?.input ?? null;
  }
  const use = at?.from === 'port' ? usePorts.getState().uses[at.portId] : undefined;
  return use === undefined || (use.standIn && use.out === null);
}

/** Opens the ear that a unit is heard through: the sound input, or what a stand-in would sound like. */
export const openEarFor = (unit: Unit, time: () => Time): Promise<Ear> =>
  isStandIn(unit) ? Promise.resolve(standInEar(time)) : openEar();

/** Hears a stand-in: a held tone that falls silent while a preset loads, for a time drawn anew each time. */
function standInEar(time: () => Time): Ear {
  return {
    since: (from) => {
      const seconds = (performance.now() - from) / 1000;
      return { samples: standInGap(time(), seconds, 0.4, Math.random()), rate: RATE };
    },
    close: () => undefined,
  };
}

/**
 * A time by trials, in milliseconds, as it goes into the map. What a stand-in sounds like is made from the map's own
 * figures: it stays a guess, so that no lantern stands on it as on a measurement.
 */
export function heardTime(unit: Unit, trials: readonly number[]): Time {
  const time = measured(trials, today());
  return isStandIn(unit) ? { ...time, source: 'guess' } : time;
}

/** What was heard of a preset, in milliseconds. */
export interface SlotTrials {
  readonly index: number;
  readonly trials: readonly number[];
}

/** Puts what was heard of presets into the map, each as its own time, as one edit. */
export function keepSlotTimes(unit: Unit, heard: readonly SlotTrials[]): void {
  const { open } = useApp.getState();
  if (!open) return;
  const edits = heard.flatMap(({ index, trials }) => {
    if (trials.length === 0) return [];
    return setSlotField(open.show, unit.id, index, 'recall', heardTime(unit, trials), newId()) ?? [];
  });
  if (edits.length > 0) perform({ kind: 'group', edits }, 'measure presets');
}
