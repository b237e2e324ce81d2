import { describe, expect, it } from 'vitest';
import { begin, goTo, openDemo, openShelf } from './begin';
import { Key } from './browser';

// Each part goes on where the one before it stopped.
const { b } = begin();

/** What has the keyboard, by what a screen reader says of it. */
const hasKeys = async (name: string): Promise<void> =>
  b.wait(
    async () =>
      (await b.driver.executeScript<string>(
        'const e = document.activeElement; return e.getAttribute("aria-label") ?? e.labels?.[0]?.innerText ?? "";',
      )) === name,
    `${name} has the keyboard`,
  );

describe('the keyboard', () => {
  it('is with the name of what was made, and Escape gives it back to the sheet', async () => {
    await openDemo(b);
    await b.click('link', 'Tones');
    await b.click('button', 'New tone');
    await hasKeys('Tone');
    await b.type('Low Sun', Key.ENTER, Key.ESCAPE);
    await hasKeys('Low Sun in no song yet');
    // Up to Held Breath, into the cell of Quillback, and to its fields.
    await b.type(Key.ARROW_UP, Key.ARROW_RIGHT, Key.ENTER);
    await hasKeys('Preset');
    await b.type('h6', Key.ARROW_DOWN, Key.ENTER);
    await b.find('button', 'Undo: choose a slot of Quillback');
    // What comes next is the scene; controls that the tone does not set are folded.
    await b.type(Key.ENTER);
    await b.find('option', 'as it is');
    await b.type(Key.ESCAPE);
    await b.find('button', '7 more controls');
  });

  it('leaves a field of the chart too, and goes to the section that was added', async () => {
    await b.click('link', 'Chart');
    await b.find('group', 'Chart of Slack Tide in Seven');
    await goTo(b, '3');
    await b.type(Key.ESCAPE);
    await hasKeys('Chart of Slack Tide in Seven');
    await b.click('radio', 'Structure');
    await b.click('button', 'Section at bar 3');
    await b.type('Undertow', Key.ENTER);
    await b.find('group', 'Section Undertow');
  });

  it('goes on with a line of the structure that is begun', async () => {
    await b.fill('textbox', /^Bar\|beat/, '17 t');
    await b.says('group', 'Ways to go on', '17 tempo 126');
    await b.type(Key.ARROW_DOWN, Key.ENTER);
    await hasKeys('Bar|beat B');
    await b.type(Key.BACK_SPACE, Key.BACK_SPACE, Key.BACK_SPACE, '96', Key.ENTER);
    await b.find('button', 'Undo: write 17 tempo 96');
    await b.gone('group', 'Ways to go on');
  });
});

describe('what is out of sight', () => {
  it('is named when it is taken back, and done again', async () => {
    await b.click('link', 'Rig');
    await b.find('group', 'Drawing of the rig');
    await b.type(Key.chord(Key.CONTROL, 'z'));
    await b.says('status', 'Note', 'Taken back: write 17 tempo 96, in the song Slack Tide in Seven.');
    await b.type(Key.chord(Key.CONTROL, Key.SHIFT, 'z'));
    await b.says('status', 'Note', 'Done again: write 17 tempo 96, in the song Slack Tide in Seven.');
  });

  it('is not what a player plays: units are ticked beside their player', async () => {
    await b.click('link', 'Players');
    await b.find('group', 'Units of Maude');
    const ticks = `[aria-label="Units of Maude"] [aria-pressed="true"]`;
    expect(await b.texts(ticks)).toEqual(['Tarn', 'Wick Four', 'Pebble'].map((n) => expect.stringContaining(n)));
    await b.driver.executeScript(
      `[...document.querySelectorAll('[aria-label="Units of Maude"] button')].find((e) => e.innerText.includes('Marram')).focus()`,
    );
    await b.type(Key.SPACE);
    await b.find('button', 'Undo: Marram is played by Maude');
    expect(await b.texts(`[aria-label="Units of Okoro"] [aria-pressed="true"]`)).toEqual([]);
  });
});

describe('a bar that the score does not print', () => {
  it('is offered as it is printed', async () => {
    await b.click('link', 'Chart');
    await b.pick(/Song, /, 'The Rope Ledger');
    await b.find('group', 'Chart of The Rope Ledger');
    await b.fill('textbox', /^Bar\|beat/, `33${Key.ENTER}`);
    await b.says('alert', undefined, 'No bar of the song is printed 33. Counted from the start, bar 33 is 5(2).');
    await b.click('button', 'Take 5(2)');
    await b.wait(async () => (await b.text('[aria-label="Position"]')) === '5(2)|1', 'the caret is there');
    await b.type(Key.ESCAPE, Key.ESCAPE);
  });
});

describe('the recordings of the demo', () => {
  it('are there to be heard, and a player who is missing has a part', async () => {
    await b.click('link', 'Set');
    await b.click('link', 'Tonight');
    await b.says('main', undefined, 'Part recorded in 1 song.');
    await b.click('link', 'Chart');
    await b.pick(/Song, /, 'Gull Arithmetic');
    await b.click('radio', 'Sound');
    for (const name of ['backing', 'bass', 'guide']) await b.find('group', `Gull Arithmetic ${name}`);
  });
});

describe('a cracked cue', () => {
  it('is offered ways at once, each with what it does to the sound', async () => {
    await openShelf(b);
    await b.click('button', 'Open the demo with faults');
    await b.find('heading', 'The set');
    await b.click('link', 'Chart');
    await b.click('button', /^5\|1 Harbour Clean, fails/);
    await b.says('region', 'Ways for Wick Four', 'Leave Wick Four out of it');
    await b.says('region', 'Ways for Wick Four', 'Wick Four stays as it was before');
    await b.click('button', 'Leave Wick Four out of it');
    await b.find('button', 'Undo: leave wick four out of it');
    await b.find('button', /^5\|1 Harbour Clean without Wick Four, proven/);
  });
});
