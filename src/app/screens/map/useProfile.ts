import type { Profile } from '../../../core/addressing';
import { changeProfile, type Dropped, type ProfileChange, type Unit } from '../../../core/show';
import { sentence } from '../../../wording';
import { perform, say } from '../../state/desk';
import { useShow } from '../../state/store';

/** Edits a unit's profile; gives a sentence where what was wanted is refused, and then nothing has changed. */
export function useProfile(unit: Unit): (next: Profile, label: string) => string | null {
  const show = useShow();
  return (next, label) => takeChange(changeProfile(show, unit.id, next), label);
}

/** Does a change of a profile, and says what tones and presets lost by it. */
export function takeChange(change: ProfileChange, label: string): string | null {
  if (!change.ok) return change.problems.map(sentence)[0] ?? 'It cannot be changed like that.';
  if (perform(change.edit, label)) say(droppedWords(change.dropped));
  return null;
}

/** What was said of things that a profile no longer has; empty where nothing was lost. */
export function droppedWords(dropped: readonly Dropped[]): string {
  if (dropped.length === 0) return '';
  const names = [...new Set(dropped.map((d) => d.name || 'a nameless preset'))];
  const shown = names.slice(0, 3).join(', ');
  const more = names.length > 3 ? ` and ${names.length - 3} more` : '';
  return `${shown}${more} used what is gone; that was taken out. Undo brings it back.`;
}
