import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { placeAt } from '../e2e/begin';
import { Browser, By, Key } from '../e2e/browser';
import { demoShow } from '../src/core/demo';
import { writeShowFile } from '../src/core/formats/show-file';
import { setOf, type Show } from '../src/core/show';
import { atSpeed } from '../src/core/show/speed';
import { serve } from './serve';

/** The demo set, each song so many times as fast, one going on into the next. */
function hasty(times: number): Show {
  const demo = demoShow();
  const set = setOf(demo);
  const entries = set.entries.flatMap((e) => (e.kind === 'song' ? [{ ...e, follow: 'on' as const, pause: 0 }] : []));
  return {
    ...demo,
    songs: demo.songs.map((s) => ({ ...atSpeed(s, times), click: { ...s.click, countIn: 0 } })),
    sets: demo.sets.map((s) => (s.id === set.id ? { ...s, entries } : s)),
  };
}

export interface Endured {
  /**
   * What the page holds after each tenth, once it was told to give back what it does not need: MB, nodes,
   * listeners; and the rows of its stored tables, by their names.
   */
  readonly tenths: readonly {
    readonly heap: number;
    readonly nodes: number;
    readonly listeners: number;
    readonly rows: Readonly<Record<string, number>>;
  }[];
  readonly edits: number;
  /** Minutes of the set as it is written. */
  readonly minutes: number;
  readonly bars: number;
}

/** Milliseconds between one edit and the next. */
const EDIT_EVERY = 4000;

const COUNT_ROWS = `const [done] = arguments;
const counts = {};
const rowsOf = (name) => new Promise((resolve) => {
  indexedDB.open(name).onsuccess = ({ target: { result: db } }) => {
    const stores = [...db.objectStoreNames];
    if (stores.length === 0) { db.close(); resolve(); return; }
    const all = db.transaction(stores);
    for (const store of stores) all.objectStore(store).count().onsuccess = (e) => { counts[store] = e.target.result; };
    all.oncomplete = () => { db.close(); resolve(); };
  };
});
indexedDB.databases().then((all) => Promise.all(all.map((d) => rowsOf(d.name)))).then(() => done(counts));`;

/**
 * Plays the demo set in a real browser, `times` as fast, for so many seconds, with the chart in sight and an edit
 * every few seconds: a value is placed, then taken back.
 */
export async function endure(seconds: number, times: number): Promise<Endured> {
  const folder = mkdtempSync(join(tmpdir(), 'lantern-bench-'));
  const { address, stop } = await serve();
  const b = await Browser.open();
  const metric = async (): Promise<Endured['tenths'][number]> => {
    await b.driver.sendDevToolsCommand('HeapProfiler.collectGarbage', {});
    const answer = (await b.driver.sendAndGetDevToolsCommand('Performance.getMetrics', {})) as unknown as {
      metrics: readonly { readonly name: string; readonly value: number }[];
    };
    const of = (name: string): number => answer.metrics.find((m) => m.name === name)?.value ?? 0;
    const rows: Readonly<Record<string, number>> = await b.driver.executeAsyncScript(COUNT_ROWS);
    return { heap: of('JSHeapUsedSize') / 1e6, nodes: of('Nodes'), listeners: of('JSEventListeners'), rows };
  };
  try {
    await b.driver.sendDevToolsCommand('Performance.enable', {});
    await b.go(address);
    writeFileSync(join(folder, 'hasty.json'), writeShowFile(hasty(times)));
    await b.find('button', 'New show');
    await b.driver.findElement(By.css('input[type=file]')).sendKeys(join(folder, 'hasty.json'));
    await b.find('heading', 'The set');
    await b.says('banner', undefined, /lands? on time/, 60_000);
    await b.click('link', 'Chart');
    await b.find('group', /^Chart of/);
    const stands = async (): Promise<boolean> => (await b.texts('button[aria-label="Stop"]')).length === 0;
    const pause = (millis: number): Promise<void> => new Promise((wait) => setTimeout(wait, millis));
    const tenths: Endured['tenths'][number][] = [];
    const start = Date.now();
    let bars = 0;
    let bar = '';
    let edits = 0;
    while (Date.now() - start < seconds * 1000) {
      // Between two songs it stands for a moment, and goes on by itself.
      if ((await stands()) && (await pause(1000).then(stands))) await b.click('button', 'Play');
      const place = await b.text('[aria-label="Position"]');
      const now = place.split('|')[0] ?? '';
      if (now !== bar) bars += 1;
      bar = now;
      if (Date.now() - start > EDIT_EVERY * (edits + 1)) {
        if (edits % 2 === 0) await placeAt(b, String(2 + (edits % 30)), 'tarn mix 40');
        else await b.type(Key.ESCAPE, Key.chord(Key.CONTROL, 'z'));
        edits += 1;
      }
      if ((Date.now() - start) / 1000 > (seconds * (tenths.length + 1)) / 10) tenths.push(await metric());
      await pause(120);
    }
    tenths.push(await metric());
    return { tenths, minutes: (seconds * times) / 60, bars, edits };
  } finally {
    await b.close();
    stop();
    rmSync(folder, { recursive: true });
  }
}
