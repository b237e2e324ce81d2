import { labelOf } from '../core/addressing';
import { channelOf, type Bytes } from '../core/midi';
import { indexShow, type Show } from '../core/show';
import type { Direction, Meaning } from '../core/meaning';
import { senderWords, valueWords } from './values';

/** What one message means to one unit, in plain words: "Quillback: preset H6, Fog Lead". */
export function meaningWords(show: Show, meaning: Meaning): string {
  const unit = indexShow(show).units.get(meaning.unitId);
  if (!unit) return 'a unit that is gone';
  const { profile, name } = unit;
  switch (meaning.what) {
    case 'slot': {
      const title = unit.slots.find((s) => s.index === meaning.index)?.name ?? '';
      return `${name}: preset ${labelOf(profile.plan, meaning.index)}${title === '' ? '' : `, ${title}`}`;
    }
    case 'no-slot':
      return `${name}: program ${meaning.program} (from 0), which calls no preset`;
    case 'variant':
      return `${name}: ${profile.variants?.word ?? 'variant'} ${profile.variants?.names[meaning.variant] ?? meaning.variant + 1}`;
    case 'control': {
      const control = profile.controls.find((c) => c.id === meaning.controlId);
      return control ? `${name}: ${control.name}, ${valueWords(control, meaning.value)}` : `${name}: a control`;
    }
    case 'bank':
      return `${name}: bank select ${meaning.value} (from 0)`;
    case 'part':
      return `${name}: a release, or part of a longer value`;
    case 'not-understood':
      return `${name}: makes nothing of it`;
    case 'played': {
      const sender = profile.senders.find((s) => s.id === meaning.senderId);
      return sender ? `${name}: ${sender.name}, ${senderWords(sender, meaning.value)}` : `${name}: something was moved`;
    }
  }
}

/** All that a message means, or why it means nothing to anybody. */
export function monitorWords(
  show: Show,
  {
    direction,
    bytes,
    meanings,
  }: { readonly direction: Direction; readonly bytes: Bytes; readonly meanings: readonly Meaning[] },
): string {
  if (meanings.length > 0) return meanings.map((m) => meaningWords(show, m)).join(' · ');
  const channel = channelOf(bytes);
  if (channel === undefined) return direction === 'out' ? 'for all units' : 'arrived';
  return direction === 'out'
    ? `nothing on this port listens on channel ${channel}`
    : `arrived on channel ${channel}; no controller of the map sends it`;
}
