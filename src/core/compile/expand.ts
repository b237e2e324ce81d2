import { effectiveMessage, encodeValue, slotMessages, type Encoding } from '../addressing';
import type { Bytes } from '../midi';
import {
  passMoment,
  type Doing,
  type Moment,
  type RigContext,
  type RelayEffects,
  type StateFold,
  type Thrift,
} from '../meaning';
import type { UnitSpec } from '../rig';
import type { Show } from '../show';

export type SendKind = 'bank' | 'recall' | 'variant' | 'control' | 'message';

/** One message to one unit, and what it does there. */
export interface Send {
  readonly unitId: string;
  readonly kind: SendKind;
  readonly bytes: Bytes;
  /** It is sent as it stands, whatever the unit is doing. */
  readonly raw: boolean;
  /** The slot or variant that the unit reaches by it; null where that is not known. */
  readonly reaches: number | null;
  /** What relay rules do once this has taken effect; null for nothing. */
  readonly relayEffects: RelayEffects | null;
}

/** A unit and what it is sent. */
export interface UnitSends {
  readonly unit: UnitSpec;
  readonly sends: readonly Send[];
  /** Neither messages nor relay rules bring it to what is wanted. */
  readonly unreached: boolean;
}

/** A moment's sends, unit by unit, those that relay to others first. Changes `fold`. */
export const expandMoment = (
  show: Show,
  context: RigContext,
  fold: StateFold,
  moment: Moment,
  thrift: Thrift,
): readonly UnitSends[] =>
  passMoment(show, context, fold, moment, thrift).map((doing) => ({
    unit: doing.unit,
    sends: sendsOf(doing),
    unreached: doing.unreached,
  }));

/** What is done to a unit as messages, one after the other. */
export function sendsOf({ unit, channel, changes, raw }: Pick<Doing, 'unit' | 'channel' | 'changes' | 'raw'>): Send[] {
  const sends: Send[] = [];
  const add = (kind: SendKind, bytes: Bytes, reaches: number | null, relayEffects: RelayEffects | null): void => {
    const sets = relayEffects && relayEffects.relayed.length > 0 ? relayEffects : null;
    sends.push({ unitId: unit.id, kind, bytes, raw: raw !== null, reaches, relayEffects: sets });
  };
  const addValue = (kind: SendKind, encoding: Encoding, value: number, relayEffects: RelayEffects | null): void => {
    const messages = encodeValue(encoding, channel, value);
    const effective = effectiveMessage(encoding, messages);
    for (const [i, bytes] of messages.entries()) {
      if (i === effective) add(kind, bytes, kind === 'variant' ? value : null, relayEffects);
      else add('message', bytes, null, null);
    }
  };
  for (const change of changes) {
    if (change.kind === 'control') addValue('control', change.control.encoding, change.value, null);
    else if (change.kind === 'variant') {
      addValue('variant', unit.profile.variants!.encoding, change.variant, change.relayEffects);
    } else {
      const messages = slotMessages(unit.profile.plan, channel, change.slot, change.bankBefore)!;
      for (const bytes of messages.slice(0, -1)) add('bank', bytes, null, null);
      add('recall', messages.at(-1)!, change.slot, change.relayEffects);
    }
  }
  if (raw) {
    const { taken, bytes } = raw;
    if (taken.kind === 'slot') add('recall', bytes, taken.slot, taken.relayEffects);
    else if (taken.kind === 'variant') add('variant', bytes, taken.variant, taken.relayEffects);
    else add(taken.kind === 'control' ? 'control' : 'message', bytes, null, null);
  }
  return sends;
}
