import { describe, expect, it } from 'vitest';
import { begin, chooseFile, openDemo, unlock } from './begin';
import { Key } from './browser';
import { RATE, impulses } from './recordings';
import { arrive, injectMidi, plug } from './standInMidi';

// A box of faders and pads, and a band with ears: each part goes on where the one before it stopped.
const { b, folder } = begin();

/** What the card of a source says. */
const card = (name: string, text: string | RegExp): Promise<void> => b.says('group', name, text);
const fader = (value: number): Promise<void> => arrive(b, 'Fader box', 0xb0, 21, value);

describe('hands on the mix', () => {
  it('learn a fader and a switch where the levels stand', async () => {
    await injectMidi(b);
    await openDemo(b);
    await b.click('link', 'Rig');
    await b.click('link', 'Ports');
    await b.click('button', "Use this computer's ports");
    await b.find('table', 'Ports');
    await plug(b, 'Fader box');
    await b.pick(/Pads input$/, 'Fader box');
    await b.click('link', 'Set');
    await b.click('link', 'Mix');
    await b.click('button', 'Learn a fader for Click');
    for (const value of [30, 31, 32, 30]) await fader(value);
    await b.says('status', 'Learnt', /control 21/);
    await b.click('button', 'Use it');
    await card('Click', /fader: CC 21/);
    await b.click('button', 'Learn a switch for Click');
    await arrive(b, 'Fader box', 0x99, 50, 100);
    await b.says('status', 'Learnt', /note/);
    await b.click('button', 'Use it');
    await card('Click', /switch: note 50/);
  });

  it('take the level over where it is, without a jump', async () => {
    await card('Click', /^(?!.*silent)[^]*\n0 dB/);
    await fader(10);
    await fader(60);
    await b.click('link', 'Tonight');
    await b.click('link', 'Mix');
    await card('Click', '0 dB');
    await fader(127);
    await card('Click', '+6 dB');
    await fader(0);
    await card('Click', 'silent');
    await fader(100);
    await card('Click', '-8 dB');
  });

  it('turn the click off and on', async () => {
    await arrive(b, 'Fader box', 0x99, 50, 100);
    await card('Click', /off/);
    await arrive(b, 'Fader box', 0x89, 50, 0);
    await arrive(b, 'Fader box', 0x99, 50, 100);
    await card('Click', /\non\n/);
  });
});

describe('a recording by a way of its own', () => {
  it('is put to a stem, which has its own outputs and level in the mix', async () => {
    await b.click('link', 'Chart');
    await b.click('radio', 'Sound');
    await chooseFile(b, impulses(folder, 'tide drums.wav', RATE, [0]));
    await b.find('group', 'tide drums');
    await b.fill('textbox', /^Stem/, `Drums${Key.ENTER}`);
    await b.find('button', 'Undo: change the stem of a recording');
    await b.click('link', 'Set');
    await b.click('link', 'Mix');
    await b.find('group', 'Drums');
    await b.pick(/Drums goes to$/, 'right');
    await card('Drums', /right/);
    await b.says('table', 'Mix sheet', /tide drums/);
  });
});

describe('ears', () => {
  it('have a mix for each person, source by source, on an output of their own', async () => {
    await b.fill('textbox', 'For whom', `Okoro${Key.ENTER}`);
    await b.says('table', 'Ear mixes', /Okoro/);
    await b.pick(/Output of Okoro’s ears$/, 'left');
    await b.fill('textbox', 'Drums for Okoro (empty: not heard)', `-3${Key.ENTER}`);
    await b.fill('textbox', 'Click for Okoro (empty: not heard)', `loud${Key.ENTER}`);
    await b.says('alert', undefined, 'Expected -60 to 12, or nothing.');
    await b.fill('textbox', 'Click for Okoro (empty: not heard)', `6${Key.ENTER}`);
    await b.find('button', 'Undo: change what Okoro hears');
  });

  it('are there again after a reload, and lose a stem that is removed', async () => {
    await b.says('status', undefined, 'Saved in this browser');
    await b.driver.navigate().refresh();
    await b.says('table', 'Ear mixes', /Okoro[^]*left/);
    const drums = await b.find('textbox', 'Drums for Okoro (empty: not heard)');
    expect(await drums.getAttribute('value')).toBe('-3');
    await b.click('button', 'Remove the stem Drums');
    await b.gone('group', 'Drums');
    await b.gone('textbox', 'Drums for Okoro (empty: not heard)');
    await b.click('button', 'Undo: remove the stem Drums');
    await b.find('textbox', 'Drums for Okoro (empty: not heard)');
  });
});

describe('no silence between the songs', () => {
  it('a sound begins by itself when a song has ended, and goes away under the next', async () => {
    await b.click('link', 'Running order');
    await b.click('button', 'Add a song');
    await b.find('dialog');
    await b.type('Kettle', Key.TAB, '240', Key.TAB, '4/4', Key.TAB, '2', Key.ENTER);
    await b.click('link', 'Set');
    await b.click('row', /^Kettle/);
    await b.find('complementary', 'Chosen entry');
    await chooseFile(b, impulses(folder, 'harbour at night.wav', RATE * 2, [0, RATE]));
    await b.says('complementary', 'Chosen entry', /harbour at night/);
    await b.says('row', /^harbour at night/, /by itself, comes round/);
    await b.click('button', 'Play Kettle now');
    await b.says('row', /^Kettle/, 'plays');
    await b.says('row', /^harbour at night/, 'plays');
    await b.says('row', /^Kettle/, 'played');
    await b.click('button', 'Play Kettle now');
    await b.says('row', /^harbour at night/, /by itself/);
    await b.says('row', /^harbour at night/, 'plays');
  });

  it('is ended and begun on stage, in one line with the other keys', async () => {
    await b.click('link', 'Stage');
    await b.click('button', 'Stop harbour at night');
    await b.click('button', 'Play harbour at night');
    await b.click('button', 'Stop harbour at night');
    await b.find('button', 'Play harbour at night');
  });

  it('is begun and ended by foot', async () => {
    await unlock(b);
    await b.click('button', 'Leave the stage');
    await b.click('link', 'Rig');
    await b.click('link', 'Reactions');
    await b.click('button', 'Add a reaction');
    // The page was loaded anew since: the box is plugged in again.
    await plug(b, 'Fader box');
    await b.click('button', 'Learn what it waits for');
    await b.find('dialog');
    await arrive(b, 'Fader box', 0x99, 52, 100);
    await b.says('status', 'Learnt', /note 52/);
    await b.click('button', 'Use it');
    await b.pick(/What$/, /^the sound between songs/);
    await b.find('button', /^the sound between songs.*note 52/s);
    await b.click('link', 'Set');
    await arrive(b, 'Fader box', 0x99, 52, 100);
    await b.says('row', /^harbour at night/, 'plays');
    await arrive(b, 'Fader box', 0x89, 52, 0);
    await arrive(b, 'Fader box', 0x99, 52, 100);
    await b.says('row', /^harbour at night/, /^(?![^]*plays)/);
  });

  it('leaves the show with its entry', async () => {
    await b.click('row', /^harbour at night/);
    await b.click('button', 'Remove from the set');
    await b.gone('row', /^harbour at night/);
    await b.click('button', 'Undo: remove an entry from the set');
    await b.find('row', /^harbour at night/);
  });
});

describe('a song without an end', () => {
  it('goes on until it is stopped, and is then as long as it was played', async () => {
    await b.click('button', 'Add a song');
    await b.find('dialog');
    await b.type('Vamp', Key.TAB, '400', Key.TAB, '4/4', Key.TAB, Key.DELETE, Key.ENTER);
    await b.find('group', 'Chart of Vamp');
    await b.click('link', 'Set');
    await b.click('button', 'Play Vamp now');
    const bar = async (): Promise<number> => Number((await b.text('[aria-label="Position"]')).split('|')[0]);
    await b.wait(async () => (await bar()) >= 13, 'it goes on behind its eight bars');
    // Loaded anew, it goes on where it was: behind its last bar.
    await b.driver.navigate().refresh();
    await b.click('button', /^Go on at bar [1-9]\d$/);
    await b.find('button', 'Stop');
    await b.wait(async () => (await bar()) >= 10, 'it goes on there');
    await b.click('button', 'Stop');
    await b.find('button', /^Undo: Vamp is [1-9]\d bars$/);
  });
});
