import { beforeEach, describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { songEntries } from '../../core/show';
import { createNight, useNight, type Night, type NightNeeds } from './night';

const show = demoShow();
const [first] = songEntries(show);
let heard: string[];
let night: Night;
let isTaken: boolean;
const note =
  (what: string) =>
  (...with_: readonly unknown[]): Promise<void> => {
    heard.push([what, ...with_.map((w) => (typeof w === 'object' && w ? 'remembered' : String(w)))].join(' '));
    return Promise.resolve();
  };

beforeEach(() => {
  heard = [];
  isTaken = false;
  useNight.setState({ id: null, begun: 0 });
  const needs: NightNeeds = {
    store: useNight,
    show: () => show,
    now: () => 5000,
    newId: () => 'n1',
    say: (text) => void heard.push(`say ${text.slice(0, 17)}`),
    takeTurn: () => Promise.resolve(isTaken ? null : () => void heard.push('let go')),
    tell: note('tell'),
    tellRemembered: note('tell'),
    stop: note('stop'),
    select: note('select'),
    endPractice: () => void heard.push('no practice'),
    bindAgain: () => void heard.push(`bind, on: ${useNight.getState().id}`),
    over: () => void heard.push('over'),
    follows: () => false,
  };
  night = createNight(needs);
});

describe('the show', () => {
  it('begins with its first song, at once without practice and without stand-ins beside real ports', async () => {
    expect(await night.start()).toBe(true);
    expect(useNight.getState()).toEqual({ id: 'n1', begun: 5000 });
    expect(heard).toEqual(['stop', 'no practice', 'bind, on: n1', 'tell n1', `select ${first!.songId} 0 ${first!.id}`]);
    expect(await night.start()).toBe(false);
  });

  it('does not begin while another tab plays, and says so', async () => {
    isTaken = true;
    expect(await night.start()).toBe(false);
    expect(heard).toEqual(['stop', 'say Another tab plays']);
    expect(useNight.getState().id).toBeNull();
  });

  it('ends: the turn is let go, and stand-ins answer again', async () => {
    await night.start();
    heard = [];
    await night.end();
    expect(heard).toEqual(['tell null', 'let go', 'bind, on: null', 'over']);
    await night.end();
    expect(heard).toHaveLength(4);
  });

  it('goes on after a crash as it was, and is told again to a playback that was started anew', async () => {
    const was = { night: 'n0', history: [], songId: null, entryId: null, place: 0, queued: null };
    await night.remember(was, 3000);
    expect(useNight.getState()).toEqual({ id: 'n0', begun: 3000 });
    expect(heard).toEqual(['no practice', 'bind, on: n0', 'tell remembered']);
    night.tellAgain();
    expect(heard.at(-1)).toBe('tell n0');
  });

  it('is not taken from the tab that has it on by now', async () => {
    isTaken = true;
    await night.remember({ night: 'n0', history: [], songId: null, entryId: null, place: 0, queued: null }, 3000);
    expect(useNight.getState().id).toBeNull();
    expect(heard).toEqual([]);
  });

  it('that is only rehearsed is remembered without taking a turn', async () => {
    await night.remember({ night: null, history: [], songId: null, entryId: null, place: 0, queued: null }, 3000);
    expect(heard).toEqual(['tell remembered']);
  });
});
