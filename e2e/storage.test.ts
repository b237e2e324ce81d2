import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { begin, openDemo, openShelf, openShowFacts } from './begin';

const { b } = begin();

const rename = async (title: string): Promise<void> => {
  await openShowFacts(b);
  await b.fill('textbox', 'Title of the show', `${title}\n`);
};
/** What the browser has to do before the next page is loaded. */
const before = (source: string): Promise<unknown> =>
  b.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', { source });

describe('storage that fails', () => {
  it('is deleted under an open show: it is said, and the show is saved again', async () => {
    await openDemo(b);
    await rename('Kept Through It');
    await b.says('banner', undefined, 'Saved in this browser');
    // What clearing the site's data does, from another window.
    const here = await b.driver.getWindowHandle();
    await b.newWindow();
    await openShelf(b);
    await b.driver.executeAsyncScript(
      "const done = arguments[0]; const r = indexedDB.deleteDatabase('hollow-lantern'); r.onsuccess = r.onerror = () => done();",
    );
    await b.driver.close();
    await b.toWindow(here);
    await rename('Kept After It');
    await b.says('alert', undefined, /no longer in this browser’s storage/);
    await b.says('banner', undefined, 'Not saved: deleted from this browser');
    await b.click('button', 'Save it again');
    await b.says('banner', undefined, 'Saved in this browser');
    await b.driver.navigate().refresh();
    const title = await b.find('textbox', 'Title of the show');
    expect(await title.getAttribute('value')).toBe('Kept After It');
  });

  it('is refused from the start, the tab’s own too: a show goes on, and can be exported', async () => {
    await before(`
      Object.defineProperty(window, 'sessionStorage', { get() { throw new DOMException('no', 'SecurityError'); } });
      IDBFactory.prototype.open = () => { throw new DOMException('no', 'SecurityError'); };`);
    await openShelf(b);
    await b.click('button', 'Open the demo show');
    await b.find('heading', 'The set');
    await b.says('alert', undefined, /The browser stores nothing/);
    await rename('On This Page Only');
    await b.click('button', 'Play');
    await b.find('button', 'Stop');
    await b.click('button', 'Stop');
    const name = 'on-this-page-only.json';
    await b.driver.executeScript(
      "[...document.querySelectorAll('[role=alert] button')].find((x) => x.innerText.includes('Export')).click()",
    );
    await b.wait(() => Promise.resolve(readdirSync(b.downloads).includes(name)), 'the file arrives');
    expect(readFileSync(join(b.downloads, name), 'utf8')).toContain('On This Page Only');
  });

  it('is not there at all: the same', async () => {
    await before("Object.defineProperty(window, 'indexedDB', { value: undefined });");
    await openShelf(b);
    await b.click('button', 'Open the demo show');
    await b.find('heading', 'The set');
    await b.says('alert', undefined, /The browser stores nothing/);
    await b.click('link', 'Chart');
    await b.find('group', /^Chart of/);
  });
});
