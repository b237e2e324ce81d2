import { describe, expect, it } from 'vitest';
import { demoShow } from '../../../core/demo';
import { setOf, songEntries, type Show } from '../../../core/show';
import type { Played } from '../../../playback';
import { comesNext, driftOf, driftWords, nextWords, notesHere, type InSet } from './comesNext';

const demo = demoShow();
const entries = songEntries(demo);
const [first, second] = entries as [(typeof entries)[0], (typeof entries)[0]];
const titleOf = (i: number): string => demo.songs.find((s) => s.id === entries[i]!.songId)!.title;
const quiet: InSet = { playing: false, entryId: null, queued: null, following: null, history: [] };
const says = (change: Partial<InSet>, songId = first.songId, show: Show = demo): string => {
  const next = comesNext(show, songId, { ...quiet, ...change });
  return next ? nextWords(next) : '';
};
/** The demo show with other entries in its set. */
const withEntries = (
  change: (list: ReturnType<typeof setOf>['entries']) => ReturnType<typeof setOf>['entries'],
): Show => ({
  ...demo,
  sets: demo.sets.map((s) => (s.id === demo.setId ? { ...s, entries: change(s.entries) } : s)),
});
const played = (entryId: string, at: number): Played => ({
  entryId,
  songId: first.songId,
  title: '',
  at,
  until: null,
  how: 'asked',
  struck: false,
});

describe('what comes behind a song', () => {
  it('is the next of the set, and who starts it', () => {
    expect(says({ entryId: first.id })).toBe(`then ${titleOf(1)}`);
    const on = entries.findIndex((e) => e.follow === 'on');
    expect(says({}, entries[on]!.songId)).toBe(`goes on to ${titleOf(on + 1)} after ${entries[on]!.pause} s`);
    const atOnce = withEntries((list) =>
      list.map((e) => (e.kind === 'song' && e.id === first.id ? { ...e, follow: 'on' as const, pause: 0 } : e)),
    );
    expect(says({}, first.songId, atOnce)).toBe(`goes on to ${titleOf(1)}`);
    const launch = { portId: 'feet', bytes: 'c004', does: 'start' as const };
    const launched = withEntries((list) =>
      list.map((e) => (e.kind === 'song' && e.id === second.id ? { ...e, launch } : e)),
    );
    expect(says({}, first.songId, launched)).toBe(`then ${titleOf(1)}, by its message`);
  });

  it('is what somebody chose, and what begins by itself in so many seconds', () => {
    expect(says({ queued: entries[4]!.id })).toBe(`next: ${titleOf(4)}`);
    expect(says({ queued: entries[4]!.id, following: { entryId: second.id, seconds: 3 } })).toBe(
      `${titleOf(1)} in 3 s`,
    );
  });

  it('is nothing behind the last, and beside the set', () => {
    expect(says({}, entries.at(-1)!.songId)).toBe('');
    expect(says({}, 'no such song')).toBe('');
  });
});

describe('notes of the set', () => {
  const note = (id: string, text: string) => ({ kind: 'note' as const, id, text });
  const noted = withEntries((list) => {
    const at = list.findIndex((e) => e.id === first.id);
    return [note('n1', 'Lights down'), ...list.slice(0, at + 1), note('n2', 'Tune the harp'), ...list.slice(at + 1)];
  });
  const here = (change: Partial<InSet>) => notesHere(noted, first.songId, { ...quiet, ...change });

  it('are said before their song, behind it when it was played, and not while it plays', () => {
    expect(here({})).toEqual(['Lights down']);
    expect(here({ playing: true })).toEqual([]);
    expect(here({ history: [played(first.id, 0)] })).toEqual(['Tune the harp']);
    expect(notesHere(noted, second.songId, quiet)).toEqual(['Tune the harp']);
    expect(notesHere(noted, 'no such song', quiet)).toEqual([]);
  });
});

describe('a set against its running order', () => {
  const onStage = setOf(demo).onStage!;
  const drift = (minutes: number) =>
    driftOf(demo, first.songId, { ...quiet, history: [played(first.id, minutes)] }, (at) => at);

  it('is late or early by whole minutes, past midnight too, and says nothing near enough or at another hour', () => {
    expect(drift(onStage + 3.2)).toBe(3);
    expect(drift(onStage - 2)).toBe(-2);
    expect(drift(onStage + 0.3)).toBeNull();
    expect(drift(onStage - 1440 + 5)).toBe(5);
    expect(drift(onStage - 600)).toBeNull();
    expect(drift(onStage + 75)).toBeNull();
    expect(driftOf(demo, first.songId, quiet, (at) => at)).toBeNull();
    expect([driftWords(3), driftWords(-1)]).toEqual(['3 min late', '1 min early']);
  });
});
