import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Browser, By, Key } from '../e2e/browser';
import { writeShowFile } from '../src/core/formats/show-file';
import { serve } from './serve';
import { wholeSet } from './wholeSet';

export interface ChartTimes {
  /** Milliseconds from frame to frame while the chart scrolls. */
  readonly scroll: readonly number[];
  /** Milliseconds from the press of a zoom button to the frame that shows it. */
  readonly zoom: readonly number[];
  /** Milliseconds from the key that moves a cue to the frame in which its lantern is hollow. */
  readonly edits: readonly number[];
  /** Milliseconds until the show's set is there. */
  readonly show: number;
}

/** Draws the largest song of the largest show in a real browser. */
export async function chart(): Promise<ChartTimes> {
  const folder = mkdtempSync(join(tmpdir(), 'lantern-bench-'));
  const { address, stop } = await serve();
  const b = await Browser.open();
  try {
    await b.go(address);
    writeFileSync(join(folder, 'whole.json'), writeShowFile(wholeSet(60, 400)));
    await b.find('button', 'New show');
    const start = performance.now();
    await b.driver.findElement(By.css('input[type=file]')).sendKeys(join(folder, 'whole.json'));
    await b.find('heading', 'The set');
    const show = performance.now() - start;
    await b.click('link', 'Chart');
    await b.find('group', 'Chart of Song 0');
    await b.click('button', 'Dry run');
    await b.find('button', /^2\|1 .*, (proven|fails)$/);

    const scroll = await b.driver.executeAsyncScript<number[]>(`
      const done = arguments[arguments.length - 1];
      const paper = document.querySelector('[role=group][aria-label^="Chart of"]');
      const frames = []; let last = 0; let n = 0;
      const tick = (now) => {
        if (n > 5) frames.push(now - last);
        last = now;
        if (++n > 240) { paper.scrollTop = 0; done(frames); return; }
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

    const edits: number[] = [];
    for (let i = 0; i < 10; i++) {
      await b.click('button', 'Dry run');
      const flag = await b.find('button', /^[2-9]\|.*, (proven|fails)$/);
      await flag.click();
      await b.driver.executeScript(`
        window.movedAfter = undefined;
        addEventListener('keydown', () => {
          const start = performance.now();
          const look = () => {
            const active = document.activeElement;
            if (active.getAttribute('aria-label')?.endsWith('not proven')) window.movedAfter = performance.now() - start;
            else requestAnimationFrame(look);
          };
          requestAnimationFrame(look);
        }, { once: true, capture: true });`);
      await b.type(Key.chord(Key.ALT, i % 2 === 0 ? Key.ARROW_RIGHT : Key.ARROW_LEFT));
      await b.wait(
        async () => (await b.driver.executeScript('return window.movedAfter')) !== null,
        'the cue is hollow',
      );
      edits.push(await b.driver.executeScript<number>('return window.movedAfter'));
    }
    return { scroll, zoom, edits, show };
  } finally {
    await b.close();
    stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
