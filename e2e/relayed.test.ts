import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, inject, it } from 'vitest';
import { begin, chooseFile, openShelf, openShowFacts } from './begin';
import { Browser, Key } from './browser';

const { b, folder } = begin();

/** A second of silence (RIFF, 16-bit PCM, one channel, 8 kHz). */
function silence(name: string): string {
  const bytes = Buffer.alloc(44 + 16_000);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(36 + 16_000, 4);
  bytes.write('WAVEfmt ', 8);
  bytes.writeUInt32LE(16, 16);
  bytes.writeUInt16LE(1, 20);
  bytes.writeUInt16LE(1, 22);
  bytes.writeUInt32LE(8000, 24);
  bytes.writeUInt32LE(16_000, 28);
  bytes.writeUInt16LE(2, 32);
  bytes.writeUInt16LE(16, 34);
  bytes.write('data', 36);
  bytes.writeUInt32LE(16_000, 40);
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
}

async function addUnit(name: string, kind: RegExp | null): Promise<void> {
  await b.click('button', 'Add a unit');
  await b.fill('textbox', 'Name', name);
  if (kind) await b.pick(/Kind$/, kind);
  await b.click('button', 'Add the unit');
  await b.find('grid', `Slots of ${name}`);
}

describe('a rig with an amplifier that the modeler tells where to go', () => {
  it('is built from nothing', async () => {
    await openShelf(b);
    await b.click('button', 'New show');
    await b.click('link', 'Map');
    await addUnit('Sandbar', null);
    await b.click('gridcell', 'A1');
    await b.type('Low Tide', Key.ENTER);
    await b.find('gridcell', 'A1 Low Tide');
    await addUnit('Groyne', /amplifier/i);
    await b.click('gridcell', /1$/);
    await b.type('Clean', Key.ENTER);
    await b.find('gridcell', /Clean$/);
    await b.type('Loud', Key.ENTER);
    await b.find('gridcell', /Loud$/);
    await b.click('link', 'Rig');
    await b.click('button', /^Groyne channel/);
    await b.pick(/Input from$/, 'Sandbar, out');
    await b.click('link', 'Map');
    await b.click('link', 'Sandbar');
    await b.click('link', 'Relay rules');
    await b.click('button', /1-2 call Groyne/);
    await b.find('group', 'Rule to Groyne, Loud');
  });

  it('has a tone of preset and scene proven, the amplifier in time with it', async () => {
    await b.click('link', 'Tones');
    await b.click('button', 'Add the first tone');
    await b.click('button', 'Include Sandbar');
    await b.fill('combobox', 'Preset', `low${Key.ENTER}`);
    await b.pick(/^\S+ Scene$|Scene$/, '2');
    await b.says('region', 'Groyne', /brought to .*Loud by a relay rule/);
    await b.fill('textbox', 'Tone', `Swell${Key.ENTER}`);
    await b.click('link', 'Chart');
    await b.click('button', 'Add a song');
    await b.fill('textbox', 'Title', 'First Light');
    await b.click('button', 'Add the song');
    await b.find('group', 'Chart of First Light');
    await b.fill('textbox', /^Bar\|beat/, `3${Key.ENTER}`);
    await b.type('swell', Key.ENTER);
    await b.find('button', '3|1 Swell, proven');
    await b.says('region', 'Chosen cue', /Groyne is there on time, 5\.0 ms before its beat/);
    await b.says('region', 'Chosen cue', /Sandbar is there/);
  });

  it('has what is stored where on paper, to be ticked off at the units', async () => {
    await b.click('link', 'Files');
    await b.pick(/Sheet$/, 'Stored states');
    await b.says('main', undefined, /Groyne[^]*Loud/);
    await b.click('link', 'Chart');
  });

  it('says why a change comes too late, and mends it with one press', async () => {
    await b.fill('textbox', /^Bar\|beat/, `3|1.25${Key.ENTER}`);
    await b.type('sandbar b3', Key.ENTER);
    await b.find('button', /^3\|1\.25 .*, fails$/);
    await b.says('region', 'Chosen cue', /ms late, because/);
    await b.click('button', /^Move it \d+ ms later$/);
    await b.find('button', /^3\|\S+ \S+ B3, proven$/);
  });

  it('goes out as a file with its recording, and opens whole in another browser', async () => {
    await b.click('radio', 'Sound');
    await chooseFile(b, silence('take.wav'));
    await b.find('group', 'take');
    await b.fill('textbox', 'Level in dB', `-7${Key.ENTER}`);
    await openShowFacts(b);
    await b.click('button', 'Export show');
    await b.says('status', 'Export', 'Exported new-show.zip with 1 recording.');
    const path = join(folder, 'new-show.zip');
    writeFileSync(path, readFileSync(await b.downloaded('new-show.zip')));
    const other = await Browser.open();
    try {
      await other.go(inject('address'));
      await other.find('button', 'New show');
      await chooseFile(other, path);
      await other.click('link', 'First Light');
      await other.find('button', '3|1 Swell, proven');
      await other.click('radio', 'Sound');
      await other.find('group', 'take');
      const level = await other.find('textbox', 'Level in dB');
      expect(await level.getAttribute('value')).toBe('-7');
      await other.gone('alert', /not in this browser/);
      await openShowFacts(other);
      await other.click('button', 'Export show');
      await other.says('status', 'Export', 'with 1 recording.');
    } finally {
      await other.close();
    }
  });
});
