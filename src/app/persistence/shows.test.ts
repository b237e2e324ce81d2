import 'fake-indexeddb/auto';
import { readFileSync } from 'node:fs';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { applyEdit, deleteSong, newFootSwitch, songEntries, type Show } from '../../core/show';
import Dexie from 'dexie';
import { Shelf } from './db';
import { copySounds, keepSound, loadSound } from './sounds';
import { keepDevice, loadDevice } from './device';
import { loadShow } from './loadShow';
import { readListed } from './listed';
import { keepProof, loadProofs } from './proofs';
import { KEPT_BY_ITSELF, keepVersion, loadVersion, removeVersion, watchVersions } from './versions';
import { removeShow, removeDamaged, saveShow, watchRevision, watchShows } from './shows';

const show = demoShow();
let shelf: Shelf;
let count = 0;
beforeEach(() => {
  shelf = new Shelf(`test-${count++}`);
});
afterEach(() => shelf.delete());

const until = async (condition: () => boolean): Promise<void> => {
  while (!condition()) await new Promise((r) => setTimeout(r, 5));
};

describe('the shelf', () => {
  it('gives back what was put there', async () => {
    expect(await saveShow(shelf, show, null, 5)).toEqual({ kind: 'saved', revision: 1 });
    const loaded = await loadShow(shelf, show.id);
    expect(loaded!.read.value).toEqual(show);
    expect(loaded!.revision).toBe(1);
    expect(await loadShow(shelf, 'other')).toBeUndefined();
  });

  it('counts revisions up', async () => {
    await saveShow(shelf, show, null, 1);
    expect(await saveShow(shelf, { ...show, title: 'Other' }, 1, 2)).toEqual({ kind: 'saved', revision: 2 });
    expect((await loadShow(shelf, show.id))!.read.value!.title).toBe('Other');
  });

  it('never writes over what another tab saved', async () => {
    await saveShow(shelf, show, null, 1);
    const mine = { ...show, title: 'Mine' };
    const theirs = { ...show, title: 'Theirs' };
    const [first, second] = await Promise.all([saveShow(shelf, theirs, 1, 2), saveShow(shelf, mine, 1, 3)]);
    expect([first.kind, second.kind].sort()).toEqual(['conflict', 'saved']);
    expect((await loadShow(shelf, show.id))!.read.value!.title).toBe('Theirs');
    expect(await saveShow(shelf, mine, null, 4)).toEqual({ kind: 'conflict', revision: 2 });
  });

  it('reads rows through the same door as files, and leaves a bad one where it is', async () => {
    await shelf.shows.put({ id: 'bad', title: 'Bad', revision: 3, savedAt: 1, data: { ...show, version: 99 } });
    const loaded = await loadShow(shelf, 'bad');
    expect(loaded!.read.value).toBeUndefined();
    expect(loaded!.read.problems).toMatchObject([{ code: 'show.newer' }]);
    expect((await shelf.shows.get('bad'))!.revision).toBe(3);
  });

  it('lists shows, the newest first, whenever that changes', async () => {
    const seen: string[][] = [];
    const end = watchShows(shelf, (list) => seen.push(list.map((s) => s.title)));
    await until(() => seen.length > 0);
    await saveShow(shelf, { ...show, id: 'a', title: 'A' }, null, 1);
    await saveShow(shelf, { ...show, id: 'b', title: 'B' }, null, 2);
    await until(() => seen.at(-1)!.length === 2);
    expect(seen.at(-1)).toEqual(['B', 'A']);
    end();
  });

  it('writes the songs that changed, and no others', async () => {
    await saveShow(shelf, show, null, 1);
    const puts: string[] = [];
    shelf.songs.hook('updating', (_, key) => void puts.push(String(key)));
    shelf.songs.hook('creating', (key) => void puts.push(String(key)));
    const [first, ...rest] = show.songs;
    const edited: Show = { ...show, songs: [{ ...first!, title: 'Other' }, ...rest] };
    await saveShow(shelf, edited, 1, 2, show);
    expect(puts).toEqual([`${show.id},${first!.id}`]);
    expect((await loadShow(shelf, show.id))!.read.value).toEqual(edited);
    const fewer = applyEdit(edited, deleteSong(edited, first!.id)!);
    await saveShow(shelf, fewer, 2, 3, edited);
    expect((await loadShow(shelf, show.id))!.read.value).toEqual(fewer);
    expect(await shelf.songs.count()).toBe(fewer.songs.length);
    // What lies there is not known to this tab: all of it is put right.
    await saveShow(shelf, show, 3, 4);
    expect((await loadShow(shelf, show.id))!.read.value).toEqual(show);
  });

  it('reads a show whose songs lie in its own row, as older ones do', async () => {
    await shelf.shows.put({ id: show.id, title: show.title, revision: 3, savedAt: 1, data: show });
    expect(await loadShow(shelf, show.id)).toMatchObject({ revision: 3, inRows: false, lost: 0 });
    expect((await loadShow(shelf, show.id))!.read.value).toEqual(show);
    await saveShow(shelf, show, 3, 2);
    expect(await loadShow(shelf, show.id)).toMatchObject({ revision: 4, inRows: true });
  });

  it('has a show of an older version whole again after one song of it was edited', async () => {
    const old = JSON.parse(
      readFileSync(new URL('../../../fixtures/shows/version-8.json', import.meta.url), 'utf8'),
    ) as { id: string; title: string; songs: { id: string }[] };
    const { songs, ...frame } = old;
    await shelf.songs.bulkPut(songs.map((data) => ({ showId: old.id, id: data.id, data })));
    const ids = songs.map((s) => s.id);
    await shelf.shows.put({ id: old.id, title: old.title, revision: 1, savedAt: 1, data: frame, songs: ids });
    const { read, lifted } = (await loadShow(shelf, old.id))!;
    expect(lifted).toBe(true);
    const value = read.value!;
    const edited = { ...value, songs: value.songs.map((s, i) => (i === 0 ? { ...s, title: 'Other' } : s)) };
    // What lies there is nothing that was read: as saving hands it on.
    await saveShow(shelf, edited, 1, 2, { ...value, songs: value.songs.map((s) => ({ ...s })) });
    const again = (await loadShow(shelf, old.id))!;
    expect(again).toMatchObject({ lifted: false, lost: 0, damaged: [] });
    expect(again.read.value).toEqual(edited);
  });

  it('leaves out what arrives and what is pressed for a song whose row is lost', async () => {
    const lost = show.songs[1]!.id;
    const hears = show.reactions[0]!.hears;
    const own = { id: 'r', name: '', on: true, songId: null, hears, swallow: true } as const;
    const start = { kind: 'song', songId: lost, how: 'start' } as const;
    const [treadle, ...others] = show.feet;
    const [first, ...pages] = treadle!.pages;
    const pressed: Show = {
      ...show,
      reactions: [
        ...show.reactions,
        { ...own, does: start },
        { ...own, id: 's', songId: lost, does: { kind: 'session', act: 'stop' } },
      ],
      feet: [
        { ...treadle!, pages: [{ ...first!, switches: [newFootSwitch('switch-5', [start])] }, ...pages] },
        ...others,
      ],
    };
    await saveShow(shelf, pressed, null, 1);
    await shelf.songs.delete([show.id, lost]);
    const { value, problems } = (await loadShow(shelf, show.id))!.read;
    expect(problems).toEqual([]);
    expect(value!.reactions).toEqual(show.reactions);
    expect(value!.feet[0]!.pages.map((p) => p.songId)).not.toContain(lost);
    expect(value!.feet[0]!.pages[0]!.switches[0]!.doings).toEqual([]);
  });

  it('leaves out a song whose row is lost, and says how many', async () => {
    await saveShow(shelf, show, null, 1);
    await shelf.songs.delete([show.id, show.songs[1]!.id]);
    const { read, lost } = (await loadShow(shelf, show.id))!;
    expect(lost).toBe(1);
    expect(read.value!.songs).toEqual(show.songs.filter((_, i) => i !== 1));
    expect(songEntries(read.value!)).toHaveLength(songEntries(show).length - 1);
  });

  it('leaves out a song whose row is damaged, keeps the row, and gives it', async () => {
    await saveShow(shelf, show, null, 1);
    const bad = show.songs[1]!;
    for (const data of [{ ...bad, bars: 'many' }, 5, null, { ...bad, cues: [{ id: 'x' }] }, { ...bad, id: 'other' }]) {
      await shelf.songs.put({ showId: show.id, id: bad.id, data });
      const { read, lost, damaged, revision } = (await loadShow(shelf, show.id))!;
      expect(read.value!.songs, JSON.stringify(data).slice(0, 40)).toEqual(show.songs.filter((s) => s !== bad));
      expect(lost).toBe(0);
      expect(damaged).toEqual([{ id: bad.id, data }]);
      // Saving what could be read leaves the row where it is, and it is given again.
      const saved = await saveShow(shelf, read.value!, revision, 2, read.value);
      expect(saved.kind).toBe('saved');
      expect((await loadShow(shelf, show.id))!.damaged).toEqual([{ id: bad.id, data }]);
      await removeDamaged(shelf, show.id, damaged);
      expect((await loadShow(shelf, show.id))!.damaged).toEqual([]);
      await saveShow(shelf, show, revision + 1, 3);
    }
  });

  it('refuses a show whose frame is damaged, whatever its songs are', async () => {
    await saveShow(shelf, show, null, 1);
    const row = (await shelf.shows.get(show.id))!;
    await shelf.shows.put({ ...row, data: { ...(row.data as object), units: 'none' } });
    const { read, damaged } = (await loadShow(shelf, show.id))!;
    expect(read.value).toBeUndefined();
    expect(damaged).toEqual([]);
  });

  it('lists a show with a damaged date too', async () => {
    await saveShow(shelf, { ...show, id: 'a', title: 'A' }, null, 1);
    await shelf.shows.put({ id: 'b', title: 'B', revision: 1, savedAt: 'yesterday', data: {} } as never);
    await shelf.shows.put({ id: 'c', title: 'C', revision: 1, data: {} } as never);
    const seen: { id: string; savedAt: number }[][] = [];
    const end = watchShows(shelf, (list) => seen.push([...list]));
    await until(() => seen.length > 0);
    expect(Object.fromEntries(seen[0]!.map((s) => [s.id, s.savedAt]))).toEqual({ a: 1, b: 0, c: 0 });
    end();
    expect(readListed(5)).toBeUndefined();
    expect(readListed([1, 'x', 3])).toEqual({ id: 'x', title: 'A show without a title', savedAt: 1 });
  });

  it('tells of a new revision', async () => {
    await saveShow(shelf, show, null, 1);
    const seen: (number | undefined)[] = [];
    const end = watchRevision(shelf, show.id, (r) => seen.push(r));
    await until(() => seen.length > 0);
    await saveShow(shelf, show, 1, 2);
    await until(() => seen.at(-1) === 2);
    await removeShow(shelf, show.id);
    await until(() => seen.at(-1) === undefined);
    expect(await saveShow(shelf, show, 2, 3)).toEqual({ kind: 'gone' });
    end();
  });

  it('keeps proofs a song, and takes them away with their show', async () => {
    const proof = { lantern: 'lit', verdicts: [] } as const;
    await saveShow(shelf, show, null, 1);
    await keepProof(shelf, show.id, 's', { f1: proof });
    await keepProof(shelf, show.id, 't', { f2: proof });
    await keepProof(shelf, show.id, 's', { f3: proof });
    await keepProof(shelf, 'other', 's', { f9: proof });
    expect(await loadProofs(shelf, show.id)).toEqual({ s: { f3: proof }, t: { f2: proof } });
    await shelf.proofs.put({ showId: show.id, songId: 'damaged', proofs: { f: { lantern: 'lit' } } } as never);
    expect(Object.keys(await loadProofs(shelf, show.id)).sort()).toEqual(['s', 't']);
    await removeShow(shelf, show.id);
    expect(await loadProofs(shelf, show.id)).toEqual({});
    expect(await loadProofs(shelf, 'other')).toEqual({ s: { f9: proof } });
    expect(await loadShow(shelf, show.id)).toBeUndefined();
  });

  it('keeps what lies there while a newer database takes the place of an older one', async () => {
    const old = new Dexie('grows');
    old.version(2).stores({
      shows: 'id, savedAt',
      proofs: '[showId+songId], showId',
      sounds: '[showId+id], showId',
    });
    await old.table('shows').put({ id: show.id, title: show.title, revision: 4, savedAt: 9, data: show });
    old.close();
    const grown = new Shelf('grows');
    expect((await loadShow(grown, show.id))!.revision).toBe(4);
    const seen: unknown[] = [];
    const end = watchShows(grown, (list) => seen.push(list));
    await until(() => seen.length > 0);
    expect(seen[0]).toEqual([{ id: show.id, title: show.title, savedAt: 9 }]);
    end();
    expect(await saveShow(grown, show, 3, 10)).toEqual({ kind: 'conflict', revision: 4 });
    expect(await saveShow(grown, show, 4, 10)).toEqual({ kind: 'saved', revision: 5 });
    await grown.delete();
  });

  it('has the sounds of a show beside it, takes them to its copy, and away with it', async () => {
    const row = (id: string) => ({
      showId: show.id,
      id,
      type: 'audio/wav',
      bytes: new Uint8Array([1, 2, 3]).buffer,
      peaks: new Uint8Array([9]),
    });
    await keepSound(shelf, row('a'));
    await keepSound(shelf, row('b'));
    await keepSound(shelf, { ...row('c'), showId: 'another' });
    expect((await loadSound(shelf, show.id, 'a'))!.peaks).toEqual(new Uint8Array([9]));
    expect(await loadSound(shelf, show.id, 'c')).toBeUndefined();
    await copySounds(shelf, show.id, 'copy');
    expect(new Uint8Array((await loadSound(shelf, 'copy', 'b'))!.bytes)).toEqual(new Uint8Array([1, 2, 3]));
    await saveShow(shelf, show, null, 1);
    await removeShow(shelf, show.id);
    expect(await loadSound(shelf, show.id, 'a')).toBeUndefined();
    expect(await loadSound(shelf, 'copy', 'a')).toBeDefined();
    expect(await loadSound(shelf, 'another', 'c')).toBeDefined();
    // A shelf that cannot be read has none.
    const shut = new Shelf('shut');
    shut.close({ disableAutoOpen: true });
    expect(await loadSound(shut, show.id, 'a')).toBeUndefined();
  });

  it('remembers what belongs to this computer, and takes no notice of what is damaged', async () => {
    expect(await loadDevice(shelf)).toEqual({});
    await keepDevice(shelf, 'counting', 'one');
    expect(await loadDevice(shelf)).toEqual({ counting: 'one' });
    await shelf.device.put({ key: 'counting', value: 'backwards' });
    expect(await loadDevice(shelf)).toEqual({});
  });

  it('keeps states of a show by name, reads them like files, and takes them along when the show goes', async () => {
    await saveShow(shelf, show, null, 1);
    const seen: string[][] = [];
    const end = watchVersions(
      shelf,
      show.id,
      (list) => seen.push(list.map((v) => v.name)),
      (e) => expect.unreachable(e.message),
    );
    await keepVersion(shelf, { showId: show.id, id: 'a', name: 'First', savedAt: 1, why: 'kept', data: show });
    await keepVersion(shelf, { showId: show.id, id: 'b', name: 'Second', savedAt: 2, why: 'before', data: { odd: 1 } });
    await keepVersion(shelf, { showId: 'other', id: 'a', name: 'Theirs', savedAt: 3, why: 'kept', data: show });
    await until(() => seen.at(-1)?.length === 2);
    expect(seen.at(-1)).toEqual(['Second', 'First']);
    expect((await loadVersion(shelf, show.id, 'a'))!.value).toEqual(show);
    expect((await loadVersion(shelf, show.id, 'b'))!.value).toBeUndefined();
    expect(await loadVersion(shelf, show.id, 'c')).toBeUndefined();
    await removeVersion(shelf, show.id, 'b');
    await until(() => seen.at(-1)?.length === 1);
    end();
    await removeShow(shelf, show.id);
    expect(await shelf.versions.toArray()).toMatchObject([{ name: 'Theirs' }]);
  });

  it('keeps the first state of an id, and of those kept by themselves the newest', async () => {
    const row = { showId: show.id, name: 'State', data: show };
    await keepVersion(shelf, { ...row, id: 'mine', savedAt: 0, why: 'kept' });
    for (let i = 1; i <= KEPT_BY_ITSELF + 3; i++) {
      await keepVersion(shelf, { ...row, id: `v${i}`, savedAt: i, why: 'before' });
    }
    await keepVersion(shelf, { ...row, id: 'mine', savedAt: 99, why: 'before', name: 'Later' });
    const left = (await shelf.versions.toArray()).map((v) => v.savedAt).sort((a, b) => a - b);
    expect(left).toEqual([0, ...Array.from({ length: KEPT_BY_ITSELF }, (_, i) => i + 4)]);
    expect((await shelf.versions.get([show.id, 'mine']))!.name).toBe('State');
  });
});
