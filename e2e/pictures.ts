import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Browser, Key } from './browser';

/** Takes one picture of each main view, from the demo show, into docs/screenshots. */
async function pictures(address: string): Promise<void> {
  const folder = fileURLToPath(new URL('../docs/screenshots/', import.meta.url));
  mkdirSync(folder, { recursive: true });
  const b = await Browser.open();
  const still = (name: string): Promise<void> => b.picture(join(folder, `${name}.png`));
  try {
    await b.go(address);
    await b.find('button', 'Open the demo show');
    await b.driver.executeScript('return document.fonts.ready');
    await still('shelf');
    await b.click('button', 'Open the demo show');
    await b.click('button', 'Dry run the set');
    await b.find('link', /^Winter Pier Residency/);
    await b.wait(
      async () => (await b.driver.findElement({ css: 'header' }).getText()).includes('set proven'),
      'the set is proven',
    );
    await still('book');
    await b.click('link', 'Map');
    await b.click('gridcell', 'H6 Fog Lead');
    await b.type(' ');
    await b.says('listitem', 'Oxbow Forty', 'state 4');
    await still('map');
    await b.click('link', 'Tones');
    await b.click('link', /Fog Lead in 4/);
    await b.find('region', 'Fog Lead');
    await still('tones');
    await b.click('link', 'Chart');
    await b.find('group', 'Chart of Slack Tide in Seven');
    await b.fill('textbox', /^Bar\|beat/, `24|5${Key.ENTER}`);
    await b.type(Key.ESCAPE);
    await b.click('button', 'Play');
    await b.says('listitem', 'Quillback', 'Ledger Rhythm');
    await still('chart');
    await b.click('button', 'Stop');
    // A cue that comes right behind another has no time to land.
    await b.fill('textbox', /^Bar\|beat/, `13|4|60${Key.ENTER}`);
    await b.type('fog', Key.ENTER);
    await b.click('button', 'Dry run');
    await b.find('button', '13|4|60 Fog Lead, fails');
    await still('chart-cracked');
  } finally {
    await b.close();
  }
}

await pictures(process.argv[2] ?? 'http://127.0.0.1:4173/');
