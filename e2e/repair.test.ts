import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { begin, chooseFile, openShelf } from './begin';
import { By, Key } from './browser';

const { b, folder } = begin();
const file = join(folder, 'faulty.json');
beforeAll(async () => {
  const made = spawnSync(process.execPath, ['--import', 'tsx', 'cli/main.ts', 'demo', '--faults', '--out', file]);
  if (made.status !== 0) throw new Error(made.stderr.toString());
});

const found = (): Promise<string[]> =>
  b.driver.executeScript(
    `return [...document.querySelectorAll('[aria-label="Findings"] > li')].map((li) => li.innerText)`,
  );

/** Opens the one list of all findings, from their count in the head. */
async function openFindings(): Promise<void> {
  await b.click('button', /findings: show them$/);
  await b.find('dialog', 'Findings');
}

describe('a show in which everything goes wrong', () => {
  it('opens, and its rig says what is wrong with the wiring', async () => {
    await openShelf(b);
    await b.find('button', 'New show');
    await chooseFile(b, file);
    await b.find('heading', 'The set');
    await b.click('link', 'Rig');
    await b.says('list', 'Findings', 'Wick Four is sent to on channel 10, but listens on 9');
    await b.says('list', 'Findings', 'A message can go round and round');
    await b.says('list', 'Findings', 'Relay rules set each other off in a circle');
  });

  it('is mended in the rig with one press each, as far as a machine can', async () => {
    const before = (await found()).length;
    for (const fix of ['Send on channel 9', 'Open the loop', /^Switch Old port on$/]) {
      await b.click('button', fix);
      await b.gone('button', fix);
    }
    expect((await found()).length).toBeLessThan(before);
    await b.gone('listitem', /Wick Four is sent to on channel 10/);
  });

  it('leads from a finding to the unit that it is about', async () => {
    await b.click('link', 'Dry run');
    await b.find('table', 'Songs of the set');
    await openFindings();
    const unit = await b.driver.findElement(
      By.xpath(
        '//*[@role="dialog"]//li[contains(., "Lost Lamp has no cable from a port")]//a[text()="Go to the unit"]',
      ),
    );
    await unit.click();
    await b.gone('dialog', 'Findings');
    await b.find('region', 'Settings of Lost Lamp');
  });

  it('is run as a set, and each song tells what it has', async () => {
    await b.click('link', 'Dry run');
    await b.wait(async () => !(await b.text('table')).includes('…'), 'all are run');
    await b.wait(async () => (await b.text('main')).includes('up to date with every edit'), 'all is proven');
    await openFindings();
    let shown = 0;
    while ((await found()).length > shown) {
      shown = (await found()).length;
      for (const more of await b.driver.findElements(
        By.xpath('//*[@role="dialog"]//button[starts-with(., "Show ")]'),
      )) {
        await more.click();
      }
    }
    const all = (await found()).join('\n');
    for (const words of [
      'ms late, because',
      'want different things of',
      'two sweeps move',
      'a ramp runs through',
      'past the last of',
      'stays on after its sweep',
      'the same cue stands there twice',
      'does not take the tempo of',
      'should ring out, but is cut',
      'is left as the song before left it',
      'means nothing to',
    ]) {
      expect(all, words).toContain(words);
    }
    // The gravest first: what cannot land stands above what is only worth a look.
    expect(all.indexOf('ms late, because')).toBeLessThan(all.indexOf('should ring out, but is cut'));
    await b.type(Key.ESCAPE);
    await b.gone('dialog', 'Findings');
  });

  it('is mended song by song, and run again by itself after each press', async () => {
    await b.click('link', 'Early Gull');
    await b.says('list', 'Findings', 'ms late, because');
    await b.click('button', /^Move it .* ms later$/);
    await b.says('list', 'Findings', /^(?!.*ms late)/s);
    await b.click('link', 'Dry run');
    await b.click('link', 'Cross Sea');
    await b.click('button', 'End the first where the second begins');
    await b.says('list', 'Findings', /^(?!.*two sweeps)/s);
    // Every press is an edit like any other.
    await b.find('button', /^Undo: end the first/);
  });
});
