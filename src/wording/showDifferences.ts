import type { ShowDifference } from '../core/meaning';

const count = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

const list = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** In what one state of a show differs from another, in a sentence. */
export function showDifferenceWords(d: ShowDifference): string {
  switch (d.what) {
    case 'added':
      return `New: ${d.of} ${d.name}.`;
    case 'removed':
      return `Gone: ${d.of} ${d.name}.`;
    case 'renamed':
      return `${capital(d.of)} ${d.from} is called ${d.to}.`;
    case 'tone':
      return `${d.name} is another sound: ${list(d.units)} differ${d.units.length === 1 ? 's' : ''}.`;
    case 'move':
      return `${d.name} does something else.`;
    case 'preset':
      if (d.from === '') return `${d.unit}: ${d.to} is new.`;
      return d.to === '' ? `${d.unit}: ${d.from} is gone.` : `${d.unit}: ${d.from} is ${d.to} now.`;
    case 'channel':
      return `${d.unit} is sent to on channel ${d.to}, was ${d.from}.`;
    case 'control':
      return `${d.unit}: ${d.name} has other numbers.`;
    case 'controls': {
      const told = [
        d.added.length > 0 ? `new: ${list(d.added)}` : '',
        d.removed.length > 0 ? `gone: ${list(d.removed)}` : '',
      ].filter((x) => x !== '');
      return `${d.unit}, controls ${told.join('; ')}.`;
    }
    case 'unit':
      return `${d.unit}: its labels, timing, cables or other settings differ.`;
    case 'song': {
      const cues = [
        d.added > 0 ? `${count(d.added, 'cue')} new` : '',
        d.removed > 0 ? `${count(d.removed, 'cue')} gone` : '',
        d.changed > 0 ? `${count(d.changed, 'cue')} changed` : '',
        d.frame ? 'tempo, metre, sections or remarks changed' : '',
      ].filter((x) => x !== '');
      const how = cues.length === 0 ? '' : `: ${cues.join(', ')}`;
      return `${d.name}${how}${d.sounds ? '; its units are sent something else' : ''}.`.replace(
        /^([^:]*); its/,
        '$1: its',
      );
    }
    case 'set':
      return 'The running order, or who and what is missing tonight, differs.';
    case 'page':
      return d.name === '' ? `${d.unit}: what stands on every page differs.` : `${d.unit}: page ${d.name} differs.`;
  }
}
