import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { parseMidi } from 'midi-file';
import { describe, expect, it } from 'vitest';
import { begin, openDemo } from './begin';
import { Key } from './browser';

describe('from an empty browser to a proven song', () => {
  const { b } = begin();

  it('opens the demo show and sees a unit in its own labels', async () => {
    await openDemo(b);
    await b.click('link', 'Map');
    await b.find('grid', 'Slots of Quillback');
    await b.find('gridcell', 'A3 Harbour Clean');
    await b.find('gridcell', 'H6 Fog Lead');
  });

  it('counts from 0, from 1, or as the unit does', async () => {
    await b.click('radio', 'from 0');
    await b.says('gridcell', 'H6 Fog Lead', '0·047');
    await b.click('radio', 'from 1');
    await b.says('gridcell', 'H6 Fog Lead', '1·048');
    await b.click('radio', 'as labelled');
    await b.says('gridcell', 'H6 Fog Lead', 'H6');
  });

  it('sends what is pressed, and the lamp shows it', async () => {
    await b.click('gridcell', 'H6 Fog Lead');
    await b.type(' ');
    await b.says('listitem', 'Quillback', 'H6');
    // The relay rule of Fog Lead takes the amplifier along.
    await b.says('listitem', 'Oxbow Forty', 'state 4');
  });

  it('names a preset by keyboard alone', async () => {
    await b.type(Key.ARROW_DOWN, 'Winter Gull', Key.ENTER);
    await b.find('gridcell', 'I6 Winter Gull');
    await b.click('gridcell', 'I6 Winter Gull');
    await b.says('region', 'Chosen slot', 'program 53');
  });

  it('makes a tone of it', async () => {
    await b.click('button', 'Make a tone of it');
    const name = await b.find('textbox', 'Tone');
    await b.wait(async () => (await name.getAttribute('value')) === 'Winter Gull', 'the tone has the preset’s name');
  });

  it('puts it on bar 17 by keyboard, and has it proven by itself', async () => {
    await b.click('link', 'Chart');
    await b.find('group', 'Chart of Slack Tide in Seven');
    await b.type('b');
    await b.fill('textbox', /^Bar\|beat/, `17${Key.ENTER}`);
    await b.type('winter', Key.ENTER);
    await b.find('button', '17|1 Winter Gull, proven');
    await b.says('region', 'Chosen cue', /is there on time/);
  });

  it('plays without hardware: the lamp changes at bar 17', async () => {
    // Far enough ahead that a slow machine still sees what is on before it.
    await b.fill('textbox', /^Bar\|beat/, `12|1${Key.ENTER}`);
    await b.type(Key.ESCAPE);
    await b.click('button', 'Play');
    await b.says('listitem', 'Quillback', 'B1');
    await b.says('listitem', 'Quillback', 'I6');
    await b.says('listitem', 'Quillback', 'Winter Gull');
    await b.click('button', 'Stop');
    await b.find('button', 'Play');
  });

  it('places by mouse as well, and takes it back', async () => {
    await b.click('button', /^25\|1 Ledger Rhythm/);
    await b.click('button', 'Close');
    await b.find('region', 'The rig here');
    const chart = await b.find('group', 'Chart of Slack Tide in Seven');
    const line = await b.driver.executeScript<{ x: number; y: number }>(
      `const l = arguments[0].querySelectorAll('[data-chart-line]')[1].getBoundingClientRect();
       return { x: Math.round(l.left + 5), y: Math.round(l.bottom - 30) };`,
      chart,
    );
    await b.driver
      .actions()
      .move({ ...line, origin: 'viewport' as never })
      .click()
      .perform();
    await b.fill('combobox', 'Tone', `rope burn${Key.ARROW_DOWN}${Key.ENTER}`);
    await b.says('dialog', undefined, 'Ledger Rhythm stands at 9|1.');
    await b.click('button', 'Have both');
    await b.find('button', /^9\|1 Rope Burn/);
    await b.click('button', 'Undo: place Rope Burn');
    await b.gone('button', /^9\|1 Rope Burn/);
  });

  it('exports a Standard MIDI File that another reader understands', async () => {
    await b.click('button', 'MIDI file');
    await b.click('menuitem', /^As written/);
    await b.wait(async () => readdirSync(b.downloads).some((n) => n.endsWith('.mid')), 'the file arrives');
    const name = readdirSync(b.downloads).find((n) => n.endsWith('.mid'))!;
    const file = parseMidi(readFileSync(join(b.downloads, name)));
    const names = file.tracks.map((t) => t.find((e) => e.type === 'trackName')?.text);
    expect(names).toEqual([
      'Slack Tide in Seven',
      'Quillback',
      'Harrow',
      'Thistle Echo',
      'Marram',
      'Tarn',
      'Wick Four',
    ]);
    let tick = 0;
    const programs = file.tracks[1]!.flatMap((e) => {
      tick += e.deltaTime;
      return e.type === 'programChange' ? [[tick, e.programNumber]] : [];
    });
    // Bar 17 of 7/8 at 960 a quarter; I6 is program 53.
    expect(programs).toContainEqual([16 * 7 * 480, 53]);
  });

  it('finds everything again after a reload', async () => {
    await b.says('status', undefined, 'Saved in this browser');
    await b.driver.navigate().refresh();
    await b.find('button', '17|1 Winter Gull, proven');
    await b.click('link', 'Map');
    await b.find('gridcell', 'A3 Harbour Clean');
    await b.fill('combobox', 'Go to', 'winter');
    await b.type(Key.ARROW_DOWN, Key.ENTER);
    await b.find('gridcell', 'I6 Winter Gull');
  });
});
