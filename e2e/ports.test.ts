import { describe, expect, it } from 'vitest';
import { barNow, begin, goTo, lampOf, openDemo, unlock } from './begin';
import { Key } from './browser';
import { injectMidi, left, plug, pull } from './standInMidi';

// One rig on real ports, as far as the browser can tell: each part goes on where the one before it stopped.
const { b } = begin();

const bytesOf = async (name: string): Promise<string[]> => (await left(b, name)).map((l) => l.bytes.join(' '));
const note = (text: RegExp): Promise<void> => b.says('status', 'Note', text);
const part = async (view: string, name: string): Promise<void> => {
  await b.click('link', view);
  await b.click('link', name);
};
const bar = (): Promise<number> => barNow(b);

describe("this computer's ports", () => {
  it('are refused or missing without harm: it is said, and stand-ins go on', async () => {
    await openDemo(b);
    await part('Rig', 'Ports');
    await b.click('button', "Use this computer's ports");
    await b.wait(async () => {
      const text = await b.text('main');
      return /Stand-ins go on\./.test(text);
    }, 'it says why there are none');
    await b.find('button', 'Ask again');
  });

  it('are bound to ports of the show, one by one', async () => {
    await injectMidi(b);
    await openDemo(b);
    await part('Rig', 'Ports');
    await b.click('button', "Use this computer's ports");
    await b.find('table', 'Ports');
    await plug(b, 'Grey box');
    await plug(b, 'Foot board');
    await plug(b, 'Pad box');
    await b.pick(/Rack output$/, 'Grey box');
    await b.pick(/Feet input$/, 'Foot board');
    await b.pick(/Pads input$/, 'Pad box');
    await b.click('button', 'Send a test note on Rack');
    await b.wait(async () => (await bytesOf('Grey box')).includes('144 60 80'), 'the note leaves');
    await b.wait(async () => (await bytesOf('Grey box')).includes('128 60 64'), 'and ends');
  });

  it('get two songs of the set, with the queue changed in between: every byte in its order', async () => {
    await b.click('link', 'Set');
    await b.click('button', 'Play Slack Tide in Seven now');
    await b.wait(async () => (await bytesOf('Grey box')).includes('192 2'), 'the opening leaves');
    const first = await left(b, 'Grey box');
    const opening = first.map((l) => l.bytes.join(' '));
    // Bank, then preset, then scene: no unit would take them in another order.
    const [bank, preset] = [opening.indexOf('176 0 0'), opening.indexOf('192 2')];
    expect(bank).toBeGreaterThanOrEqual(0);
    expect(preset).toBeGreaterThan(bank);
    expect(opening.slice(preset).some((t) => t.startsWith('176 85 '))).toBe(true);
    await b.click('button', 'Play Fog Bell next');
    await b.click('button', 'Play Last Boat at Ten next');
    await b.click('link', 'Stage');
    const before = (await left(b, 'Grey box')).length;
    await b.click('button', 'Next song');
    await b.find('heading', /^Last Boat at Ten/);
    await b.wait(async () => {
      const now = (await left(b, 'Grey box')).slice(before).map((l) => l.bytes.join(' '));
      return now.includes('176 0 0') && now.some((t) => t.startsWith('192 '));
    }, 'the opening of the song that was chosen leaves');
    await unlock(b);
    await b.click('button', 'Leave the stage');
    // A 5-pin cable carries a byte in 320 microseconds.
    const all = await left(b, 'Grey box');
    for (let i = 1; i < all.length; i++) {
      expect(all[i]!.at - all[i - 1]!.at).toBeGreaterThanOrEqual(all[i - 1]!.bytes.length * 0.32 - 0.02);
    }
  });

  it('may be pulled out while it plays: it is said, and caught up when they are back', async () => {
    await pull(b, 'Grey box');
    await note(/Rack: the real port is not connected/);
    await b.wait(async () => (await lampOf(b, 'Harrow')) !== '', 'others go on');
    const before = (await left(b, 'Grey box')).length;
    await plug(b, 'Grey box');
    await note(/Rack: the real port is back/);
    await b.wait(async () => (await left(b, 'Grey box')).length > before + 2, 'what was missed is sent');
    await b.click('button', 'Stop');
  });

  it('get everything in time although the page is blocked for a quarter of a second again and again', async () => {
    const before = (await left(b, 'Grey box')).length;
    await b.click('button', 'Play Slack Tide in Seven now');
    await b.find('button', 'Stop');
    await b.wait(async () => (await bar()) >= 2, 'the song runs');
    // What this does stands for a page that is busy with something else.
    await b.driver.executeScript(
      'window.busy = setInterval(() => { const until = performance.now() + 250; while (performance.now() < until); }, 300)',
    );
    await b.wait(async () => (await bar()) >= 10, 'it runs on', 40_000);
    await b.driver.executeScript('clearInterval(window.busy)');
    await b.click('button', 'Stop');
    const sent = (await left(b, 'Grey box')).slice(before);
    // Its opening leaves at once; of the rest, what was due while the page was blocked.
    const rest = sent.filter((l) => l.at - sent[0]!.at > 2000);
    expect(rest.length).toBeGreaterThan(3);
    for (const l of rest) expect(l.called).toBeLessThanOrEqual(l.at);
  });
});

describe('a clock from outside', () => {
  it('starts the song that follows it, through a change of tempo, and stops it', async () => {
    await b.click('link', 'Slack Tide in Seven');
    await b.find('group', 'Chart of Slack Tide in Seven');
    await goTo(b, '1');
    await b.click('radio', 'Structure');
    await b.click('button', 'More');
    await b.pick(/Follows the clock of$/, 'Pads');
    await part('Rig', 'Ports');
    await b.fill('textbox', 'BPM', `100${Key.ENTER}`);
    await b.pick(/Comes in on$/, 'Pads');
    // What follows is a stand-in's: the real port on it is let go.
    await b.pick(/Pads input$/, 'Not connected');
    await b.click('button', 'Start the clock');
    await b.find('button', 'Stop');
    await b.wait(async () => (await bar()) >= 2, 'it goes along');
    await b.fill('textbox', 'BPM', `200${Key.ENTER}`);
    const from = await bar();
    const since = Date.now();
    await b.wait(async () => (await bar()) >= from + 4, 'it goes along faster');
    // Four bars of 3.5 quarters: 4.2 s at 200, 8.4 s at 100.
    expect(Date.now() - since).toBeLessThan(7000);
    await b.click('button', 'Stop the clock');
    await b.find('button', 'Play');
  });
});
