import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Browser, By, Key } from '../e2e/browser';
import { writeShowFile } from '../src/core/formats/show-file';
import { serve } from './serve';
import { size } from './size';
import { wholeSet } from './wholeSet';

export interface ChartTimes {
  /** Milliseconds from frame to frame while the chart scrolls. */
  readonly scroll: readonly number[];
  /** Milliseconds from the press of a zoom button to the frame that shows it. */
  readonly zoom: readonly number[];
  /** Milliseconds from the key that moves a cue to the frame in which its lantern is hollow, and to that in which it is proven again. */
  readonly hollow: readonly number[];
  readonly proven: readonly number[];
  /** Milliseconds from a bar that is typed to the frame that shows it. */
  readonly bars: readonly number[];
  /** Milliseconds until the show's set is there, and until all of it is proven. */
  readonly show: number;
  readonly set: number;
  /** Milliseconds from the press that opens the rig to the frame that shows it. */
  readonly rig: readonly number[];
}

/** All songs of the largest show are proven in this time, or something is wrong. */
const SET_PATIENCE = 180_000;

/** Draws the largest song of the largest show in a real browser. */
export async function chart(): Promise<ChartTimes> {
  const folder = mkdtempSync(join(tmpdir(), 'lantern-bench-'));
  const { address, stop } = await serve();
  const b = await Browser.open();
  try {
    await b.go(address);
    writeFileSync(join(folder, 'whole.json'), writeShowFile(wholeSet(size(60, 2), 400)));
    await b.find('button', 'New show');
    const start = performance.now();
    await b.driver.findElement(By.css('input[type=file]')).sendKeys(join(folder, 'whole.json'));
    await b.find('heading', 'The set');
    const show = performance.now() - start;
    await b.says('banner', undefined, /lands? on time/, SET_PATIENCE);
    const set = performance.now() - start;
    await b.click('link', 'Chart');
    await b.find('group', 'Chart of Song 0');
    await b.find('button', /^2\|1 .*, (proven|fails)$/);

    const scroll = await b.driver.executeAsyncScript<number[]>(`
      const done = arguments[arguments.length - 1];
      const paper = document.querySelector('[role=group][aria-label^="Chart of"]');
      const frames = []; let last = 0; let n = 0;
      const tick = (now) => {
        if (n > 5) frames.push(now - last);
        last = now;
        if (++n > ${size(240, 30)}) { paper.scrollTop = 0; done(frames); return; }
        paper.scrollTop += 24;
        requestAnimationFrame(tick);
      };
      requestAnimationFrame(tick);`);

    const press = (name: string): Promise<number> =>
      b.driver.executeAsyncScript<number>(
        `const done = arguments[arguments.length - 1];
         const button = document.querySelector('[aria-label="' + arguments[0] + '"]');
         const start = performance.now();
         button.click();
         requestAnimationFrame(() => setTimeout(() => done(performance.now() - start)));`,
        name,
      );
    const zoom: number[] = [];
    for (let i = 0; i < 6; i++) zoom.push(await press('Wider bars'));
    for (let i = 0; i < 6; i++) zoom.push(await press('Narrower bars'));

    const bars: number[] = [];
    for (const bar of ['40', '3', '90', '12', '70', '2']) {
      const field = await b.find('textbox', /^Bar\|beat/);
      await field.sendKeys(Key.chord(Key.CONTROL, 'a'), bar);
      bars.push(
        await b.driver.executeAsyncScript<number>(`
          const done = arguments[arguments.length - 1];
          const start = performance.now();
          document.activeElement.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
          requestAnimationFrame(() => setTimeout(() => done(performance.now() - start)));`),
      );
      await b.type(Key.ESCAPE);
    }

    const hollow: number[] = [];
    const proven: number[] = [];
    for (let i = 0; i < size(10, 2); i++) {
      const flag = await b.find('button', /^[2-9]\|.*, (proven|fails)$/);
      await flag.click();
      await b.driver.executeScript(`
        window.seen = undefined;
        addEventListener('keydown', () => {
          const start = performance.now();
          const before = document.activeElement.getAttribute('aria-label');
          const seen = { hollow: null, proven: null };
          const look = () => {
            const now = document.activeElement.getAttribute('aria-label') ?? '';
            const open = now.endsWith('not proven');
            if (open) seen.hollow ??= performance.now() - start;
            else if (now !== before && (seen.hollow !== null || performance.now() - start > 400)) seen.proven ??= performance.now() - start;
            if (seen.proven === null) requestAnimationFrame(look);
            else window.seen = seen;
          };
          requestAnimationFrame(look);
        }, { once: true, capture: true });`);
      await b.type(Key.chord(Key.ALT, Key.ARROW_RIGHT));
      await b.wait(() => b.driver.executeScript<boolean>('return window.seen !== undefined'), 'it is proven');
      const seen = await b.driver.executeScript<{ hollow: number | null; proven: number }>('return window.seen');
      // Between two frames it may have been hollow and proven again.
      if (seen.hollow === null) continue;
      hollow.push(seen.hollow);
      proven.push(seen.proven);
    }

    const rig: number[] = [];
    for (let i = 0; i < 4; i++) {
      rig.push(
        await b.driver.executeAsyncScript<number>(`
          const done = arguments[arguments.length - 1];
          const start = performance.now();
          const link = [...document.querySelectorAll('nav a')].find((a) => a.textContent === 'Rig');
          link.click();
          const look = () => document.querySelector('h1')?.textContent === 'Rig' ? setTimeout(() => done(performance.now() - start)) : requestAnimationFrame(look);
          requestAnimationFrame(look);`),
      );
      await b.click('link', 'Set');
      await b.find('heading', 'The set');
    }
    return { scroll, zoom, hollow, proven, bars, show, set, rig };
  } finally {
    await b.close();
    stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
