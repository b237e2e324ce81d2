import { beforeAll, describe, expect, it } from 'vitest';
import { readdirSync } from 'node:fs';
import { begin, lampOf, openDemo, placeAt } from './begin';
import { Key } from './browser';

// Each part goes on where the one before it stopped: one show, played, edited and broken.
const { b } = begin();

beforeAll(async () => {
  // Workers are kept in sight, so that they can be ended as a crash would end them.
  await b.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
    source: `window.started = [];
      window.Worker = class extends Worker {
        constructor(url, options) { super(url, options); window.started.push({ url: String(url), worker: this }); }
      };`,
  });
});

/** Ends the worker of a kind, without a word, as a crash would. */
const crash = (kind: string): Promise<void> =>
  b.driver.executeScript(
    'for (const { url, worker } of window.started) if (url.includes(arguments[0])) worker.terminate();',
    kind,
  );

const lamp = (unit: string): Promise<string> => lampOf(b, unit);

describe('a song that plays', () => {
  it('is edited ahead of the playhead, and the stand-ins hear it', async () => {
    await openDemo(b);
    await b.click('link', 'Chart');
    await b.find('button', '9|1 Ledger Rhythm, proven');
    await b.fill('textbox', /^Bar\|beat/, `2${Key.ENTER}`);
    await b.type(Key.ESCAPE);
    await b.click('button', 'Play');
    await b.wait(async () => (await lamp('Quillback')).includes('A3'), 'the rig is where bar 2 wants it');
    await placeAt(b, '4', 'fog lead');
    await b.find('button', '4|1 Fog Lead, proven');
    await b.wait(
      async () => (await lamp('Quillback')).includes('H6'),
      'the cue that was placed while it played is heard',
    );
    await b.wait(async () => (await lamp('Quillback')).includes('A3'), 'the next cue comes as before');
  });

  it('is edited behind the playhead, and the rig is caught up', async () => {
    await b.click('button', '5|1 Harbour Clean, proven');
    await b.type(Key.DELETE);
    // What sounds now is what the cue before it asked for.
    await b.wait(async () => (await lamp('Quillback')).includes('H6'), 'the rig is caught up');
    await b.type(Key.chord(Key.CONTROL, 'z'));
    await b.wait(async () => (await lamp('Quillback')).includes('A3'), 'undo is heard too');
    await b.click('button', 'Stop');
    await b.find('button', 'Play');
  });
});

describe('a worker that ends', () => {
  it('and proves: what is edited is proven all the same', async () => {
    await crash('proof');
    await placeAt(b, '6', 'undertow');
    await b.find('button', '6|1 Undertow, proven');
    expect(
      await b.driver.executeScript('return window.started.filter((w) => w.url.includes("proof")).length'),
    ).toBeGreaterThan(1);
  });

  it('and plays: it is said, Stop is not stuck, and Play plays again', async () => {
    await b.click('button', 'Play');
    await b.find('button', 'Stop');
    await crash('playback');
    await b.says('status', 'Note', 'The playback failed and was started again: the song has stopped.');
    await b.wait(async () => (await lamp('Quillback')).includes('not known'), 'nothing is known of the rig');
    await b.click('button', 'Play');
    await b.wait(async () => !(await lamp('Quillback')).includes('not known'), 'it plays');
    await b.click('button', 'Stop');
    await b.find('button', 'Play');
  });
});

describe('another tab', () => {
  it('does not play while this one does, and says so', async () => {
    const address = await b.driver.getCurrentUrl();
    const first = await b.driver.getWindowHandle();
    await b.click('button', 'Play');
    await b.find('button', 'Stop');
    await b.newWindow();
    await b.go(address);
    await b.find('button', /^5\|1 Harbour Clean, proven$/);
    await b.click('button', 'Play');
    await b.says('status', 'Note', 'Another tab plays already');
    await b.driver.close();
    await b.toWindow(first);
    await b.click('button', 'Stop');
    await b.find('button', 'Play');
  });
});

describe('a view that cannot be fetched', () => {
  it('leaves the frame and the show, which can be taken out as a file', async () => {
    await b.driver.sendDevToolsCommand('Network.enable', {});
    await b.driver.sendDevToolsCommand('Network.setBlockedURLs', { urls: ['*/assets/RigScreen*'] });
    const book = (await b.driver.getCurrentUrl()).replace(/(\/show\/[^/]+).*/, '$1');
    await b.go(`${book}/rig`);
    await b.find('heading', 'This view could not be loaded');
    await b.click('button', 'Export show');
    await b.wait(async () => readdirSync(b.downloads).some((n) => n.endsWith('.zip')), 'the file arrives');
    await b.click('link', 'Set');
    await b.find('heading', 'The set');
    await b.driver.sendDevToolsCommand('Network.setBlockedURLs', { urls: [] });
  });

  it('is there without the server, once the first view stood for a moment', async () => {
    const book = (await b.driver.getCurrentUrl()).replace(/(\/show\/[^/]+).*/, '$1');
    await b.go(book);
    await b.wait(
      () =>
        b.driver.executeScript<boolean>(
          "return performance.getEntriesByType('resource').some((e) => e.name.includes('RigScreen'))",
        ),
      'views are fetched ahead',
    );
    await b.wait(
      () =>
        b.driver.executeScript<boolean>(
          "return performance.getEntriesByType('resource').some((e) => e.name.includes('DryRunScreen'))",
        ),
      'all of them',
    );
    await b.driver.sendDevToolsCommand('Network.setBlockedURLs', { urls: ['*'] });
    await b.click('link', 'Rig');
    await b.find('heading', 'Rig');
    await b.click('link', 'Dry run');
    await b.find('heading', 'Dry run');
    await b.driver.sendDevToolsCommand('Network.setBlockedURLs', { urls: [] });
  });
});
