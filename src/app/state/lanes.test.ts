import { beforeEach, describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { NOBODY, foldAll, hushed, toggleLane, useLanes } from './lanes';

const show = demoShow();
const ids = show.units.map((u) => u.id);
const none: ReadonlySet<string> = new Set();
beforeEach(() => useLanes.setState({ muted: none, solo: none, folded: none }));
const quiet = (): string[] => hushed(show, useLanes.getState());

describe('lanes', () => {
  it('are all sent to at first', () => {
    expect(quiet()).toEqual([]);
  });

  it('that are muted are sent nothing, until they are heard again', () => {
    toggleLane('muted', 'tarn');
    toggleLane('muted', 'wick');
    expect(quiet()).toEqual(['tarn', 'wick']);
    toggleLane('muted', 'tarn');
    expect(quiet()).toEqual(['wick']);
  });

  it('that are soloed silence all others; muted wins over solo', () => {
    toggleLane('solo', 'harrow');
    expect(quiet()).toEqual(ids.filter((id) => id !== 'harrow'));
    toggleLane('solo', 'tarn');
    expect(quiet()).toEqual(ids.filter((id) => id !== 'harrow' && id !== 'tarn'));
    toggleLane('muted', 'tarn');
    expect(quiet()).toEqual(ids.filter((id) => id !== 'harrow'));
    toggleLane('solo', 'harrow');
    toggleLane('solo', 'tarn');
    expect(quiet()).toEqual(['tarn']);
  });

  it('are folded by player, those of nobody too, without being silenced', () => {
    foldAll(show, true);
    expect([...useLanes.getState().folded]).toEqual([...show.players.map((p) => p.id), NOBODY]);
    expect(quiet()).toEqual([]);
    toggleLane('folded', show.players[0]!.id);
    expect(useLanes.getState().folded.has(show.players[0]!.id)).toBe(false);
    foldAll(show, false);
    expect(useLanes.getState().folded.size).toBe(0);
  });
});
