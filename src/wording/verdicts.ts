import { labelOf, type Profile } from '../core/addressing';
import type { UnitState } from '../core/rig';
import { decodeMessage, toHex, type Bytes } from '../core/midi';
import type { Unit } from '../core/show';
import { leastOf, type IgnoredWhy, type Reason, type Verdict } from '../core/simulate';
import type { Micros } from '../core/time';

const ms = (micros: number): string => {
  const value = Math.abs(micros) / 1000;
  return `${value >= 10 ? value.toFixed(0) : value.toFixed(1)} ms`;
};

const IGNORED: Readonly<Record<IgnoredWhy, string>> = {
  'other-channel': 'it listens on another channel',
  settling: 'it was still settling after a recall',
  'not-understood': 'it means nothing to this unit',
  'no-such-slot': 'it has no such slot',
};

/** What a dry run found for one cue on one unit, in a sentence. */
export function verdictSentence(verdict: Verdict, unit: Pick<Unit, 'name' | 'profile'>): string {
  const { name } = unit;
  switch (verdict.outcome) {
    case 'on-time':
      return verdict.reason.kind === 'already'
        ? `${name} is like this already.`
        : `${name} is there on time${offsetWords(verdict.offset)}.`;
    case 'early':
      return `${name} changes ${ms(verdict.offset ?? 0)} too early.`;
    case 'late':
      return `${name} is ${ms(verdict.offset ?? 0)} late: ${reasonWords(verdict.reason, unit)}.`;
    case 'never':
      return `${name} never gets there: ${reasonWords(verdict.reason, unit)}.`;
  }
}

function offsetWords(offset: number | null): string {
  if (offset === null || Math.abs(offset) < 50) return '';
  return `, ${ms(offset)} ${offset < 0 ? 'before' : 'after'} its beat`;
}

function reasonWords(reason: Reason, unit: Pick<Unit, 'name' | 'profile'>): string {
  switch (reason.kind) {
    case 'ignored':
      return `it ignored ${toHex(reason.bytes, ' ').toUpperCase()}, because ${IGNORED[reason.why]}`;
    case 'nothing-arrived':
      return 'nothing arrived';
    case 'arrived-late':
      return `the change reached it ${ms(reason.arrived)} ${reason.arrived <= 0 ? 'before' : 'after'} the beat${
        reason.takes > 0 ? `, and it takes ${ms(reason.takes * 1000)}` : ''
      }`;
    case 'other-state':
      return `it is on ${stateWords(unit.profile, reason.state)} instead`;
    case 'replaced':
      return 'another change took its place';
    case 'mix':
      return `where some units are quick and others slow, a message comes ${ms(reason.by)} too soon or too late to count`;
    case 'other-tempo': {
      const bpm = (interval: number): string => (6e7 / interval).toFixed(1);
      if (reason.by === 'taps' && reason.from < 4) {
        const taps = reason.from === 0 ? 'no taps' : `only ${reason.from} taps`;
        return `it heard ${taps} before the tempo changes, and four are needed for ${bpm(reason.wanted)}`;
      }
      return reason.heard === null
        ? `it heard no tempo, and ${bpm(reason.wanted)} is wanted`
        : `it takes the tempo to be ${bpm(reason.heard)} instead of ${bpm(reason.wanted)}`;
    }
    case 'too-early':
      return 'it was sent too early';
    case 'already':
    case 'as-wanted':
      return 'it is as wanted';
  }
}

/** What became of a change on a night on which it missed, in a sentence. */
export const nightMissWords = (
  { outcome, offset, reason }: Pick<Verdict, 'outcome' | 'offset' | 'reason'>,
  unit: Pick<Unit, 'name' | 'profile'>,
): string => verdictSentence({ cueId: '', unitId: '', due: 0, outcome, offset, reason, margin: null }, unit);

/** How far something may go, to a tenth of a millisecond below ten. */
export const marginMillis = (by: Micros): string => ms(Math.max(0, by));

/**
 * What a change bears before it misses, in words: "up to 7.0 ms slower, then it is late". Empty where nothing near
 * makes it miss.
 */
export function marginWords({ margin }: Pick<Verdict, 'margin'>): string {
  if (!margin || leastOf(margin) > TOLD_MARGIN) return '';
  const { slower, slowerBecomes, later, laterBecomes, sooner } = margin;
  const parts = [
    slower <= TOLD_MARGIN ? `up to ${marginMillis(slower)} slower, then it is ${slowerBecomes}` : '',
    later <= TOLD_MARGIN && (slower > TOLD_MARGIN || slower - later > 50)
      ? `messages up to ${marginMillis(later)} late, then it is ${laterBecomes}`
      : '',
    sooner <= TOLD_SOONER ? `messages up to ${marginMillis(sooner)} early, then it is lost` : '',
  ];
  return parts.filter((p) => p !== '').join('; ');
}

/** Margins beyond this are not worth a word. */
const TOLD_MARGIN: Micros = 1_000_000;

/** Only a clock from outside makes messages leave early, and by little. */
const TOLD_SOONER: Micros = 2000;

/** A unit's slot and variant in its own writing. */
export function stateWords(profile: Profile, state: UnitState): string {
  const slot = state.slot === null ? 'an unknown slot' : labelOf(profile.plan, state.slot);
  if (!profile.variants) return slot;
  return `${slot}, ${variantWords(profile, state.variant)}`;
}

export function variantWords(profile: Profile, variant: UnitState['variant']): string {
  const { variants } = profile;
  if (!variants) return '';
  if (variant === null) return `${variants.word} not known`;
  if (variant === 'stored') return `${variants.word} as the preset stores it`;
  return `${variants.word} ${variants.names[variant] ?? variant + 1}`;
}

/** A message in plain words, numbers as they are on the wire; a program as it is counted, from 0 or from 1. */
export function messageWords(bytes: Bytes, first: 0 | 1 = 0): string {
  const m = decodeMessage(bytes);
  if (!m) return `${bytes.length} bytes`;
  switch (m.kind) {
    case 'program':
      return `program ${m.program + first} from ${first}, channel ${m.channel}`;
    case 'control':
      return `control ${m.control} = ${m.value}, channel ${m.channel}`;
    case 'note-on':
      return `note ${m.note} on, channel ${m.channel}`;
    case 'note-off':
      return `note ${m.note} off, channel ${m.channel}`;
    case 'key-pressure':
      return `pressure ${m.value} on note ${m.note}, channel ${m.channel}`;
    case 'channel-pressure':
      return `pressure ${m.value}, channel ${m.channel}`;
    case 'pitch-bend':
      return `pitch bend ${m.value - 8192}, channel ${m.channel}`;
    case 'exclusive':
      return `system exclusive, ${m.bytes.length} bytes`;
    case 'system':
      return `system message ${toHex(m.bytes, ' ').toUpperCase()}`;
  }
}
