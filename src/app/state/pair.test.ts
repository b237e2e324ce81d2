import { beforeEach, describe, expect, it } from 'vitest';
import { forPeer } from '../../core/formats/line';
import { demoShow } from '../../core/demo';
import { applyEdit, setSongField, type Show } from '../../core/show';
import { updateOf } from '../../workers/showMirror';
import type { LineEars } from '../adapters/line';
import type { PairRow } from '../persistence/rows';
import { createPair, usePair, type Pair } from './pair';

const show = demoShow();
const [song] = show.songs;
const edited = (of: Show, title: string): Show => applyEdit(of, setSongField(of, song!.id, 'title', title)!);

let open: Show | undefined;
let leads: boolean | null;
let ears: LineEars;
let path: string;
let sent: string[];
let told: string[];
let kept: PairRow | null | undefined;
let became: Show[];
let shelved: string[];
let said: string[];
let waits: (() => void)[];
let pair: Pair;
let isTaken: boolean;
let letGo: number;

const hear = (message: unknown): void => ears.text(typeof message === 'string' ? message : JSON.stringify(message));
const showSent = (): string[] => sent.filter((t) => t.startsWith('>{"kind":"show"'));
const laterNow = (): void => {
  for (const run of waits.splice(0)) run();
};
const done = async (): Promise<void> => {
  for (let i = 0; i < 20; i++) await Promise.resolve();
};

beforeEach(() => {
  [open, leads, sent, told, kept, became, shelved, said, waits] = [show, null, [], [], undefined, [], [], [], []];
  [isTaken, letGo] = [false, 0];
  const tell =
    (what: string) =>
    (...args: readonly unknown[]): void =>
      void told.push([what, ...args.map((a) => JSON.stringify(a))].join(' '));
  pair = createPair({
    store: usePair,
    openLine: (to, e) => {
      [path, ears] = [to, e];
      return {
        send: (m) => sent.push(JSON.stringify(m)),
        say: (t) => sent.push(t),
        end: () => sent.push('(ended)'),
        behind: () => 0,
      };
    },
    playback: {
      pair: tell('pair'),
      road: tell('road'),
      hears: tell('hears'),
      lead: tell('lead'),
      turnsBox: tell('box'),
      awake: tell('awake'),
    },
    takeTurn: () => Promise.resolve(isTaken ? null : () => (letGo += 1)),
    leads: () => leads,
    show: () => open,
    shelve: (s) => Promise.resolve(void shelved.push(s.id)),
    become: (s) => became.push(s),
    sounds: {
      missing: () => Promise.resolve(['a1']),
      load: () => Promise.resolve(undefined),
      keep: () => Promise.resolve(),
      wait: () => Promise.resolve(),
    },
    keep: (row) => (kept = row),
    load: () => Promise.resolve(kept ?? undefined),
    now: () => 5000,
    clock: () => 100,
    later: (run) => {
      waits.push(run);
      return () => undefined;
    },
    say: (text) => said.push(text),
  });
  pair.end();
  [sent, told, kept] = [[], [], undefined];
});

describe('the first of two computers', () => {
  beforeEach(async () => {
    await pair.letFollow();
    ears.opened();
  });

  it('leads from the start, and asks for a code', () => {
    expect(path).toBe('/share/first');
    expect(told).toEqual(['pair {"first":true,"leads":true}']);
    expect(sent).toEqual(['{"kind":"new-code"}']);
    hear({ kind: 'addresses', addresses: ['10.0.0.2:4173'] });
    hear({ kind: 'code', code: '123456', seconds: 180 });
    hear({ kind: 'wrong-codes', count: 2 });
    expect(usePair.getState()).toMatchObject({
      seat: 'first',
      line: 'open',
      addresses: ['10.0.0.2:4173'],
      code: { text: '123456', until: 180_100 },
      wrongCodes: 2,
    });
  });

  it('tells the whole show to who comes, and then each edit', () => {
    leads = true;
    hear({ kind: 'let-in', pass: 'p' });
    hear({ kind: 'peer', there: true });
    expect(kept).toMatchObject({ seat: 'first', pass: 'p', showId: show.id });
    expect(told.at(-1)).toBe('road "open"');
    expect(showSent()).toHaveLength(1);
    open = edited(show, 'Other');
    pair.changed();
    pair.changed();
    laterNow();
    expect(showSent()).toHaveLength(2);
    expect(showSent()[1]!.length).toBeLessThan(showSent()[0]!.length / 2);
    // Who comes back has it all again.
    hear({ kind: 'peer', there: false });
    hear({ kind: 'peer', there: true });
    expect(showSent()).toHaveLength(3);
    expect(showSent()[2]!.length).toBeGreaterThan(showSent()[1]!.length * 2);
  });

  it('hands on what the playback says and hears, and tells that the line is cut', () => {
    pair.peer({ kind: 'bye' });
    expect(sent.at(-1)).toBe('>{"kind":"bye"}');
    hear(forPeer({ kind: 'bye' }));
    expect(told.at(-1)).toBe('hears "{\\"kind\\":\\"bye\\"}"');
    ears.lost();
    expect(told.at(-1)).toBe('road "cut"');
    expect(usePair.getState()).toMatchObject({ line: 'opening', isThere: false });
    hear('nonsense');
    hear({ kind: 'what' });
  });

  it('is alone again when somebody wants that, or another browser takes its place', async () => {
    pair.end();
    expect(sent).toContain('>{"kind":"bye"}');
    expect(sent).toContain('{"kind":"end"}');
    expect(told.at(-1)).toBe('pair null');
    expect([kept, usePair.getState().seat]).toEqual([null, null]);
    await pair.letFollow();
    hear({ kind: 'taken' });
    expect(usePair.getState().seat).toBeNull();
    expect(said.at(-1)).toMatch(/^Another browser/);
    expect(letGo).toBe(2);
  });

  it('sits where it sat after a crash, without the lead until it is known who has it', async () => {
    hear({ kind: 'let-in', pass: 'p' });
    pair.setBox({ portId: 'rack', bytes: [0xc0, 5] });
    const row = kept;
    pair.end();
    [kept, told, sent] = [row, [], []];
    await pair.resume('another');
    expect(told).toEqual([]);
    await pair.resume(show.id);
    expect(told).toEqual(['pair {"first":true,"leads":false}', 'box {"portId":"rack","bytes":[192,5]}']);
    ears.opened();
    expect(sent).toEqual(['{"kind":"pass","pass":"p"}']);
    pair.end();
    kept = { ...row!, when: 5000 - 13 * 3_600_000 };
    told = [];
    await pair.resume(show.id);
    expect([told, kept]).toEqual([[], null]);
  });
});

describe('the second of two computers', () => {
  const theirs = (of: Show, before?: Show): string => forPeer({ kind: 'show', ...updateOf(before, of) });
  const joined = async (): Promise<void> => {
    await pair.follow('10.0.0.2', '123456');
    ears.opened();
    hear({ kind: 'joined', pass: 'p' });
    hear({ kind: 'peer', there: true });
  };

  it('asks its own server to reach the other one, and joins with the code', async () => {
    await pair.follow('10.0.0.2', '123456');
    ears.opened();
    expect(path).toBe('/share/follow');
    expect(sent).toEqual(['{"kind":"reach","address":"10.0.0.2"}', '{"kind":"join","code":"123456"}']);
    expect(told).toEqual([]);
    hear({ kind: 'joined', pass: 'p' });
    expect(told).toEqual(['pair {"first":false,"leads":false}']);
    expect(kept).toMatchObject({ seat: 'second', address: '10.0.0.2', pass: 'p' });
    ears.lost();
    sent = [];
    ears.opened();
    expect(sent.at(-1)).toBe('{"kind":"back","pass":"p"}');
  });

  it('says why it is not let in, and is alone', async () => {
    for (const [why, says] of [
      ['code', /not the code of now/],
      ['address', /no address/],
      ['unreachable', /No computer answers/],
    ] as const) {
      await pair.follow('x', '1');
      ears.opened();
      hear({ kind: 'refused', why });
      expect(usePair.getState()).toMatchObject({ seat: null, refusal: expect.stringMatching(says) as string });
    }
    await joined();
    hear({ kind: 'refused', why: 'unreachable' });
    expect(usePair.getState().seat).toBe('second');
    hear({ kind: 'refused', why: 'pass' });
    expect(usePair.getState()).toMatchObject({ seat: null });
  });

  it('takes the show, then each edit of it; what is damaged is not taken', async () => {
    open = undefined;
    await joined();
    hear(theirs(show));
    await done();
    expect(shelved).toEqual([show.id]);
    expect(usePair.getState().showId).toBe(show.id);
    open = show;
    const next = edited(show, 'Other');
    hear(theirs(next, show));
    expect(became.at(-1)!.songs[0]!.title).toBe('Other');
    await done();
    expect(sent.at(-1)).toBe(`>{"kind":"wants-sounds","showId":"${show.id}","ids":["a1"]}`);
    const count = became.length;
    hear(forPeer({ kind: 'show', frame: { format: 'x', version: 1, id: 'y' }, songs: [], order: [] }));
    hear(forPeer({ kind: 'show', frame: 5 }));
    expect(became).toHaveLength(count);
    expect(said.length).toBeGreaterThan(0);
  });

  it('takes no show while it leads, and tells its own', async () => {
    await joined();
    leads = true;
    hear(theirs(edited(show, 'Other')));
    expect(became).toEqual([]);
    pair.changed();
    laterNow();
    expect(showSent()).toHaveLength(1);
  });

  it('keeps its own state of the show once, where that was another one', async () => {
    let times = 0;
    pair.keepsOwn(() => (times += 1));
    open = edited(show, 'Mine');
    await joined();
    hear(theirs(show));
    hear(theirs(edited(show, 'Other'), show));
    expect([times, became.length]).toEqual([1, 2]);
    open = show;
    await joined();
    hear(theirs(show));
    hear(theirs(edited(show, 'Other'), show));
    expect(times).toBe(1);
  });

  it('keeps what was edited while it led, when the lead goes back', async () => {
    open = show;
    await joined();
    hear(theirs(edited(show, 'Other')));
    leads = true;
    pair.changed();
    open = edited(show, 'Mine');
    became = [];
    leads = false;
    pair.changed();
    expect(became).toEqual([]);
  });

  it('is told again when the playback was started anew, without the lead', async () => {
    await joined();
    told = [];
    pair.tellAgain();
    expect(told).toEqual(['pair {"first":false,"leads":false}', 'box null', 'road "open"']);
  });

  it('says when its page is hidden, also when it sits down later: a closed lid takes nothing over', async () => {
    pair.hidden(true);
    expect(told).toEqual([]);
    await joined();
    expect(told.slice(0, 2)).toEqual(['pair {"first":false,"leads":false}', 'awake false']);
    pair.hidden(false);
    expect(told.at(-1)).toBe('awake true');
  });

  it('is one tab of a browser: another one is told so, and a page that is opened beside it stays alone', async () => {
    isTaken = true;
    await pair.follow('10.0.0.2', '123456');
    expect([usePair.getState().seat, said.at(-1)]).toEqual([
      null,
      expect.stringMatching(/^Another tab of this browser/),
    ]);
    kept = { seat: 'second', address: 'x', pass: 'p', showId: show.id, when: 5000, box: null };
    said = [];
    await pair.resume(show.id);
    expect([usePair.getState().seat, said]).toEqual([null, []]);
  });
});
