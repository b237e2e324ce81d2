import { beforeEach, describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { createPairSounds, type PairSounds, type Recording } from './pairSounds';

const show = demoShow();
const recording = (id: string, length: number): Recording => ({
  showId: show.id,
  id,
  type: 'audio/wav',
  bytes: Uint8Array.from({ length }, (_, i) => (i * 7 + length) % 256).buffer,
  peaks: Uint8Array.of(1, 2, length % 256),
});
let there: Map<string, Recording>;
let here: Map<string, Recording>;
let texts: string[];
let first: PairSounds;
let second: PairSounds;
let behind: number;
/** What is asked for, and what is kept on the way. */
const done = async (): Promise<void> => {
  for (let i = 0; i < 200; i++) await Promise.resolve();
};

beforeEach(() => {
  there = new Map([
    ['long', recording('long', 700_001)],
    ['short', recording('short', 12)],
  ]);
  here = new Map();
  texts = [];
  behind = 0;
  const rest = (rows: Map<string, Recording>) => ({
    behind: () => behind,
    missing: () => Promise.resolve([...there.keys()].filter((id) => !rows.has(id))),
    load: (_: string, id: string) => Promise.resolve(rows.get(id)),
    keep: (row: Recording) => Promise.resolve(rows.set(row.id, row)),
    wait: () => {
      behind = 0;
      return Promise.resolve();
    },
  });
  first = createPairSounds({
    say: (m) => {
      texts.push(JSON.stringify(m));
      second.hear(JSON.stringify(m));
    },
    ...rest(there),
  });
  second = createPairSounds({ say: (m) => void first.hear(JSON.stringify(m)), ...rest(here) });
});

describe('recordings', () => {
  it('come over in pieces, as they are', async () => {
    await second.ask(show);
    await done();
    expect([...here.keys()]).toEqual(['long', 'short']);
    for (const [id, row] of there) {
      expect(Buffer.from(here.get(id)!.bytes).equals(Buffer.from(row.bytes))).toBe(true);
      expect(here.get(id)!.peaks).toEqual(row.peaks);
    }
    expect(texts.length).toBeGreaterThan(3);
  });

  it('are asked for once, and none where all are there', async () => {
    await second.ask(show);
    await done();
    const count = texts.length;
    await second.ask(show);
    await done();
    expect(texts).toHaveLength(count);
  });

  it('wait while the line is full', async () => {
    behind = 5 << 20;
    await second.ask(show);
    await done();
    expect(here.size).toBe(2);
    expect(behind).toBe(0);
  });

  it('that were cut off amid their way come again when they are asked for again', async () => {
    await second.ask(show);
    await done();
    here.clear();
    const pieces = texts.filter((t) => t.includes('"long"'));
    second.stop();
    second.hear(pieces[0]!);
    second.hear(pieces[2]!);
    second.hear(pieces[1]!.replace('"from":', '"from":-'));
    second.hear('{"kind":"sound"}');
    await done();
    expect(here.size).toBe(0);
    await second.ask(show);
    await done();
    expect(here.size).toBe(2);
  });

  it('hears nothing else', () => {
    expect(second.hear('{"kind":"beat"}')).toBe(false);
  });
});
