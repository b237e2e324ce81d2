import { beforeAll, describe, expect, it } from 'vitest';
import { begin, goTo, openDemoChart } from './begin';
import { Key } from './browser';

const { b } = begin();
beforeAll(async () => {
  await openDemoChart(b);
});

const all = Key.chord(Key.CONTROL, 'a');
const lane = async (): Promise<string> =>
  b.driver.executeScript('return document.querySelector("[data-chart-line]").innerText');

describe('numbers on demand', () => {
  it('are shown in the chosen counting, and never change what is sent', async () => {
    expect(await lane()).toContain('Harbour Clean');
    await b.click('radio', 'from 0');
    await b.wait(async () => /\b2\b/.test(await lane()), 'the lanes count from 0');
    const zero = await lane();
    await b.click('radio', 'from 1');
    await b.wait(async () => (await lane()) !== zero, 'the lanes count from 1');
    await b.click('radio', 'as labelled');
    await b.wait(async () => (await lane()).includes('Harbour Clean'), 'the lanes have their names again');
    await b.find('button', 'Undo');
  });
});

describe('a tone that gives way to another', () => {
  it('does so in this song alone, and is taken back', async () => {
    await b.click('button', /Replace the tone$/);
    await b.click('option', 'Fog Lead');
    await b.click('button', /^(?!.*Replace).* by$/);
    await b.click('option', 'Undertow');
    await b.click('button', 'In this song');
    await goTo(b, '29');
    await b.find('button', /^29\|1 Undertow/);
    await b.click('button', 'Undo: replace a tone here');
    await b.find('button', /^29\|1 Fog Lead/);
  });

  it('or in all songs at once', async () => {
    await b.click('button', 'In all songs');
    await b.find('button', /^29\|1 Undertow/);
    await b.click('button', 'Undo: replace a tone everywhere');
    await b.find('button', /^29\|1 Fog Lead/);
  });
});

describe('a level over a stretch', () => {
  it('dips from the first of the chosen cues to the last, and comes back', async () => {
    await goTo(b, '1');
    const first = await b.find('button', /^5\|1 Harbour Clean/);
    await first.click();
    const second = await b.find('button', /^9\|1 Ledger Rhythm/);
    await b.driver.actions().keyDown(Key.SHIFT).click(second).keyUp(Key.SHIFT).perform();
    await b.find('region', 'Chosen cues');
    await b.click('button', 'Dip or lift');
    await b.find('region', 'Chosen sweep');
    const from = await b.find('textbox', 'From bar|beat');
    const to = await b.find('textbox', 'To bar|beat');
    expect([await from.getAttribute('value'), await to.getAttribute('value')]).toEqual(['5|1', '9|1']);
    await b.find('button', /a level that comes back.*Shape/);
    await b.find('button', 'Undo: level over a stretch');
    await b.click('button', 'Undo: level over a stretch');
  });
});

describe('the opening', () => {
  it('is that of all songs, until the song has its own', async () => {
    await goTo(b, '1');
    await b.find('button', /^as all songs do: Still Water The song opens with$/);
    await b.click('button', /The song opens with$/);
    await b.click('option', 'Harbour Clean');
    await b.find('button', 'Undo: change the opening');
    await b.gone('button', /All songs open with$/);
    await b.click('button', 'Undo: change the opening');
    await b.find('button', /^Still Water All songs open with$/);
  });
});

describe('units that take the tempo', () => {
  it('are tapped to, or get the clock', async () => {
    await b.click('switch', 'Quillback');
    await b.find('button', /^Undo: .*Quillback/);
    await b.click('radio', 'Sound');
    await b.click('switch', 'Board');
    await b.find('button', 'Undo: clock on Board');
    await b.find('button', /^5\|1 Harbour Clean, proven$/);
  });
});

describe('printed numbers', () => {
  it('begin again where the score says so, and the song keeps its places', async () => {
    await goTo(b, '9');
    await b.click('radio', 'Structure');
    await b.find('region', 'Song structure');
    await b.click('button', 'Renumber from bar 9');
    await b.press('textbox', 'Bar 9 is printed as', all, '101', Key.ENTER);
    const numbers = (): Promise<string> =>
      b.driver.executeScript('return document.querySelectorAll("[data-chart-line]")[1].innerText');
    await b.wait(async () => (await numbers()).includes('101'), 'the score’s number is shown');
    // What stands there goes by its bar, whatever the score prints.
    await b.find('button', /^(9|101)\|1 Ledger Rhythm/);
    await b.click('button', /^Let bar \d+ count on$/);
    await b.wait(async () => !(await numbers()).includes('101'), 'it counts on again');
    await b.click('button', 'Close song structure');
  });
});

describe('the zoom', () => {
  it('goes from the whole song to the tick', async () => {
    for (let i = 0; i < 14; i++) {
      const wider = await b.find('button', 'Wider bars');
      if (!(await wider.isEnabled())) break;
      await wider.click();
    }
    await goTo(b, '2');
    const paper = await b.find('group', 'Chart of Slack Tide in Seven');
    await paper.sendKeys(Key.ARROW_RIGHT);
    const place = await b.find('textbox', /^Bar\|beat/);
    // A step is one tick now, with snapping off.
    await b.click('button', /Snap$/);
    await b.click('option', 'free');
    await paper.sendKeys(Key.ARROW_RIGHT);
    await b.wait(
      async () => /^2\|[12]\|\d+$/.test((await place.getAttribute('value')) ?? ''),
      'the caret is on a tick',
    );
    for (let i = 0; i < 14; i++) {
      const narrower = await b.find('button', 'Narrower bars');
      if (!(await narrower.isEnabled())) break;
      await narrower.click();
    }
    // All sections are in sight at once.
    for (const name of ['Walk on', 'Slack water', 'Turn', 'Lamp solo', 'Home'])
      await b.find('button', new RegExp(name));
  });

  it('shows the whole song in the room there is, with type that can be read', async () => {
    await b.click('button', 'Whole song');
    const paper = await b.find('group', 'Chart of Slack Tide in Seven');
    const room = (): Promise<{ inside: number; outside: number; smallest: number }> =>
      b.driver.executeScript(
        `const paper = arguments[0];
         const sizes = [...paper.querySelectorAll('svg text, button, h3')].map((t) => parseFloat(getComputedStyle(t).fontSize));
         return { inside: paper.scrollHeight, outside: paper.clientHeight, smallest: Math.min(...sizes) };`,
        paper,
      );
    await b.wait(async () => (await room()).inside <= (await room()).outside, 'all of it is in sight');
    expect((await room()).smallest).toBeGreaterThanOrEqual(9);
    await b.find('button', '43|1 Still Water, proven');
    await b.click('button', 'Wider bars');
    await b.wait(async () => (await room()).inside > (await room()).outside, 'it is large again');
  });
});
