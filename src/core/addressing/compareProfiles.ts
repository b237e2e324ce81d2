import type { Bytes } from '../midi';
import { type Encoding } from './encodings/registry';
import { addressOf, bankMessages, labelOf, slotCount, type AddressPlan } from './plan';
import type { Profile } from './profile';
import { TIMED, timeText, type TimedThing } from './times';

/** One thing in which two profiles of a unit differ, before and after. */
export type ProfileDifference =
  | { readonly what: 'slots'; readonly before: number; readonly after: number }
  | { readonly what: 'label'; readonly index: number; readonly before: string; readonly after: string }
  | {
      readonly what: 'slot-messages';
      readonly label: string;
      readonly before: readonly Bytes[];
      readonly after: readonly Bytes[];
    }
  | { readonly what: 'engage'; readonly control: string; readonly now: 'needed' | 'by-recall' }
  | { readonly what: 'time'; readonly time: TimedThing; readonly before: string; readonly after: string }
  | { readonly what: 'settling'; readonly before: Profile['whileSettling']; readonly after: Profile['whileSettling'] }
  | { readonly what: 'recall-loads'; readonly part: 'variant' | 'controls'; readonly after: boolean }
  | { readonly what: 'gap'; readonly silent: boolean }
  | { readonly what: 'silence' }
  | { readonly what: 'variants'; readonly word: string; readonly before: number; readonly after: number }
  | { readonly what: 'variant-messages'; readonly word: string; readonly before: Encoding; readonly after: Encoding }
  | { readonly what: 'control-gone' | 'control-new'; readonly name: string }
  | { readonly what: 'control-renamed'; readonly before: string; readonly after: string }
  | { readonly what: 'control-messages'; readonly name: string; readonly before: Encoding; readonly after: Encoding };

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** All that is different in `after`, as a technician would have to know it before going over to it. */
export function compareProfiles(before: Profile, after: Profile): ProfileDifference[] {
  return [
    ...planDifferences(before.plan, after.plan),
    ...engageDifference(before, after),
    ...variantDifferences(before, after),
    ...controlDifferences(before, after),
    ...behaviourDifferences(before, after),
  ];
}

function slotBytes(plan: AddressPlan, index: number): Bytes[] {
  const address = addressOf(plan, index);
  return address ? [...bankMessages(plan, 1, address.bank), [0xc0, address.program]] : [];
}

/** The first slot that is written otherwise, and the first that is called otherwise: one says what kind of change it is. */
function planDifferences(before: AddressPlan, after: AddressPlan): ProfileDifference[] {
  if (same(before, after)) return [];
  const found: ProfileDifference[] = [];
  const [a, b] = [slotCount(before), slotCount(after)];
  if (a !== b) found.push({ what: 'slots', before: a, after: b });
  const shared = Array.from({ length: Math.min(a, b) }, (_, i) => i);
  const label = shared.find((i) => labelOf(before, i) !== labelOf(after, i));
  if (label !== undefined) {
    found.push({ what: 'label', index: label, before: labelOf(before, label), after: labelOf(after, label) });
  }
  const called = shared.find((i) => !same(slotBytes(before, i), slotBytes(after, i)));
  if (called !== undefined) {
    const bytes = { before: slotBytes(before, called), after: slotBytes(after, called) };
    found.push({ what: 'slot-messages', label: labelOf(before, called), ...bytes });
  }
  return found;
}

function engageDifference(before: Profile, after: Profile): ProfileDifference[] {
  if ((before.engage === null) === (after.engage === null)) return [];
  const needing = after.engage === null ? before : after;
  const control = needing.controls.find((c) => c.id === needing.engage)?.name ?? '';
  return [{ what: 'engage', control, now: after.engage === null ? 'by-recall' : 'needed' }];
}

function variantDifferences({ variants: a }: Profile, { variants: b }: Profile): ProfileDifference[] {
  const word = (b ?? a)?.word ?? '';
  const found: ProfileDifference[] = [];
  const [before, after] = [a?.names.length ?? 0, b?.names.length ?? 0];
  if (before !== after) found.push({ what: 'variants', word, before, after });
  if (a && b && !same(a.encoding, b.encoding)) {
    found.push({ what: 'variant-messages', word, before: a.encoding, after: b.encoding });
  }
  return found;
}

function controlDifferences(before: Profile, after: Profile): ProfileDifference[] {
  const found: ProfileDifference[] = [];
  for (const control of before.controls) {
    const now = after.controls.find((c) => c.id === control.id);
    if (!now) found.push({ what: 'control-gone', name: control.name });
    else {
      if (now.name !== control.name) found.push({ what: 'control-renamed', before: control.name, after: now.name });
      if (!same(now.encoding, control.encoding)) {
        found.push({ what: 'control-messages', name: now.name, before: control.encoding, after: now.encoding });
      }
    }
  }
  for (const { id, name } of after.controls) {
    if (!before.controls.some((c) => c.id === id)) found.push({ what: 'control-new', name });
  }
  return found;
}

function behaviourDifferences(before: Profile, after: Profile): ProfileDifference[] {
  const found: ProfileDifference[] = [];
  for (const time of TIMED) {
    const [a, b] = [timeText(before.times[time]), timeText(after.times[time])];
    if (a !== b) found.push({ what: 'time', time, before: a, after: b });
  }
  if (before.whileSettling !== after.whileSettling) {
    found.push({ what: 'settling', before: before.whileSettling, after: after.whileSettling });
  }
  for (const part of ['variant', 'controls'] as const) {
    if (before.recallLoads[part] !== after.recallLoads[part]) {
      found.push({ what: 'recall-loads', part, after: after.recallLoads[part] });
    }
  }
  if (before.silentInGap !== after.silentInGap) found.push({ what: 'gap', silent: after.silentInGap });
  if (JSON.stringify(before.silence) !== JSON.stringify(after.silence)) found.push({ what: 'silence' });
  return found;
}
