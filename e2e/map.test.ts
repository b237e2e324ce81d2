import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { begin, openDemo, openShelf } from './begin';
import { By, Key } from './browser';

const { b, folder } = begin();

const fieldSays = async (role: string, name: string, text: string): Promise<void> => {
  await b.wait(async () => (await (await b.find(role, name)).getAttribute('value')) === text, `${name} is ${text}`);
};

describe('a map typed by keyboard alone', () => {
  it('begins with a unit', async () => {
    await openShelf(b);
    await b.press('button', 'New show', Key.ENTER);
    await b.find('heading', 'No songs yet');
    await b.type(Key.chord(Key.ALT, '3'));
    await b.press('button', 'Add a unit', Key.ENTER);
    await b.find('dialog');
    await b.type('Sandbar', Key.ENTER);
    await b.find('grid', 'Slots of Sandbar');
  });

  it('goes on with names, each with Enter, and a series of numbers', async () => {
    await b.press('gridcell', 'A1', 'Low Tide', Key.ENTER);
    await b.find('gridcell', 'A1 Low Tide');
    await b.type('High Tide', Key.ENTER, 'Slack', Key.ENTER);
    await b.find('gridcell', 'A3 Slack');
    await b.press('button', 'Fill a run', Key.ENTER);
    await b.find('dialog');
    await b.type('Verse 08');
    await b.fill('textbox', 'How many', '4');
    await b.says('status', undefined, /A4 Verse 08 to B1 Verse 11/);
    await b.type(Key.ENTER);
    await b.find('gridcell', 'B1 Verse 11');
  });

  it('moves a run with Alt and arrows, clears one, and takes all back', async () => {
    await b.press('gridcell', 'A1 Low Tide', Key.chord(Key.SHIFT, Key.ARROW_RIGHT));
    await b.type(Key.chord(Key.ALT, Key.ARROW_DOWN));
    await b.find('gridcell', 'B1 Low Tide');
    await b.find('gridcell', 'B2 High Tide');
    await b.type(Key.chord(Key.CONTROL, 'z'));
    await b.find('gridcell', 'A2 High Tide');
    await b.press('gridcell', 'A4 Verse 08', Key.chord(Key.SHIFT, Key.ARROW_RIGHT));
    await b.type(Key.DELETE);
    await b.find('gridcell', 'A4');
    await b.find('gridcell', 'A5');
    await b.type(Key.chord(Key.CONTROL, 'z'));
    await b.find('gridcell', 'A5 Verse 09');
  });

  it('takes a pasted column, and refuses a faulty one whole, with its line', async () => {
    await b.press('button', 'Import list', Key.ENTER);
    await b.press(
      'textbox',
      /^Names one below the other/,
      'Ebb\nFlow\nSpring, neap',
      Key.chord(Key.CONTROL, 'a'),
      Key.chord(Key.CONTROL, 'c'),
      Key.ESCAPE,
    );
    await b.press('gridcell', 'C1', Key.chord(Key.CONTROL, 'v'));
    await b.find('gridcell', 'C1 Ebb');
    await b.find('gridcell', 'C3 Spring, neap');
    await b.press('button', 'Import list', Key.ENTER);
    await b.press('textbox', /^Names one below the other/, 'A1 ; One\nZ9 ; Two\nlabel,name');
    await b.find('button', 'Import names');
    await b.press(
      'textbox',
      /^Names one below the other/,
      Key.chord(Key.CONTROL, 'a'),
      'label,name\nC4,Wrack\nZ9,Nowhere',
    );
    await b.says('alert', 'About the list', 'Line 3, column 1: Sandbar has no slot "Z9"');
    expect(await (await b.find('button', 'Import names')).isEnabled()).toBe(false);
    await b.press(
      'textbox',
      /^Names one below the other/,
      Key.chord(Key.CONTROL, 'a'),
      'label,name\nC4,Wrack\nfactory B6,Glass',
    );
    await b.press('button', 'Import names', Key.ENTER);
    await b.find('gridcell', 'C4 Wrack');
  });

  it('finds and sorts in a list', async () => {
    await b.press('radio', 'List', Key.SPACE);
    await b.press('textbox', 'Filter the list', 'tide');
    await b.find('gridcell', 'A2 High Tide');
    await b.gone('gridcell', 'A3 Slack');
    await b.press('textbox', 'Filter the list', Key.chord(Key.CONTROL, 'a'), 'factory b6');
    await b.find('gridcell', 'factory B6 Glass');
    await b.press('radio', 'Grid', Key.SPACE);
    await b.find('gridcell', 'A3 Slack');
  });

  it('names a control and sees its bytes', async () => {
    await b.press('link', 'Controls', Key.ENTER);
    await b.press('button', 'Add a control', Key.ENTER);
    await b.press('textbox', 'What the unit calls it', Key.chord(Key.CONTROL, 'a'), 'Undertow', Key.ENTER);
    await b.find('button', 'Undertow');
    await b.press('textbox', 'Control number', Key.chord(Key.CONTROL, 'a'), '88', Key.ENTER);
    await b.says('group', 'Values and bytes', 'B0 58 7F');
    await b.press('textbox', 'Control number', Key.chord(Key.CONTROL, 'a'), '188', Key.ENTER);
    await b.says('alert', undefined, 'Expected a whole number from 0 to 127.');
    await b.press('textbox', 'Control number', Key.chord(Key.CONTROL, 'a'), '50', Key.ENTER);
    await b.says('region', 'Control Undertow', 'are both on control 50: whatever is sent moves both.');
  });

  it('changes an address plan with its edges in sight', async () => {
    await b.press('link', 'Address plan', Key.ENTER);
    await b.press('textbox', 'Try a label as the unit writes it', 'factory b6');
    await b.says('table', 'Edges of the plan', 'B0 00 01 · C0 03');
    await b.press('textbox', 'Programs in a bank', Key.chord(Key.CONTROL, 'a'), '100');
    await b.says('table', 'Edges of the plan', 'B0 00 01 · C0 1F');
    await b.press('button', 'Use this plan', Key.ENTER);
    await b.press('link', 'Presets', Key.ENTER);
    await b.find('gridcell', 'C4 Wrack');
    await b.press('gridcell', 'A1 Low Tide', Key.END);
    await b.says('region', 'Chosen slot', 'bank 1, program 79');
  });
});

describe('the demo rig', () => {
  it('follows a preset list that was put in another order, in two songs', async () => {
    await openDemo(b);
    await b.click('link', 'Chart');
    await b.find('group', 'Chart of Slack Tide in Seven');
    await b.click('link', 'Map');
    await b.click('button', 'Import list');
    // Fog Lead and Ledger Rhythm changed places in the unit, and one got a slightly other name.
    const now = ['A3\tHarbour Clean', 'B1\tFog Lead', 'B4\tRope Burn!', 'C1\tUndertow Baritone', 'H6\tLedger Rhythm'];
    await b.press('textbox', /^Names one below the other/, now.join('\n').replaceAll('\t', ';'));
    await b.click('radio', /^The list as it is in the unit now/);
    await b.click('button', 'Compare with the map');
    await b.says('table', 'Before and after', 'Fog Lead');
    await b.says('table', 'Before and after', 'Rope Burn!');
    await b.click('button', 'Use this order');
    await b.find('gridcell', 'B1 Fog Lead');
    await b.find('gridcell', 'H6 Ledger Rhythm');
    await b.click('link', 'Tones');
    await b.says('gridcell', /^Fog Lead, Quillback/, 'B1 Fog Lead');
    await b.says('gridcell', /^Ledger Rhythm, Quillback/, 'H6 Ledger Rhythm');
    for (const [song, bar] of [
      ['Slack Tide in Seven', '30'],
      ['The Rope Ledger', '26'],
    ] as const) {
      await b.click('link', 'Set');
      await b.click('link', song);
      await b.find('group', `Chart of ${song}`);
      await b.fill('textbox', /^Bar\|beat/, `${bar}${Key.ENTER}`);
      await b.type(Key.ESCAPE);
      await b.says('region', 'The rig here', 'B1 Fog Lead');
    }
    await b.click('button', /^Undo: reorder/);
    await b.says('region', 'The rig here', 'H6 Fog Lead');
  });

  it('learns a control from a stand-in, and teaches one', async () => {
    await b.click('link', 'Map');
    await b.click('link', 'Tarn');
    await b.find('heading', 'Tarn');
    await b.click('link', 'Controls');
    await b.click('button', 'Mix');
    await b.click('button', 'Learn');
    await b.click('button', 'Switch 3 of Treadle Ten');
    await b.says('status', 'Learnt', 'Feet, channel 16: control 104, switch, on and off values');
    await b.click('button', 'Use it');
    await fieldSays('textbox', 'Control number', '104');
    await b.says('status', 'Note', 'Undo brings it back');
    await b.click('button', /^Undo: learn Mix/);
    await fieldSays('textbox', 'Control number', '71');
    await b.click('button', 'Teach');
    await b.says('status', 'Lesson', 'Tarn has learnt B6 47 00');
    await b.click('button', 'Done');
  });

  it('shows a wrong channel at both ends, and mends it', async () => {
    await b.click('link', 'Rig');
    await b.says('list', 'Findings', 'Nothing is wrong');
    await b.click('button', /^Tarn (channel|sent)/);
    await b.click('button', /Unit is set to$/);
    await b.click('option', '9');
    await b.says('list', 'Findings', 'Tarn is sent to on channel 7, but listens on 9');
    await b.says('button', /^Tarn (channel|sent)/, 'sent 7, hears 9');
    await b.click('button', 'Send on channel 9');
    await b.says('list', 'Findings', 'Nothing is wrong');
    await b.says('button', /^Tarn (channel|sent)/, 'channel 9');
    await b.type(Key.chord(Key.CONTROL, 'z'));
    await b.type(Key.chord(Key.CONTROL, 'z'));
    await b.says('button', /^Tarn (channel|sent)/, 'channel 7');
  });

  it('is rewired by dragging a cable, and tells of a loop', async () => {
    const at = async (name: RegExp, side: 'left' | 'out' | 'thru') => {
      const { x, y, width, height } = await (await b.find('button', name)).getRect();
      const origin = 'viewport' as never;
      if (side === 'left') return { x: Math.round(x), y: Math.round(y + height / 2), origin };
      return { x: Math.round(x + width), y: Math.round(y + (side === 'out' ? 19 : 43)), origin };
    };
    const from = await at(/^Marram (channel|sent)/, 'left');
    const to = await at(/^Board 5-pin/, 'out');
    await b.driver
      .actions()
      .move(from)
      .press()
      .move({ ...from, y: from.y + 20 })
      .move(to)
      .move({ ...to, x: to.x + 1 })
      .release()
      .perform();
    await b.click('button', /^Marram (channel|sent)/);
    await b.says('button', /Input from$/, 'port Board');
    await b.click('button', 'Undo: move a cable');
    await b.says('button', /Input from$/, 'port Rack');
    await b.click('button', /Output back to$/);
    await b.click('option', 'port Rack');
    await b.click('button', /from its$/);
    await b.click('option', 'thru socket');
    await b.click('button', /^Rack 5-pin/);
    await b.click('button', /Incoming messages$/);
    await b.click('option', /^are sent out again/);
    await b.says('list', 'Findings', 'A message can go round and round: Rack → Marram → Rack');
    await b.click('button', 'Open the loop');
    await b.says('list', 'Findings', 'Nothing is wrong');
  });

  it('names every message in the monitor', async () => {
    await b.click('link', 'Monitor');
    await b.click('button', 'Clear');
    await b.click('button', 'Pad 2 of Pebble');
    await b.says('log', 'Messages', 'Pebble: Pad 2, pressed');
    await b.click('link', 'Map');
    await b.click('link', 'Quillback');
    await b.find('heading', 'Quillback');
    await b.click('gridcell', 'H6 Fog Lead');
    await b.type(' ');
    await b.says('listitem', 'Quillback', 'H6');
    await b.click('link', 'Rig');
    await b.click('link', 'Monitor');
    await b.says('log', 'Messages', 'Quillback: preset H6, Fog Lead');
    await b.says('log', 'Messages', 'C0 2F');
  });

  it('captures a sound that was made by ear into a tone', async () => {
    await b.click('link', 'Tones');
    await b.click('button', 'Capture the rig');
    await b.fill('textbox', 'Tone', `By ear${Key.ENTER}`);
    await b.says('gridcell', /^By ear, Quillback/, 'H6 Fog Lead');
    await b.says('gridcell', /^By ear, Oxbow Forty/, 'state 4');
    await b.fill('textbox', 'Find a tone', 'still');
    await b.gone('gridcell', /^By ear, Quillback/);
    await b.click('gridcell', /^Still Water, Quillback/);
    await b.click('button', 'Capture what it is on now');
    await b.says('gridcell', /^Still Water, Quillback/, 'H6 Fog Lead');
    await b.click('button', 'Undo: capture Quillback into Still Water');
    await b.says('gridcell', /^Still Water, Quillback/, 'A3 Harbour Clean');
  });

  it('walks through presets, hands on the strings', async () => {
    await b.click('link', 'Map');
    await b.click('gridcell', 'A1 Tuner Drop');
    await b.click('button', 'Walk');
    await b.fill('textbox', 'To', 'A3');
    await b.fill('textbox', 'Seconds for each', '1.5');
    await b.click('button', 'Start');
    await b.says('listitem', 'Quillback', 'A1');
    await b.says('listitem', 'Quillback', 'A3');
    await b.find('button', 'Walk');
  });

  it('writes down what a preset brings along, and what a switch sends', async () => {
    await b.click('link', 'Tarn');
    await b.find('heading', 'Tarn');
    await b.click('gridcell', '000 Dry Boards');
    await (await b.driver.findElement(By.css('summary'))).click();
    await b.click('button', /Write down how it has$/);
    await b.click('option', 'Mix');
    await b.fill('textbox', 'Mix', `40${Key.ENTER}`);
    await b.find('button', /^Undo: describe a preset/);
    await b.click('link', 'Pebble');
    await b.find('heading', 'Pebble');
    await b.click('link', 'Controls');
    await b.click('button', 'Pad 2');
    await b.fill('textbox', 'First note', `61${Key.ENTER}`);
    await b.says('group', 'Values and bytes', '9E 3D');
    await b.click('link', 'Rig');
    await b.click('link', 'Monitor');
    await b.click('button', 'Clear');
    await b.click('button', 'Pad 2 of Pebble');
    await b.says('log', 'Messages', '9E 3D');
    await b.click('link', 'Map');
  });

  it('changes a shared control number on every unit, and shows where it is taken', async () => {
    await b.click('link', 'Shared control numbers');
    await b.find('table', 'Shared control numbers');
    await b.press('textbox', 'Number', Key.chord(Key.CONTROL, 'a'), '50', Key.ENTER);
    await b.says('table', 'Shared control numbers', '50 is taken');
    await b.click('button', 'Undo: change the shared control number of Tuner');
    await fieldSays('textbox', 'Number', '68');
  });

  it('compares firmware before it goes over to it', async () => {
    await b.click('link', 'Map');
    await b.click('link', 'Thistle Echo');
    await b.find('heading', 'Thistle Echo');
    await b.click('link', 'Timing and behaviour');
    await b.click('button', 'Compare and switch');
    await b.says('list', 'Differences', 'A recall also engages: Engage need not be sent any more.');
    await b.click('button', 'Switch to 3.0');
    await fieldSays('textbox', 'This map is for firmware', '3.0');
    await b.click('button', 'Undo: switch to firmware 3.0');
    await fieldSays('textbox', 'This map is for firmware', '2.4');
  });

  it('hands a unit on, as names and whole, and takes both in elsewhere', async () => {
    await b.click('link', 'Marram');
    await b.find('heading', 'Marram');
    await b.click('link', 'Presets');
    for (const [item, ending] of [
      [/^MIDI name document/, '.midnam'],
      [/^The whole unit/, 'marram.lantern-unit.json'],
    ] as const) {
      await b.click('button', 'Export');
      await b.click('menuitem', item);
      await b.downloaded(ending);
    }
    const names = readFileSync(join(b.downloads, 'marram.midnam'), 'utf8');
    await openShelf(b);
    await b.click('button', 'New show');
    await b.click('link', 'Map');
    await b.click('button', 'Add a unit');
    const file = join(folder, 'unit.json');
    writeFileSync(file, readFileSync(join(b.downloads, 'marram.lantern-unit.json')));
    await b.driver.findElement(By.css('[role=dialog] input[type=file], input[type=file]')).sendKeys(file);
    await fieldSays('textbox', 'Name', 'Marram');
    await b.click('button', 'Add the unit');
    await b.find('gridcell', '02A Keel');
    await b.press('gridcell', '02A Keel', Key.DELETE);
    await b.find('gridcell', '02A');
    await b.click('button', 'Import list');
    writeFileSync(join(folder, 'names.midnam'), names);
    await b.driver.findElement(By.css('input[type=file]')).sendKeys(join(folder, 'names.midnam'));
    await b.says('status', undefined, /slots in the list, 1 of them change/);
    await b.click('button', 'Import names');
    await b.find('gridcell', '02A Keel');
  });
});
