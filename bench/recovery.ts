import { Browser } from '../e2e/browser';
import { serve } from './serve';

/** Marks when the offer to go on stands there, and when it plays again. */
const MARKS = `new MutationObserver(() => {
  const mark = (name, is) => { if (is && performance.getEntriesByName(name).length === 0) requestAnimationFrame(() => performance.mark(name)); };
  mark('offer', document.querySelector('[aria-label="Go on"]'));
  mark('plays', document.querySelector('[aria-label="Stop"]'));
}).observe(document, { subtree: true, childList: true, attributes: true });`;

export interface Recovered {
  /** Milliseconds from the request of the page to the offer to go on; and from the press to a song that plays. */
  readonly offer: readonly number[];
  readonly plays: readonly number[];
}

/** Closes the tab amid a song and opens the application in another, some times over, in fresh browsers. */
export async function recovery(times: number): Promise<Recovered> {
  const { address, stop } = await serve();
  const offer: number[] = [];
  const plays: number[] = [];
  try {
    for (let i = 0; i < times; i++) {
      const b = await Browser.open();
      try {
        await b.go(address);
        await b.click('button', 'Open the demo show');
        await b.click('button', 'Play');
        await b.wait(
          async () => Number((await b.text('[aria-label="Position"]')).split('|')[0]) >= 2,
          'it is in bar 2',
        );
        const old = await b.driver.getWindowHandle();
        await b.newWindow();
        const fresh = await b.driver.getWindowHandle();
        await b.toWindow(old);
        await b.closeWindow();
        await b.toWindow(fresh);
        await b.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', { source: MARKS });
        await b.go(address);
        await b.find('status', 'Go on');
        await b.driver.executeScript(
          "document.addEventListener('pointerup', () => performance.mark('pressed'), { capture: true, once: true })",
        );
        await b.click('button', /^Go on at bar/);
        await b.find('button', 'Stop');
        const found = await b.driver.executeScript<{ offer: number; plays: number }>(`
          const at = (name) => performance.getEntriesByName(name)[0].startTime;
          return { offer: at('offer'), plays: at('plays') - at('pressed') };`);
        offer.push(found.offer);
        plays.push(found.plays);
      } finally {
        await b.close();
      }
    }
    return { offer, plays };
  } finally {
    stop();
  }
}
