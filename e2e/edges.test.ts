import { beforeAll, describe, expect, it } from 'vitest';
import { begin, goTo, openDemo, placeAt } from './begin';
import { By, Key } from './browser';

const { b } = begin();
beforeAll(async () => {
  await openDemo(b);
});

const all = Key.chord(Key.CONTROL, 'a');

describe('a new song', () => {
  const attempt = async (title: string, tempo: string, metre: string, bars: string): Promise<void> => {
    await b.fill('textbox', 'Title', title);
    for (const [name, text] of [
      [/^Tempo/, tempo],
      [/^Metre/, metre],
      [/^Bars/, bars],
    ] as const) {
      await b.fill('textbox', name, text);
    }
    await b.type(Key.ENTER);
  };

  it('says what is wrong with its frame, and keeps what was typed', async () => {
    await b.click('button', 'Add a song');
    await attempt('Edge Song', '401', '4/4', '8');
    await b.says('alert', undefined, 'Tempo: 20 to 400 quarter notes a minute, not "401".');
    await attempt('Edge Song', '19', '4/4', '8');
    await b.says('alert', undefined, 'not "19"');
    await attempt('Edge Song', '120', '5/33', '8');
    await b.says(
      'alert',
      undefined,
      'Metre: beats/unit, as in 7/8, with 1 to 64 beats of 1, 2, 4, 8, 16, 32, 64, 128; not "5/33".',
    );
    await attempt('Edge Song', '120', '1/32', '0');
    await b.says(
      'alert',
      undefined,
      'Bars: a whole number from 1 to 2000, or nothing for a song without an end; not "0".',
    );
    const title = await b.find('textbox', 'Title');
    expect(await title.getAttribute('value')).toBe('Edge Song');
  });

  it('may be of the shortest bars and the slowest tempo there are', async () => {
    await attempt('Edge Song', '20', '1/32', '1');
    await b.find('group', 'Chart of Edge Song');
    await b.click('link', 'Set');
    await b.click('button', 'Add a song');
    await attempt('Quick Song', '400', '4/4', '12');
    await b.find('group', 'Chart of Quick Song');
  });
});

describe('the frame of a song', () => {
  it('refuses a tempo, a metre and a length that cannot be, in place', async () => {
    await b.click('radio', 'Structure');
    await b.find('region', 'Song structure');
    await b.press('textbox', 'BPM', all, '500', Key.ENTER);
    await b.says('alert', undefined, 'Expected 20 to 400.');
    await b.press('textbox', 'BPM', all, '120', Key.ENTER);
    await b.gone('alert');
    await b.press('textbox', 'From bar 1', all, '4/5', Key.ENTER);
    await b.find('alert');
    await b.press('textbox', 'From bar 1', all, '4/4', Key.ENTER);
    await b.gone('alert');
    await b.press('textbox', 'Bars', all, '0', Key.ENTER);
    await b.find('alert');
    await b.press('textbox', 'Bars', all, '12', Key.ENTER);
    await b.gone('alert');
    await b.click('button', 'Close song structure');
  });

  it('keeps a cue where it is when the song is cut short, and says so', async () => {
    await placeAt(b, '10', 'fog lead');
    await b.find('button', /^10\|1 Fog Lead/);
    await b.click('radio', 'Structure');
    await b.press('textbox', 'Bars', all, '8', Key.ENTER);
    await b.find('button', 'Undo: change the length');
    await b.click('link', /findings?: to the dry run$/);
    await b.says('list', 'Findings', 'something stands at 10|1, past the last of 8 bars');
    await b.click('button', 'Make the song longer');
    await b.says('list', 'Findings', /^(?!.*past the last)/s);
    await b.click('link', 'Chart');
    await b.find('button', /^10\|1 Fog Lead/);
  });
});

describe('things that get in each other’s way', () => {
  it('are two sweeps of one control: told at the sweep, and ended where the other begins', async () => {
    await goTo(b, '3');
    await b.addSweep('Quillback: Delay mix');
    await b.fill('textbox', 'To bar|beat', `6${Key.ENTER}`);
    await goTo(b, '5');
    await b.addSweep('Quillback: Delay mix');
    await b.says('region', 'Chosen sweep', 'two sweeps move Delay mix of Quillback at once');
    await b.click('button', 'End the first where the second begins');
    await b.says('region', 'Chosen sweep', /^(?!.*two sweeps)/s);
  });

  it('are two tones on one beat: told at the cue, and one of them taken away', async () => {
    await goTo(b, '2');
    await placeAt(b, '2', 'undertow');
    await placeAt(b, '2', 'fog lead');
    await b.click('button', 'Have both');
    await b.says('region', 'Chosen cue', /Undertow and Fog Lead want different things of Quillback on one beat/);
    await b.click('button', 'Take Undertow away');
    await b.gone('button', /^2\|1 Undertow/);
    await b.find('button', /^2\|1 Fog Lead/);
  });

  it('are a cue that stands there twice', async () => {
    await placeAt(b, '7', 'harbour clean');
    await placeAt(b, '7', 'harbour clean');
    await b.click('button', 'Have both');
    await b.says('region', 'Chosen cue', 'the same cue stands there twice');
    await b.click('button', 'Take one away');
    await b.gone('button', 'Take one away');
    expect(await b.driver.findElements(By.css('button[aria-label^="7|1 Harbour Clean"]'))).toHaveLength(1);
  });
});

describe('a place that is not in the song', () => {
  it('is refused where it is typed, with what is wrong', async () => {
    await b.fill('textbox', /^Bar\|beat/, `77${Key.ENTER}`);
    await b.find('alert');
    await b.fill('textbox', /^Bar\|beat/, `3|9${Key.ENTER}`);
    await b.find('alert');
    await b.fill('textbox', /^Bar\|beat/, `3|2${Key.ENTER}`);
    await b.type(Key.ESCAPE);
    await b.gone('alert');
  });
});
