import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { beforeAll, describe, expect, it } from 'vitest';
import { begin, chooseFile, openShelf } from './begin';
import { Key } from './browser';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface Violation {
  readonly id: string;
  readonly nodes: readonly { readonly html: string; readonly failureSummary: string }[];
}

const { b } = begin();
beforeAll(async () => {
  await openShelf(b);
});

/** The desk follows the system's light, so that each view is checked by day and by dusk. */
const light = (value: 'light' | 'dark'): Promise<void> =>
  b.media({ 'prefers-color-scheme': value, 'prefers-reduced-motion': 'reduce' });

/** What a checker finds against WCAG 2.2 A and AA on the page as it is, in both lights; and a title and one first heading. */
async function violations(): Promise<string[]> {
  // The page keeps it from view to view; to read it again takes as long as a check.
  if (!(await b.driver.executeScript<boolean>('return window.axe !== undefined'))) await b.driver.executeScript(axe);
  const found: string[] = [];
  for (const value of ['light', 'dark'] as const) {
    await light(value);
    const broken = await b.driver.executeAsyncScript<Violation[]>(
      `const done = arguments[arguments.length - 1];
       // What is not colour is the same in both lights.
       const runOnly = arguments[0] === 'dark'
         ? { type: 'rule', values: ['color-contrast'] }
         : { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] };
       // What the standard leaves open and readers trip over all the same.
       const more = ['empty-table-header', 'heading-order', 'label-content-name-mismatch'];
       const rules = arguments[0] === 'dark' ? {} : Object.fromEntries(more.map((id) => [id, { enabled: true }]));
       // What is well is not written down one by one.
       const lean = { resultTypes: ['violations'], selectors: false, preload: false };
       requestAnimationFrame(() => requestAnimationFrame(() =>
         window.axe.run(document, { runOnly, rules, ...lean }).then((r) => done(r.violations))));`,
      value,
    );
    for (const v of broken) {
      for (const n of v.nodes)
        found.push(`${value} ${v.id}: ${n.html.slice(0, 160)} ${n.failureSummary.slice(0, 300)}`);
    }
  }
  await light('light');
  const heads = await b.driver.executeScript<number>('return document.querySelectorAll("h1").length');
  const title = await b.driver.getTitle();
  if (heads !== 1) found.push(`${heads} first headings`);
  if (!title.endsWith('· Hollow Lantern')) found.push(`the title is ${title}`);
  return found;
}

describe('every view passes WCAG A and AA', () => {
  it('shelf', async () => {
    await b.find('button', 'Open the demo show');
    expect(await violations()).toEqual([]);
  });

  it('the set, when a show opens', async () => {
    await b.click('button', 'Open the demo show');
    await b.find('heading', 'The set');
    await b.click('button', 'Light of the desk');
    await b.find('menuitemradio', 'Light');
    expect(await violations()).toEqual([]);
    await b.click('menuitemradio', 'As the system has it');
    await b.gone('menuitemradio', 'Light');
    expect(await violations()).toEqual([]);
    await b.find('image', 'proven');
    expect(await violations()).toEqual([]);
  });

  it('set', async () => {
    await b.click('link', 'Set');
    await b.find('grid', 'Running order');
    await b.click('row', /^Fog Bell/);
    await b.find('complementary', 'Chosen entry');
    expect(await violations()).toEqual([]);
    for (const part of ['Mix', 'Tonight', 'Screens', 'Show']) {
      await b.click('link', part);
      await b.find('link', part);
      expect(await violations()).toEqual([]);
    }
    await b.click('link', 'Running order');
  });

  it('stage, while a song plays', async () => {
    await b.click('button', 'Play Fog Bell now');
    await b.click('link', 'Stage');
    await b.find('button', 'Stop');
    expect(await violations()).toEqual([]);
    await b.click('button', 'Stop');
    await b.find('button', 'Start, hold');
    await b.driver.navigate().back();
    await b.find('grid', 'Running order');
    await b.click('link', 'Set');
  });

  it('takes few keys from anywhere to play: regions by F6, and a key of its own', async () => {
    await b.click('link', 'Map');
    await b.find('link', 'Controls');
    const at = (): Promise<string> =>
      b.driver.executeScript(
        "const a = document.activeElement; return a.getAttribute('aria-label') ?? a.innerText ?? a.tagName",
      );
    await b.click('gridcell');
    await b.type(Key.F6);
    expect(await at()).toBe('Play');
    await b.type(Key.F6);
    expect(await at()).toBe('Map');
    await b.type(Key.F6);
    expect(await at()).toMatch(/: to all shows$/);
    await b.type(Key.F6);
    expect(await b.driver.executeScript('return document.activeElement.id')).toBe('view');
    await b.type(Key.chord(Key.SHIFT, Key.F6), Key.chord(Key.SHIFT, Key.F6));
    expect(await at()).toBe('Map');
    // Also in the middle of typing.
    await b.click('link', 'Chart');
    await b.press('textbox', /^Bar\|beat/, '7', Key.chord(Key.ALT, 'p'));
    await b.find('button', 'Stop');
    await b.press('textbox', /^Bar\|beat/, Key.chord(Key.ALT, 'p'), Key.ESCAPE);
    await b.find('button', 'Play');
    await b.click('link', 'Set');
    await b.find('heading', 'The set');
  });

  it('a dialog', async () => {
    await b.click('button', 'Add a song');
    await b.find('dialog');
    expect(await violations()).toEqual([]);
    await b.click('button', 'Cancel');
    await b.gone('dialog');
    // As few answers as need no scrolling: what is chosen is scrolled to by the arrows, which axe does not know.
    await b.type(Key.chord(Key.CONTROL, 'k'), 'fog bell');
    await b.find('menuitem', /^Fog Bell/);
    expect(await violations()).toEqual([]);
    await b.type(Key.ESCAPE);
    await b.gone('dialog');
    await b.type('?');
    await b.find('dialog', 'Keys: Set');
    expect(await violations()).toEqual([]);
    await b.type(Key.ESCAPE);
    await b.gone('dialog');
  });

  it('map', async () => {
    await b.click('link', 'Map');
    await b.find('grid', 'Slots of Quillback');
    expect(await violations()).toEqual([]);
  });

  it('tones', async () => {
    await b.click('link', 'Tones');
    await b.find('grid', 'Tones against units');
    expect(await violations()).toEqual([]);
    await b.click('gridcell', /^Fog Lead, Quillback/);
    await b.find('combobox', 'Preset');
    expect(await violations()).toEqual([]);
    await b.click('link', /^All units of this tone/);
    await b.find('textbox', 'Tone');
    expect(await violations()).toEqual([]);
  });

  it('rig', async () => {
    await b.click('link', 'Rig');
    await b.click('button', /^Tarn (channel|sent)/);
    await b.find('region', 'Settings of Tarn');
    expect(await violations()).toEqual([]);
    for (const part of ['Ports', 'Reactions', 'Patch sheet', 'Players', 'Monitor']) {
      await b.click('link', part);
      await b.find('link', part);
      expect(await violations()).toEqual([]);
    }
  });

  it('feet, with every part', async () => {
    await b.click('link', 'Feet');
    await b.find('group', 'Pages');
    await b.click('button', /^Switch 1: Fog Lead/);
    await b.find('region', 'Without the computer');
    expect(await violations()).toEqual([]);
    for (const [part, role, name] of [
      ['Proposal', 'button', 'Use these pages'],
      ['Without computer', 'table', /^Steps of/],
      ['Transfer', 'region', 'Stand-in'],
      ['Labels', 'button', 'Print the strips'],
      ['Controller', 'button', 'Export the controller'],
    ] as const) {
      await b.click('link', part);
      await b.find(role, name);
      expect(await violations()).toEqual([]);
    }
  });

  it('files: paper, and states that were kept', async () => {
    await b.click('link', 'Files');
    await b.find('article', /^Cue sheet/);
    expect(await violations()).toEqual([]);
    await b.click('link', 'Export');
    await b.click('button', 'Export MIDI file');
    await b.says('complementary', 'What was exported', 'Not in the file');
    expect(await violations()).toEqual([]);
    await b.click('button', 'Export table');
    const table = await b.downloaded('.csv');
    await b.click('link', 'Import');
    await chooseFile(b, table);
    await b.find('region', 'What changes');
    expect(await violations()).toEqual([]);
    await b.click('link', 'Versions and storage');
    await b.find('region', 'Storage');
    await b.fill('textbox', 'Name of the state', `First${Key.ENTER}`);
    await b.find('table', 'Saved versions');
    expect(await violations()).toEqual([]);
    await b.click('button', 'Delete First');
    await b.find('button', 'Delete it');
    expect(await violations()).toEqual([]);
    await b.type(Key.ESCAPE);
    await b.gone('dialog', 'Delete First?');
  });

  it('dialogs of the map', async () => {
    await b.click('link', 'Map');
    for (const name of ['Fill a run', 'Import list', 'Walk']) {
      await b.click('button', name);
      await b.find('dialog');
      expect(await violations()).toEqual([]);
      await b.type(Key.ESCAPE);
      await b.gone('dialog');
    }
    await b.click('link', 'Controls');
    for (const name of ['Learn', 'Teach']) {
      await b.click('button', name);
      await b.find('dialog');
      expect(await violations()).toEqual([]);
      await b.type(Key.ESCAPE);
      await b.gone('dialog');
    }
  });

  it('dialogs of rig and tones', async () => {
    await b.click('link', 'Rig');
    await b.find('heading', 'Rig');
    await b.click('button', 'Add a unit');
    await b.find('dialog');
    expect(await violations()).toEqual([]);
    await b.type(Key.ESCAPE);
    await b.gone('dialog');
    await b.click('link', 'Tones');
    await b.click('button', 'Tones of a unit …');
    await b.find('dialog');
    expect(await violations()).toEqual([]);
    await b.type(Key.ESCAPE);
    await b.gone('dialog');
    await b.click('link', 'Moves');
    await b.find('heading', 'Moves');
    expect(await violations()).toEqual([]);
  });

  it('every part of a map', async () => {
    await b.click('link', 'Map');
    for (const part of ['Controls', 'Address plan', 'Timing and behaviour', 'Relay rules', 'Shared control numbers']) {
      await b.click('link', part);
      await b.find('heading', part === 'Shared control numbers' ? 'Shared control numbers' : 'Quillback');
      expect(await violations()).toEqual([]);
    }
  });

  it('chart, with a cue that fails', async () => {
    await b.click('link', 'Chart');
    await b.find('group', /^Chart of/);
    expect(await violations()).toEqual([]);
    await b.fill('textbox', /^Bar\|beat/, `9|1|40${Key.ENTER}`);
    await b.type('undertow', Key.ENTER);
    await b.find('button', '9|1|40 Undertow, fails');
    expect(await violations()).toEqual([]);
    for (const part of ['Structure', 'Sound', 'Lanes']) {
      await b.click('radio', part);
      expect(await violations()).toEqual([]);
    }
    await b.click('radio', 'Here');
    await b.click('button', 'Sweep …');
    await b.find('dialog');
    expect(await violations()).toEqual([]);
    await b.type(Key.ESCAPE);
    await b.gone('dialog');
  });

  it('dry run, of a song and of the set', async () => {
    await b.click('link', 'Dry run');
    await b.find('table', 'Songs of the set');
    expect(await violations()).toEqual([]);
    await b.click('link', 'Slack Tide in Seven');
    await b.find('region', 'The chosen change');
    expect(await violations()).toEqual([]);
  });
});
