import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { begin, openDemo } from './begin';
import { By, Key } from './browser';

const { b } = begin();

/** Addresses below that of the show, and the role and name of something that stands there and not in the view before. */
const VIEWS: readonly (readonly [path: string, role: string, name: string | RegExp])[] = [
  ['/rig', 'button', /^Quillback channel/],
  ['/rig/ports', 'button', /^Send a test note/],
  ['/rig/reactions', 'button', 'Add a reaction'],
  ['/rig/patch', 'button', 'Print the patch sheet'],
  ['/rig/monitor', 'button', 'Clear'],
  ['/map', 'heading', 'Quillback'],
  ['/map/-/controls', 'button', 'Add a control'],
  ['/map/-/relays', 'heading', /^When Quillback goes/],
  ['/map/house', 'heading', 'Shared control numbers'],
  ['/tones', 'heading', 'Tones'],
  ['/tones/moves', 'heading', 'Moves'],
  ['/chart', 'group', /^Chart of/],
  ['/dry-run', 'table', 'Songs of the set'],
  ['/feet', 'group', 'Pages'],
  ['/feet/-/proposal', 'button', 'Use these pages'],
  ['/feet/-/transfer', 'button', 'Transfer'],
  ['/set', 'grid', 'Running order'],
  ['/set/mix', 'table', 'Mix sheet'],
  ['/set/tonight', 'heading', 'Evening at the pier'],
  ['/set/screens', 'button', 'Share the stage'],
  ['/set/show', 'textbox', 'Title of the show'],
  ['/stage', 'button', 'Start, hold'],
  ['/files', 'article', /^Cue sheet/],
  ['/files/export', 'button', 'Export show'],
  ['/files/import', 'button', 'Choose a file'],
  ['/files/versions', 'region', 'Storage'],
];

let base = '';
beforeAll(async () => {
  await openDemo(b);
  base = (await b.driver.getCurrentUrl()).replace(/\/set$/, '');
});

const size = (width: number, height: number): Promise<unknown> =>
  b.driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
    width,
    height,
    deviceScaleFactor: 1,
    mobile: false,
  });
afterAll(() => size(1280, 800).catch(() => undefined));

/** By how much the page, and the view in it, are wider than the window. */
const overWide = (): Promise<number> =>
  b.driver.executeScript(`const main = document.querySelector('main');
    return Math.max(document.scrollingElement.scrollWidth - innerWidth, main.scrollWidth - main.clientWidth);`);

/** To a view as the browser's own Back does it: the page is not loaded anew. The keyboard begins at its top again. */
const goBackTo = (address: string): Promise<void> =>
  b.driver.executeScript(
    `history.pushState(null, '', arguments[0]);
     dispatchEvent(new PopStateEvent('popstate'));
     document.activeElement?.blur();`,
    address,
  );

/** Notes what the keyboard comes to, by what it is called: what it comes to may be drawn anew by that. */
const NOTE = `window.reached = new Map();
  if (!window.called) addEventListener('focusin', ({ target }) => window.reached.set(window.called(target), target), true);
  window.called = (e) => [e.tagName, e.getAttribute('aria-label'), e.getAttribute('aria-labelledby'), e.id && e.labels?.[0]?.textContent, e.textContent.slice(0, 60), e.title].join('|');`;

/** What can be pressed, chosen or typed in and was not come to. Of a group in which arrows go on, one member is enough. */
const left = (): Promise<string[]> =>
  b.driver.executeScript(`
    const things = [...document.querySelectorAll(
      'button, a[href], input, select, textarea, summary, [role=button], [role=switch], [role=slider], [role=tab], ' +
      '[role=radio], [role=checkbox], [role=option], [role=row], [role=gridcell], [role=menuitem], [tabindex]')]
      .filter((e) => e.checkVisibility({ visibilityProperty: true }) && e.getClientRects().length > 0
        && !e.closest('[inert], [aria-hidden=true]') && !e.matches(':disabled, [aria-disabled=true]'));
    const reached = [...window.reached.values()];
    const groups = '[role=grid], [role=treegrid], [role=listbox], [role=radiogroup], [role=toolbar], [role=tablist], [role=menu]';
    const inGroup = (e) => {
      const group = e.closest(groups);
      if (group !== null && reached.some((r) => group.contains(r))) return true;
      // Switches of a floor and the like: one is a stop, arrows go to the others.
      return e.tabIndex < 0 && reached.some((r) => r.parentElement === e.parentElement);
    };
    return things
      .filter((e) => !window.reached.has(window.called(e)) && !inGroup(e))
      // Something in it takes the keyboard in its place, or it is what scrolls around them.
      .filter((e) => !reached.some((r) => e.contains(r)))
      .map((e) => e.outerHTML.slice(0, 160));`);

/** Tab, until nothing is left, or three times around without anything new; says what is left. */
async function goAround(): Promise<string[]> {
  for (let idle = 0, before = 0; idle < 3;) {
    await b.type(Key.TAB.repeat(40));
    if ((await left()).length === 0) return [];
    const size = await b.driver.executeScript<number>('return window.reached.size');
    idle = size === before ? idle + 1 : 0;
    before = size;
  }
  return left();
}

describe('every view', () => {
  it.each(VIEWS)(
    '%s is come to by keyboard alone, and stands in one column of 320 pixels',
    async (path, role, name) => {
      await size(1280, 800);
      await goBackTo(base + path);
      await b.find(role, name);
      await b.driver.executeScript(NOTE);
      await goAround();
      expect(await left()).toEqual([]);
      await size(320, 640);
      await b.find(role, name);
      expect(await overWide()).toBeLessThanOrEqual(0);
    },
  );
});

describe('a window of 1280 by 800 at 200 %', () => {
  it('keeps most of itself for the chart', async () => {
    await size(640, 400);
    await b.go(`${base}/chart`);
    const chart = await b.find('group', /^Chart of/);
    expect(await overWide()).toBeLessThanOrEqual(0);
    const { height } = await chart.getRect();
    expect(height).toBeGreaterThan(240);
    await b.driver.executeScript('arguments[0].scrollIntoView({ block: "start" })', chart);
    const { top, foot } = await b.driver.executeScript<{ top: number; foot: number }>(
      `return { top: arguments[0].getBoundingClientRect().top, foot: document.querySelector('footer').getBoundingClientRect().top };`,
      chart,
    );
    expect(foot - Math.max(0, top)).toBeGreaterThan(220);
  });

  it('keeps the lamps and the transport in reach', async () => {
    await b.find('button', 'Play');
    expect(await (await b.find('list', 'Units now')).findElements(By.css('li'))).not.toHaveLength(0);
  });
});

describe('colours of the computer’s own', () => {
  const forced = (value: 'active' | 'none'): Promise<void> => b.media({ 'forced-colors': value });
  const outline = (selector: string): Promise<string> =>
    b.driver.executeScript('return getComputedStyle(document.querySelector(arguments[0])).outlineStyle', selector);

  it('tell the chosen view and part by an edge', async () => {
    await size(1280, 800);
    await b.go(`${base}/rig/ports`);
    await b.find('link', 'Ports');
    await forced('active');
    expect(await outline('nav[aria-label="Views"] a[aria-current="page"]')).toBe('solid');
    expect(await outline('nav[aria-label="Views"] a:not([aria-current])')).toBe('none');
    expect(await outline('nav[aria-label="Parts of the rig"] a[aria-current="page"]')).toBe('solid');
  });

  it('draw lanterns and lamps in the ink of the page', async () => {
    const { line, text } = await b.driver.executeScript<{ line: string; text: string }>(
      `const mark = document.querySelector('[aria-label="Units now"] li svg path, [aria-label="Units now"] li svg g');
       const probe = document.body.appendChild(document.createElement('i'));
       probe.style.color = 'CanvasText';
       const text = getComputedStyle(probe).color;
       probe.remove();
       return { line: getComputedStyle(mark).stroke, text };`,
    );
    expect(line).toBe(text);
    // A unit whose state is not known says so in words, beside its hollow lantern.
    expect(await b.textOf('list', 'Units now')).toContain('not known');
    await forced('none');
  });
});

describe('somebody who wants nothing to move', () => {
  it('sees no animation and no transition of more than a blink', async () => {
    await b.media({ 'prefers-reduced-motion': 'reduce' });
    await b.go(`${base}/chart`);
    await b.find('group', /^Chart of/);
    await b.click('button', 'Play');
    await b.find('button', 'Stop');
    const moving = await b.driver.executeScript<string[]>(
      `return document.getAnimations().filter((a) => (a.effect?.getComputedTiming().activeDuration ?? 0) > 50)
         .map((a) => a.effect.target.outerHTML.slice(0, 120));`,
    );
    expect(moving).toEqual([]);
    await b.click('button', 'Stop');
  });
});
