import type { ChildProcess } from 'node:child_process';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { begin, closeTab, hold } from './begin';
import { Browser } from './browser';
import { serve } from './serving';
import { bindRack, injectMidi, left } from './standInMidi';

// Two computers of one show: browsers with profiles of their own.
const { b: first } = begin();
const second = new Browser();
let server: ChildProcess;
let address: string;

beforeAll(async () => {
  await second.start();
  ({ server, address } = await serve(0));
});
afterAll(async () => {
  await second.close();
  server.kill();
});

const bar = async (of: Browser): Promise<number> => Number(await of.text('[aria-label="Bar"]'));
const plays = (of: Browser, from: number): Promise<void> =>
  of.wait(async () => (await bar(of)) > from, `it plays on behind bar ${from}`);
const isOfTwo = (of: Browser, what: RegExp): Promise<void> =>
  of.wait(async () => what.test(await of.text('[aria-label="Of two computers"]')), `it says ${String(what)}`);

const sent = async (of: Browser): Promise<number> => (await left(of, 'Grey box')).length;

describe('a second computer', () => {
  it('is let in by a code, and has the show', async () => {
    await injectMidi(first);
    await injectMidi(second);
    await first.go(`${address}/demo`);
    await bindRack(first);
    await first.click('link', 'Set');
    await first.click('link', 'Screens');
    await first.click('button', 'Let one follow');
    const code = await first.textOf('status', 'Code for the second computer');
    await second.go(address);
    await second.click('link', 'Follow another computer');
    await second.fill('textbox', /^Its address/, 'nowhere at all');
    await second.fill('textbox', /^The code/, code === '123456' ? '654321' : '123456');
    await second.click('button', 'Follow');
    await second.says('alert', undefined, 'That is no address of a computer.');
    await second.fill('textbox', /^Its address/, address);
    await second.click('button', 'Follow');
    await second.says('alert', undefined, 'That is not the code of now');
    await first.says('alert', undefined, 'A wrong code was typed there.');
    await second.fill('textbox', /^The code/, code);
    await second.click('button', 'Follow');
    await second.find('heading', /^Slack Tide in Seven/);
    await isOfTwo(second, /^Follows$/);
    await first.says('status', 'Of two computers', /The other one follows, and takes over when it has to/);
    await second.go(`${address}/`);
    await second.click('link', /^Winter Pier/);
    await bindRack(second);
    await second.click('link', 'Stage');
    await isOfTwo(second, /^Follows$/);
  });

  it('follows what is edited and played, and sends nothing', async () => {
    await first.click('link', 'Stage');
    await isOfTwo(first, /^Leads$/);
    await hold(first, 'Start, hold', 700);
    await plays(second, 1);
    expect(await sent(first)).toBeGreaterThan(0);
    expect(await sent(second)).toBe(0);
  });

  it('plays on when the first one is gone, and sends what the rig needs', async () => {
    const before = await bar(second);
    await closeTab(first, () => injectMidi(first), address);
    // Alone, until the first one is back.
    await isOfTwo(second, /^Leads/);
    await plays(second, before + 1);
    await second.wait(async () => (await sent(second)) > 0, 'it sends');
  });

  it('gives the lead back by hand', async () => {
    await isOfTwo(first, /^Follows$/);
    await isOfTwo(second, /^Leads$/);
    const before = await bar(first);
    await hold(first, 'Lead here, hold', 700);
    await isOfTwo(first, /^Leads$/);
    await isOfTwo(second, /^Follows$/);
    await plays(first, before);
    await plays(second, before);
  });

  it('takes over too when all of the other browser is gone at once', async () => {
    const before = await bar(second);
    await first.driver.sendDevToolsCommand('Browser.crash', {}).catch(() => undefined);
    await isOfTwo(second, /^Leads alone$/);
    await plays(second, before + 1);
  });
});
