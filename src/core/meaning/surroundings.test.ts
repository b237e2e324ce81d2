import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { applyEdit, checkShow, openingOf, type Show } from '../show';
import { copyBySection, removeTone, replaceTone, setOpening, setShowOpening, toneUses } from '../show/commands';
import { OPENING_CUE, moments } from './moments';
import { doingTo } from '../testing/doing';

const show = demoShow();
const opened = (s: Show, i = 0): string | null => {
  const [first] = moments(s, s.songs[i]!).filter((m) => m.id === OPENING_CUE);
  return first?.action.kind === 'tone' ? first.action.toneId : null;
};
const done = doingTo(show);

describe('an opening', () => {
  it('is that of the show, until a song has its own', () => {
    expect(show.songs[0]!.opening).toBe('show');
    expect(opened(show)).toBe('still-water');
    const other = done(setShowOpening(show, 'harbour-clean'));
    expect(opened(other)).toBe('harbour-clean');
    const own = done(setOpening(other, 'slack-tide', 'fog-lead'), other);
    expect(opened(own)).toBe('fog-lead');
    expect(opened(done(setShowOpening(own, 'undertow'), own))).toBe('fog-lead');
  });

  it('can be none at all, and come back', () => {
    const none = done(setOpening(show, 'slack-tide', null));
    expect(opened(none)).toBeNull();
    const back = done(setOpening(none, 'slack-tide', 'show'), none);
    expect(opened(back)).toBe('still-water');
    expect(setOpening(back, 'slack-tide', 'show')).toBeNull();
    expect(opened(done(setShowOpening(show, null)))).toBeNull();
    expect(setShowOpening(show, 'no-such-tone')).toBeNull();
    expect(setOpening(show, 'no-such-song', null)).toBeNull();
  });

  it('counts as a use of its tone, and follows when the tone is replaced everywhere', () => {
    expect(toneUses(show, 'still-water')).toContain('slack-tide');
    const bare: Show = { ...show, songs: show.songs.map((s) => ({ ...s, cues: [] })), core: [] };
    expect(removeTone(bare, 'still-water')).toBeNull();
    const replaced = done(replaceTone(show, 'still-water', 'undertow', null));
    expect(replaced.openingToneId).toBe('undertow');
    expect(opened(replaced)).toBe('undertow');
    // In one song only, what all songs share stays.
    expect(done(replaceTone(show, 'still-water', 'undertow', 'fog-bell')).openingToneId).toBe('still-water');
  });

  it('is taken over with a song’s changes only where there is none', () => {
    const own = done(setOpening(show, 'slack-tide', 'fog-lead'));
    let id = 0;
    const newId = (): string => `n${++id}`;
    const kept = applyEdit(own, copyBySection(own, 'slack-tide', 'fog-bell', newId) ?? { kind: 'group', edits: [] });
    expect(
      openingOf(
        kept,
        kept.songs.find((s) => s.id === 'fog-bell')!,
      ),
    ).toBe('still-water');
    const without = done(setShowOpening(own, null), own);
    const taken = done(copyBySection(without, 'slack-tide', 'fog-bell', newId), without);
    expect(
      openingOf(
        taken,
        taken.songs.find((s) => s.id === 'fog-bell')!,
      ),
    ).toBe('fog-lead');
  });

  it('is refused where its tone is missing', () => {
    expect(checkShow({ ...show, openingToneId: 'gone' }).map((p) => p.code)).toEqual(['show.missing']);
  });
});
