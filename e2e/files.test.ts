import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { begin, openDemo } from './begin';
import { Key } from './browser';

// Each part goes on where the one before it stopped.
const { b } = begin();

const main = async (): Promise<string> => b.text('main');

/** Millimetres of each page of what the browser would print. */
async function printed(): Promise<string[]> {
  const print = await b.find('button', 'Print');
  await b.wait(() => print.isEnabled(), 'all that is printed is there');
  const answer = (await b.driver.sendAndGetDevToolsCommand('Page.printToPDF', {
    preferCSSPageSize: true,
    paperWidth: 8.27,
    paperHeight: 11.69,
  })) as unknown as { data: string };
  const pdf = Buffer.from(answer.data, 'base64').toString('latin1');
  return [...pdf.matchAll(/\/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/g)].map(([, w, h]) =>
    [w, h].map((points) => Math.round((Number(points) * 25.4) / 72)).join('×'),
  );
}

const file = async (name: string): Promise<string> => readFileSync(await b.downloaded(name), 'utf8');

describe('paper', () => {
  it('shows each sheet as it is printed, chosen by keyboard', async () => {
    await openDemo(b);
    await b.type(Key.chord(Key.ALT, '9'));
    await b.find('article', 'Cue sheet: Slack Tide in Seven');
    await b.press('button', /Sheet$/, Key.ENTER);
    await b.type('Set', Key.ENTER);
    await b.find('article', 'Set list: Evening at the pier');
    expect(await main()).toContain('Tea on the pier');
    await b.pick(/Sheet$/, 'Songs by foot');
    await b.find('article', 'By foot, on Treadle Ten: Slack Tide in Seven');
    await b.pick(/Sheet$/, 'Switch strips');
    await b.find('article', 'Switch strips: Treadle Ten');
  });

  it('counts a unit’s numbers as one has chosen', async () => {
    await b.pick(/Sheet$/, 'Number charts');
    await b.pick(/Of$/, 'Marram');
    await b.says('article', 'Number chart: Marram', 'Presets are named as the unit shows them');
    await b.click('radio', 'from 1');
    await b.says('article', 'Number chart: Marram', 'Numbers are counted from 1.');
    await b.click('radio', 'as labelled');
  });

  it('prints each song on a sheet of its own, across', async () => {
    await b.pick(/Sheet$/, 'Cue sheets');
    const all = await printed();
    expect(all.length).toBeGreaterThanOrEqual(8);
    expect(new Set(all)).toEqual(new Set(['297×210']));
    await b.pick(/Of$/, 'Fog Bell');
    await b.gone('article', 'Cue sheet: Slack Tide in Seven');
    expect(await printed()).toEqual(['297×210']);
    // What is printed at its head is edited beside it.
    await b.fill('textbox', 'Notes of Fog Bell, printed on its cue sheet', `wait for the bell${Key.ENTER}`);
    await b.says('article', 'Cue sheet: Fog Bell', 'wait for the bell');
    await b.pick(/Sheet$/, 'Set list');
    await b.find('article', 'Set list: Evening at the pier');
    expect(await printed()).toEqual(['210×297']);
  });

  it('is read from the floor, with titles alone', async () => {
    await b.pick(/Read from$/, 'the floor');
    await b.wait(async () => !(await main()).includes('20:30'), 'no clock times stand on it');
    await b.says('article', 'Set list: Evening at the pier', /1\s+Slack Tide in Seven/);
    await b.pick(/Read from$/, 'the desk');
    await b.says('article', 'Set list: Evening at the pier', '20:30');
  });

  it('exports a sheet as a table', async () => {
    await b.click('button', 'Table (CSV)');
    const text = await file('winter-pier-residency-set-list.csv');
    expect(text).toContain('Slack Tide in Seven,20:30');
  });
});

describe('a sheet as a PDF', () => {
  it('has its fonts, on the paper that was chosen', async () => {
    await b.pick(/Paper$/, 'Letter');
    await b.click('button', 'PDF');
    await file('evening-at-the-pier-set-list.pdf');
    const pdf = readFileSync(join(b.downloads, 'evening-at-the-pier-set-list.pdf')).toString('latin1');
    expect(pdf.startsWith('%PDF-1.7')).toBe(true);
    expect(pdf).not.toContain('/Helvetica');
  });
});

describe('everything for the road', () => {
  it('is a zip with the show, its paper, files for others and a page that says what is what', async () => {
    await b.click('link', 'Export');
    await b.click('button', 'Pack everything');
    const inside = unzipSync(new Uint8Array(readFileSync(await b.downloaded('for-the-road.zip'))));
    const contents = strFromU8(inside['winter-pier-residency-contents.txt']!);
    for (const path of [
      'paper/set-floor.pdf',
      'midi/fog-bell-sent.mid',
      'names/quillback.midnam',
      'tables/quillback-presets.csv',
    ]) {
      expect(contents).toContain(path);
      expect(inside[path]!.length).toBeGreaterThan(50);
    }
    await b.find('button', 'Pack everything');
    await b.wait(async () => (await main()).includes(`with ${Object.keys(inside).length} files`), 'it is said');
  });
});

describe('states of a show', () => {
  it('are kept by name; what became different is said in words', async () => {
    await b.click('link', 'Versions and storage');
    await b.fill('textbox', 'Name of the state', `Before the reorder${Key.ENTER}`);
    await b.find('table', 'Saved versions');
    await b.wait(async () => (await main()).includes('Nothing differs.'), 'nothing differs yet');
    await b.click('link', 'Map');
    await b.find('heading', 'Quillback');
    await b.press('gridcell', /Tuner Drop/, Key.chord(Key.ALT, Key.ARROW_DOWN));
    await b.find('button', /^Undo: /);
    await b.click('link', 'Files');
    await b.click('link', 'Versions and storage');
    await b.says('list', 'Differences', 'Quillback: A1 Tuner Drop is B1 Tuner Drop now.');
  });

  it('are gone back to, and undo brings the present one back; that is kept, too', async () => {
    await b.click('button', 'Go back to Before the reorder');
    await b.says('status', 'Note', 'The show is as in Before the reorder.');
    await b.find('rowheader', 'Before going back to Before the reorder');
    await b.click('button', 'Undo: go back to Before the reorder');
    await b.pick(/What became different from$/, 'Before the reorder');
    await b.says('list', 'Differences', 'Quillback: A1 Tuner Drop is B1 Tuner Drop now.');
    await b.click('button', 'Go back to Before the reorder');
    await b.wait(async () => (await main()).includes('Nothing differs.'), 'it is as it was');
  });

  it('are deleted after a question', async () => {
    await b.click('button', 'Delete Before the reorder');
    await b.find('dialog', 'Delete Before the reorder?');
    await b.click('button', 'Delete it');
    await b.gone('rowheader', 'Before the reorder');
  });

  it('have the one of today that went on stage, once', async () => {
    await b.click('link', 'Stage');
    await b.find('button', 'Start, hold');
    await b.driver.navigate().back();
    await b.find('rowheader', /^On stage, /);
  });

  it('say what the browser stores', async () => {
    await b.says('region', 'Storage', 'stored by all shows here, room for');
  });
});

describe('a show that was not exported for long', () => {
  it('is said to be in this browser only, until it goes out as a file', async () => {
    await b.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
      source: `const now = Date.now; Date.now = () => now() + 9 * 24 * 3600e3; navigator.storage.persisted = () => Promise.resolve(false);`,
    });
    await b.driver.navigate().refresh();
    await b.says('status', 'Export reminder', 'This show was not exported for 9 days');
    await b.click('button', 'Export show');
    await file('winter-pier-residency.zip');
    await b.gone('status', 'Export reminder');
    await b.driver.navigate().refresh();
    await b.find('heading', 'Files');
    await b.find('region', 'Storage');
    await b.gone('status', 'Export reminder');
  });
});
