import { existsSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { inFolder } from './testing';

const { lantern, refuses, path } = inFolder();
const json = (text: string): any => JSON.parse(text);

describe('lantern, with files of others', () => {
  it('takes tables out, and in again', async () => {
    expect(
      (await lantern('table', 'demo.json', '--kind', 'cues', '--of', 'fog bell', '--out', 'fog.csv')).out,
    ).toContain('fog.csv written');
    const again = await lantern(
      'table',
      'demo.json',
      '--kind',
      'cues',
      '--of',
      'Fog Bell',
      '--in',
      'fog.csv',
      '--out',
      'same.json',
    );
    expect(again.out.split('\n')[0]).toBe('same.json: nothing changed');
    const list = path('presets.csv');
    writeFileSync(list, 'label,name\nA1,Brine\n');
    const { out } = await lantern(
      'table',
      'demo.json',
      '--kind',
      'presets',
      '--of',
      'Quillback',
      '--in',
      'presets.csv',
      '--out',
      'named.json',
      '--json',
    );
    const said = json(out) as unknown as { changes: string[] };
    expect(said.changes[0]).toMatch(/^Quillback: .*Brine/);
    await refuses(['table', 'demo.json', '--kind', 'cues', '--out', 'x'], 'A table of cues wants --of, a song.');
    await refuses(['table', 'demo.json', '--kind', 'tones', '--of', 'x', '--out', 'x'], /takes no --of/);
    await refuses(
      ['table', 'demo.json', '--kind', 'napkin', '--out', 'x'],
      /There is no table "napkin"; there are cues,/,
    );
    writeFileSync(path('bad.csv'), 'label,name\nZZ9,Nowhere\n');
    await refuses(
      ['table', 'demo.json', '--kind', 'presets', '--of', 'Quillback', '--in', 'bad.csv', '--out', 'never.json'],
      /Line 2, column 1: Quillback has no slot "ZZ9"/i,
    );
    expect(existsSync(path('never.json'))).toBe(false);
  });

  it('asks about names that a spreadsheet changed, and reads them as one says', async () => {
    const of = ['--kind', 'presets', '--of', 'Quillback'];
    writeFileSync(path('odd.csv'), 'label,name\nA1,007\n');
    writeFileSync(path('saved.csv'), 'label;name\nA1;7\n');
    await lantern('table', 'demo.json', ...of, '--in', 'odd.csv', '--out', 'odd.json');
    const again = ['table', 'odd.json', ...of, '--in', 'saved.csv', '--out', 'again.json'];
    await refuses(again, /"7" looks like what a spreadsheet made of "007"/);
    expect((await lantern(...again, '--made', 'keep')).out).toContain('nothing changed');
    expect((await lantern(...again, '--made', 'take')).out).toContain('A1 007 is A1 7 now');
    await refuses([...again, '--made', 'guess'], /--made is ask, keep, take; "guess" is none of them/);
    await refuses(['table', 'odd.json', ...of, '--made', 'keep', '--out', 'x'], /--made is for a table that comes in/);
  });

  it('takes parts out, and into another show', async () => {
    await lantern('part', 'demo.json', '--kind', 'song', '--of', 'Fog Bell', '--out', 'fog.part.json');
    const { out } = await lantern('part', 'demo.json', '--in', 'fog.part.json', '--out', 'two.json');
    expect(out).toContain('New: song Fog Bell 2.');
    for (const [kind, ...of] of [
      ['set', '--of', 'Evening at the pier'],
      ['pages', '--of', 'Treadle Ten'],
      ['kit'],
    ] as const) {
      expect((await lantern('part', 'demo.json', '--kind', kind, ...of, '--out', 'x.json')).code).toBe(0);
    }
    await refuses(['part', 'demo.json', '--out', 'x.json'], /part wants --kind, or --in/);
    await refuses(['part', 'demo.json', '--kind', 'set', '--of', 'Noon', '--out', 'x.json'], /no set named "Noon"/);
    await refuses(['part', 'demo.json', '--in', 'demo.json', '--out', 'x.json'], /demo\.json/);
  });

  it('writes names, and reads exclusive files', async () => {
    const { out } = await lantern('names', 'demo.json', '--unit', 'quillback', '--out', 'q.midnam');
    expect(out).toContain('q.midnam written');
    expect(readFileSync(path('q.midnam'), 'utf8')).toContain('<MIDINameDocument>');
    await refuses(
      ['names', 'demo.json', '--unit', 'Nobody', '--out', 'x'],
      /no unit named "Nobody"; it has "Quillback"/,
    );
    writeFileSync(path('a.syx'), Uint8Array.from([0xf0, 1, 0xf7, 0xf0, 2, 0xf7, 0, 0]));
    expect((await lantern('exclusive', 'a.syx')).out).toBe(
      'a.syx: 2 messages\nF0 01 F7\nF0 02 F7\nnote: byte 6: 2 zeros and line ends between the messages were left out.\n',
    );
    expect(json((await lantern('exclusive', 'a.syx', '--json')).out)).toMatchObject({
      messages: ['F0 01 F7', 'F0 02 F7'],
    });
    await refuses(['exclusive', 'demo.json'], /byte 0: This is not a system exclusive file/);
  });

  it('packs everything for the road, and says what is what', async () => {
    const { out, code } = await lantern('pack', 'demo.json', '--out', 'road');
    expect([code, out]).toEqual([0, expect.stringMatching(/^road: \d+ files\n/)]);
    const contents = readdirSync(path('road')).find((f) => f.endsWith('-contents.txt'))!;
    const listed = readFileSync(path(`road/${contents}`), 'utf8')
      .split('\r\n')
      .flatMap((line) => /^(\S+\.\w+) {2,}\S/.exec(line)?.[1] ?? []);
    expect(listed.length).toBeGreaterThan(50);
    for (const file of listed) expect(statSync(path(`road/${file}`)).size).toBeGreaterThan(0);
    expect(listed).toEqual(expect.arrayContaining(['paper/set-floor.pdf', 'paper/cues.pdf', 'midi/fog-bell-sent.mid']));
    await refuses(['pack', 'demo.json', '--out', 'road'], 'road: the folder is not empty.');
    expect((await lantern('pack', 'demo.json', '--out', 'road.zip')).code).toBe(0);
    const inside = unzipSync(new Uint8Array(readFileSync(path('road.zip'))));
    expect(Object.keys(inside).sort()).toEqual([contents, ...listed].sort());
  });

  it('prints sheets for the floor', async () => {
    const { sheets } = json(
      (await lantern('sheet', 'demo.json', '--kind', 'set', '--floor', '--json')).out,
    ) as unknown as {
      sheets: { type: { least: number } }[];
    };
    expect(sheets[0]!.type.least).toBe(30);
    await refuses(
      ['sheet', 'demo.json', '--kind', 'patch', '--floor'],
      /no sheet "patch" for the floor; there are cues, set, fallback/,
    );
  });
});
