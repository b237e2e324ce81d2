import { describe, expect, it } from 'vitest';
import { begin, openDemo } from './begin';
import { By, Key } from './browser';

// Each part goes on where the one before it stopped.
const { b } = begin();

/** Every press that was made; a chord is one. */
let presses = 0;
const type = async (...keys: readonly string[]): Promise<void> => {
  for (const key of keys) {
    presses += key === Key.ENTER || key === Key.TAB ? 1 : key.length;
    await b.type(key);
  }
};
/** The whole structure as text, in the panel beside the chart. */
async function openText(): Promise<void> {
  await b.click('radio', 'Structure');
  await b.find('region', 'Song structure');
  await (await b.driver.findElement(By.xpath("//summary[. = 'Structure as text']"))).click();
  await b.find('textbox', 'Structure as text');
}

const line = (text: string): Promise<void> => type(text, Key.ENTER);

describe('a song of 64 bars', () => {
  it('is written by keyboard alone in under 120 presses: its structure and ten cues', async () => {
    await openDemo(b);
    await b.press('button', 'Add a song', '');
    await type(Key.ENTER);
    await b.find('dialog', 'Add a song');
    await type('R', Key.TAB, Key.TAB, Key.TAB, '64', Key.ENTER);
    await b.find('group', 'Chart of R');
    await type('b');
    for (const text of ['17 7/8', '25 4/4', '41 ramp 120 to 60', '1 A', '9 B', '17 C', '25 D', '33 E', '41 F']) {
      await line(text);
    }
    const bars = ['1', '5', '9', '13', '17', '21', '25', '29', '33', '37'];
    for (const [i, bar] of bars.entries()) {
      await line(bar);
      await line(i % 2 === 0 ? 'u' : 'f');
    }
    // Lines of the chart that are out of sight are not drawn.
    for (const bar of bars.slice(-2)) await b.find('button', new RegExp(`^${bar}\\|1 .*, proven`));
    expect(presses).toBeLessThan(120);
    await openText();
    const field = await b.find('textbox', 'Structure as text');
    expect((await field.getAttribute('value'))!.split('\n')).toEqual([
      '1 4/4',
      '1 tempo 120',
      '1 A',
      '9 B',
      '17 7/8',
      '17 C',
      '25 4/4',
      '25 D',
      '33 E',
      '41 ramp 120 to 60 until 64',
      '41 F',
      '64 tempo 60',
    ]);
  });

  it('has what is wrong with a line said, and the line kept', async () => {
    await b.fill('textbox', /^Bar\|beat/, `17 7/9${Key.ENTER}`);
    await b.says('alert', undefined, /"7\/9" is not a metre/);
    await b.fill('textbox', /^Bar\|beat/, `9 move to 99${Key.ENTER}`);
    await b.says('alert', undefined, /There is no bar 99/);
    await b.fill('textbox', /^Bar\|beat/, `17${Key.ENTER}`);
    // The list of tones is open now.
    await b.type(Key.ESCAPE);
  });

  it('is rewritten as text: what is gone from it is gone from the song, with one undo', async () => {
    await b.fill('textbox', 'Structure as text', '1 4/4\n1 tempo 120\n1 A\n9 B\n17 nonsense 7/\n33 = 40');
    await b.click('button', 'Take these lines');
    await b.find('button', 'Undo: rewrite the structure');
    await b.wait(
      async () =>
        (await (await b.find('textbox', 'Structure as text')).getAttribute('value'))?.startsWith('1 4/4\n33 = 40') ??
        false,
      'it is as written',
    );
    await b.click('button', 'Undo: rewrite the structure');
    await b.find('button', /^Redo: rewrite the structure/);
  });
});
