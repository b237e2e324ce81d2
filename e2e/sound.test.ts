import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { begin, chooseFile, openDemo, tapUntilHeard } from './begin';
import { Key } from './browser';
import { RATE, impulses } from './recordings';

const { b, folder } = begin();

/** The left channel of a 16-bit stereo WAV file, from -1 to 1. */
function leftOf(bytes: Buffer): Float64Array {
  expect(bytes.toString('latin1', 0, 4)).toBe('RIFF');
  expect([bytes.readUInt16LE(22), bytes.readUInt32LE(24), bytes.readUInt16LE(34)]).toEqual([2, RATE, 16]);
  const count = bytes.readUInt32LE(40) / 4;
  return Float64Array.from({ length: count }, (_, i) => bytes.readInt16LE(44 + i * 4) / 32768);
}

describe('what is heard beside the units', () => {
  it('gets a click with count-in, and a call ahead of a section', async () => {
    await openDemo(b);
    await b.click('button', 'Add a song');
    await b.find('dialog');
    await b.type('Bell Buoy', Key.TAB, '97', Key.TAB, '4/4', Key.TAB, '6', Key.ENTER);
    await b.find('group', 'Chart of Bell Buoy');
    await b.press('textbox', /^Bar\|beat/, Key.chord(Key.CONTROL, 'a'), '4', Key.ENTER);
    await b.type(Key.ESCAPE);
    await b.click('radio', 'Structure');
    await b.click('button', /Section at bar 4$/);
    await b.find('group', 'Section Section 1');
    await b.click('radio', 'Sound');
    await b.find('region', 'Sound of the song');
    await b.find('button', /Count-in/);
    await b.click('button', /Section 1, bar 4/);
    await b.click('option', 'tones');
    await b.fill('textbox', 'beats ahead', `3${Key.ENTER}`);
  });

  it('takes a recording in, draws it, and says what it cannot read', async () => {
    const broken = join(folder, 'broken.wav');
    writeFileSync(broken, 'this is no sound at all');
    await chooseFile(b, broken);
    await b.says('alert', undefined, /"broken\.wav" cannot be decoded: expected WAV, MP3, OGG or FLAC/);
    const empty = join(folder, 'empty.mp3');
    writeFileSync(empty, '');
    await chooseFile(b, empty);
    await b.says('alert', undefined, /"empty\.mp3" is empty/);
    await chooseFile(b, impulses(folder, 'ticks.wav', RATE * 3, [0, 12_000]));
    await b.find('group', 'ticks');
    await b.fill('textbox', 'and after, ms', `100${Key.ENTER}`);
    await b.find('button', 'Undo: move a recording');
  });

  it('comes out of the renderer right to the sample', async () => {
    await b.click('button', 'Sound as a WAV file');
    await b.says('status', 'Sound file', /Exported bell-buoy-click\.wav: bar 1 begins 2\.474 s into it/);
    const heard = leftOf(readFileSync(await b.downloaded('bell-buoy-click.wav')));
    const beat = (60 / 97) * RATE;
    const levelAt = (sample: number): number => Math.abs(heard[sample]!);
    // A bar of count-in, then six bars: each beat begins in its own sample, out of silence.
    for (let i = 0; i < 28; i++) {
      const at = Math.round(i * beat);
      expect(levelAt(at), `click ${i}`).toBeGreaterThan(i % 4 === 0 ? 0.85 : 0.6);
      if (i > 0) expect(levelAt(at - 1), `before click ${i}`).toBeLessThan(0.02);
    }
    // The call comes three beats ahead of bar 4, on top of a click.
    expect(levelAt(Math.round((4 + 9) * beat))).toBeGreaterThan(0.95);
    expect(levelAt(Math.round((4 + 8) * beat))).toBeGreaterThan(0.85);
    // The recording begins 100 ms after bar 1, and its second impulse 12,000 samples later.
    const begins = Math.round(4 * beat + 0.1 * RATE);
    expect(levelAt(begins)).toBeGreaterThan(0.4);
    expect(levelAt(begins + 12_000)).toBeGreaterThan(0.4);
    expect(levelAt(begins - 1)).toBeLessThan(0.02);
  });

  it('has a word and a count ahead of any bar, as samples on their beats', async () => {
    await b.fill('textbox', 'Call ahead of bar', `9${Key.ENTER}`);
    await b.says('alert', undefined, /There is no bar 9; the song has bars up to/);
    await b.fill('textbox', 'Call ahead of bar', `3${Key.ENTER}`);
    await b.click('button', /no count Counted ahead/);
    await b.click('option', '1 bar');
    await b.find('button', 'Undo: count ahead of a call');
    await b.click('button', 'Hear the call for Before bar 3');
    rmSync(join(b.downloads, 'bell-buoy-click.wav'));
    await b.click('button', 'Sound as a WAV file');
    const heard = leftOf(readFileSync(await b.downloaded('bell-buoy-click.wav')));
    const beat = (60 / 97) * RATE;
    /** How loud it is behind the click of a beat, from the first one that is counted in. */
    const behind = (n: number): number => {
      const from = Math.round(n * beat + 0.06 * RATE);
      const part = heard.slice(from, from + Math.round(0.15 * RATE));
      return Math.sqrt(part.reduce((sum, s) => sum + s * s, 0) / part.length);
    };
    // The word is said a bar ahead of the count, in the count-in's place: nothing of it is before the first bar.
    for (const n of [8, 9, 10, 11]) expect(behind(n), `beat ${n - 7} of bar 2`).toBeGreaterThan(0.02);
    for (const n of [12, 16, 17, 24]) expect(behind(n), `beat ${n}`).toBeLessThan(0.01);
    await b.click('button', 'Undo: count ahead of a call');
    await b.click('button', 'Remove the call for Before bar 3');
  });

  it('finds the recording again after a reload', async () => {
    const text = (): Promise<string> => b.driver.executeScript('return document.body.innerText');
    await b.wait(async () => (await text()).includes('Saved in this browser'), 'the show is saved');
    await b.driver.navigate().refresh();
    await b.find('group', 'Chart of Bell Buoy');
    await b.click('radio', 'Sound');
    await b.find('group', 'ticks');
    await b.gone('alert');
  });

  it('takes a call up as it is spoken', async () => {
    await b.click('button', /The song itself/);
    await b.click('option', 'own sound');
    await b.click('button', 'Speak it');
    await b.says('timer', undefined, /^(0\.[4-9]|[1-9])/);
    await b.click('button', 'Stop recording');
    await b.find('button', 'Undo: call with Call The song itself');
    await b.find('button', 'Another sound');
    await b.click('button', 'Undo: call with Call The song itself');
  });

  it('takes a recording that is dropped on it', async () => {
    const zone = await (await b.find('button', 'Add a recording')).getRect();
    const data = { items: [], files: [impulses(folder, 'dropped.wav', RATE, [0])], dragOperationsMask: 1 };
    const place = { x: Math.round(zone.x + 20), y: Math.round(zone.y - 3) };
    for (const type of ['dragEnter', 'dragOver', 'drop']) {
      await b.driver.sendDevToolsCommand('Input.dispatchDragEvent', { type, ...place, data });
    }
    await b.find('group', 'dropped');
    await b.click('button', 'Remove dropped');
  });

  it('has bars laid onto it by tapping along: where bar 1 is, and the tempo', async () => {
    await b.click('button', 'Lay bars onto ticks');
    await b.says('dialog', undefined, /Behind bar 1 the recording has/);
    // Bar 1 slides along the recording with the pointer, and snaps to nothing.
    const wave = await b.find('image', 'The recording; bar 1 at 0.000 s');
    await b.driver
      .actions()
      .move({ origin: wave, x: -200 })
      .press()
      .move({ origin: wave, x: -100 })
      .release()
      .perform();
    await b.find('image', /^The recording; bar 1 at 1\.0\d\d s$/);
    await b.click('button', 'Cancel');
    await chooseFile(b, impulses(folder, 'long take.wav', RATE * 20, [0, RATE, RATE * 2]));
    await b.click('button', 'Lay bars onto long take');
    await b.click('button', 'Play it');
    await b.find('button', 'Stop');
    await tapUntilHeard(b);
    await b.click('button', 'Stop');
    // Each tap can be corrected, and one that was missed put in.
    await b.fill('textbox', 'Tap 1, in seconds', `8${Key.ENTER}`);
    for (const at of ['8.5', '9']) await b.fill('textbox', 'Another tap (s)', `${at}${Key.ENTER}`);
    await b.says('status', 'What comes of it', '120.00 beats a minute, taps off by up to 0 ms');
    await b.says('status', 'What comes of it', 'Behind bar 1 the recording has 6 bars');
    await b.click('button', 'Lay the bars');
    await b.find('button', 'Undo: lay bars onto a recording');
    await b.says('group', 'Chart of Bell Buoy', '♩ = 120');
    await b.click('button', 'Undo: lay bars onto a recording');
    await b.click('button', 'Remove long take');
  });

  it('plays with the count-in before bar 1', async () => {
    await b.press('textbox', /^Bar\|beat/, Key.chord(Key.CONTROL, 'a'), '1', Key.ENTER);
    await b.type(Key.ESCAPE);
    await b.click('button', 'Play');
    await b.find('button', 'Stop');
    // Each is there for a beat: on a busy machine the next one is seen.
    await b.says('group', 'Transport', /^(in \d|ready)/);
    await b.says('group', 'Transport', /^(1\|[2-9]|[2-9]\|)/);
    await b.click('button', 'Stop');
  });

  it('mutes a lane, and folds a player away', async () => {
    await b.click('radio', 'Lanes');
    await b.click('button', 'Mute Oxbow Forty');
    await b.click('button', 'Fold Maude');
    await b.find('button', 'Unfold Maude');
    await b.click('button', 'Fold all');
    await b.find('button', 'Unfold all');
    await b.click('button', 'Unfold all');
  });
});
