import {
  TIMED,
  encodingProblems,
  isWorstBelow,
  planProblems,
  valueRange,
  type Profile,
  type Time,
} from '../addressing';
import { problem, type Place, type Problem } from '../problems';

/** What is wrong with a unit's profile by itself. `place` says where, from a path within the profile. */
export function profileProblems(
  unit: string,
  profile: Profile,
  place: (...path: (string | number)[]) => Place,
): Problem[] {
  const problems: Problem[] = [];
  for (const { code, ...data } of planProblems(profile.plan)) {
    problems.push(problem(`plan.${code}`, 'error', place('plan'), { unit, ...data }));
  }
  const { variants, controls, senders } = profile;
  const encodings = [
    ...(variants ? [{ name: variants.word, encoding: variants.encoding }] : []),
    ...controls,
    ...senders,
  ];
  for (const { name, encoding } of encodings) {
    for (const { code, ...data } of encodingProblems(encoding)) {
      // A reserved number is a finding: the show still opens.
      if (code === 'reserved-number') continue;
      problems.push(problem(`encoding.${code}`, 'error', place(), { unit, control: name, ...data } as never));
    }
  }
  for (const [i, { name, encoding, rest }] of controls.entries()) {
    // A tap keeps no value.
    if (rest === null || encoding.kind === 'tap') continue;
    const { low, high } = valueRange(encoding);
    if (rest >= low && rest <= high) continue;
    const data = { unit, control: name, value: rest, low, high };
    problems.push(problem('show.value-range', 'error', place('controls', i, 'rest'), data));
  }
  if (variants) {
    const { low, high } = valueRange(variants.encoding);
    if (low !== 0 || high < variants.names.length - 1) {
      const data = { unit, word: variants.word, count: variants.names.length, reach: high + 1 };
      problems.push(problem('show.variants-reach', 'error', place('variants'), data));
    }
  }
  for (const thing of TIMED) {
    const time = profile.times[thing];
    if (isWorstBelow(time)) problems.push(worstBelow(unit, time, place('times', thing)));
  }
  problems.push(...controllerProblems(unit, profile, place));
  return problems;
}

/** The problem of a time whose worst figure is below its typical one. */
export const worstBelow = (unit: string, { typical, worst }: Time, place: Place): Problem =>
  problem('show.worst-below', 'error', place, { unit, typical, worst: worst! });

/** A controller's switches and pedals are things that send, each once, no two switches in one place. */
function controllerProblems(
  unit: string,
  { controller, senders }: Profile,
  place: (...path: (string | number)[]) => Place,
): Problem[] {
  if (!controller) return [];
  const problems: Problem[] = [];
  const ids = new Set(senders.map((s) => s.id));
  const seen = new Set<string>();
  const parts = [
    ...controller.switches.map(({ id }, i) => ({ id, path: ['switches', i] })),
    ...controller.pedals.map((id, i) => ({ id, path: ['pedals', i] })),
  ];
  for (const { id, path } of parts) {
    const here = place('controller', ...path);
    if (!ids.has(id)) problems.push(problem('show.missing', 'error', here, { what: 'sender', id }));
    if (seen.has(id)) problems.push(problem('show.twice', 'error', here, { what: 'switch', id }));
    seen.add(id);
  }
  const places = new Map<string, string>();
  for (const [i, { id, row, column }] of controller.switches.entries()) {
    const other = places.get(`${row}/${column}`);
    const here = place('controller', 'switches', i);
    if (other !== undefined) {
      const data = { unit, first: nameOf(senders, other), second: nameOf(senders, id) };
      problems.push(problem('controller.same-place', 'error', here, data));
    }
    places.set(`${row}/${column}`, id);
  }
  return problems;
}

const nameOf = (senders: Profile['senders'], id: string): string => senders.find((s) => s.id === id)?.name ?? id;
