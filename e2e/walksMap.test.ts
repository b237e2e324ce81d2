import { describe, expect, it } from 'vitest';
import { addSong, addUnit, begin, goTo, lampOf, movePedal, namePresets, newShow, placeAt } from './begin';
import { By, Key } from './browser';

// What somebody does with such a rig, from an empty show: docs/walks.md, by the numbers there.
const { b } = begin();

describe('walk 4: several units on one cable, everything on its beat', () => {
  it('sees which change is late and why, presses what mends it, and trusts the rest', async () => {
    await newShow(b);
    await addUnit(b, 'Skerry');
    await namePresets(b, 'A1', 'Calm', 'Storm');
    await addUnit(b, 'Cormorant', /^Harmoniser$/);
    await namePresets(b, '001', 'Thirds', 'Fifths');
    await addUnit(b, 'Spindrift', /^Reverb/);
    await namePresets(b, '000', 'Small', 'Vast');
    // One socket: each unit hangs on the thru of the one before it.
    await b.click('link', 'Rig');
    await b.says('list', 'Findings', 'Nothing is wrong');
    await b.click('link', 'Tones');
    await b.click('button', 'Add the first tone');
    for (const [unit, preset] of [
      ['Skerry', 'storm'],
      ['Cormorant', 'fifths'],
      ['Spindrift', 'vast'],
    ] as const) {
      await b.click('button', `Include ${unit}`);
      await b.driver.findElement(By.css(`[aria-label="${unit}"] [role=combobox]`)).click();
      await b.type(Key.chord(Key.CONTROL, 'a'), preset, Key.ENTER);
    }
    await b.fill('textbox', 'Tone', `Gale${Key.ENTER}`);
    await b.click('link', 'Chart');
    await addSong(b, 'Force Nine', '140');
    await placeAt(b, '3', 'gale');
    await b.find('button', '3|1 Gale, proven');
    await b.says('region', 'Chosen cue', /Cormorant is there on time, 5\.0 ms before its beat/);
    // A sixteenth later: the slow ones still load.
    await placeAt(b, '3|1.25', 'skerry a1');
    await placeAt(b, '3|1.5', 'cormorant 001');
    await b.find('button', /^3\|1\.5 .*, fails$/);
    await b.click('link', 'Dry run');
    await b.click('link', 'Force Nine');
    await b.says('list', 'Changes, the worst first', /^3\|1\.5/);
    await b.says('list', 'Findings', /ms late, because/);
    // One change after the other, the worst first: each press is proven again.
    await b.click('button', /^Move it \d+ ms later$/);
    await b.says('list', 'Changes, the worst first', /^3\|1\S*\s+CO\s+Thirds\s+\+/);
    await b.click('button', /^Move it \d+ ms later$/);
    await b.says('list', 'Findings', /^(?!.*ms late)/s);
    await b.says('banner', undefined, 'lands on time');
  });
});

describe('walk 5: a unit that nobody knows', () => {
  it('has its addresses worked out, a control learnt from a pad, and its presets walked through', async () => {
    await newShow(b);
    await addUnit(b, 'Driftglass', /^Unit with programs/);
    await b.click('link', 'Address plan');
    await b.find('table', 'Edges of the plan');
    await b.click('link', 'Presets');
    await b.click('gridcell', /1$/);
    await b.says('region', 'Chosen slot', 'program 0');
    await b.type('Nothing', Key.ENTER, 'Something', Key.ENTER);
    await b.find('gridcell', /Something$/);
    await addUnit(b, 'Shingle', /^Small pad controller/);
    await b.click('link', 'Driftglass');
    await b.click('link', 'Controls');
    await b.click('button', 'Add a control');
    await b.fill('textbox', 'What the unit calls it', `Mud${Key.ENTER}`);
    await b.find('button', 'Mud');
    await b.click('button', 'Learn');
    await b.click('button', 'Pad 1 of Shingle');
    await b.says('status', 'Learnt', /note 48/);
    await b.click('button', 'Use it');
    await b.says('group', 'Values and bytes', /90 30/);
    await b.click('button', 'Teach');
    await b.says('status', 'Lesson', 'Driftglass has learnt');
    await b.click('button', 'Done');
    await b.click('link', 'Presets');
    await b.click('gridcell', /Nothing$/);
    await b.click('button', 'Walk');
    await b.fill('textbox', 'Seconds for each', '2');
    await b.click('button', 'Start');
    await b.wait(async () => (await lampOf(b, 'Driftglass')).includes('Nothing'), 'it is on the first');
    await b.wait(async () => (await lampOf(b, 'Driftglass')).includes('Something'), 'and on the next');
  });
});

describe('walk 6: presets that a firmware moved', () => {
  it('has the new list compared and taken over, and every song follows', async () => {
    await newShow(b);
    await addUnit(b, 'Skerry');
    await namePresets(b, 'A1', 'Calm', 'Storm', 'Squall');
    await b.click('link', 'Chart');
    await addSong(b, 'Lee Shore');
    await placeAt(b, '1', 'calm');
    await placeAt(b, '5', 'squall');
    await b.find('button', '5|1 Squall, proven');
    await b.click('link', 'Map');
    await b.click('button', 'Import list');
    await b.press('textbox', /^Names one below the other/, 'A1;Storm\nA2;Squal\nA3;Calm');
    await b.click('radio', /^The list as it is in the unit now/);
    await b.click('button', 'Compare with the map');
    await b.says('table', 'Before and after', /Squal/);
    await b.click('button', 'Use this order');
    await b.find('gridcell', 'A3 Calm');
    await b.click('link', 'Timing and behaviour');
    await b.fill('textbox', 'This map is for firmware', `2.1${Key.ENTER}`);
    await b.click('link', 'Chart');
    await goTo(b, '1');
    await b.says('region', 'The rig here', 'A3 Calm');
    await goTo(b, '5');
    await b.says('region', 'The rig here', /A2 Squal/);
    await b.find('button', /^5\|1 Squall, proven$/);
  });
});

describe('walk 7: one preset for the night, scenes within it', () => {
  it('has scenes on the bars, a core tone on a number key, and a pedal’s control swept and drawn', async () => {
    await newShow(b);
    await addUnit(b, 'Treadboard', /^Foot controller with ten/);
    await addUnit(b, 'Skerry');
    await namePresets(b, 'A1', 'Night');
    await b.click('link', 'Chart');
    await addSong(b, 'One Colour');
    await placeAt(b, '1', 'night');
    for (const [bar, scene] of [
      ['5', '2'],
      ['9', '3'],
      ['13', '2'],
    ] as const) {
      await placeAt(b, bar, `a1 scene ${scene}`);
      await b.find('button', new RegExp(`^${bar}\\|1 .*, proven$`));
    }
    await goTo(b, '17');
    await b.click('button', 'Close');
    await b.pick(/Add to the core$/, 'Night');
    await b.press('group', 'Chart of One Colour', '1');
    await b.find('button', /^17\|1 .*, proven$/);
    await goTo(b, '19');
    await b.addSweep('Skerry: Wah sweep');
    await b.fill('textbox', 'To bar|beat', `21${Key.ENTER}`);
    await b.find('image', /^Curve of the sweep/);
    await b.click('button', 'Record');
    await b.find('button', 'Stop');
    await b.grip('Record from a pedal');
    await movePedal(b);
    await b.says('status', 'Recording', /\d+ points kept/);
    await b.says('banner', undefined, 'lands on time');
  });
});

describe('walk 8: a delay with a looper and tap', () => {
  it('has the tempo tapped for it, the looper recorded on the beat, and its trails let ring', async () => {
    await newShow(b);
    await addUnit(b, 'Skerry');
    await addUnit(b, 'Longshore', /^Delay with/);
    await namePresets(b, '01-1', 'Slap', 'Oars');
    await b.click('link', 'Tones');
    await b.click('link', 'Moves');
    await b.find('heading', 'Moves');
    await b.click('button', 'New move');
    await b.find('region', /^Move \d+$/);
    await b.click('link', 'Chart');
    await addSong(b, 'Round and Round', '96');
    await placeAt(b, '1', 'slap');
    await placeAt(b, '5', 'longshore looper record');
    await b.find('button', /^5\|1 .*, proven$/);
    await placeAt(b, '9', 'oars');
    await b.find('button', /^9\|1 Oars, proven$/);
    // Its tempo is tapped at the song's beginning, and its sound rings on when the preset goes.
    await b.click('button', 'Close');
    await b.click('switch', 'Skerry');
    await b.find('button', 'Undo: tap the tempo to Skerry');
    await b.click('link', 'Tones');
    await b.click('gridcell', /^Oars, Longshore/);
    await b.pick(/Delay is left$/, 'ringing out');
    await b.click('link', 'Chart');
    await b.find('button', /^9\|1 Oars, (proven|fails)$/);
  });
});

describe('walk 9: lights on the same timeline', () => {
  it('has a bank for the song, looks by section, in a lane that can be folded away', async () => {
    await newShow(b);
    await addUnit(b, 'Skerry');
    await namePresets(b, 'A1', 'Calm', 'Storm');
    await addUnit(b, 'Candles', /^Lights/);
    await namePresets(b, 'bank 1 look 01', 'Dusk', 'Noon');
    await b.click('link', 'Chart');
    await addSong(b, 'Beacon');
    await goTo(b, '9');
    await b.click('radio', 'Structure');
    await b.click('button', /Section at bar 9$/);
    await b.find('group', 'Section Section 1');
    await placeAt(b, '1', 'dusk');
    await placeAt(b, '9', 'noon');
    await placeAt(b, '9|1', 'storm');
    await b.find('dialog');
    await b.click('button', 'Have both');
    await b.find('button', '9|1 Noon, proven');
    await b.find('button', '9|1 Storm, proven');
    await b.click('radio', 'Lanes');
    await b.click('button', 'Mute Candles');
    await b.click('button', 'Fold all');
    await b.find('button', 'Unfold all');
    expect(await b.textOf('group', 'Chart of Beacon')).toContain('Section 1');
  });
});
