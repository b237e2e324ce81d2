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
    before: `Move it to ${name}, the beat before`,
    leave: `Leave ${name} out of it`,
  }[how];
}

/** What a remedy does to the sound. */
export function remedyEffect({ how, millis, name }: Remedy): string {
  const by = millisWords(millis);
  return {
    'pre-roll': `sounds the same; the song begins ${by} later after its start`,
    earlier: `heard up to ${by} before the beat`,
    guard: 'heard on its beat; changes that crowd it wait a little longer',
    shift: `heard ${by} behind its beat`,
    thinner: `the sweep moves in steps of ${by}`,
    port: 'sounds the same',
    variant: `${name} sounds in place of another preset, without a gap`,
    sent: `heard ${by} or so behind its beat`,
    before: 'heard a beat early',
    leave: `${name} stays as it was before`,
  }[how];
}
