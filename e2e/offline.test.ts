import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { begin, placeAt, openShowFacts } from './begin';
import { Key } from './browser';

// Each part goes on where the one before it stopped.
const { b } = begin(true);

/** The way to the server, which can be cut, and can bring a newer version of what keeps the application. */
let way: Server;
let address = '';
let newer = '';

beforeAll(async () => {
  const { hostname, port } = new URL(inject('address'));
  way = createServer((asked, answer) => {
    const headers = { ...asked.headers, host: `${hostname}:${port}` };
    for (const name of ['accept-encoding', 'if-none-match', 'if-modified-since'] as const) delete headers[name];
    const on = request({ hostname, port, path: asked.url, method: asked.method, headers }, (found) => {
      const own = { ...found.headers };
      if (asked.url === '/sw.js') for (const name of ['content-length', 'etag', 'last-modified']) delete own[name];
      answer.writeHead(found.statusCode ?? 500, own);
      found.pipe(answer, { end: asked.url !== '/sw.js' });
      if (asked.url === '/sw.js') found.on('end', () => answer.end(newer));
    });
    on.on('error', () => answer.destroy());
    asked.pipe(on);
  });
  await new Promise<void>((done) => way.listen(0, '127.0.0.1', done));
  address = `http://127.0.0.1:${(way.address() as AddressInfo).port}/`;
});
const cut = (): Promise<void> =>
  new Promise((done) => {
    way.closeAllConnections();
    way.close(() => done());
  });
afterAll(() => cut().catch(() => undefined));

const main = async (): Promise<string> => b.text('main');

describe('the application by itself', () => {
  it('is kept by the browser, and can be installed', async () => {
    await b.go(address);
    await b.click('button', 'Open the demo show');
    await b.find('heading', 'The set');
    await b.click('link', 'Files');
    await b.click('link', 'Versions and storage');
    await b.wait(async () => (await main()).includes('it opens without network and without its server'), 'it is kept');
    const { errors } = (await b.driver.sendAndGetDevToolsCommand('Page.getInstallabilityErrors', {})) as unknown as {
      errors?: unknown[];
      installabilityErrors?: unknown[];
    };
    expect(errors ?? []).toEqual([]);
  });

  it('says that a newer version is here, and loads it without losing an edit', async () => {
    newer = '\n// newer\n';
    await b.click('link', 'Set');
    await b.driver.navigate().refresh();
    await b.find('heading', 'The set');
    await b.find('status', 'New version');
    await openShowFacts(b);
    await b.fill('textbox', 'Title of the show', `Late Season${Key.ENTER}`);
    await b.click('button', 'Load it');
    await b.gone('status', 'New version');
    await b.find('link', /^Late Season/);
    await b.wait(async () => (await b.text('header')).includes('lands on time'), 'it is proven');
  });

  it('opens, edits, proves, plays and prints when the server is gone', async () => {
    await cut();
    await b.go(address);
    await b.click('link', 'Late Season');
    await b.click('link', 'Chart');
    await b.find('group', 'Chart of Slack Tide in Seven');
    await placeAt(b, '20', 'Undertow');
    await b.find('button', '20|1 Undertow, proven');
    await b.click('button', 'Play');
    await b.wait(async () => (await b.text('[aria-label="Position"]')) > '1|2', 'the song is on its way');
    await b.click('button', 'Stop');
    await b.click('link', 'Files');
    await b.find('article', /^Cue sheet/);
    await b.click('button', 'PDF');
    await b.downloaded('.pdf');
    await b.driver.navigate().refresh();
    await b.find('heading', 'Files');
  });
});
