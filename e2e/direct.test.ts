import { describe, expect, it } from 'vitest';
import { begin, goTo, openShelf, placeAt } from './begin';
import { Key } from './browser';

// One unit, from an empty show: each part goes on where the one before it stopped.
const { b } = begin();

const flag = (words: RegExp): Promise<unknown> => b.find('button', words);
const onFlag = async (words: RegExp, ...keys: string[]): Promise<void> => {
  await b.click('button', words);
  await b.press('button', words, ...keys);
};

describe('a rig of one unit', () => {
  it('is built from nothing, with two presets named', async () => {
    await openShelf(b);
    await b.click('button', 'New show');
    await b.click('link', 'Map');
    await b.click('button', 'Add a unit');
    await b.fill('textbox', 'Name', 'Sandbar');
    await b.click('button', 'Add the unit');
    await b.find('grid', 'Slots of Sandbar');
    await b.click('gridcell', 'A1');
    await b.type('Low Tide', Key.ENTER, 'Bite', Key.ENTER);
    await b.find('gridcell', 'A2 Bite');
    await b.click('link', 'Chart');
    await b.click('button', 'Add a song');
    await b.fill('textbox', 'Title', 'First');
    await b.click('button', 'Add the song');
    await b.find('group', 'Chart of First');
  });

  it('has presets and scenes placed by label, number and name, and proven, without a tone made by hand', async () => {
    await placeAt(b, '1', 'bite');
    await flag(/^1\|1 Bite, proven$/);
    await placeAt(b, '3', 'a1');
    await flag(/^3\|1 Low Tide, proven$/);
    await placeAt(b, '5', 'sandbar b3');
    await flag(/^5\|1 \S+ B3, proven$/);
    await placeAt(b, '7', 'a2 scene 2');
    await flag(/^7\|1 Bite .*2, proven$/);
    // What is placed again is the tone that was made before.
    await placeAt(b, '9', 'a2');
    await flag(/^9\|1 Bite, proven$/);
    await b.click('link', 'Tones');
    await b.says('grid', 'Tones against units', /Bite/);
    const tones = await b.textOf('grid', 'Tones against units');
    expect(tones.match(/^Bite$/gm)).toHaveLength(1);
    await b.click('link', 'Chart');
    await b.find('group', 'Chart of First');
  });

  it('has what stands at a change exchanged by typing on it; one undo takes it back', async () => {
    await onFlag(/^3\|1 Low Tide/, 'bi');
    const field = await b.find('combobox', 'Put in its place');
    expect(await field.getAttribute('value')).toBe('bi');
    await b.type(Key.ENTER);
    await flag(/^3\|1 Bite, proven$/);
    await b.click('button', 'Undo: exchange a cue');
    await flag(/^3\|1 Low Tide, proven$/);
  });

  it('keeps where and how it lands when it is exchanged in its panel', async () => {
    await b.click('button', /^3\|1 Low Tide/);
    await b.click('button', 'More');
    await b.fill('textbox', /^Shift in ms/, `-30${Key.ENTER}`);
    await b.fill('combobox', 'Put in its place', 'c1');
    await b.type(Key.ENTER);
    await flag(/^3\|1 \S+ C1/);
    const shift = await b.find('textbox', /^Shift in ms/);
    expect(await shift.getAttribute('value')).toBe('-30');
  });

  it('asks where a second tone is typed on a cue: in its place, or both', async () => {
    await placeAt(b, '1', 'a1');
    await b.says('dialog', undefined, 'Bite stands at 1|1');
    await b.click('button', 'Put it in its place');
    await flag(/^1\|1 Low Tide/);
    await b.gone('button', /^1\|1 Bite/);
    await placeAt(b, '1', 'bite');
    await b.click('button', 'Have both');
    await flag(/^1\|1 Low Tide/);
    await flag(/^1\|1 Bite/);
  });

  it('has several changes exchanged at once', async () => {
    await b.click('button', /^5\|1/);
    const second = await b.find('button', /^9\|1 Bite/);
    await b.driver.actions().keyDown(Key.SHIFT).click(second).keyUp(Key.SHIFT).perform();
    await b.fill('combobox', 'Put in their place', 'd4');
    await b.type(Key.ENTER);
    await flag(/^5\|1 \S+ D4/);
    await flag(/^9\|1 \S+ D4/);
  });

  it('has a remark at a bar: on the chart, pressed to be changed, and on stage', async () => {
    // Off the grid to which the chart snaps.
    await goTo(b, '13|1|40');
    await b.click('button', 'Close');
    await b.fill('textbox', /^A remark at 13/, `wait for the harp${Key.ENTER}`);
    await goTo(b, '2');
    await b.click('radio', 'Structure');
    await b.click('button', /^13\S* remark: wait for the harp$/);
    await b.fill('textbox', 'Remark', `wait for the bell${Key.ENTER}`);
    await b.find('button', /^13\S* remark: wait for the bell$/);
    await b.click('button', 'Play');
    await b.find('button', 'Stop');
    await b.click('link', 'Stage');
    await b.says('paragraph', 'Remark', '“wait for the bell”');
    await b.click('button', 'Stop');
    await b.driver.navigate().back();
    await b.find('group', 'Chart of First');
  });

  it('has a value placed, typed over and stepped with keys', async () => {
    await placeAt(b, '11', 'delay mix 40');
    await flag(/^11\|1 .*40/);
    await onFlag(/^11\|1 .*40/, '+', '+');
    await flag(/^11\|1 .*42/);
    await onFlag(/^11\|1 .*42/, '7', '5');
    await b.type(Key.ENTER);
    await flag(/^11\|1 .*75/);
  });
});
