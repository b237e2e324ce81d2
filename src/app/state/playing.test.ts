import { beforeEach, describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { NO_NEWS, useNews } from './news';
import { createPlaying, type Playing } from './playing';

const show = demoShow();
const song = show.songs[0]!;

let asked: unknown[][];
let said: string[];
let taken: boolean;
let letGo: number;
let works: boolean;
let playing: Playing;
/** Lets the sounds be ready; null where they are so at once. */
let ready: Promise<void> | null;
let turns: number;

beforeEach(() => {
  asked = [];
  said = [];
  taken = false;
  letGo = 0;
  works = true;
  ready = null;
  turns = 0;
  useNews.setState({ news: NO_NEWS });
  const worker = new Proxy(
    {},
    {
      get:
        (_, name) =>
        (...args: unknown[]) =>
          Promise.resolve(void asked.push([name, ...args])),
    },
  );
  playing = createPlaying({
    show: () => show,
    thread: {
      show: () => undefined,
      ask: (run) => (works ? run(worker as never) : Promise.reject(new Error('dead'))),
    },
    news: useNews,
    say: (text) => said.push(text),
    takeTurn: () => {
      turns += 1;
      return Promise.resolve(taken ? null : () => (letGo += 1));
    },
    wakeSound: () => asked.push(['sound']),
    wayOf: () => ({ speed: 1, loop: null }),
    follows: () => false,
    readySounds: async () => {
      asked.push(['ready']);
      await ready;
    },
  });
});

/** Sounds are not ready until what it gives is called. */
function hold(): () => void {
  let open = (): void => undefined;
  ready = new Promise((resolve) => (open = resolve));
  return () => open();
}

describe('playing', () => {
  it('readies the sounds first, and takes its turn once', async () => {
    await playing.play(song.id, 960);
    await playing.play(song.id, 0);
    expect(asked.map(([what]) => what)).toEqual(['sound', 'ready', 'play', 'sound', 'ready', 'play']);
    expect(asked[2]).toEqual(['play', song.id, 960, null, null]);
    playing.hear([{ kind: 'stopped', why: 'end' }]);
    expect(letGo).toBe(1);
  });

  it('keeps its turn where the next song follows by itself', async () => {
    await playing.play(song.id, 0, 'entry');
    expect(asked.at(-1)).toEqual(['play', song.id, 0, 'entry', null]);
    playing.hear([{ kind: 'stopped', why: 'end', follows: true }]);
    expect(letGo).toBe(0);
    playing.hear([{ kind: 'stopped', why: 'asked' }]);
    expect(letGo).toBe(1);
  });

  it('asks for all that the set and the stage do', async () => {
    await playing.select(song.id, 960);
    await playing.goSong(1);
    await playing.goChange(-1);
    await playing.queue('entry');
    await playing.back();
    await playing.tone('lead');
    await playing.panic();
    expect(asked).toEqual([
      ['select', song.id, 960, null],
      ['goSong', 1],
      ['goChange', -1],
      ['queue', 'entry'],
      ['back'],
      ['tone', 'lead'],
      ['panic'],
    ]);
    expect(said).toEqual(['All sound off was sent to every unit.']);
  });

  it('does not begin any more where it was stopped while its sounds were readied', async () => {
    for (const end of [() => playing.stop(), () => playing.panic()]) {
      asked = [];
      letGo = 0;
      const open = hold();
      const start = playing.play(song.id, 0);
      await Promise.resolve();
      await end();
      expect(letGo).toBe(1);
      open();
      await start;
      expect(asked.map(([what]) => what)).not.toContain('play');
    }
  });

  it('has the last of two starts, and what was pressed behind it comes behind it', async () => {
    const open = hold();
    const first = playing.play(song.id, 0, 'a');
    const second = playing.play(song.id, 960, 'b');
    const queued = playing.queue('c');
    open();
    await Promise.all([first, second, queued]);
    const inOrder = asked.filter(([what]) => what === 'play' || what === 'queue');
    expect(inOrder).toEqual([
      ['play', song.id, 960, 'b', null],
      ['queue', 'c'],
    ]);
    expect(turns).toBe(1);
    playing.hear([{ kind: 'stopped', why: 'end' }]);
    expect(letGo).toBe(1);
  });

  it('is no hindrance to what is pressed behind it, where its sounds cannot be readied', async () => {
    ready = Promise.reject(new Error('no sound'));
    const start = playing.play(song.id, 0).catch(() => 'failed');
    const queued = playing.queue('c');
    expect(await start).toBe('failed');
    await queued;
    expect(asked.at(-1)).toEqual(['queue', 'c']);
  });

  it('is refused while another tab plays, and says so', async () => {
    taken = true;
    await playing.play(song.id, 0);
    expect(asked).toEqual([['sound']]);
    expect(said[0]).toMatch(/^Another tab plays already/);
  });

  it('of a song that is not there does nothing', async () => {
    await playing.play('none', 0);
    expect(asked).toEqual([]);
  });

  it('says what happened to the session, where somebody should know', () => {
    playing.hear([
      { kind: 'started', songId: song.id },
      { kind: 'replanned', songId: song.id },
    ]);
    expect(said).toEqual([]);
    playing.hear([
      { kind: 'stopped', why: 'gone' },
      { kind: 'slept', time: 41e6 },
    ]);
    expect(said).toEqual([
      'The song that played is not in the show any more: stopped.',
      'The computer slept for 41 s: what was due meanwhile was not sent, the rig is caught up.',
    ]);
  });

  it('takes its turn for a song that a message started, or stops it again', async () => {
    playing.hear([{ kind: 'started', songId: song.id }]);
    await new Promise((done) => setTimeout(done));
    expect(asked).toEqual([['ready']]);
    playing.hear([{ kind: 'stopped', why: 'end' }]);
    expect(letGo).toBe(1);
    taken = true;
    playing.hear([{ kind: 'started', songId: song.id }]);
    await new Promise((done) => setTimeout(done));
    expect(asked.at(-1)).toEqual(['stop']);
    expect(said.at(-1)).toMatch(/another tab plays already/);
  });

  it('says what becomes of ports and clocks', () => {
    playing.hear([
      { kind: 'flooded', portId: 'pads' },
      { kind: 'clock', what: 'wobbles', portId: 'pads' },
      { kind: 'clock', what: 'lost', portId: 'pads' },
      { kind: 'clock', what: 'back', portId: 'gone' },
    ]);
    expect(said).toEqual([
      'Pads: more arrives than its cable can pass on. What is too much is left out.',
      'Pads: its clock wobbles by more than changes bear. What follows it may be late.',
      'Pads: its clock has stopped without a word. The song goes on at the tempo that it had.',
      'A port: its clock is back. The song follows it again.',
    ]);
  });

  it('that fails is said, and what units are on is not known any more', async () => {
    await playing.play(song.id, 0);
    useNews.setState({ news: { ...NO_NEWS, playing: true, songId: song.id } });
    playing.lost();
    expect(useNews.getState().news).toEqual(NO_NEWS);
    expect(letGo).toBe(1);
    expect(said[0]).toMatch(/^The playback failed and was started again: the song has stopped/);
    playing.lost();
    expect(said[1]).toMatch(/What units are on is not known any more/);
    works = false;
    await playing.stop();
    expect(said[2]).toMatch(/^The playback does not answer/);
    expect(await playing.recordedPedal()).toEqual([]);
  });
});
