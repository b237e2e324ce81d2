import { describe, expect, it } from 'vitest';
import { findActions, type Action, type ActionGroup } from './findActions';

const action = (name: string, where = '', also = ''): Action => ({ id: name, name, where, also, run: () => undefined });
const groups: readonly ActionGroup[] = [
  {
    name: 'Do',
    actions: [
      action('Print the mix sheet', 'Mix', 'paper'),
      action('Add a song', 'Set', 'new'),
      action('PDF', 'Paper'),
    ],
  },
  { name: 'Go to', actions: [action('Songs by foot'), action('Fog Bell', 'Chart'), action('Song list')] },
];
const names = (typed: string): string[] => findActions(groups, typed).flatMap((g) => g.actions.map((a) => a.name));

describe('what is typed to find an action', () => {
  it('finds all where nothing is typed', () => {
    expect(names('')).toHaveLength(6);
  });

  it('needs every word, wherever it stands', () => {
    expect(names('mix print')).toEqual(['Print the mix sheet']);
    expect(names('new song')).toEqual(['Add a song']);
    expect(names('song xylophone')).toEqual([]);
  });

  it('has names that begin so first, then names with such a word, then other words', () => {
    expect(names('song')).toEqual(['Songs by foot', 'Song list', 'Add a song']);
    expect(names('p')).toEqual(['Print the mix sheet', 'PDF']);
    expect(names('paper')).toEqual(['Print the mix sheet', 'PDF']);
  });

  it('does not list thousands', () => {
    const many = [{ name: 'Tones', actions: Array.from({ length: 5000 }, (_, i) => action(`Tone ${i}`)) }];
    expect(findActions(many, 'tone')[0]!.actions.length).toBeLessThanOrEqual(100);
  });
});
