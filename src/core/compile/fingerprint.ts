import type { UnitSpec, Wanted } from '../addressing';
import type { Show } from '../show';
import type { CompiledSong } from './compileSong';
import { contextOf } from './compileSong';

const unitPrints = new WeakMap<UnitSpec, string>();

/**
 * For each cue, a short text that stays the same exactly as long as nothing that its proof
 * rests on changes: what it wants, the bytes sent for it and when, the same of the change
 * before it on each of its units, and what those units are like. A proof is kept under it.
 */
export function fingerprints(
  show: Show,
  compiled: CompiledSong,
  wants: readonly Wanted[],
): ReadonlyMap<string, string> {
  const context = contextOf(show);
  const sent = new Map<string, string[]>();
  for (const event of compiled.events) {
    const key = `${event.cueId}\n${event.unitId}`;
    const text = `${event.portId}@${event.at.toFixed(2)}:${event.bytes.join('.')}`;
    const list = sent.get(key);
    if (list) list.push(text);
    else sent.set(key, [text]);
  }
  /** A clock is for all units of its port: what was sent of it, once and short. */
  const clocks = new Map(
    [...sent].filter(([key]) => key.endsWith('\n')).map(([key, list]) => [key, hash(list.join())] as const),
  );
  const parts = new Map<string, string[]>();
  const last = new Map<string, string>();
  const told = new Set<string>();
  for (const wanted of wants) {
    const { cueId, unitId } = wanted;
    const key = `${cueId}\n${unitId}`;
    let text = JSON.stringify(wanted);
    // What is sent to a unit for a cue is told once, also for a sweep of hundreds of values.
    if (!told.has(key)) {
      told.add(key);
      const unit = context.units.get(unitId);
      const own = sent.get(key)?.join() ?? clocks.get(`${cueId}\n`) ?? '';
      text = [text, own, last.get(unitId) ?? '', unit ? unitPrint(unit) : ''].join('|');
      if (own !== '') last.set(unitId, own);
    }
    const list = parts.get(cueId);
    if (list) list.push(text);
    else parts.set(cueId, [text]);
  }
  return new Map([...parts].map(([cueId, list]) => [cueId, hash(list.join('\n'))]));
}

function unitPrint(unit: UnitSpec): string {
  let print = unitPrints.get(unit);
  if (print === undefined) {
    // Names are for people: renaming a unit's control or variant changes nothing that is sent.
    print = hash(
      JSON.stringify(unit, (key, value: unknown) => (key === 'name' || key === 'names' ? undefined : value)),
    );
    unitPrints.set(unit, print);
  }
  return print;
}

/** 64 bits of FNV-1a in two halves with different starts; enough that no two contents of one show meet. */
function hash(text: string): string {
  let a = 0x811c9dc5;
  let b = 0x01000193;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    a = Math.imul(a ^ code, 0x01000193);
    b = Math.imul(b ^ code, 0x85ebca6b);
  }
  return (a >>> 0).toString(36) + (b >>> 0).toString(36);
}
