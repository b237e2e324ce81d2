import { decodeValue, valueRange } from '../../core/addressing';
import { channelOf, decodeMessage } from '../../core/midi';
import { indexShow, type Show } from '../../core/show';
import type { Micros } from '../../core/time';
import type { Arrival } from '../ports';

/** A controller's pedal that is recorded. */
export interface PedalRecording {
  readonly unitId: string;
  readonly senderId: string;
}

/** Where a pedal was along a song, from 0 at its low end to 1. */
export interface PedalPoint {
  /** Song time. */
  readonly at: Micros;
  readonly share: number;
}

/** Where the pedal is, if what arrived came from it; `at` is the song time of that moment. */
export function pedalPoint(show: Show, what: PedalRecording, arrival: Arrival, at: Micros): PedalPoint | undefined {
  const unit = indexShow(show).units.get(what.unitId);
  const sender = unit?.profile.senders.find((s) => s.id === what.senderId);
  const message = decodeMessage(arrival.bytes);
  if (!sender || unit?.returns?.portId !== arrival.portId || !message) return undefined;
  if (channelOf(arrival.bytes) !== sender.channel) return undefined;
  const value = decodeValue(sender.encoding, message);
  if (typeof value !== 'number') return undefined;
  const { low, high } = valueRange(sender.encoding);
  return { at, share: (value - low) / (high - low || 1) };
}
