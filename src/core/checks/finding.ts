import type { Trigger } from '../addressing';
import type { HoldKind } from '../feet';
import type { Severity } from '../problems';
import type { Edit } from '../show';
import type { Millis, Ticks } from '../time';
import type { ShowTonight } from '../tonight';
import type { LateCauseData } from './late';
import type { Remedy } from './remedies';

/** Where in a show a finding is: what one would open to mend it. */
export type FindingPlace =
  | { readonly in: 'unit'; readonly unitId: string; readonly controlId?: string; readonly slotId?: string }
  | { readonly in: 'port'; readonly portId: string }
  /** An entry of a set, by its id and the set's. */
  | { readonly in: 'entry'; readonly setId: string; readonly entryId: string }
  | { readonly in: 'reaction'; readonly reactionId: string }
  /** On a foot controller: a page (null: every page), a switch or a pedal. */
  | { readonly in: 'feet'; readonly unitId: string; readonly pageId: string | null; readonly senderId?: string }
  | { readonly in: 'tone'; readonly toneId: string; readonly unitId: string }
  | {
      readonly in: 'song';
      readonly songId: string;
      readonly at: Ticks;
      readonly cueId?: string;
      readonly sweepId?: string;
      readonly sectionId?: string;
    };

/** Where a finding of a song is, as it is said. */
interface At {
  readonly song: string;
  /** As the score prints it. */
  readonly at: string;
}

interface AtUnit extends At {
  readonly unit: string;
}

interface AtControl extends AtUnit {
  readonly control: string;
}

/** Where on a foot controller a finding is, as it is said. */
interface AtSwitch {
  readonly controller: string;
  readonly page: string;
  readonly switch: string;
}

/** What the checks can say of a rig and its map, by code, with the data that a sentence needs. */
export interface FindingData {
  'rig.channel-differs': { readonly unit: string; readonly sends: number; readonly listens: number };
  'rig.channel-shared': { readonly unit: string; readonly other: string; readonly channel: number };
  'rig.exclusive-shared': { readonly unit: string; readonly other: string; readonly control: string };
  'rig.no-port': { readonly unit: string };
  /** `where`: the song, move or controller that uses them. */
  'rig.left-out': { readonly unit: string; readonly where: string; readonly controls: readonly string[] };
  'rig.port-off': { readonly unit: string; readonly port: string };
  'rig.port-unused': { readonly port: string };
  'rig.socket-shared': { readonly socket: string; readonly units: readonly string[] };
  'rig.loop': { readonly way: readonly string[] };
  'rig.relay-cycle': { readonly way: readonly string[] };
  'map.two-on-one': {
    readonly unit: string;
    readonly first: string;
    readonly second: string;
    readonly on: string;
    readonly number: number;
  };
  'map.reserved-number': { readonly unit: string; readonly control: string; readonly number: number };
  'map.house-differs': {
    readonly unit: string;
    readonly control: string;
    readonly number: number;
    readonly house: number;
    readonly name: string;
  };
  /** `number` is the control number that it is on, null for none; `named` the one that MIDI gives the name to. */
  'map.generic-name': {
    readonly unit: string;
    readonly control: string;
    readonly number: number | null;
    readonly named: number;
  };
  'map.state-undescribed': { readonly unit: string; readonly label: string; readonly missing: readonly string[] };
  'map.no-program': { readonly unit: string; readonly label: string; readonly name: string };
  'map.slot-lost': { readonly unit: string; readonly name: string; readonly tones: number };
  'map.read-only': { readonly unit: string; readonly label: string; readonly group: string };
  'map.slot-unnamed': { readonly unit: string; readonly label: string };
  'song.late': AtUnit & { readonly millis: Millis; readonly cause: LateCauseData; readonly fix: Remedy | null };
  'song.early': AtUnit & { readonly millis: Millis };
  'song.never': AtUnit & { readonly why: string };
  /** `missing`: what the tone wants and the unit in the place of ours has not got, as ours calls it. */
  'song.no-match': AtUnit & {
    readonly tone: string;
    readonly missing: readonly { readonly what: 'slot' | 'variant' | 'control' | 'effect'; readonly name: string }[];
  };
  'song.tempo-missed': AtUnit & {
    readonly by: 'taps' | 'clock';
    readonly wanted: number;
    /** Quarter notes or beats a minute; null for none. */
    readonly heard: number | null;
    /** How many taps it heard. */
    readonly taps: number;
  };
  'song.trail-cut': AtUnit & { readonly effect: string };
  /** `from` is the variant in which it sounds meanwhile, null for the one that the preset stores; `word` is the unit's word for it. */
  'song.stored-between': AtUnit & {
    readonly millis: Millis;
    readonly word: string;
    readonly from: string | null;
    readonly to: string;
    readonly preset: string;
  };
  'song.inside-settle': AtUnit;
  'song.clock-too-long': {
    readonly song: string;
    readonly port: string;
    readonly pulses: number;
    readonly limit: number;
  };
  'song.code-early': { readonly song: string; readonly has: Millis; readonly needs: Millis };
  'song.two-leads': { readonly song: string; readonly port: string };
  'song.code-unread': { readonly song: string; readonly code: string; readonly rate: string };
  'song.outside': At & { readonly bars: number; readonly early: boolean };
  'song.tones-clash': AtUnit & { readonly first: string; readonly second: string };
  'song.sweeps-overlap': AtControl;
  'song.selector-ramp': Omit<AtControl, 'at'> & { readonly from: string; readonly to: string };
  'song.other-channel': AtUnit & { readonly channel: number; readonly listens: number };
  'song.not-understood': AtUnit & { readonly bytes: string };
  'song.no-such-slot': AtUnit & { readonly program: number };
  'song.bank-unknown': AtUnit;
  'song.flip-unknown': AtControl;
  'song.no-opening': { readonly song: string; readonly opening: string; readonly units: readonly string[] };
  'song.port-full': At & { readonly port: string; readonly percent: number };
  'song.off-rest': AtControl;
  'song.effect-left': AtControl;
  'song.duplicate': At & { readonly cueId: string };
  'song.no-change': At & { readonly what: string };
  'song.section-state': AtControl & { readonly section: string; readonly from: string };
  'song.tone-differs': AtControl & { readonly tone: string; readonly first: string; readonly from: string };
  'rig.firmware-differs': { readonly unit: string; readonly mapped: string; readonly answered: string };
  'rig.other-unit': { readonly unit: string; readonly expected: string; readonly answered: string };
  'night.launch-shared': { readonly set: string; readonly songs: readonly string[]; readonly message: string };
  /** `free`: the first place that no song before it takes. */
  'night.code-overlap': { readonly song: string; readonly before: string; readonly free: string };
  'night.code-loop': { readonly port: string };
  /** Reactions are told by their place in the list, from 1. */
  'night.launch-unheard': { readonly song: string; readonly reaction: number };
  'night.fires-itself': { readonly reaction: number; readonly others: number };
  'night.trigger-sounds': {
    readonly what: number | string;
    readonly units: readonly string[];
    readonly passedOn: boolean;
  };
  'night.reaction-unheard': { readonly reaction: number; readonly by: number };
  'feet.full': AtSwitch & { readonly kind: HoldKind; readonly wants: number; readonly holds: number };
  'feet.trigger': AtSwitch & { readonly trigger: Trigger };
  /** `together`: it can go to a page, but not send anything with it. */
  'feet.jump': AtSwitch & { readonly together: boolean };
  'feet.jump-lost': AtSwitch;
  'feet.jump-here': AtSwitch;
  'feet.name': AtSwitch & { readonly name: string; readonly shown: string };
  'feet.no-call': AtSwitch & { readonly trigger: Trigger };
  'feet.silent': AtSwitch;
  'feet.unheard': AtSwitch;
  'feet.flip-unknown': AtSwitch & { readonly unit: string; readonly control: string };
  'feet.boat-unreached': { readonly controller: string; readonly unit: string };
  'feet.boat-shared': {
    readonly controller: string;
    readonly unit: string;
    readonly other: string;
    readonly channel: number;
  };
  'feet.passed-on': { readonly controller: string; readonly port: string };
  'feet.call-taken': AtSwitch & { readonly reaction: number };
  'feet.tone-unreached': { readonly tone: string; readonly song: string; readonly controller: string };
  'feet.tone-far': {
    readonly tone: string;
    readonly song: string;
    readonly controller: string;
    readonly presses: number;
  };
  /** Seconds that the presses ahead need, and that there are. */
  'feet.hurried': At & { readonly controller: string; readonly needs: number; readonly has: number };
  'feet.dead-end': { readonly controller: string; readonly page: string };
  'feet.page-lost': { readonly controller: string; readonly page: string; readonly pages: number };
  'feet.label-clash': AtSwitch & { readonly shown: string; readonly names: readonly string[] };
  'feet.pedal-control': AtSwitch;
  'feet.pedal-twice': AtSwitch & { readonly other: string; readonly number: number };
  'feet.pedal-reacted': AtSwitch & { readonly reaction: number };
  'tone.told-elsewhere': {
    readonly tone: string;
    readonly unit: string;
    readonly by: readonly string[];
    readonly wants: string;
    /** Null where no rule calls it. */
    readonly gets: string | null;
  };
  'tone.only-told': {
    readonly tone: string;
    readonly unit: string;
    readonly by: readonly string[];
    readonly what: string;
  };
  'tone.flip-unknown': { readonly tone: string; readonly unit: string; readonly control: string };
}

export type FindingCode = keyof FindingData;

export type Finding = {
  readonly [C in FindingCode]: {
    readonly code: C;
    readonly severity: Severity;
    readonly place: FindingPlace;
    readonly data: FindingData[C];
    /** An ordinary edit that mends it; null where only a person can. */
    readonly fix: Edit | null;
  };
}[FindingCode];

/** One kind of finding: everything of that kind in a show. */
export type Check = (show: ShowTonight) => Finding[];

/** A finding with the data that its code wants. `fix` is the edit that mends it, null where a person has to decide. */
export function finding<C extends FindingCode>(
  code: C,
  severity: Severity,
  place: FindingPlace,
  data: FindingData[C],
  fix: Edit | null = null,
): Extract<Finding, { code: C }> {
  return { code, severity, place, data, fix } as Extract<Finding, { code: C }>;
}
