import { TRIGGERS, type Trigger } from '../addressing';
import { decodeMessage, fromHex, toHex, wholeMessages, type Bytes } from '../midi';
import type { Doing, FootSwitch } from '../show';

/** A doing one further on: the next tone of a list, a number or value that is one higher. Null where there is none. */
function nextOf(does: Doing, by: number, tones: readonly string[]): Doing | null {
  switch (does.kind) {
    case 'tone': {
      const at = tones.indexOf(does.toneId);
      const toneId = at < 0 ? undefined : tones[at + by];
      return toneId === undefined ? null : { ...does, toneId };
    }
    case 'control':
      return { ...does, value: does.value + by };
    case 'message': {
      const bytes = raised(wholeMessages(fromHex(does.bytes) ?? []) ?? [], by);
      return bytes === null ? null : { ...does, bytes };
    }
    default:
      return null;
  }
}

/** Messages with the number of each program change or note, and the value of each control, higher by so much. */
function raised(messages: readonly Bytes[], by: number): string | null {
  const out: number[] = [];
  for (const bytes of messages) {
    const message = decodeMessage(bytes);
    const at = message?.kind === 'program' || message?.kind === 'note-on' || message?.kind === 'note-off' ? 1 : 2;
    const value = bytes[at];
    if (message?.kind === 'exclusive' || value === undefined) return null;
    if (value + by > 127) return null;
    out.push(...bytes.map((b, i) => (i === at ? value + by : b)));
  }
  return out.length === 0 ? null : toHex(out);
}

/** Switches filled with a run that goes on from the first, one further each; it ends where the run does. */
export function fillSeries(
  first: FootSwitch,
  rest: readonly FootSwitch[],
  tones: readonly string[],
  step = 1,
): readonly FootSwitch[] {
  const filled: FootSwitch[] = [];
  for (const [i, target] of rest.entries()) {
    const doings = first.doings.map((d) => {
      const does = nextOf(d.does, (i + 1) * step, tones);
      return does && { ...d, does };
    });
    if (doings.length === 0 || doings.some((d) => d === null)) break;
    filled.push({ ...target, doings: doings as FootSwitch['doings'] });
  }
  return filled;
}

/** Puts one thing on a trigger of many switches, in place of what they did on it. */
export const setOnMany = (switches: readonly FootSwitch[], on: Trigger, does: Doing | null): readonly FootSwitch[] =>
  switches.map((s) => ({
    ...s,
    doings: inTriggerOrder([...s.doings.filter((d) => d.on !== on), ...(does ? [{ on, does }] : [])]),
  }));

/** Doings in the order of their triggers; those of one trigger as they stood. */
export const inTriggerOrder = (doings: FootSwitch['doings']): FootSwitch['doings'] =>
  doings.toSorted((a, b) => TRIGGERS.indexOf(a.on) - TRIGGERS.indexOf(b.on));
