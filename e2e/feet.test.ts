import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { begin, lampOf, openDemo } from './begin';
import { By, Key } from './browser';

// Each part goes on where the one before it stopped: the demo's controller is programmed, transferred, and played.
const { b, folder } = begin();

const text = async (): Promise<string> => b.text('main');
const isFocused = async (name: string | RegExp): Promise<boolean> => {
  const label = await b.driver.switchTo().activeElement().getText();
  return typeof name === 'string' ? label === name : name.test(label);
};
describe('a page', () => {
  it('is programmed by keyboard alone: a tone, a move, stop, bytes', async () => {
    await openDemo(b);
    await b.type(Key.chord(Key.ALT, '7'));
    await b.find('group', 'Pages');
    await b.press('button', 'Add a page', Key.ENTER);
    await b.find('group', 'Switches of Page 10');
    await b.fill('textbox', 'Page', `Encore${Key.ENTER}`);
    await b.find('group', 'Switches of Encore');
    // A name typed on the floor is put on the switch.
    await b.press('button', /^Switch 1: nothing/, Key.ARROW_RIGHT);
    await b.press('button', /^Switch 2: nothing/, Key.ARROW_LEFT);
    expect(await isFocused(/^Switch 1:/)).toBe(true);
    await b.press('button', /^Switch 1: nothing/, 'f');
    await b.type('og lead', Key.ENTER);
    await b.find('button', /^Switch 1: Fog Lead$/);
    await b.press('button', /^Switch 1:/, Key.ARROW_RIGHT);
    expect(await isFocused(/^Switch 2:/)).toBe(true);
    await b.type('t');
    await b.type('uner on', Key.ENTER);
    await b.find('button', /^Switch 2: Tuner on$/);
    await b.press('button', /^Switch 2:/, Key.ARROW_UP);
    expect(await isFocused(/^Switch 7:/)).toBe(true);
    await b.type('s');
    await b.type('top', Key.ENTER);
    await b.find('button', /^Switch 7: Stop$/);
    await b.press('button', /^Switch 7:/, Key.ARROW_RIGHT);
    await b.type('c');
    await b.type('0 05', Key.ENTER);
    await b.find('button', /^Switch 8: C0 05/);
    await b.says('region', 'Without the computer', 'C0 05');
  });

  it('says what a switch comes to with the computer and without it, and does it when it is tried', async () => {
    await b.click('button', /^Switch 1: Fog Lead/);
    await b.says('region', 'With the computer', 'The computer hears it and does: Fog Lead.');
    await b.says('region', 'Without the computer', 'Quillback: preset H6, Fog Lead');
    await b.press('button', /^Switch 1: Fog Lead/, Key.SPACE);
    await b.wait(async () => (await lampOf(b, 'Quillback')).includes('H6'), 'the lamp strip answers');
  });

  it('is filled in sequence, set on many switches, copied and cleared', async () => {
    await b.press('button', /^Switch 3: nothing/, Key.ARROW_LEFT);
    await b.press('button', /^Switch 2:/, Key.ARROW_LEFT);
    await b.press('button', /^Switch 1:/, Key.chord(Key.SHIFT, Key.ARROW_RIGHT));
    await b.press('button', /^Switch 2:/, Key.chord(Key.SHIFT, Key.ARROW_RIGHT));
    await b.find('heading', '3 switches');
    await b.click('button', 'Number in sequence from the first');
    await b.find('button', /^Switch 2: Fog Lead, Wide/);
    await b.find('button', /^Switch 3: Choir of Gulls/);
    await b.press('button', /^Switch 1:/, Key.chord(Key.CONTROL, 'c'));
    await b.wait(async () => (await text()).includes('3 switches are copied.'), 'they are copied');
    await b.click('button', /^Switch 4:/);
    await b.press('button', /^Switch 4:/, Key.chord(Key.CONTROL, 'v'));
    await b.find('button', /^Switch 4: Fog Lead$/);
    await b.press('button', /^Switch 4:/, Key.DELETE);
    await b.find('button', /^Switch 4: nothing/);
    await b.type(Key.chord(Key.CONTROL, 'z'));
    await b.find('button', /^Switch 4: Fog Lead$/);
  });

  it('has its faults told in place, with what mends them', async () => {
    await b.click('button', /^Switch 9:/);
    await b.fill('textbox', /^Name on the display/, `A name that no display shows${Key.ENTER}`);
    await b.says('list', 'Findings of the page', 'its display shows');
    await b.click('button', /^Call it A name that/);
    await b.gone('list', 'Findings of the page');
  });

  it('is deleted with its preset, and undone', async () => {
    await b.click('button', 'Delete the page');
    await b.gone('button', /Encore/);
    await b.click('button', /^Undo: delete a page/);
    await b.find('button', /Encore/);
  });
});

describe('a proposal', () => {
  it('leaves what is pinned, says what moves and why, and is taken over in one edit', async () => {
    await b.click('button', /page 02/);
    await b.click('button', /^Switch 5: Fog Lead, Wide/);
    await b.click('button', 'Pin: a proposal leaves it here');
    await b.find('button', 'Unpin: a proposal may move it');
    await b.click('button', /^Switch 1: Fog Lead/);
    await b.click('button', 'Clear the switch');
    await b.click('link', 'Proposal');
    await b.says('table', 'What moves, and why', 'most songs use it');
    await b.says('list', 'Proposed pages', 'Held Breath');
    await b.click('button', 'Use these pages');
    await b.click('link', 'Pages');
    await b.click('button', /page 01/);
    await b.find('button', /^Undo: take a proposal of pages/);
    await b.click('button', /Slack Tide/);
    await b.find('button', /^Switch 5: pinned Fog Lead, Wide/);
    await b.find('button', /^Switch 1: Fog Lead/);
  });
});

describe('without the computer', () => {
  it('every song is rehearsed on the rig as it is wired then, and a cable that is missing is found', async () => {
    await b.click('link', 'Without computer');
    await b.find('table', /^Steps of Slack Tide/);
    await b.says('table', 'Songs of the set by foot', /Last Boat at Ten/);
    await b.click('button', 'Take cable 2 away');
    await b.wait(async () => (await text()).includes('No cable leads to Quillback'), 'it is said who is not reached');
    await b.click('button', /^Undo: remove a cable from/);
    await b.gone('img', 'fails');
    await b.click('link', 'Emergency wiring on the patch sheet');
    await b.says('table', 'Emergency wiring of Treadle Ten', 'Harrow');
  });
});

describe('a transfer', () => {
  it('survives a cable that damages blocks, and is read back and compared', async () => {
    await b.click('link', 'Feet');
    await b.click('link', 'Transfer');
    await b.says('region', 'Transfer over the cable', 'What it holds is not known yet.');
    await b.pick(/The cable to the stand-in$/, 'damages every 9th message');
    await b.click('button', 'Transfer');
    await b.says('region', 'Transfer over the cable', 'byte for byte', 30_000);
    await b.says('region', 'Transfer over the cable', /\d+ messages had to be sent again/);
    await b.says('region', 'Transfer over the cable', 'It holds the pages as they are here.');
    await b.pick(/The cable to the stand-in$/, 'works as it should');
  });

  it('is compared again after the pages have changed, difference by difference', async () => {
    await b.click('link', 'Pages');
    await b.click('button', /Core sounds/);
    await b.click('button', /^Switch 5: nothing/);
    await b.press('button', /^Switch 5:/, 'p');
    await b.type('anic', Key.ESCAPE);
    await b.fill('combobox', 'Does', `all sound off${Key.ENTER}`);
    await b.find('button', /^Switch 5: Panic/);
    await b.click('link', 'Transfer');
    await b.says('region', 'Transfer over the cable', 'It holds other pages than these.');
    await b.says('list', 'Differences', 'Switch 5 is called nothing there, Panic here.');
    await b.click('button', /^Undo: put something on a switch/);
    await b.says('region', 'Transfer over the cable', 'It holds the pages as they are here.');
  });

  it('comes as a file too, and a foreign file is kept and refused in a sentence', async () => {
    const bad = join(folder, 'bad.syx');
    writeFileSync(bad, Buffer.from([0xf0, 1, 2, 0x90]));
    const foreign = join(folder, 'foreign.syx');
    writeFileSync(foreign, Buffer.from([0xf0, 0x7d, 1, 2, 3, 0xf7]));
    const input = await b.driver.findElement(By.css('input[type=file][accept=".syx"]'));
    await input.sendKeys(bad);
    await b.says('region', 'Exclusive files', 'byte 3: This is not a system exclusive file');
    await input.sendKeys(foreign);
    await b.says('list', 'Kept files', 'foreign');
    await b.click('button', 'Send foreign');
    await b.wait(async () => (await text()).includes('1 message was sent to Treadle Ten.'), 'it is sent as it is');
  });
});

describe('the stand-in', () => {
  it('plays a whole song by foot with the playback off, and the lamps follow', async () => {
    const press = async (name: RegExp, held = 60): Promise<void> => {
      const key = await b.find('button', name);
      await b.driver.actions().move({ origin: key }).press().pause(held).release().perform();
    };
    await b.says('region', 'Stand-in of Treadle Ten', 'page 01 Core sounds');
    await press(/^Switch 8 of Treadle Ten: Songs/);
    await b.says('region', 'Stand-in of Treadle Ten', 'Slack Tide');
    // The song's changes, in its order, as the sheet of steps says.
    const song: readonly (readonly [RegExp, string])[] = [
      [/^Switch \d+ of Treadle Ten: Still Water/, 'A3'],
      [/^Switch \d+ of Treadle Ten: Harbour Clea/, 'A3'],
      [/^Switch \d+ of Treadle Ten: Ledger Rhyth/, 'B1'],
      [/^Switch \d+ of Treadle Ten: Ledger Echo/, 'B1'],
      [/^Switch \d+ of Treadle Ten: Undertow/, 'C1'],
      [/^Switch \d+ of Treadle Ten: Fog Lead$/, 'H6'],
      [/^Switch \d+ of Treadle Ten: Rope Burn/, 'B4'],
    ];
    for (const [name, label] of song) {
      await press(name);
      await b.wait(async () => (await lampOf(b, 'Quillback')).includes(label), `${String(name)} leads to ${label}`);
    }
    await b.wait(async () => (await lampOf(b, 'Oxbow Forty')).includes('state 3'), 'the amplifier is told by relay');
    await b.find('button', 'Play');
    // Held, a switch turns the page.
    await press(/^Switch 10 of Treadle Ten/, 800);
    await b.says('region', 'Stand-in of Treadle Ten', 'Rope Ledger');
  });

  it('is there beside the stage, worked by keyboard', async () => {
    await b.click('link', 'Open it beside the stage');
    await b.find('region', 'Stand-in of Treadle Ten');
    await b.press('button', /^Switch \d+ of Treadle Ten: Undertow/, Key.ENTER);
    await b.wait(async () => b.text('main').then((t) => t !== ''), 'the stage');
    await b.driver.navigate().back();
    await b.wait(async () => (await lampOf(b, 'Quillback')).includes('C1'), 'the rig is where the foot wanted it');
  });
});

describe('a controller that takes nothing over its cable', () => {
  it('is added, typed by a list that is ticked off, and checked by listening', async () => {
    await b.click('link', 'Rig');
    await b.click('button', 'Add a unit');
    await b.fill('textbox', 'Name', 'Four Stones');
    await b.pick(/Kind$/, 'Four small switches');
    await b.pick(/Port$/, 'Feet');
    await b.click('button', 'Add the unit');
    await b.click('link', 'Feet');
    await b.pick(/Controller$/, 'Four Stones');
    await b.click('button', 'Add a page');
    await b.click('button', /^Switch 2: nothing/);
    await b.fill('combobox', 'Does', `harbour clean${Key.ENTER}`);
    await b.find('button', /^Switch 2: Harbour Clean/);
    await b.click('link', 'Transfer');
    await b.says('region', 'Typing list', '0 of 1 done');
    await b.click('switch', /^Done: bank 1 Switch 2/);
    await b.says('region', 'Typing list', '1 of 1 done');
    await b.click('button', 'Listen to 1 switches');
    await b.says('region', 'Check by listening', 'press Switch 2');
    const stone = await b.find('button', /^Switch 2 of Four Stones/);
    await b.driver.actions().move({ origin: stone }).press().pause(60).release().perform();
    await b.says('region', 'Check by listening', 'Something else came');
    await b.click('button', 'Go on');
    await b.says('table', 'What differs', 'Switch 2');
    await b.click('button', 'Type the pages into the stand-in');
    await b.click('button', 'Listen to 1 switches');
    await b.driver.actions().move({ origin: stone }).press().pause(60).release().perform();
    await b.says('region', 'Check by listening', 'All 1 switches send what they should.');
  });
});

describe('a controller with a memory of its own', () => {
  it('gives a dump, takes the pages written into it, and what changed is found byte by byte', async () => {
    await b.click('button', 'Ask Four Stones for a dump');
    await b.click('button', 'Ask now');
    await b.says('status', 'What came', '8 messages, 568 bytes.');
    await b.click('button', 'Keep it');
    await b.says('list', 'Kept files', 'Dump');
    await b.click('button', 'Read its pages');
    await b.wait(
      async () => (await text()).includes('The dump holds the pages as they are here.'),
      'they are the same',
    );
    await b.click('button', 'Write the pages into it');
    await b.says('list', 'Kept files', 'Dump, with the pages');
    // Another switch does something else from now on.
    await b.click('link', 'Pages');
    await b.click('button', /^Switch 3: nothing/);
    await b.fill('combobox', 'Does', `fog lead${Key.ENTER}`);
    await b.find('button', /^Switch 3: Fog Lead/);
    await b.click('link', 'Transfer');
    await b.click('button', 'Write the pages into it');
    await b.click('button', 'Send Dump, with the pages');
    await b.pick(/differs from$/, 'Dump');
    await b.says('status', 'Bytes that differ', /message 1, byte \d+: /);
  });
});

describe('a floor that is laid out by hand', () => {
  it('gets switches, rows and pedals, which are moved, named and removed, for any unit', async () => {
    await b.click('link', 'Feet');
    await b.click('link', 'Controller');
    await b.pick(/Another unit as a foot controller$/, 'Tarn');
    await b.find('button', /^Tarn .*Controller$/);
    await b.find('button', 'Switch 1, row 1, place 1');
    await b.click('button', 'Row');
    await b.find('button', 'Switch 8, row 2, place 4');
    await b.click('button', 'Switch 8, row 2, place 4');
    await b.type(Key.ARROW_RIGHT);
    await b.find('button', 'Switch 8, row 2, place 5');
    await b.type(Key.ARROW_LEFT, Key.ARROW_LEFT);
    // Two change places.
    await b.find('button', 'Switch 8, row 2, place 3');
    await b.find('button', 'Switch 7, row 2, place 4');
    await b.fill('textbox', 'What is written on it', `Harp${Key.ENTER}`);
    await b.find('button', 'Harp, row 2, place 3');
    await b.click('button', 'Pedal');
    await b.find('button', 'Remove Pedal 1');
    await b.click('button', 'Remove Harp');
    await b.gone('button', 'Harp, row 2, place 3');
    await b.click('link', 'Pages');
    await b.find('button', 'Add a page');
  });
});
