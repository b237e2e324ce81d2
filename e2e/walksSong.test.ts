import { readdirSync } from 'node:fs';
import { describe, it } from 'vitest';
import {
  addSong,
  addUnit,
  barNow,
  begin,
  chooseFile,
  goTo,
  namePresets,
  newShow,
  placeAt,
  tapUntilHeard,
} from './begin';
import { Key } from './browser';
import { RATE, impulses } from './recordings';
import { arrive, injectMidi, plug } from './standInMidi';

// What somebody does with such a rig, from an empty show: docs/walks.md, by the numbers there.
const { b, folder } = begin();

/** What the card of a source in the mix says. */
const card = (name: string, text: string | RegExp): Promise<void> => b.says('group', name, text);

describe('walk 10: a band on one recording', () => {
  it('gets click, count-in, calls with a count, and a file to practise with', async () => {
    await newShow(b);
    await addUnit(b, 'Skerry');
    await namePresets(b, 'A1', 'Calm', 'Storm');
    await b.click('link', 'Chart');
    await addSong(b, 'Ebb Choir', '97', '8');
    await goTo(b, '5');
    await b.click('radio', 'Structure');
    await b.click('button', /Section at bar 5$/);
    await b.find('group', 'Section Section 1');
    await b.fill('textbox', 'Section', `Chorus${Key.ENTER}`);
    await b.click('radio', 'Sound');
    await b.find('button', /Count-in/);
    await b.fill('textbox', 'Call ahead of bar', `3${Key.ENTER}`);
    await b.click('button', /no count Counted ahead/);
    await b.click('option', '1 bar');
    await chooseFile(b, impulses(folder, 'choir.wav', RATE * 3, [0, 12_000]));
    await b.find('group', 'choir');
    await b.click('button', 'Sound as a WAV file');
    await b.says('status', 'Sound file', /Exported ebb-choir-click\.wav: bar 1 begins/);
    await b.wait(async () => readdirSync(b.downloads).includes('ebb-choir-click.wav'), 'the file arrives');
    await goTo(b, '1');
    await b.click('button', 'Play');
    await b.says('group', 'Transport', /ready/);
    await b.says('group', 'Transport', /1\|2/);
    await b.click('button', 'Stop');
  });
});

describe('walk 11: a finished recording', () => {
  it('gets bars by tapping along, and its changes by ear while it plays', async () => {
    await newShow(b);
    await addUnit(b, 'Skerry');
    await namePresets(b, 'A1', 'Calm', 'Storm');
    await b.click('link', 'Tones');
    await b.click('button', 'Add the first tone');
    await b.click('button', 'Include Skerry');
    await b.fill('combobox', 'Preset', `storm${Key.ENTER}`);
    await b.fill('textbox', 'Tone', `Gale${Key.ENTER}`);
    await b.click('link', 'Chart');
    await addSong(b, 'Finished', '90', '12');
    await b.click('radio', 'Sound');
    await chooseFile(b, impulses(folder, 'finished.wav', RATE * 24, [0, RATE / 2, RATE]));
    await b.click('button', 'Lay bars onto finished');
    await b.click('button', 'Play it');
    await b.find('button', 'Stop');
    await tapUntilHeard(b);
    await b.click('button', 'Stop');
    await b.fill('textbox', 'Tap 1, in seconds', `2${Key.ENTER}`);
    for (const at of ['2.5', '3']) await b.fill('textbox', 'Another tap (s)', `${at}${Key.ENTER}`);
    await b.says('status', 'What comes of it', '120.00 beats a minute');
    await b.click('button', 'Lay the bars');
    await b.says('group', 'Chart of Finished', '♩ = 120');
    await goTo(b, '1');
    await b.click('radio', 'Here');
    await b.pick(/Add to the core$/, 'Gale');
    await b.click('switch', 'Pressed core tones become cues');
    await b.click('button', 'Play');
    await b.wait(async () => (await barNow(b)) >= 2, 'it runs');
    await b.type('1');
    await b.says('region', 'Write by playing', '1 tone');
    await b.click('button', 'Stop');
    await b.find('button', /^[2-9]\|\S+ Gale, proven$/);
  });
});

describe('walk 12: a band with ears', () => {
  it('has stems, an ear mix for each person, and no silence between the songs', async () => {
    await newShow(b);
    await addUnit(b, 'Skerry');
    await b.click('link', 'Rig');
    await b.click('link', 'Players');
    await b.click('button', 'Add a player');
    await b.fill('textbox', 'Name', `Ingrid${Key.ENTER}`);
    await b.click('link', 'Chart');
    await addSong(b, 'Kettle', '240', '2');
    await b.click('radio', 'Sound');
    await chooseFile(b, impulses(folder, 'kettle drums.wav', RATE, [0]));
    await b.find('group', 'kettle drums');
    await b.fill('textbox', /^Stem/, `Drums${Key.ENTER}`);
    await b.pick(/^(?!Song).*What it is$/, /player/);
    await b.pick(/Player \(heard when missing\)$/, 'Ingrid');
    await b.click('link', 'Set');
    await b.click('link', 'Tonight');
    await b.click('switch', 'missing tonight');
    await b.find('button', 'Undo: Ingrid is missing');
    await b.click('link', 'Mix');
    await b.pick(/Drums goes to$/, 'right');
    await card('Drums', /right/);
    await b.fill('textbox', 'For whom', `Ingrid${Key.ENTER}`);
    await b.pick(/Output of Ingrid’s ears$/, 'left');
    await b.fill('textbox', 'Drums for Ingrid (empty: not heard)', `-3${Key.ENTER}`);
    await b.find('button', 'Undo: change what Ingrid hears');
    await b.click('link', 'Running order');
    await b.click('row', /^Kettle/);
    await b.find('complementary', 'Chosen entry');
    await chooseFile(b, impulses(folder, 'gulls.wav', RATE * 2, [0, RATE]));
    await b.says('row', /^gulls/, /by itself/);
    await b.click('button', 'Play Kettle now');
    await b.says('row', /^gulls/, 'plays');
    await b.click('link', 'Stage');
    await b.click('button', 'Stop gulls');
    await b.find('button', 'Play gulls');
  });
});

describe('walk 13: hands on faders', () => {
  it('has faders and switches learnt where the levels stand, taken over without a jump', async () => {
    await injectMidi(b);
    await newShow(b);
    await addUnit(b, 'Shingle', /^Small pad controller/);
    await b.click('link', 'Rig');
    await b.click('link', 'Ports');
    await b.click('button', "Use this computer's ports");
    await b.find('table', 'Ports');
    await plug(b, 'Fader box');
    await b.pick(/ input$/, 'Fader box');
    await b.click('link', 'Chart');
    await addSong(b, 'Hands', '120', '8');
    await b.click('link', 'Set');
    await b.click('link', 'Mix');
    await b.click('button', 'Learn a fader for Click');
    for (const value of [30, 31, 32, 30]) await arrive(b, 'Fader box', 0xb0, 21, value);
    await b.says('status', 'Learnt', /control 21/);
    await b.click('button', 'Use it');
    await b.click('button', 'Learn a switch for Click');
    await arrive(b, 'Fader box', 0x99, 50, 100);
    await b.says('status', 'Learnt', /note/);
    await b.click('button', 'Use it');
    await card('Click', /switch: note 50/);
    await arrive(b, 'Fader box', 0xb0, 21, 60);
    await card('Click', '0 dB');
    await arrive(b, 'Fader box', 0xb0, 21, 127);
    await card('Click', '+6 dB');
    await arrive(b, 'Fader box', 0x89, 50, 0);
    await arrive(b, 'Fader box', 0x99, 50, 100);
    await card('Click', /off/);
  });
});

describe('walk 14: a trio that jams', () => {
  it('plays without an end, tones pressed as they are wanted, as long as it was played', async () => {
    await newShow(b);
    await addUnit(b, 'Skerry');
    await namePresets(b, 'A1', 'Calm', 'Storm');
    await b.click('link', 'Chart');
    await addSong(b, 'Vamp', '300', '');
    await placeAt(b, '1', 'calm');
    await placeAt(b, '3|2.5', 'storm');
    await b.find('button', '3|2.5 Storm, proven');
    await b.click('button', 'Play');
    await b.wait(async () => (await barNow(b)) >= 10, 'it goes on behind its bars');
    await b.click('button', 'Stop');
    await b.find('button', /^Undo: Vamp is \d+ bars$/);
    await b.click('link', 'Set');
    await b.click('row', /^Vamp/);
    await b.click('switch', 'No clock: stepped by hand');
    await b.click('button', 'Play Vamp now');
    await b.find('button', 'Stop');
    await b.click('button', 'Stop');
    await b.click('link', 'Stage');
    await b.click('button', 'Next change');
    await b.wait(async () => (await b.text('[aria-current=step]')).includes('Storm'), 'a step on');
  });
});
