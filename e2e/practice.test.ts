import { describe, expect, it } from 'vitest';
import { barNow, begin, goTo, lampOf, openDemoChart, placeAt } from './begin';
import { By, Key } from './browser';

// One song, practised: each part goes on where the one before it stopped.
const { b } = begin();

const bar = (): Promise<number> => barNow(b);

describe('a stretch of bars', () => {
  it('is looped: the rig comes back with it, round after round', async () => {
    await openDemoChart(b);
    await b.click('button', 'Practice');
    await b.pick(/Loop$/, 'bars of your own');
    await b.fill('textbox', 'To the end of bar', `9${Key.ENTER}`);
    await b.fill('textbox', 'From bar', `8${Key.ENTER}`);
    await b.fill('textbox', /^Speed/, `150${Key.ENTER}`);
    await b.type(Key.ESCAPE);
    await b.find('image', 'Loop');
    await b.find('button', 'Practice, loop of bars 8–9, 150 %');
    await goTo(b, '8');
    await b.click('button', 'Play');
    for (let round = 0; round < 2; round++) {
      // Bar 9 is another preset; at the seam the rig is brought back to that of bar 8.
      await b.wait(async () => (await bar()) === 9 && (await lampOf(b, 'Quillback')).includes('B1'), 'bar 9 sounds');
      await b.wait(async () => (await bar()) === 8 && (await lampOf(b, 'Quillback')).includes('A3'), 'bar 8 is back');
    }
  });

  it('is left when the loop is taken away while it plays', async () => {
    await b.click('button', /^Practice, loop/);
    await b.pick(/Loop$/, /^none/);
    await b.type(Key.ESCAPE);
    await b.find('button', 'Practice, 150 %');
    await b.wait(async () => (await bar()) >= 10, 'the song goes on');
    await b.click('button', 'Stop');
  });

  it('says which unit is late where it comes round, and by how much', async () => {
    // A hair before the end of bar 9: too near for anything to be back on the next beat.
    await placeAt(b, '9|7|400', 'Fog Lead');
    await b.click('button', /^Practice/);
    await b.pick(/Loop$/, 'bars of your own');
    await b.fill('textbox', 'To the end of bar', `9${Key.ENTER}`);
    await b.fill('textbox', 'From bar', `9${Key.ENTER}`);
    await b.type(Key.ESCAPE);
    await goTo(b, '9');
    await b.click('button', 'Play');
    await b.click('button', /^Practice, loop of bars 9, each round begins \d+(\.\d)? ms late/);
    await b.says('alert', undefined, /^Each round begins with \w+.* \d+(\.\d)? ms late: the end of the loop leaves/);
    await b.type(Key.ESCAPE);
    await b.click('button', 'Stop');
    await b.click('button', /^Undo/);
    await b.click('button', /^Practice, loop/);
    await b.pick(/Loop$/, /^none/);
    await b.type(Key.ESCAPE);
  });

  it('says what is wrong with its bars, and keeps the loop that it had', async () => {
    await b.click('button', /^Practice/);
    await b.pick(/Loop$/, /^Slack water/);
    await b.fill('textbox', 'To the end of bar', `4${Key.ENTER}`);
    await b.says('alert', undefined, 'Bar 4 lies before bar 9');
    await b.fill('textbox', 'To the end of bar', `9000${Key.ENTER}`);
    await b.says('alert', undefined, '9000');
    await b.type(Key.ESCAPE);
    await b.find('button', 'Practice, loop of bars 9–20, 150 %');
  });
});

describe('the speed', () => {
  it('is stepped and typed, no slower than half and no faster than one and a half', async () => {
    await b.click('button', /^Practice/);
    await b.fill('textbox', /^Speed/, `20${Key.ENTER}`);
    await b.wait(
      async () => (await (await b.find('textbox', /^Speed/)).getAttribute('value')) === '50%',
      'half is the slowest',
    );
    await b.click('button', /^Increase/);
    await b.wait(
      async () => (await (await b.find('textbox', /^Speed/)).getAttribute('value')) === '55%',
      'a step is five hundredths',
    );
    await b.click('button', 'As written');
    await b.type(Key.ESCAPE);
    await b.find('button', /^Practice, loop of bars 9–20$/);
    expect(await b.driver.findElements(By.css('[aria-label="Loop"]'))).not.toEqual([]);
  });
});

describe('cues written by playing', () => {
  it('are the core tones that were pressed while the song ran: heard at once, in the chart when it stops', async () => {
    await goTo(b, '2');
    await b.click('button', /^Practice/);
    await b.pick(/Loop$/, /^none/);
    await b.type(Key.ESCAPE);
    await b.click('switch', 'Pressed core tones become cues');
    await b.says('region', 'Write by playing', 'Press Play');
    // It begins in bar 2, so that a bar alone does not say that it runs.
    await b.click('button', 'Play');
    await b.says('region', 'Write by playing', 'Press a tone here');
    await b.wait(async () => (await bar()) >= 3, 'the song runs');
    await b.type('2');
    await b.says('region', 'Write by playing', '1 tone');
    const tone = await b.find('button', /^3 /);
    const name = (await b.textOf('button', /^3 /)).replace(/^3\s+/, '');
    await tone.click();
    await b.says('region', 'Write by playing', '2 tones');
    await b.click('button', 'Stop');
    await b.find('button', 'Undo: write 2 cues by playing');
    await b.find('button', new RegExp(`^[3-8]\\|\\d ${name}`));
    await b.type(Key.chord(Key.CONTROL, 'z'));
    await b.gone('button', new RegExp(`^[3-8]\\|\\d ${name}`));
  });
});
