import type { Remedy } from '../core/checks';
import { millisWords } from './durations';

/** What a remedy does, as its button says it. */
export function remedyWords({ how, millis, name }: Remedy): string {
  const by = millisWords(millis);
  return {
    'pre-roll': `Let the opening leave ${by} earlier`,
    earlier: `Have every change of ${name} land ${by} before its time`,
    guard: `Leave ${name} ${by} more to settle`,
    shift: `Move it ${by} later`,
    thinner: `Thin the sweep: a value every ${by}`,
    port: `Put the unit on ${name}`,
    variant: `Call ${name} of the preset that is on, and load none`,
    sent: 'Send it on its beat, let the old sound ring',
  }[how];
}
