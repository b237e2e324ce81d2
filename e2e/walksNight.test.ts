import { describe, it } from 'vitest';
import { addSong, addUnit, barNow, begin, lampOf, namePresets, newShow, placeAt, unlock } from './begin';
import { Key } from './browser';
import { injectMidi, left, plug, pull } from './standInMidi';

// What somebody does with such a rig, from an empty show: docs/walks.md, by the numbers there.
const { b } = begin();

/** A modeler of two presets, and songs that each have one of them at their beginning and the other in bar 3. */
async function rigAndSongs(...titles: readonly string[]): Promise<void> {
  await addUnit(b, 'Skerry');
  await namePresets(b, 'A1', 'Calm', 'Storm');
  for (const title of titles) {
    await b.click('link', titles[0] === title ? 'Chart' : 'Set');
    await addSong(b, title, '240', '6');
    await placeAt(b, '1', 'calm');
    await placeAt(b, '3', 'storm');
    await b.find('button', '3|1 Storm, proven');
  }
}

describe('walk 15: a foot controller that takes pages over the cable', () => {
  it('has pages proposed for the set, transferred, read back and compared', async () => {
    await newShow(b);
    await rigAndSongs('First', 'Second');
    await b.click('link', 'Map');
    await addUnit(b, 'Treadboard', /^Foot controller with ten/);
    await b.click('link', 'Feet');
    await b.click('link', 'Proposal');
    await b.find('list', 'Proposed pages');
    await b.click('button', 'Use these pages');
    await b.click('link', 'Pages');
    await b.find('button', /^Switch \d: Storm/);
    await b.click('link', 'Transfer');
    await b.click('button', 'Transfer');
    await b.says('region', 'Transfer over the cable', 'byte for byte', 30_000);
    await b.says('region', 'Transfer over the cable', 'It holds the pages as they are here.');
    // The computer dies: what a foot reaches then, song by song.
    await b.click('link', 'Without computer');
    await b.says('table', 'Songs of the set by foot', /First[^]*Second/);
  });
});

describe('walks 16 and 17: a foot controller that is typed, and one with a memory of its own', () => {
  it('has its list ticked off and checked by listening', async () => {
    await newShow(b);
    await rigAndSongs('First');
    await b.click('link', 'Map');
    await addUnit(b, 'Pebbles', /^Four small switches/);
    await b.click('link', 'Feet');
    await b.click('button', 'Add a page');
    await b.click('button', /^Switch 2: nothing/);
    await b.fill('combobox', 'Does', `storm${Key.ENTER}`);
    await b.find('button', /^Switch 2: Storm/);
    await b.click('link', 'Transfer');
    await b.click('switch', /^Done: bank 1 Switch 2/);
    await b.says('region', 'Typing list', '1 of 1 done');
    await b.click('button', 'Type the pages into the stand-in');
    await b.click('button', 'Listen to 1 switches');
    await b.says('region', 'Check by listening', 'press Switch 2');
    await b.click('button', /^Switch 2 of Pebbles/);
    await b.says('region', 'Check by listening', 'All 1 switches send what they should.');
  });

  it('gives its dump, has it edited as pages and written back, and says what differs', async () => {
    await b.click('button', 'Ask Pebbles for a dump');
    await b.click('button', 'Ask now');
    await b.says('status', 'What came', /\d+ messages, \d+ bytes\./);
    await b.click('button', 'Keep it');
    await b.click('button', 'Read its pages');
    await b.says('main', undefined, 'The dump holds the pages as they are here.');
    await b.click('link', 'Pages');
    await b.click('button', /^Switch 3: nothing/);
    await b.fill('combobox', 'Does', `calm${Key.ENTER}`);
    await b.find('button', /^Switch 3: Calm/);
    await b.click('link', 'Transfer');
    await b.click('button', 'Write the pages into it');
    await b.click('button', 'Send Dump, with the pages');
    await b.pick(/differs from$/, 'Dump');
    await b.says('status', 'Bytes that differ', /byte \d+: /);
    await b.click('link', 'Files');
    await b.pick(/Sheet$/, 'Switch strips');
    await b.says('article', 'Switch strips: Pebbles', 'Storm');
  });
});

describe('walk 18: a technician before doors', () => {
  it('has the patch sheet, a real port, a unit off, a song added, and a port that is pulled while it plays', async () => {
    await injectMidi(b);
    await newShow(b);
    await rigAndSongs('First');
    await b.click('link', 'Map');
    await addUnit(b, 'Spindrift', /^Reverb/);
    await b.click('link', 'Rig');
    await b.click('link', 'Patch sheet');
    await b.says('table', 'Patch sheet', /Skerry/);
    await b.click('link', 'Ports');
    await b.click('button', "Use this computer's ports");
    await b.find('table', 'Ports');
    await plug(b, 'Grey box');
    await b.pick(/ output$/, 'Grey box');
    await b.click('link', 'Set');
    await b.click('link', 'Tonight');
    await b.pick(/Spindrift tonight$/, 'off');
    await b.click('link', 'Running order');
    await b.click('button', 'Add a song');
    await b.fill('textbox', 'Title', `Late${Key.ENTER}`);
    await b.find('group', 'Chart of Late');
    await b.click('link', 'Set');
    await b.find('row', /^Late/);
    await b.click('button', 'Play First now');
    await b.wait(async () => (await left(b, 'Grey box')).length > 0, 'its opening leaves');
    await pull(b, 'Grey box');
    await b.says('status', 'Note', /the real port is not connected/);
    const before = (await left(b, 'Grey box')).length;
    await plug(b, 'Grey box');
    await b.says('status', 'Note', /the real port is back/);
    await b.wait(async () => (await left(b, 'Grey box')).length > before, 'what was missed is sent');
    await b.says('row', /^First/, 'played');
    await b.wait(async () => (await lampOf(b, 'Skerry')).includes('Storm'), 'the rig is on its last change');
  });
});

describe('walk 19: a whole set, by foot and by message', () => {
  it('has starts learnt in a row, the next song chosen by foot, and a wrong start undone', async () => {
    await newShow(b);
    await rigAndSongs('First', 'Second', 'Third');
    await b.click('link', 'Map');
    await addUnit(b, 'Shingle', /^Small pad controller/);
    await b.click('link', 'Set');
    await b.click('switch', /^“Next change” behind a song's last/);
    await b.click('button', 'Learn starts in a row');
    for (const pad of ['Pad 1', 'Pad 2', 'Pad 3']) await b.click('button', `${pad} of Shingle`);
    await b.click('button', 'Use these 3');
    await b.click('link', 'Rig');
    await b.click('link', 'Reactions');
    await b.click('button', 'Add a reaction');
    await b.click('button', 'Learn what it waits for');
    await b.click('button', 'Pad 4 of Shingle');
    await b.says('status', 'Learnt', /note 51/);
    await b.click('button', 'Use it');
    await b.pick(/What$/, /^choose the next song/);
    await b.click('link', 'Monitor');
    await b.click('button', 'Pad 2 of Shingle');
    await b.find('button', 'Stop');
    await b.wait(async () => (await barNow(b)) >= 3, 'the second plays');
    await b.wait(async () => (await lampOf(b, 'Skerry')).includes('Storm'), 'and changes');
    await b.click('button', 'Pad 4 of Shingle');
    await b.click('link', 'Stage');
    await b.says('paragraph', 'Song that comes next', 'Third');
    await b.click('button', 'Next song');
    await b.find('heading', /^Third/);
    await b.click('button', 'Undo the start');
    await b.find('heading', /^Second/);
    // Behind its last change the song goes on into the next.
    for (let i = 0; i < 2; i++) await b.click('button', 'Next change');
    await b.find('heading', /^Third/);
    await unlock(b);
  });
});
