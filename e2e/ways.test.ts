import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { writeMidi } from 'midi-file';
import { describe, expect, it } from 'vitest';
import { begin, goTo, movePedal, openDemo } from './begin';
import { By, Key } from './browser';

const { b, folder } = begin();

describe('a move', () => {
  it('is made once and named', async () => {
    await openDemo(b);
    await b.click('link', 'Tones');
    await b.click('link', 'Moves');
    await b.click('button', 'New move');
    await b.find('region', /^Move \d+$/);
    const name = await b.driver.findElement(By.css('[aria-label^="Move "] input'));
    await name.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Drop anchor', Key.ENTER);
    await b.find('region', 'Drop anchor');
    await b.find('button', 'Undo: rename a move');
  });

  it('is placed by its name, and says in how many songs it is', async () => {
    await b.click('link', 'Chart');
    await b.find('group', /^Chart of Slack Tide/);
    await goTo(b, '3');
    await b.press('combobox', 'Tone', 'drop anch', Key.ENTER);
    await b.find('button', /^3\|1 Drop anchor/);
    await b.click('link', 'Tones');
    await b.click('link', 'Moves');
    await b.says('region', 'Drop anchor', 'in 1 song');
  });
});

describe('core tones', () => {
  it('are placed with a number key', async () => {
    await b.click('link', 'Chart');
    await b.find('group', /^Chart of Slack Tide/);
    await goTo(b, '7');
    const paper = await b.find('group', /^Chart of Slack Tide/);
    const first = await b.driver.executeScript<string>(
      `return [...document.querySelectorAll('[aria-label="Core tones"] li')][0].innerText`,
    );
    const name = first.replace(/^\d\s*/, '').trim();
    await paper.sendKeys('1');
    await b.find('button', new RegExp(`^7\\|1 ${name}`));
    await b.find('button', `Undo: place ${name}`);
  });
});

describe('a sweep', () => {
  it('is recorded from a pedal, thinned within a stated error', async () => {
    await goTo(b, '3');
    await b.addSweep('Quillback: Delay mix');
    await b.fill('textbox', 'To bar|beat', `9${Key.ENTER}`);
    await b.click('button', 'Record');
    await b.find('button', 'Stop');
    await b.grip('Record from a pedal');
    await movePedal(b);
    await b.says('status', 'Recording', /\d+ values taken, \d+ points kept: within \d+ % of the range/);
    await b.find('button', 'Undo: record a sweep');
  });
});

describe('a song from a MIDI file', () => {
  const program = (deltaTime: number, channel: number, programNumber: number) =>
    ({ deltaTime, type: 'programChange', channel, programNumber }) as const;

  it('comes in named through the map', async () => {
    const bytes = writeMidi({
      header: { format: 1, numTracks: 2, ticksPerBeat: 480 },
      tracks: [
        [
          { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: 500000 },
          {
            deltaTime: 0,
            meta: true,
            type: 'timeSignature',
            numerator: 4,
            denominator: 4,
            metronome: 24,
            thirtyseconds: 8,
          },
          { deltaTime: 0, meta: true, type: 'marker', text: 'Ebb' },
          { deltaTime: 480 * 32, meta: true, type: 'endOfTrack' },
        ],
        [
          { deltaTime: 0, meta: true, type: 'trackName', text: 'Quillback' },
          { deltaTime: 0, type: 'controller', channel: 0, controllerType: 0, value: 0 },
          program(0, 0, 47),
          { deltaTime: 480 * 16, type: 'controller', channel: 0, controllerType: 0, value: 0 },
          program(0, 0, 2),
          { deltaTime: 480 * 16, meta: true, type: 'endOfTrack' },
        ],
      ],
    });
    writeFileSync(join(folder, 'Driftwood Reel.mid'), Uint8Array.from(bytes));
    await b.click('link', 'Set');
    await b.click('button', 'Song from a MIDI file');
    await b.find('button', 'Choose the file');
    await b.driver.findElement(By.css('[role=dialog] input[type=file]')).sendKeys(join(folder, 'Driftwood Reel.mid'));
    await b.says('status', 'What was understood', /./);
    await b.find('button', /Quillback.*Unit for|Unit for.*Quillback/);
    await b.click('button', 'Add the song');
    await b.find('group', 'Chart of Driftwood Reel');
    // Bar 5 goes to the preset that the map knows as A3.
    const flags = await b.driver.findElements(By.css('[aria-label^="5|1 "]'));
    const said = await Promise.all(flags.map(async (f) => (await f.getAttribute('aria-label')) ?? ''));
    expect(said.some((s) => s.includes('Harbour Clean'))).toBe(true);
    await b.find('button', /^5\|1 .*, proven$/);
  });

  it('that holds several songs is cut where they begin: behind a silence, and at a bar that is typed', async () => {
    const at = (bars: number): number => 480 * 4 * bars;
    const bytes = writeMidi({
      header: { format: 1, numTracks: 1, ticksPerBeat: 480 },
      tracks: [
        [
          { deltaTime: 0, meta: true, type: 'trackName', text: 'Quillback' },
          {
            deltaTime: 0,
            meta: true,
            type: 'timeSignature',
            numerator: 4,
            denominator: 4,
            metronome: 24,
            thirtyseconds: 8,
          },
          program(0, 0, 47),
          program(at(2), 0, 2),
          program(at(10), 0, 47),
          program(at(2), 0, 2),
          { deltaTime: at(4), meta: true, type: 'endOfTrack' },
        ],
      ],
    });
    writeFileSync(join(folder, 'Whole evening.mid'), Uint8Array.from(bytes));
    await b.click('link', 'Set');
    await b.click('button', 'Song from a MIDI file');
    await b.find('button', 'Choose the file');
    await b.driver.findElement(By.css('[role=dialog] input[type=file]')).sendKeys(join(folder, 'Whole evening.mid'));
    await b.click('switch', /^Bar 13, behind \d+ s of silence$/);
    await b.fill('textbox', 'Another bar', `99${Key.ENTER}`);
    await b.says('alert', undefined, /There is no bar 99; the song has bars up to/);
    await b.fill('textbox', 'Another bar', `1${Key.ENTER}`);
    await b.says('alert', undefined, /Expected a bar from 2 to/);
    await b.fill('textbox', 'Another bar', `3${Key.ENTER}`);
    await b.find('switch', 'Bar 3');
    await b.click('button', 'Add 3 songs');
    await b.find('group', 'Chart of Whole evening');
    await b.type(Key.chord(Key.CONTROL, 'k'), 'whole evening');
    await b.find('menuitem', /^Whole evening 2\W+song/);
    await b.type(' 3');
    await b.gone('menuitem', /^Whole evening 2\W/);
    await b.type(Key.ENTER);
    await b.find('group', 'Chart of Whole evening 3');
    await b.find('button', /^3\|1 .*, proven$/);
    await b.click('button', 'Undo: add 3 songs');
    await b.type(Key.chord(Key.CONTROL, 'k'), 'whole evening');
    await b.says('dialog', undefined, 'Nothing is called that');
    await b.type(Key.ESCAPE);
    await b.gone('dialog');
  });

  it('says what is wrong with one that cannot be read, and nothing is lost', async () => {
    writeFileSync(join(folder, 'torn.mid'), Uint8Array.from([0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 1]));
    await b.click('link', 'Set');
    await b.click('button', 'Song from a MIDI file');
    await b.find('button', 'Choose the file');
    await b.driver.findElement(By.css('[role=dialog] input[type=file]')).sendKeys(join(folder, 'torn.mid'));
    await b.says('dialog', undefined, /torn\.mid/);
    const add = await b.find('button', 'Add the song');
    expect(await add.isEnabled()).toBe(false);
    await b.click('button', 'Cancel');
    await b.find('link', 'Driftwood Reel');
  });
});

describe('the chart', () => {
  it('gives a file that holds what was placed', async () => {
    await b.click('link', 'Slack Tide in Seven');
    await b.find('group', /^Chart of Slack Tide/);
    await b.click('button', 'MIDI file');
    await b.click('menuitem', /^As written/);
    expect(
      readFileSync(await b.downloaded('.mid'))
        .subarray(0, 4)
        .toString(),
    ).toBe('MThd');
  });
});
