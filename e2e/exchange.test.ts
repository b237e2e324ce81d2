import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { begin, chooseFile, openDemo, openShelf } from './begin';
import { Key } from './browser';

// Each part goes on where the one before it stopped.
const { b, folder } = begin();

const arrived = (name: string): Promise<string> => b.downloaded(name);

const exported = 'What was exported';
const inFile = 'What is in the file';

/** Holds a file above the page and lets go, as dragging it from a folder does. */
async function drop(name: string, text: string): Promise<void> {
  await b.driver.executeScript(
    `const files = new DataTransfer();
     files.items.add(new File([arguments[1]], arguments[0]));
     const tell = (kind) => document.body.dispatchEvent(
       new DragEvent(kind, { bubbles: true, cancelable: true, dataTransfer: files }));
     tell('dragenter'); tell('dragover'); tell('drop');`,
    name,
    text,
  );
}

describe('what is exported', () => {
  it('is a song with its tones, and the report says what stays behind', async () => {
    await openDemo(b);
    await b.type(Key.chord(Key.ALT, '9'));
    await b.click('link', 'Export');
    await b.pick(/Song, with its tones$/, 'Fog Bell');
    await b.click('button', 'Export: Song, with its tones');
    const part = JSON.parse(readFileSync(await arrived('fog-bell.lantern-song.json'), 'utf8')) as Record<
      string,
      unknown
    >;
    expect(part).toMatchObject({ format: 'hollow-lantern-part', kind: 'songs' });
    await b.says('complementary', exported, /Not in the file: .*cables, channels and players/);
  });

  it('is the whole set as MIDI files, one for each player', async () => {
    await b.pick(/Songs$/, /^The set/);
    await b.pick(/Times$/, /^With early sends/);
    await b.pick(/Files$/, 'One for each player');
    await b.click('button', 'Export MIDI file');
    const zip = readFileSync(await arrived('evening-at-the-pier-sent.zip'));
    expect(zip.subarray(0, 2).toString('latin1')).toBe('PK');
    expect(zip.toString('latin1')).toContain('evening-at-the-pier-ines-sent.mid');
    await b.says('complementary', exported, /In front of \d+ songs the file has bars of its own/);
  });

  it('is one track, with a word about channels that cannot be told apart', async () => {
    await b.pick(/Files$/, 'One for all units');
    await b.pick(/Format$/, /^Type 0/);
    await b.click('button', 'Export MIDI file');
    const file = readFileSync(await arrived('evening-at-the-pier-sent.mid'));
    expect([...file.subarray(8, 12)]).toEqual([0, 0, 0, 1]);
  });

  it('is a table of cues', async () => {
    await b.pick(/^.*Song$/, 'Fog Bell');
    await b.click('button', 'Export table');
    expect(readFileSync(await arrived('fog-bell-cues.csv'), 'utf8')).toMatch(/^Place,Kind,Name,/);
  });
});

describe('a file that is dropped in any view', () => {
  it('shows what it would change before it does: cues that were edited in a spreadsheet', async () => {
    const text = readFileSync(await arrived('fog-bell-cues.csv'), 'utf8')
      .trimEnd()
      .split('\r\n');
    await b.click('link', 'Set');
    await b.find('heading', 'The set');
    await drop('fog-bell-cues.csv', `${text.slice(0, -1).join('\r\n')}\r\n`);
    await b.find('heading', 'fog-bell-cues.csv');
    await b.says('list', 'What changes', /Fog Bell: 1 cue gone/);
    await b.click('button', 'Import fog-bell-cues.csv');
    await b.says('status', 'Note', 'fog-bell-cues.csv is in the show.');
    await b.find('button', 'Undo: import fog-bell-cues.csv');
    await b.click('link', 'Versions and storage');
    await b.find('rowheader', 'Before importing fog-bell-cues.csv');
    await b.click('button', 'Undo: import fog-bell-cues.csv');
  });

  it('asks about a name that a spreadsheet changed, and reads it as one says', async () => {
    const list = (name: string): string => `label,name\r\nA1,${name}\r\n`;
    await drop('quillback-presets.csv', list('007'));
    await b.click('button', 'Import quillback-presets.csv');
    await b.says('status', 'Note', 'quillback-presets.csv is in the show.');
    await drop('quillback-presets.csv', list('7'));
    await b.says('alert', 'About quillback-presets.csv', /"7" looks like what a spreadsheet made of "007"/);
    await b.click('radio', /^As they are written/);
    await b.says('list', 'What changes', /Quillback: A1 007 is A1 7 now/);
    await b.click('radio', /^As the show has them/);
    await b.says('region', 'What changes', /Nothing: the show has all of this already/);
    await b.click('button', 'Undo: import quillback-presets.csv');
  });

  it('says what is wrong in it, and where', async () => {
    await drop('cues.csv', 'Place,Kind,Name\r\n1|1,tone,No such tone\r\n');
    await b.says('alert', 'About cues.csv', 'Line 2, column 3: The show has no tone "No such tone".');
    await drop('show.json', '{"format":');
    await b.says('alert', undefined, /show\.json was not opened/);
  });
});

describe('a part in another show', () => {
  it('brings its units, tones and song', async () => {
    const part = await arrived('fog-bell.lantern-song.json');
    await openShelf(b);
    await b.click('button', 'New show');
    await b.find('heading', 'The set');
    await b.type(Key.chord(Key.ALT, '9'));
    await b.click('link', 'Import');
    await chooseFile(b, part);
    await b.says('list', 'What changes', 'New: unit Quillback.');
    await b.says('list', 'What changes', 'New: song Fog Bell.');
    await b.click('button', 'Import fog-bell.lantern-song.json');
    await b.click('link', 'Chart');
    await b.find('group', 'Chart of Fog Bell');
  });

  it('asks about names that both have, and finds units by their names', async () => {
    await b.click('link', 'Files');
    await b.click('link', 'Import');
    await chooseFile(b, await arrived('fog-bell.lantern-song.json'));
    await b.says('list', 'Names that both have', 'Song Fog Bell is in this show too');
    await b.says('list', 'Units of the file', 'Quillback of this show');
    await b.says('list', 'What changes', 'New: song Fog Bell 2.');
    await b.pick(/Song Fog Bell$/, 'Keep mine');
    await b.says('region', 'What changes', 'Nothing: the show has all of this already.');
  });

  it('takes songs out of a whole show', async () => {
    const path = join(folder, 'whole.zip');
    await openShelf(b);
    await b.click('link', 'Winter Pier Residency');
    await b.click('link', 'Files');
    await b.click('link', 'Export');
    await b.click('button', 'Export show');
    writeFileSync(path, readFileSync(await arrived('winter-pier-residency.zip')));
    await openShelf(b);
    await b.click('link', 'New show');
    await b.click('link', 'Files');
    await b.click('link', 'Import');
    await chooseFile(b, path);
    await b.says('region', inFile, 'Winter Pier Residency is a whole show');
    await b.click('switch', 'Nine Fathoms');
    await b.click('button', 'Import these songs');
    await b.says('list', 'What changes', 'New: song Nine Fathoms.');
    await b.click('button', 'Import whole.zip');
    await b.click('link', 'Chart');
    await b.find('button', /Nine Fathoms|Fog Bell/);
    expect(await b.text('main')).toContain('Fog Bell');
  });
});
