import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Browser, By, Key } from './browser';
import { arrive, injectMidi, plug } from './standInMidi';

/** Takes one picture of each main view, from the demo show, into docs/screenshots. */
async function pictures(address: string): Promise<void> {
  const folder = fileURLToPath(new URL('../docs/screenshots/', import.meta.url));
  mkdirSync(folder, { recursive: true });
  const b = await Browser.open();
  const still = (name: string): Promise<void> => b.picture(join(folder, `${name}.png`));
  try {
    await injectMidi(b);
    await b.go(address);
    await b.find('button', 'Open the demo show');
    await b.driver.executeScript('return document.fonts.ready');
    await still('shelf');
    await b.click('button', 'Open the demo show');
    await b.find('link', /^Winter Pier Residency/);
    await b.wait(
      async () => (await b.driver.findElement({ css: 'header' }).getText()).includes('set proven'),
      'the set is proven',
    );
    await still('book');
    await b.click('link', 'Set');
    await b.find('grid', 'Running order');
    await b.click('row', /^Fog Bell/);
    await b.find('complementary', 'Chosen entry');
    await b.click('button', 'Play The Rope Ledger now');
    await b.click('button', 'Play Nine Fathoms next');
    await b.find('button', 'Stop');
    await b.says('listitem', 'Quillback', 'A3');
    await still('set');
    await b.click('link', 'Mix');
    await b.find('table', 'Mix sheet');
    await still('mix');
    await b.click('link', 'Stage');
    await b.find('figure', 'Way to the next change');
    await b.wait(
      async () => (await b.driver.findElement(By.css('[aria-label="Bar"]')).getText()) === '3',
      'the song is on its way',
    );
    await still('stage');
    await b.click('button', 'Stop');
    await b.find('button', 'Start, hold');
    await b.driver.navigate().back();
    await b.find('table', 'Mix sheet');
    await b.click('link', 'Rig');
    await b.click('button', /^Quillback channel/);
    await b.find('region', 'Settings of Quillback');
    await still('rig');
    await b.click('link', 'Ports');
    await b.click('button', "Use this computer's ports");
    await plug(b, 'Grey box');
    await plug(b, 'Foot board');
    await b.pick(/Rack sends to$/, 'Grey box');
    await b.pick(/Feet hears$/, 'Foot board');
    await arrive(b, 'Foot board', 0xbe, 80, 127);
    await b.says('table', "This computer's ports", 'control 80 = 127');
    await still('ports');
    await b.click('link', 'Reactions');
    await b.click('button', /^Next change/);
    await b.click('button', 'Switch 1 of Treadle Ten');
    await b.says('status', 'Its way', /tone Fog Lead; it goes no further/);
    await still('reactions');
    await b.click('link', 'Map');
    await b.click('gridcell', 'H6 Fog Lead');
    await b.type(' ');
    await b.says('listitem', 'Oxbow Forty', 'state 4');
    await still('map');
    await b.click('button', 'Import list');
    const list = ['A3;Harbour Clean', 'B1;Fog Lead', 'B4;Rope Burn!', 'C1;Undertow Baritone', 'H6;Ledger Rhythm'];
    await b.press('textbox', /^Names one below the other/, list.join('\n'));
    await b.click('radio', /^The list as it is in the unit now/);
    await b.click('button', 'Compare with the map');
    await b.find('table', 'Before and after');
    await still('reorder');
    await b.type(Key.ESCAPE);
    await b.click('link', 'Harrow');
    await b.click('link', 'Controls');
    await b.click('button', 'Interval');
    await b.find('region', 'Control Interval');
    await still('map-controls');
    await b.click('link', 'Tones');
    await b.click('gridcell', /^Fog Lead, Quillback/);
    await b.find('region', 'Tone Fog Lead');
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
    await b.fill('textbox', /^Bar\|beat/, `13|4.25${Key.ENTER}`);
    await b.type('fog', Key.ENTER);
    await b.find('button', '13|4.25 Fog Lead, fails');
    await b.says('region', 'Chosen cue', 'ms late');
    await still('chart-cracked');
    await b.click('link', /findings: to the dry run$/);
    await b.find('region', 'The chosen change');
    await b.pick(/Compare with$/, /before: place Fog Lead/);
    await b.find('list', 'Changes that land otherwise');
    await still('dry-run');
    await b.click('button', 'Undo: place Fog Lead');
    await b.click('link', 'Tones');
    await b.click('link', 'Chart');
    await b.click('radio', 'Sound');
    await still('sound');
    await b.click('link', 'Feet');
    await b.click('button', /Slack Tide/);
    await b.click('button', /^Switch 1: Fog Lead/);
    await b.find('region', 'Without the computer');
    await still('feet');
    await b.click('link', 'Without computer');
    await b.find('table', /^Steps of Slack Tide/);
    await still('by-foot');
    await b.click('link', 'Files');
    await b.find('article', 'Cue sheet: Slack Tide in Seven');
    await still('files');
  } finally {
    await b.close();
  }
}

await pictures(process.argv[2] ?? 'http://127.0.0.1:4173/');
