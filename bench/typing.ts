import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Browser, By, Key } from '../e2e/browser';
import { writeShowFile } from '../src/core/formats/show-file';
import { newProfile, plainPlan } from '../src/core/addressing';
import { serve } from './serve';
import { size } from './size';
import { emptyShow, newPort, newSlot, newUnit } from '../src/core/show';

const SLOTS = 2000;
const NAMES = size(24, 2);

/** A show with one unit whose two thousand slots all have a name. */
function longList(): string {
  const plan = plainPlan(SLOTS, [{ kind: 'number', start: 0, count: SLOTS, width: 4 }], {
    send: 'msb',
    when: 'always',
  });
  const unit = newUnit('long', 'Long list', 'LL', newProfile('Long list', plan), {
    input: { from: 'port', portId: 'p1' },
    slots: Array.from({ length: SLOTS }, (_, i) => newSlot(`s${i}`, i, `Preset number ${i}`)),
  });
  return writeShowFile({ ...emptyShow('long', 'Long list'), ports: [newPort('p1', 'Port', 'usb')], units: [unit] });
}

/** Times from a key to the frame that shows what it did, for names typed one after the other. */
export async function typing(): Promise<readonly number[]> {
  const folder = mkdtempSync(join(tmpdir(), 'lantern-bench-'));
  const { address, stop } = await serve();
  const b = await Browser.open();
  try {
    await b.go(address);
    writeFileSync(join(folder, 'long.json'), longList());
    await b.find('button', 'New show');
    await b.driver.findElement(By.css('input[type=file]')).sendKeys(join(folder, 'long.json'));
    await b.find('heading', 'No songs yet');
    await b.click('link', 'Map');
    await b.click('gridcell', '0000 Preset number 0');
    await b.driver.executeScript(
      `window.keyTimes = [];
       document.addEventListener('keydown', () => {
         const start = performance.now();
         requestAnimationFrame(() => setTimeout(() => window.keyTimes.push(performance.now() - start)));
       }, true);`,
    );
    for (let i = 0; i < NAMES; i++) {
      for (const key of `Name ${i}`) await b.type(key);
      await b.type(Key.ENTER);
    }
    await b.find('gridcell', `00${String(NAMES - 1).padStart(2, '0')} Name ${NAMES - 1}`);
    return await b.driver.executeScript<number[]>('return window.keyTimes');
  } finally {
    await b.close();
    stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
