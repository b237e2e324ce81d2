import { beforeEach, describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { setShowTitle, type Show } from '../../core/show';
import type { Saved } from '../persistence/shows';
import { createDocument } from './document';
import { SAVE_DELAY, createSaving, type Saving } from './saving';
import { useApp } from './store';

const show = demoShow();

/** A shelf with one row, which can be made to refuse, and a clock that goes on by hand. */
class Desk {
  row: { show: Show; revision: number } = { show, revision: 1 };
  refuses = false;
  gone = false;
  saves = 0;
  /** Songs that the last save had to write. */
  written = 0;
  lifted = false;
  heldOff = false;
  time = 0;
  private timers: { at: number; run: () => void }[] = [];
  readonly doc = createDocument(useApp, () => useApp.getState().open?.save !== 'saved' && this.saving.soon());
  readonly saving: Saving = createSaving({
    open: () => useApp.getState().open,
    document: this.doc,
    save: async (s, base, _, before): Promise<Saved> => {
      this.saves += 1;
      this.written = s.songs.filter((song) => !before?.songs.includes(song)).length;
      await Promise.resolve();
      if (this.refuses) throw new Error('no room');
      if (this.gone && base !== null) return { kind: 'gone' };
      if (!this.gone && base !== this.row.revision) return { kind: 'conflict', revision: this.row.revision };
      this.gone = false;
      this.row = { show: s, revision: (base ?? 0) + 1 };
      return { kind: 'saved', revision: this.row.revision };
    },
    load: async () => ({ ...this.row, lifted: this.lifted }),
    now: () => this.time,
    isHeldOff: () => this.heldOff,
    later: (run, millis) => {
      const timer = { at: this.time + millis, run };
      this.timers.push(timer);
      return () => (this.timers = this.timers.filter((t) => t !== timer));
    },
  });

  async pass(millis: number): Promise<void> {
    this.time += millis;
    const due = this.timers.filter((t) => t.at <= this.time);
    this.timers = this.timers.filter((t) => t.at > this.time);
    for (const t of due) t.run();
    for (let i = 0; i < 20; i++) await Promise.resolve();
  }

  /** Another tab saves. */
  theirs(title: string): void {
    this.row = { show: { ...this.row.show, title }, revision: this.row.revision + 1 };
  }
}

let desk: Desk;
const open = () => useApp.getState().open!;
const rename = (title: string) => desk.doc.perform(setShowTitle(desk.doc.show()!, title), 'rename');

beforeEach(() => {
  useApp.setState({ open: null });
  desk = new Desk();
  desk.doc.enter(show, 1);
});

describe('saving', () => {
  it('is done a moment after the last edit, once', async () => {
    rename('A');
    await desk.pass(SAVE_DELAY - 10);
    rename('B');
    await desk.pass(SAVE_DELAY - 10);
    expect(desk.saves).toBe(0);
    await desk.pass(20);
    expect([desk.saves, desk.row.show.title, open().save, open().revision]).toEqual([1, 'B', 'saved', 2]);
    await desk.saving.now();
    expect(desk.saves).toBe(1);
  });

  it('never uses a revision twice, however often it is asked', async () => {
    rename('A');
    const first = desk.saving.now();
    // The first is on its way when the second edit is made.
    await Promise.resolve();
    rename('B');
    await Promise.all([first, desk.saving.now(), desk.saving.now()]);
    expect([desk.row.show.title, desk.row.revision, open().save]).toEqual(['B', 3, 'saved']);
  });

  it('says that the store refuses, and tries again when there may be room', async () => {
    desk.refuses = true;
    rename('A');
    await desk.pass(SAVE_DELAY);
    expect(open().save).toBe('failed');
    await desk.pass(5000);
    expect(open().save).toBe('failed');
    desk.refuses = false;
    await desk.pass(5000);
    expect([open().save, desk.row.show.title]).toEqual(['saved', 'A']);
  });

  it('follows another tab while everything is saved here, and can undo it', async () => {
    desk.theirs('Theirs');
    await desk.saving.follow(2);
    expect(open()).toMatchObject({ show: { title: 'Theirs' }, revision: 2, save: 'saved' });
    desk.doc.undo();
    await desk.pass(SAVE_DELAY);
    expect(desk.row).toMatchObject({ show: { title: show.title }, revision: 3 });
  });

  it('follows another tab only when the show that is on here is over', async () => {
    desk.heldOff = true;
    desk.theirs('Theirs');
    await desk.saving.follow(2);
    expect(open().show.title).toBe(show.title);
    desk.heldOff = false;
    await desk.saving.followLater();
    expect(open()).toMatchObject({ show: { title: 'Theirs' }, revision: 2 });
    await desk.saving.followLater();
  });

  it('asks where both edited: nothing of either is written over', async () => {
    desk.theirs('Theirs');
    rename('Mine');
    await desk.pass(SAVE_DELAY);
    expect([open().save, desk.row.show.title, open().show.title]).toEqual(['conflict', 'Theirs', 'Mine']);
    await desk.saving.takeTheirs();
    expect([open().save, open().show.title]).toEqual(['saved', 'Theirs']);
    desk.doc.undo();
    expect(open().show.title).toBe('Mine');
  });

  it('hears of a conflict before it saves', async () => {
    rename('Mine');
    desk.theirs('Theirs');
    await desk.saving.follow(2);
    expect(open().save).toBe('conflict');
    await desk.pass(SAVE_DELAY);
    expect(desk.saves).toBe(0);
  });

  it.each([
    ['when it is saved', async () => desk.pass(SAVE_DELAY)],
    ['when the row goes', async () => desk.saving.follow(undefined)],
  ])('says that the show is not stored any more, %s, and saves it anew when it is told to', async (_, notices) => {
    rename('Mine');
    desk.gone = true;
    await notices();
    expect([open().save, open().show.title]).toEqual(['gone', 'Mine']);
    const { saves } = desk;
    rename('Mine, too');
    await desk.pass(SAVE_DELAY);
    expect([open().save, desk.row.show.title, desk.saves]).toEqual(['gone', show.title, saves]);
    await desk.saving.anew();
    expect(open()).toMatchObject({ save: 'saved', revision: 1, show: { title: 'Mine, too' } });
    expect(desk.row).toMatchObject({ revision: 1, show: { title: 'Mine, too' } });
    rename('And on');
    await desk.pass(SAVE_DELAY);
    expect(desk.row).toMatchObject({ revision: 2, show: { title: 'And on' } });
  });

  it('says nothing of a show that is open no more', async () => {
    rename('A');
    const saving = desk.saving.now();
    desk.doc.enter({ ...show, id: 'other' }, 7);
    await saving;
    expect(open()).toMatchObject({ revision: 7, save: 'saved' });
  });

  it('writes all songs of a show that was lifted from an older version, and then only what changed', async () => {
    for (const [lifted, written] of [
      [true, show.songs.length],
      [false, 0],
    ] as const) {
      desk.saving.opened({ show: open().show, revision: open().revision!, lifted });
      rename(`Lifted ${lifted}`);
      await desk.pass(SAVE_DELAY);
      expect(desk.written).toBe(written);
    }
    // Another tab may be of the older version still.
    desk.lifted = true;
    desk.theirs('From an older tab');
    await desk.saving.follow(desk.row.revision);
    rename('Edited here');
    await desk.pass(SAVE_DELAY);
    expect(desk.written).toBe(show.songs.length);
  });
});
