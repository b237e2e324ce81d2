import { describe, expect, it } from 'vitest';
import { readShowData } from '../../core/formats/show-file';
import { demoShow } from '../../core/demo';
import { applyEdit, renameTone, type Show } from '../../core/show';
import { create } from 'zustand';
import type { VersionRow } from '../persistence/db';
import { createDocument } from './document';
import { createVersions } from './versions';
import type { AppState } from './store';

function desk(refuses = false) {
  const store = create<AppState>(() => ({
    open: null,
    refusal: null,
    counting: 'label',
    light: 'light',
    note: null,
    stageOnly: [],
    damaged: [],
    playerFilter: null,
  }));
  const doc = createDocument(store, () => undefined);
  doc.enter(demoShow(), 1);
  const rows: VersionRow[] = [];
  let count = 0;
  const versions = createVersions({
    show: doc.show,
    become: doc.become,
    say: doc.say,
    keep: (row) => {
      if (refuses) return Promise.reject(new Error('no room'));
      rows.push(row);
      return Promise.resolve();
    },
    load: (showId, id) => {
      const row = rows.find((r) => r.id === id && r.showId === showId);
      return Promise.resolve(row && readShowData(structuredClone(row.data)));
    },
    remove: (_, id) => {
      rows.splice(
        rows.findIndex((r) => r.id === id),
        1,
      );
      return Promise.resolve();
    },
    watch: () => () => undefined,
    newId: () => `v${count++}`,
    now: () => 1000 + count,
  });
  return { store, doc, rows, versions };
}

const rename = (doc: { show: () => Show | undefined; perform: (e: never, l: string) => boolean }, name: string): void =>
  void doc.perform(renameTone(doc.show()!, 'undertow', name) as never, 'rename');

describe('saved versions of a show', () => {
  it('are gone back to as an edit; what was there is kept first and undo brings it back', async () => {
    const { doc, rows, versions, store } = desk();
    const first = doc.show()!;
    expect(await versions.keep('Good')).toBe(true);
    rename(doc, 'Riptide');
    const second = doc.show()!;
    await versions.goBack(rows[0]!);
    expect(doc.show()).toEqual(first);
    // What did not differ is the same object still: nothing has to be proven again.
    expect(doc.show()!.songs).toBe(first.songs);
    expect(rows.map((r) => [r.name, r.why])).toEqual([
      ['Good', 'kept'],
      ['Before going back to Good', 'before'],
    ]);
    expect(rows[1]!.data).toBe(second);
    doc.undo();
    expect(doc.show()).toEqual(second);
    expect(store.getState().open!.future).toHaveLength(1);
  });

  it('change nothing where the show is like that, and say so', async () => {
    const { doc, rows, versions, store } = desk();
    await versions.keep('Good');
    await versions.goBack(rows[0]!);
    expect(store.getState().note).toBe('The show is like that now.');
    expect(store.getState().open!.past).toEqual([]);
    expect(doc.show()).toEqual(demoShow());
  });

  it('that cannot be read leave the show as it is', async () => {
    const { doc, rows, versions, store } = desk();
    await versions.keep('Good');
    const row = rows[0]!;
    rows[0] = { ...row, data: { ...(row.data as Show), version: 99 } };
    rename(doc, 'Riptide');
    const now = doc.show();
    await versions.goBack(row);
    expect(doc.show()).toBe(now);
    expect(store.getState().note).toMatch(/^Good cannot be read\. ./);
    await versions.remove(row);
    await versions.goBack(row);
    expect(store.getState().note).toBe('Good cannot be read. It is gone.');
  });

  it('are not gone back to where the present one cannot be kept', async () => {
    const { doc, versions, store, rows } = desk(true);
    expect(await versions.keep('Good')).toBe(false);
    expect(store.getState().note).toContain('Good was not kept');
    rows.push({ showId: 'other', id: 'x', name: 'Elsewhere', savedAt: 1, why: 'kept', data: demoShow() });
    rename(doc, 'Riptide');
    const now = doc.show()!;
    rows.push({
      showId: now.id,
      id: 'y',
      name: 'Y',
      savedAt: 1,
      why: 'kept',
      data: applyEdit(demoShow(), renameTone(demoShow(), 'undertow', 'Z')!),
    });
    await versions.goBack(rows[1]!);
    expect(doc.show()).toBe(now);
  });

  it('have the one that goes on stage, under the same id all day', async () => {
    const { rows, versions } = desk();
    await versions.keepForToday();
    await versions.keepForToday();
    expect(rows[0]).toMatchObject({ why: 'before', name: 'On stage, 1 Jan 1970' });
    expect(rows[1]!.id).toBe(rows[0]!.id);
  });

  it('keep the show before a file comes into it, and the import is one edit', async () => {
    const { doc, rows, versions } = desk();
    const first = doc.show()!;
    const after = { ...first, songs: first.songs.slice(1), sets: first.sets.map((s) => ({ ...s, entries: [] })) };
    expect(await versions.bringIn(after, 'other.json')).toBe(true);
    expect(rows.map((r) => [r.name, r.why, r.data])).toEqual([['Before importing other.json', 'before', first]]);
    expect(doc.show()!.songs).toEqual(after.songs);
    doc.undo();
    expect(doc.show()).toEqual(first);
  });

  it('do not import where the state before cannot be kept', async () => {
    const { doc, versions } = desk(true);
    const first = doc.show()!;
    expect(await versions.bringIn({ ...first, songs: [] }, 'other.json')).toBe(false);
    expect(doc.show()).toBe(first);
  });
});
