import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addSong, addUnit, namePresets, newShow, placeAt } from './begin';
import { Browser, Key } from './browser';

let b: Browser;
beforeAll(async () => {
  b = await Browser.open();
});
afterAll(async () => {
  await b.close();
});

describe('times that vary', () => {
  it('are measured in a walk through the presets of a stand-in, and stay a guess on the map', async () => {
    await newShow(b);
    await addUnit(b, 'Skerry');
    await namePresets(b, 'A1', 'Calm', 'Storm');
    await b.click('link', 'Timing and behaviour');
    await b.find('textbox', /^From a program change to the sound: a guess/);
    await b.click('button', 'Walk and measure');
    await b.click('button', 'Start');
    await b.find('button', 'Add 2 to the map');
    await b.says('table', 'Times of presets', /Calm/);
    await b.click('button', 'Add 2 to the map');
    await b.click('link', 'Presets');
    await b.click('gridcell', /Calm$/);
    await b.find('textbox', /^From the program change to the sound \(ms\): a guess/);
  });

  it('are refused where the worst is below the typical', async () => {
    await b.click('link', 'Timing and behaviour');
    await b.fill('textbox', /^Until it listens again/, `40-20${Key.ENTER}`);
    await b.says('region', 'Times', 'it cannot be below the first');
    await b.fill('textbox', /^Until it listens again/, `40-55${Key.ENTER}`);
    await b.find('textbox', /^Until it listens again after one: typed/);
  });

  it('are drawn on a thousand nights, of which each can be opened', async () => {
    // A slow unit of which nobody knows more than a guess: on some nights it is slower than anybody allows for.
    await addUnit(b, 'Cormorant', /^Harmoniser$/);
    await namePresets(b, '001', 'Thirds', 'Fifths');
    await b.click('link', 'Chart');
    await addSong(b, 'Force Nine', '140');
    await placeAt(b, '3', 'cormorant 001');
    await placeAt(b, '5', 'cormorant 002');
    await b.says('region', 'Chosen cue', /Up to \d+\.\d ms slower, then it is late/);
    await b.click('link', 'Dry run');
    await b.says('region', 'What the lanterns stand on', /Cormorant/);
    await b.click('button', 'Play 1,000 nights');
    await b.wait(
      async () => (await b.text('[aria-label="A thousand nights"]')).includes('of 1,000'),
      'nights are played',
    );
    await b.click('link', 'Force Nine');
    await b.says('region', 'On a thousand nights', /All of the song lands on [\d,]+ of 1,000 nights/);
    await b.click('button', /^Open night \d+: Cormorant/);
    await b.says('region', 'The night that is open', 'as it went');
    await b.find('image', /^Cormorant was there from/);
    await b.click('button', 'Back to the plan');
    await b.gone('region', 'The night that is open');
    expect(await b.text('main')).toContain('land on their beat');
  });
});
