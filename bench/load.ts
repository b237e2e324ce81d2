import { gzipSync } from 'node:zlib';
import { Browser } from '../e2e/browser';
import { serve } from './serve';

export interface Loaded {
  /** Milliseconds from the request to the first thing to see, and to the first view, in a fresh browser each. */
  readonly paint: readonly number[];
  readonly view: readonly number[];
  /** Bytes of script before the first view, as gzip. */
  readonly script: number;
}

/** Opens the first view in a fresh browser, some times over. */
export async function load(times: number): Promise<Loaded> {
  const { address, stop } = await serve();
  const paint: number[] = [];
  const view: number[] = [];
  let script = 0;
  try {
    for (let i = 0; i < times; i++) {
      const b = await Browser.open();
      try {
        await b.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
          source: `new MutationObserver((_, o) => {
            if (!document.querySelector('main')) return;
            o.disconnect();
            requestAnimationFrame(() => performance.mark('view'));
          }).observe(document, { subtree: true, childList: true });`,
        });
        await b.go(address);
        await b.find('button', 'Open the demo show');
        const found = await b.driver.executeScript<{ paint: number; view: number; scripts: string[] }>(`
          const view = performance.getEntriesByName('view')[0].startTime;
          return { view, paint: performance.getEntriesByName('first-contentful-paint')[0].startTime,
            scripts: performance.getEntriesByType('resource')
              .filter((x) => x.name.endsWith('.js') && x.startTime < view).map((x) => x.name) };`);
        paint.push(found.paint);
        view.push(found.view);
        if (i === 0) {
          const bodies = await Promise.all(found.scripts.map(async (url) => (await fetch(url)).arrayBuffer()));
          script = bodies.reduce((sum, body) => sum + gzipSync(new Uint8Array(body)).length, 0);
        }
      } finally {
        await b.close();
      }
    }
    return { paint, view, script };
  } finally {
    stop();
  }
}
