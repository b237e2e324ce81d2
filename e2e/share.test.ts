import type { ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { begin } from './begin';
import { Browser, By } from './browser';
import { serve } from './serving';

// A desk, and a screen elsewhere: a browser of its own.
const { b } = begin();
const screen = new Browser();
let server: ChildProcess;
let address: string;

beforeAll(async () => {
  await screen.start(390, 844);
  ({ server, address } = await serve(0));
});
afterAll(async () => {
  await screen.close();
  server.kill();
});

const codeNow = async (): Promise<string> => b.textOf('status', 'Code');

describe('the stage on another screen', () => {
  it('is refused without the code', async () => {
    await b.go(`${address}/demo`);
    await b.click('link', 'Set');
    await b.click('link', 'Screens');
    await b.click('button', 'Share the stage');
    expect(await codeNow()).toMatch(/^\d{6}$/);
    await screen.go(`${address}/watch`);
    await screen.fill('textbox', /code/, (await codeNow()) === '123456' ? '654321' : '123456');
    await screen.click('button', 'Join');
    await screen.says('alert', undefined, 'That is not the code of now');
    await b.says('alert', undefined, 'A wrong code was typed on another screen.');
  });

  it('opens with the code, and follows what is played', async () => {
    await screen.fill('textbox', /code/, await codeNow());
    await screen.click('button', 'Join');
    await screen.find('heading', /^Slack Tide in Seven/);
    await b.says('status', 'Screens', '1 screen is on.');
    await b.click('button', 'Play');
    await screen.wait(
      async () => Number(await screen.text('[aria-label="Bar"]')) >= 2,
      'the bars go by on the other screen',
    );
    // There is nothing on it that could be pressed.
    expect(await screen.driver.findElements(By.css('button'))).toEqual([]);
    await b.click('button', 'Stop');
  });

  it('lets nobody else in with the same code', async () => {
    await b.says('status', 'What the code is worth', 'The code was used.');
  });

  it('shows one player their part', async () => {
    await screen.click('link', 'Okoro');
    await screen.find('heading', /· Okoro$/);
    await screen.click('link', 'All');
    await screen.find('heading', /^Slack Tide in Seven$/);
  });

  it('says that the line is lost also where it was lost without a word, and comes back by itself', async () => {
    server.kill('SIGSTOP');
    await screen.says('alert', undefined, 'The line to the desk is lost');
    server.kill('SIGCONT');
    await screen.gone('alert');
    await screen.find('heading', /^Slack Tide in Seven/);
  });

  it('says at once that the line is lost, and comes back by itself', async () => {
    const port = Number(new URL(address).port);
    server.kill();
    await once(server, 'exit');
    await screen.says('alert', undefined, 'The line to the desk is lost');
    ({ server } = await serve(port));
    // The server knows nobody of before: it asks for a code again.
    await screen.says('alert', undefined, 'join with a new code');
    await b.says('status', 'Screens', '0 screens are on.');
    await screen.fill('textbox', /code/, await codeNow());
    await screen.click('button', 'Join');
    await screen.find('heading', /^Slack Tide in Seven/);
  });

  it('is back without a code after it was loaded anew', async () => {
    await screen.driver.navigate().refresh();
    await screen.find('heading', /^Slack Tide in Seven/);
    await b.click('button', 'Stop sharing');
    await screen.says('alert', undefined, 'The desk has gone away');
  });
});
