import { beforeEach, describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { changeCue, renameTone, setShowTitle, type Show } from '../../core/show';
import { createDocument } from './document';
import { useApp } from './store';

const show = demoShow();
const song = show.songs[0]!;
let heard: Show[] = [];
const doc = createDocument(useApp, (s) => heard.push(s));
const open = () => useApp.getState().open!;

beforeEach(() => {
  useApp.setState({ open: null, note: null, refusal: null });
  doc.enter(show, 3);
  heard = [];
});

describe('the document', () => {
  it('does edits, and goes the way back and forth', () => {
    expect(doc.perform(setShowTitle(show, 'Other'), 'rename')).toBe(true);
    expect(open()).toMatchObject({ save: 'unsaved', show: { title: 'Other' }, past: [{ label: 'rename' }] });
    doc.undo();
    expect(open().show).toEqual(show);
    doc.undo();
    expect(open().show).toEqual(show);
    doc.redo();
    doc.redo();
    expect(open().show.title).toBe('Other');
    expect(heard.map((s) => s.title)).toEqual(['Other', show.title, 'Other']);
  });

  it('refuses a letter that nothing can carry where it is typed, and takes it from a file', () => {
    expect(doc.perform(renameTone(show, 'undertow', 'Under\u0008tow'), 'rename')).toBe(false);
    expect(useApp.getState().note).toBe(
      'Letter 6 of “Under□tow” is U+0008: no file and no display has it. Nothing was changed.',
    );
    expect(open().show).toBe(show);
    expect(doc.become({ ...show, title: 'A\u0008' }, 'import')).toBe(true);
    // What is there already holds nobody from another edit.
    expect(doc.perform(renameTone(doc.show()!, 'undertow', 'Rip'), 'rename')).toBe(true);
  });

  it('does nothing where nothing would change, or nothing is open', () => {
    expect(doc.perform(null, 'nothing')).toBe(false);
    useApp.setState({ open: null });
    expect(doc.perform(setShowTitle(show, 'Other'), 'rename')).toBe(false);
    doc.undo();
    doc.redo();
    expect(heard).toEqual([]);
    expect(doc.show()).toBeUndefined();
  });

  it('forgets what was undone with the next edit, and the oldest of very many', () => {
    for (let i = 0; i < 510; i++) doc.perform(setShowTitle(doc.show()!, `Title ${i}`), `${i}`);
    expect(open().past).toHaveLength(500);
    doc.undo();
    doc.perform(setShowTitle(doc.show()!, 'New'), 'new');
    expect(open().future).toEqual([]);
  });

  it('keeps the way back when another tab saved, and what did not change stays the same', () => {
    doc.perform(renameTone(show, 'undertow', 'Rip'), 'rename');
    const theirs = structuredClone({ ...open().show, title: 'Theirs' });
    doc.replace(theirs, 9, 'take theirs');
    expect(open()).toMatchObject({ revision: 9, save: 'saved', show: { title: 'Theirs' } });
    expect(open().show.songs[0]).toBe(song);
    doc.undo();
    expect(open().show.title).toBe(show.title);
    expect(open().save).toBe('unsaved');
    doc.undo();
    expect(open().show).toEqual(show);
  });

  it('stays in conflict while it is edited', () => {
    doc.change({ save: 'conflict' });
    doc.perform(changeCue(show, song.id, 'slack-tide-cue-3', { shift: 4 }), 'shift');
    expect(open().save).toBe('conflict');
  });

  it('says what an edit meant, until the next', () => {
    doc.say('Something moved.');
    expect(useApp.getState().note).toBe('Something moved.');
    doc.say('  ');
    expect(useApp.getState().note).toBeNull();
    doc.say('Again.');
    doc.perform(setShowTitle(show, 'Other'), 'rename');
    expect(useApp.getState().note).toBeNull();
  });
});

describe('edits that are held off', () => {
  let why: string | null = null;
  const held = createDocument(
    useApp,
    () => undefined,
    (forTonight) => (forTonight ? whyNotEven : why),
  );
  let whyNotEven: string | null = null;

  it('are not done and say why, but for what a night needs; that is also undone', () => {
    why = null;
    held.enter(demoShow(), 1);
    held.perform(setShowTitle(held.show()!, 'Before'), 'rename');
    why = 'The show is on.';
    expect(held.perform(setShowTitle(held.show()!, 'Amid'), 'rename')).toBe(false);
    expect(useApp.getState().note).toBe('The show is on.');
    held.undo();
    expect(held.show()!.title).toBe('Before');
    expect(held.perform(setShowTitle(held.show()!, 'Tonight'), 'rename', true)).toBe(true);
    held.undo();
    expect(held.show()!.title).toBe('Before');
    held.redo();
    expect(held.show()!.title).toBe('Tonight');
    held.undo();
    why = null;
    held.undo();
    expect(held.show()!.title).toBe(demoShow().title);
  });

  it('are not even done for a night where another computer has the show, but what that one has is taken', () => {
    held.enter(demoShow(), 1);
    why = whyNotEven = 'Another computer has it.';
    expect(held.perform(setShowTitle(held.show()!, 'Tonight'), 'rename', true)).toBe(false);
    const theirs = { ...held.show()!, title: 'Theirs' };
    expect(held.become(theirs, 'what the other has')).toBe(false);
    expect(held.become(theirs, 'what the other has', true)).toBe(true);
    expect(held.show()!.title).toBe('Theirs');
    why = whyNotEven = null;
  });
});
