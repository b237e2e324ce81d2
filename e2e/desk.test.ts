import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { begin, chooseFile, openDemo, openShelf, openShowFacts } from './begin';
import { By, Key } from './browser';

const { b, folder } = begin();

/** Gives a file to the file field, as choosing it in the dialog would. */
async function choose(name: string, data: string | Uint8Array): Promise<void> {
  writeFileSync(join(folder, name), data);
  await chooseFile(b, join(folder, name));
}

describe('a show from nothing', () => {
  it('begins with a unit from the library', async () => {
    await openShelf(b);
    await b.click('button', 'New show');
    await b.find('heading', 'No songs yet');
    await b.click('link', 'Map');
    await b.find('heading', 'No units yet');
    await b.click('button', 'Add a unit');
    await b.click('button', 'Add the unit');
    await b.says('alert', undefined, 'Enter a name for the unit.');
    await b.fill('textbox', 'Name', 'Sandbar');
    await b.click('button', 'Add the unit');
    await b.find('grid', 'Slots of Sandbar');
    await b.find('listitem', 'Sandbar');
  });

  it('types a list of presets by keyboard alone', async () => {
    await b.click('gridcell', 'A1');
    await b.type('Low Tide', Key.ENTER);
    await b.find('gridcell', 'A1 Low Tide');
    await b.type('High Tide', Key.ENTER);
    await b.find('gridcell', 'A2 High Tide');
    await b.type('Wrong', Key.ESCAPE);
    await b.find('gridcell', 'A3');
    await b.type(Key.chord(Key.CONTROL, 'z'));
    await b.find('gridcell', 'A2');
    await b.click('button', 'Redo: name A2');
    await b.find('gridcell', 'A2 High Tide');
  });

  it('makes a tone, refuses a slot that is not there, takes one by a part of its name', async () => {
    await b.click('link', 'Tones');
    await b.click('button', 'Add the first tone');
    await b.click('button', 'Include Sandbar');
    await b.fill('combobox', 'Preset', `Z9${Key.ENTER}`);
    await b.says('alert', undefined, 'Sandbar has no preset "Z9"');
    await b.fill('combobox', 'Preset', `high${Key.ENTER}`);
    const slot = await b.find('combobox', 'Preset');
    await b.wait(async () => (await slot.getAttribute('value')) === 'A2 High Tide', 'the slot is taken');
    await b.says('region', 'Sandbar', 'B0 00 00 · C0 01');
    await b.fill('textbox', 'Tone', `Tide${Key.ENTER}`);
    await b.find('link', /^not proven Tide/);
  });

  it('adds a song, refuses a metre that is none', async () => {
    await b.click('link', 'Chart');
    await b.click('button', 'Add a song');
    await b.fill('textbox', 'Title', 'First Light');
    await b.fill('textbox', 'Metre', '7/9');
    await b.click('button', 'Add the song');
    await b.says('alert', undefined, 'Metre: beats/unit, as in 7/8');
    await b.fill('textbox', 'Metre', '5/8');
    await b.click('button', 'Add the song');
    await b.find('group', 'Chart of First Light');
  });

  it('writes the chart by keyboard alone', async () => {
    await b.type('b');
    await b.fill('textbox', /^Bar\|beat/, `3|2${Key.ENTER}`);
    await b.type('tide', Key.ENTER);
    const flag = await b.find('button', '3|2 Tide, proven');
    await flag.sendKeys(Key.chord(Key.ALT, Key.ARROW_RIGHT));
    const moved = await b.find('button', '3|3 Tide, proven');
    await moved.sendKeys(Key.DELETE);
    await b.gone('button', /Tide/);
    await b.type(Key.chord(Key.CONTROL, 'z'));
    await b.find('button', '3|3 Tide, proven');
    await b.fill('textbox', /^Bar\|beat/, `99${Key.ENTER}`);
    await b.says('alert', undefined, 'There is no bar 99; the song has bars up to 32.');
  });

  it('moves a cue with the pointer', async () => {
    const flag = await b.find('button', '3|3 Tide, proven');
    const { x, y, width } = await b.driver.executeScript<{ x: number; y: number; width: number }>(
      `const r = arguments[0].getBoundingClientRect();
       const l = arguments[0].closest('[data-chart-line]').getBoundingClientRect();
       return { x: r.left, y: r.top + 10, width: l.width };`,
      flag,
    );
    expect(width).toBeGreaterThan(300);
    const origin = 'viewport' as never;
    const to = { x: Math.round(x + 200), y: Math.round(y), origin };
    await b.driver
      .actions()
      .move({ x: Math.round(x + 12), y: Math.round(y), origin })
      .press()
      .move({ x: Math.round(x + 80), y: Math.round(y), origin })
      .move({ ...to, x: to.x + 12 })
      .release()
      .perform();
    await b.find('button', /^[4-9]\|\d Tide, proven/);
    await b.click('button', 'Undo: move a cue');
    await b.find('button', '3|3 Tide, proven');
  });

  it('says why a cue fails, and lights it when it is mended', async () => {
    await b.fill('textbox', /^Bar\|beat/, `1${Key.ENTER}`);
    await b.type('tide', Key.ENTER);
    await b.find('button', '1|1 Tide, proven');
    await b.click('button', '3|3 Tide, proven');
    await b.says('region', 'Chosen cue', 'Sandbar is like this already.');
  });

  it('exports the show and opens it again elsewhere', async () => {
    await openShowFacts(b);
    await b.click('button', 'Export show');
    const text = readFileSync(await b.downloaded('new-show.json'), 'utf8');
    expect(JSON.parse(text)).toMatchObject({ format: 'hollow-lantern-show', version: 11, title: 'New show' });
    await openShelf(b);
    await choose('again.json', text);
    await b.says('alert', undefined, 'This show is in this browser already');
    await b.click('button', 'Open as a copy');
    await b.find('heading', 'The set');
    await b.click('link', 'First Light');
    await b.find('button', '3|3 Tide, proven');
  });
});

describe('files that are not shows', () => {
  it('are refused with a sentence and the place, and nothing is stored', async () => {
    await openShelf(b);
    await b.find('heading', 'Your shows');
    const count = async () => (await b.driver.findElements(By.css('[aria-label=Shows] li'))).length;
    const before = await count();
    await choose('broken.json', '{\n "format": ');
    await b.says('alert', undefined, /broken\.json was not opened\. line 2, column \d+: The file is not valid JSON/);
    await choose('cut.mid', new Uint8Array([77, 84, 104, 100, 0, 0, 0, 6, 0, 0, 0, 1, 0, 0]));
    await b.says('alert', undefined, 'cut.mid was not opened. byte 12: The file divides a quarter note into 0 ticks');
    expect(await count()).toBe(before);
  });

  it('of MIDI open as plain units', async () => {
    const track = [0, 0xc4, 9, 0x83, 0x60, 0xb4, 7, 100, 0, 0xff, 0x2f, 0];
    const file = Array.from('MThd')
      .map((c) => c.charCodeAt(0))
      .concat(
        [0, 0, 0, 6, 0, 0, 0, 1, 1, 0xe0],
        Array.from('MTrk').map((c) => c.charCodeAt(0)),
        [0, 0, 0, track.length],
        track,
      );
    await choose('found.mid', Uint8Array.from(file));
    await b.click('link', 'found');
    await b.find('group', 'Chart of found');
    await b.says('region', 'The rig here', '009');
    await b.find('combobox', 'Tone');
    await b.click('link', 'Set');
    await b.find('heading', 'The set');
    await b.find('image', 'proven');
  });
});

describe('two tabs on one show', () => {
  it('follow each other, and never write over each other silently', async () => {
    await openDemo(b);
    await openShowFacts(b);
    const address = await b.driver.getCurrentUrl();
    const first = await b.driver.getWindowHandle();
    await b.newWindow();
    await b.go(address);
    const second = await b.driver.getWindowHandle();
    await b.fill('textbox', 'Title of the show', `Summer Pier${Key.ENTER}`);
    await b.says('status', undefined, 'Saved in this browser');
    await b.toWindow(first);
    await b.find('link', /Summer Pier/);
    // Both tabs edit what the other has not seen yet.
    await b.driver.executeScript(
      'window.heldUp = IDBObjectStore.prototype.put; IDBObjectStore.prototype.put = function () { throw new DOMException("held up"); };',
    );
    await b.fill('textbox', 'Title of the show', `Autumn Pier${Key.ENTER}`);
    await b.says('status', undefined, 'Not saved');
    await b.toWindow(second);
    await b.fill('textbox', 'Title of the show', `Spring Pier${Key.ENTER}`);
    await b.says('status', undefined, 'Saved in this browser');
    await b.toWindow(first);
    await b.driver.executeScript('IDBObjectStore.prototype.put = window.heldUp;');
    await b.fill('textbox', 'Title of the show', `Late Autumn Pier${Key.ENTER}`);
    await b.says('alert', undefined, 'Another tab saved this show');
    await b.click('button', 'Keep mine as a copy');
    await b.find('link', /Late Autumn Pier \(copy\)/);
    await b.toWindow(second);
    await b.find('link', /Spring Pier/);
  });
});
