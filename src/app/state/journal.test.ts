import { beforeEach, describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { indexShow, microsAt, songEntries, songTime, ticksAt } from '../../core/show';
import { barAt } from '../../core/time';
import type { PlaybackNews, Played } from '../../playback';
import { asStopped, barsToGoOn, createJournal, interruptedOf, rehearsalOf, useJournal } from './journal';
import type { Journaling, PlaceRow, PlayedRow } from './journal';
import { NO_NEWS } from './news';

const show = demoShow();
const [entry] = songEntries(show);
const song = indexShow(show).songs.get(entry!.songId)!;
const HOUR = 3_600_000;

let now: number;
let places: PlaceRow[];
let lists: PlayedRow[];
let refuses: boolean;
/** What waits to be written; the test lets it. */
let waiting: (() => void)[];
let waits: boolean;
let journal: Journaling;
let stops: [string, number][];
let last: PlaybackNews;

beforeEach(() => {
  now = 1e12;
  places = [];
  lists = [];
  refuses = false;
  waits = false;
  waiting = [];
  stops = [];
  last = NO_NEWS;
  useJournal.setState(useJournal.getInitialState());
  journal = createJournal({
    store: useJournal,
    now: () => now,
    show: () => show,
    lanes: () => ({ muted: new Set(['tarn']), solo: new Set() }),
    keepPlace: async (row) => {
      if (waits) await new Promise<void>((go) => waiting.push(go));
      if (refuses) throw new Error('no room');
      places.push(row);
    },
    noteStop: (showId, at) => void stops.push([showId, at]),
    keepPlayed: async (row) => {
      if (refuses) throw new Error('no room');
      lists.push(row);
      return row;
    },
  });
});

const settled = (): Promise<void> => new Promise((done) => setTimeout(done));
/** The playback tells something, and what is to be written is. */
const tell = async (news: Partial<PlaybackNews>): Promise<void> => {
  const next = { ...last, ...news };
  journal.hear(next, last);
  last = next;
  await settled();
};
const playing = { playing: true, songId: song.id, entryId: entry!.id, place: 4e6 };
const played: Played = {
  entryId: entry!.id,
  songId: song.id,
  title: song.title,
  at: 1e15,
  until: null,
  how: 'asked',
  struck: false,
};

describe('the journal of a show', () => {
  it('has the place at once when a song begins, every quarter of a second, and when it stops', async () => {
    await tell(playing);
    expect(places[0]).toMatchObject({ songId: song.id, songTitle: song.title, playing: true, muted: ['tarn'] });
    expect(places[0]!.at).toBeCloseTo(ticksAt(songTime(song), 4e6), 6);
    now += 200;
    await tell({ place: 4.4e6 });
    expect(places).toHaveLength(1);
    now += 50;
    await tell({ place: 4.5e6 });
    expect(places).toHaveLength(2);
    await tell({ playing: false });
    expect(places.at(-1)).toMatchObject({ playing: false });
    expect(stops).toEqual([[show.id, now]]);
    now += 5000;
    await tell({ rig: {} });
    expect(places).toHaveLength(3);
  });

  it('has the queue and the song that is gone to at once, while a show is on; in a rehearsal only what plays', async () => {
    await tell({ songId: song.id, queued: 'x' });
    expect(places).toEqual([]);
    await tell({ night: 'n' });
    await tell({ queued: 'y' });
    expect(places.map((p) => p.queued)).toEqual(['x', 'y']);
    await tell({ night: null });
    expect(places.at(-1)).toMatchObject({ night: null, playing: false });
  });

  it('writes one after the other, and of what waits the newest', async () => {
    waits = true;
    await tell(playing);
    for (let i = 1; i <= 5; i++) {
      now += 500;
      await tell({ place: 4e6 + i * 5e5 });
    }
    expect(waiting).toHaveLength(1);
    waits = false;
    waiting[0]!();
    await settled();
    expect(places).toHaveLength(2);
    expect(places[1]!.when).toBe(now);
  });

  it('says that the storage takes nothing, for as long as that lasts, and playing goes on', async () => {
    refuses = true;
    await tell(playing);
    expect(useJournal.getState().fails).toBe(true);
    refuses = false;
    now += 500;
    await tell({ place: 5e6 });
    expect(useJournal.getState().fails).toBe(false);
  });

  it('keeps rehearsals of a day apart from shows', async () => {
    await tell({ ...playing, history: [played] });
    await tell({ playing: false, night: 'n', history: [] });
    await tell({ ...playing, history: [{ ...played, at: 2e15 }] });
    expect(lists.map((l) => [l.id, l.kind, l.history.length])).toEqual([
      [rehearsalOf(now), 'rehearsal', 1],
      ['n', 'show', 1],
    ]);
    expect(useJournal.getState().lists).toHaveLength(2);
  });
});

const place: PlaceRow = {
  showId: show.id,
  night: null,
  songId: song.id,
  songTitle: song.title,
  entryId: entry!.id,
  at: barAt(songTime(song).bars, 3).tick + 700,
  playing: true,
  queued: null,
  muted: [],
  solo: [],
  when: 1e12,
};

describe('what was interrupted', () => {
  it('is a song that played or a show that is on, within a night', () => {
    const between = { ...place, playing: false };
    expect(interruptedOf([place], 1e12 + 40_000)).toBe(place);
    expect(interruptedOf([place], 1e12 + 13 * HOUR)).toBeNull();
    expect(interruptedOf([place], 1e12 - 5)).toBeNull();
    expect(interruptedOf([between], 1e12)).toBeNull();
    expect(interruptedOf([between, { ...between, night: 'n' }], 1e12)).toMatchObject({ night: 'n' });
    expect(interruptedOf([], 1e12)).toBeNull();
  });

  it('is nothing that stopped behind what was written down last', () => {
    expect(asStopped(place, null)).toBe(place);
    expect(asStopped(place, 1e12 - 1)).toBe(place);
    expect(asStopped(place, 1e12 + 90)).toMatchObject({ playing: false });
    expect(interruptedOf([asStopped(place, 1e12 + 90)], 1e12 + 200)).toBeNull();
  });

  it('can go on in the bar it was in, or where it would be by now, while it is not over', () => {
    const bar = microsAt(songTime(song), barAt(songTime(song).bars, 4).tick) / 1000;
    const { was, by } = barsToGoOn(song, place, 1e12 + 2 * bar);
    expect(was).toEqual({ bar: 3, tick: barAt(songTime(song).bars, 3).tick });
    expect(by!.bar).toBeGreaterThan(was.bar + 3);
    expect(barsToGoOn(song, place, 1e12 + HOUR).by).toBeNull();
    const beyond = { ...place, at: songTime(song).end + 5000 };
    expect(barsToGoOn(song, beyond, 1e12).was.bar).toBe(song.bars);
  });

  it('is remembered with its bar, queue and list; what played is over', () => {
    useJournal.setState({
      lists: [{ showId: show.id, id: 'n', kind: 'show', name: '', begun: 1, history: [played] }],
    });
    const there = { ...place, night: 'n', queued: 'q' };
    expect(journal.rememberedOf(show, there)).toEqual({
      night: 'n',
      songId: song.id,
      entryId: entry!.id,
      queued: 'q',
      place: barAt(songTime(song).bars, 3).tick,
      history: [{ ...played, until: 1e15 }],
    });
    expect(journal.rememberedOf(show, { ...there, playing: false }).place).toBe(0);
    expect(journal.rememberedOf(show, { ...there, songId: 'gone' })).toMatchObject({ night: 'n', songId: null });
    expect(journal.rememberedOf(show, { ...there, showId: 'other' })).toMatchObject({ night: null, history: [] });
  });

  it('is not asked about again when somebody lets it be', async () => {
    useJournal.setState({ interrupted: place });
    journal.letBe();
    await settled();
    expect(useJournal.getState().interrupted).toBeNull();
    expect(places.at(-1)).toMatchObject({ playing: false, songId: song.id });
  });
});
