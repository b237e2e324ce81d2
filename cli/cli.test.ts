import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseMidi } from 'midi-file';
import { describe, expect, it } from 'vitest';
import { writeSmf, type SmfFile } from '../src/core/formats/smf';
import { inFolder } from './testing';

const MAIN = fileURLToPath(new URL('./main.ts', import.meta.url));
const { lantern, refuses, path } = inFolder();
const json = (text: string): any => JSON.parse(text);

/** The demo show with one thing changed. */
function changed(name: string, change: (show: any) => void): string {
  const show = json(readFileSync(path('demo.json'), 'utf8'));
  change(show);
  writeFileSync(path(name), JSON.stringify(show));
  return name;
}

describe('lantern', () => {
  it('proves the demo show, whole or a song of it', async () => {
    const all = await lantern('dry-run', 'demo.json', '--json');
    expect(all.code).toBe(0);
    const report = json(all.out);
    expect(report.proven).toBe(true);
    expect(report.songs).toHaveLength(8);
    expect(report.songs[0].cues[0]).toMatchObject({ cue: 'opening', lantern: 'lit' });
    const one = await lantern('dry-run', 'demo.json', '--song', 'fog bell');
    expect(one.out).toMatch(/^\(\*\) Fog Bell\n {2}\(\*\) opening {4}Still Water\n/);
    expect(one.code).toBe(0);
  });

  it('exits with 1 and the reason when something does not land', async () => {
    const name = changed('deaf.json', (s) => (s.units[0].listens = 2));
    const { code, out } = await lantern('dry-run', name, '--song', 'Fog Bell');
    expect(code).toBe(1);
    expect(out).toContain('(x) Fog Bell');
    expect(out).toContain('Quillback never gets there: it ignored B0 00 00, because it listens on another channel.');
    const off = changed('off.json', (s) => (s.ports[0].active = false));
    const run = await lantern('dry-run', off, '--song', 'Fog Bell', '--json');
    expect(run.code).toBe(1);
    expect(json(run.out).songs[0].problems[0]).toMatchObject({ code: 'compile.port-off', severity: 'error' });
  });

  it('takes from the show what counts as on time', async () => {
    // Harrow's opening takes 420 ms, at the worst a tenth more, and 0.64 ms of cable: less than a millisecond is missing.
    const hasty = (s: any): void => void (s.songs[2].preRoll = 462);
    expect((await lantern('dry-run', changed('hasty.json', hasty), '--song', 'Fog Bell')).code).toBe(0);
    const strict = changed('strict.json', (s) => {
      hasty(s);
      s.tolerance = { after: 0, before: 0 };
    });
    const { code, out } = await lantern('dry-run', strict, '--song', 'Fog Bell', '--json');
    expect(code).toBe(1);
    const outcomes = json(out).songs[0].cues.flatMap((c: any) => c.units.map((u: any) => u.outcome));
    expect(outcomes).toContain('late');
    const wide = changed('wide.json', (s) => {
      s.tolerance = { after: 1000, before: 250 };
      const [first] = s.songs[2].cues;
      s.songs[2].cues.push({
        ...first,
        id: 'near',
        at: first.at + 40,
        action: { ...first.action, toneId: 'fog-lead' },
      });
    });
    expect((await lantern('dry-run', wide, '--song', 'Fog Bell')).code).toBe(0);
    expect(
      (
        await lantern(
          'dry-run',
          changed('usual.json', (s) => {
            s.songs[2].cues = json(readFileSync(path('wide.json'), 'utf8')).songs[2].cues;
          }),
          '--song',
          'Fog Bell',
        )
      ).code,
    ).toBe(1);
  });

  it('says of a quiet finding that nobody let it be yet', async () => {
    const found = json(
      (
        await lantern(
          'check',
          changed('dull.json', (s) => {
            const [first] = s.songs[2].cues;
            s.songs[2].cues.push({ ...first, id: 'again', at: first.at + 3360 });
          }),
          '--json',
        )
      ).out,
    ).findings;
    expect(found.map((f: any) => f.code)).toEqual(['song.no-change']);
    expect(found[0]).toMatchObject({ severity: 'note', accepted: null });
  });

  it('says what the checks found, with codes and places', async () => {
    expect(await lantern('check', 'demo.json')).toEqual({
      code: 0,
      out: 'Winter Pier Residency: nothing found\n',
      err: '',
    });
    expect((await lantern('demo', '--faults', '--out', 'faulty.json')).code).toBe(0);
    const { code, out } = await lantern('check', 'faulty.json', '--json');
    expect(code).toBe(1);
    const { findings } = json(out);
    expect(findings).toContainEqual(
      expect.objectContaining({ code: 'song.late', severity: 'error', fix: expect.stringMatching(/later$/) }),
    );
    expect(findings.find((f: any) => f.code === 'song.outside').place).toMatchObject({ in: 'song', cueId: 'lp-1' });
    expect((await lantern('check', 'faulty.json')).out).toMatch(/^error: Wick Four is sent to on channel 10/m);
  });

  it('tells the state at any place, as the score prints it', async () => {
    const { out, code } = await lantern(
      'state',
      'demo.json',
      '--song',
      'Slack Tide in Seven',
      '--at',
      '17|3',
      '--json',
    );
    expect(code).toBe(0);
    const report = json(out);
    expect(report.at).toBe('17|3');
    expect(report.units[0]).toMatchObject({
      unit: 'Quillback',
      slot: { index: 6, label: 'B1', name: 'Ledger Rhythm' },
      variant: 3,
    });
    expect(report.units[1]).toMatchObject({ unit: 'Oxbow Forty', slot: { label: 'state 3' } });
    const second = await lantern('state', 'demo.json', '--song', 'The Rope Ledger', '--at', '1(2)');
    expect(second.out).toMatch(
      /^The Rope Ledger, 1\(2\)\|1\nQuillback +A3, scene Dry "Harbour Clean", Delay off|Delay 0/,
    );
  });

  it('exports as written and as sent, for another reader', async () => {
    expect((await lantern('export', 'demo.json', '--song', 'Fog Bell', '--smf', 'w.mid')).code).toBe(0);
    const file = parseMidi(readFileSync(path('w.mid')));
    expect(file.header).toMatchObject({ format: 1, ticksPerBeat: 960, numTracks: 7 });
    expect(
      file.tracks[0]!.filter((e) => e.type === 'timeSignature').map((e) => `${e.numerator}/${e.denominator}`),
    ).toEqual(['6/8', '9/8', '6/8']);
    expect(file.tracks[0]!.filter((e) => e.type === 'marker').map((e) => e.text)).toEqual([
      'Bell',
      'Fog',
      'Nine men out',
      'Bell again',
    ]);
    const sent = await lantern('export', 'demo.json', '--song', 'Fog Bell', '--smf', 's.mid', '--sent');
    expect(sent.code).toBe(0);
    expect(sent.out).toContain('the file begins 1 bar');
  });

  it('imports a file into a show, named through its map', async () => {
    await lantern('export', 'demo.json', '--song', 'Fog Bell', '--smf', 'again.mid', '--written');
    const { code, out } = await lantern('import', 'again.mid', '--into', 'demo.json', '--out', 'again.json');
    expect(code).toBe(0);
    expect(out).toMatch(/again\.json: "Fog Bell"\. Understood: \d+ places where a tone of the show was recognised/);
    const show = json(readFileSync(path('again.json'), 'utf8'));
    const [song, back] = [show.songs[2], show.songs.at(-1)];
    const tones = (s: any): string[] => s.cues.flatMap((c: any) => c.action.toneId ?? []);
    expect(tones(back)).toEqual(tones(song));
    expect(back.openingToneId).toBe(song.opening === 'show' ? show.openingToneId : song.openingToneId);
  });

  it('imports a file without the channels that nobody wants', async () => {
    const events = [
      { tick: 0, kind: 'message', bytes: [0xc2, 5] },
      { tick: 10, kind: 'message', bytes: [0x99, 38, 90] },
      { tick: 20, kind: 'message', bytes: [0xb2, 7, 90] },
    ] as const;
    const drums: SmfFile = { format: 0, division: { kind: 'quarter', ticks: 480 }, tracks: [{ events, end: 500 }] };
    writeFileSync(path('drums.mid'), writeSmf(drums));
    const { out } = await lantern('import', 'drums.mid', '--without', '10', '--out', 'drums.json');
    expect(out).toContain('drums.json: 1 song(s), 1 unit(s), 2 message(s)');
    const none = ['import', 'drums.mid', '--without', '10', '--without', '3', '--out', 'drums.json'];
    expect((await lantern(...none)).out).toContain('1 song(s), 0 unit(s), 0 message(s)');
    await refuses(
      ['import', 'drums.mid', '--without', '17', '--out', 'x.json'],
      /a channel from 1 to 16; "17" is none/,
    );
  });

  it('imports a foreign file and gives the same messages back', async () => {
    const events = [
      { tick: 0, kind: 'message', bytes: [0xc2, 5] },
      { tick: 100, kind: 'packet', bytes: [0xf0, 0x7d, 9, 0xf7] },
      { tick: 333, kind: 'message', bytes: [0x92, 60, 90] },
      { tick: 444, kind: 'message', bytes: [0x82, 60, 0] },
    ] as const;
    const original: SmfFile = { format: 0, division: { kind: 'quarter', ticks: 480 }, tracks: [{ events, end: 500 }] };
    writeFileSync(path('in.mid'), writeSmf(original));
    const imported = await lantern('import', 'in.mid', '--out', 'in.json');
    expect(imported).toMatchObject({ code: 0 });
    expect(imported.out).toContain('in.json: 1 song(s), 1 unit(s), 4 message(s)');
    expect((await lantern('dry-run', 'in.json')).code).toBe(0);
    expect((await lantern('state', 'in.json', '--song', 'in', '--at', '1')).out).toContain('005');
    expect((await lantern('export', 'in.json', '--song', 'in', '--smf', 'out.mid', '--written')).code).toBe(0);
    const back = parseMidi(readFileSync(path('out.mid')));
    const messages = back.tracks[1]!.filter((e) => !('meta' in e));
    expect(messages.map((e) => e.type)).toEqual(['programChange', 'sysEx', 'noteOn', 'noteOff']);
    let tick = 0;
    const ticks = back.tracks[1]!.map((e) => [e.type, (tick += e.deltaTime)]).filter(
      ([t]) => t === 'noteOn' || t === 'sysEx',
    );
    expect(ticks).toEqual([
      ['sysEx', 200],
      ['noteOn', 666],
    ]);
  });

  it('is a program with exit codes', async () => {
    const spawn = (...args: string[]) =>
      spawnSync(process.execPath, ['--import', import.meta.resolve('tsx'), MAIN, ...args], {
        cwd: path('.'),
        encoding: 'utf8',
      });
    expect(spawn('state', 'demo.json', '--song', 'Fog Bell', '--at', '1')).toMatchObject({ status: 0, stderr: '' });
    expect(
      spawn(
        'dry-run',
        changed('deaf2.json', (s) => (s.units[2].listens = 1)),
      ).status,
    ).toBe(1);
    expect(spawn('dry-run', 'none.json')).toMatchObject({
      status: 2,
      stdout: '',
      stderr: 'lantern: none.json: there is no such file or folder.\n',
    });
  });

  it('says what it wants', async () => {
    expect(await lantern('--help')).toMatchObject({
      code: 0,
      out: expect.stringContaining('lantern dry-run SHOW.json'),
    });
    await refuses([], /Which command\?/);
    await refuses(['polish'], /There is no command "polish"/);
    await refuses(['toString'], /There is no command "toString"/);
    await refuses(['demo'], /demo wants --out/);
    await refuses(['demo', 'x', '--out', 'y.json'], /demo does not take "x"/);
    await refuses(['dry-run'], /dry-run wants SHOW\.json/);
    await refuses(['dry-run', 'demo.json', '--at', '3'], /dry-run does not take --at/);
    await refuses(['dry-run', 'demo.json', '--loud'], /--loud/);
    await refuses(['export', 'demo.json', '--song', 'Fog Bell', '--smf', 'x.mid', '--sent', '--written'], /not both/);
    await refuses(['state', 'demo.json', '--song', 'Fog Bell'], /state wants --at/);
  });

  it('refuses bad files and places with a line, and writes nothing', async () => {
    await refuses(['dry-run', 'none.json'], /none\.json: there is no such file/);
    await refuses(['dry-run', '.'], /this is a folder/);
    writeFileSync(path('half.json'), readFileSync(path('demo.json'), 'utf8').slice(0, 4000));
    await refuses(['dry-run', 'half.json'], /half\.json: line \d+, column \d+: The file is not valid JSON/);
    writeFileSync(path('bytes.json'), Buffer.from([0xff, 0xfe, 0x00]));
    await refuses(['dry-run', 'bytes.json'], /not text in UTF-8/);
    await refuses(
      ['dry-run', changed('lost.json', (s) => (s.tones = []))],
      /lost\.json: openingToneId.*which is not in the show.*and \d+ more/,
    );
    await refuses(['dry-run', changed('new.json', (s) => (s.version = 99))], /newer Hollow Lantern/);
    await refuses(
      ['state', 'demo.json', '--song', 'Fog Bell', '--at', '99'],
      /There is no bar 99; the song has bars up to 48/,
    );
    await refuses(
      ['state', 'demo.json', '--song', 'Fog Bell', '--at', '3|9'],
      /Beat 9 is outside the bar, which has beats 1 to 6/,
    );
    await refuses(['state', 'demo.json', '--song', 'Fog Bell', '--at', 'soon'], /"soon" is not a place/);
    await refuses(
      ['state', 'demo.json', '--song', 'Nothing', '--at', '1'],
      /has no song named "Nothing"; it has "Slack Tide in Seven"/,
    );
    writeFileSync(path('cut.mid'), readFileSync(path('w.mid')).subarray(0, 200));
    await refuses(['import', 'cut.mid', '--out', 'cut.json'], /cut\.mid: .*byte \d+: A part named "MTrk"/);
    await refuses(['import', 'demo.json', '--out', 'no.json'], /not a Standard MIDI File/);
  });

  it('leaves the old file when the new one cannot be written', async () => {
    mkdirSync(path('folder.json'));
    await refuses(['demo', '--out', 'folder.json'], /folder\.json: /);
    await refuses(['demo', '--out', join('nowhere', 'x.json')], /there is no such file or folder/);
  });

  it('prints sheets as tables and as data', async () => {
    const { out, code } = await lantern('sheet', 'demo.json', '--kind', 'set');
    expect(code).toBe(0);
    expect(out).toContain('Slack Tide in Seven,20:30');
    const { sheets } = json((await lantern('sheet', 'demo.json', '--kind', 'cues', '--json')).out);
    expect(sheets).toHaveLength(8);
    expect(sheets[0]).toMatchObject({ title: 'Slack Tide in Seven', kind: 'Cue sheet' });
    await refuses(['sheet', 'demo.json', '--kind', 'napkin'], /There is no sheet "napkin"; there are cues, set,/);
    await refuses(['sheet', 'demo.json'], 'sheet wants --kind.');
  });

  it('says in what two shows differ', async () => {
    expect((await lantern('compare', 'demo.json', 'demo.json')).out).toBe('Nothing differs.\n');
    const other = changed('compared.json', (show) => {
      show.tones[0].name = 'Other water';
    });
    const { out } = await lantern('compare', 'demo.json', other);
    expect(out).toMatch(/^Tone .* is called Other water\.\n$/);
    expect(json((await lantern('compare', 'demo.json', other, '--json')).out).differences).toMatchObject([
      { what: 'renamed', of: 'tone', to: 'Other water' },
    ]);
    await refuses(['compare', 'demo.json'], 'compare wants OTHER.json; none was given.');
  });

  it('publishes the shape of a show file, as it stands in the docs', async () => {
    const published = readFileSync(fileURLToPath(new URL('../docs/show.schema.json', import.meta.url)), 'utf8');
    const { out } = await lantern('schema');
    expect(out).toBe(published);
    const { properties, required } = json(out);
    expect(Object.keys(json(readFileSync(path('demo.json'), 'utf8'))).sort()).toEqual(Object.keys(properties).sort());
    expect(required).toContain('sets');
    expect((await lantern('schema', '--out', 'shape.json')).code).toBe(0);
    expect(readFileSync(path('shape.json'), 'utf8')).toBe(published);
  });
});

describe('paper, pages and the set', () => {
  it('writes a PDF of each kind of sheet', async () => {
    const { code, out } = await lantern(
      'sheet',
      'demo.json',
      '--kind',
      'cues',
      '--pdf',
      'cues.pdf',
      '--paper',
      'letter',
    );
    expect([code, out]).toEqual([0, 'cues.pdf: 8 sheets\n']);
    expect(readFileSync(path('cues.pdf')).subarray(0, 5).toString('latin1')).toBe('%PDF-');
    await refuses(
      ['sheet', 'demo.json', '--kind', 'cues', '--pdf', 'x.pdf', '--paper', 'a5'],
      'There is no paper "a5"',
    );
    await refuses(['sheet', 'demo.json', '--kind', 'cues', '--paper', 'a4'], '--paper is for --pdf');
    await refuses(['sheet', 'demo.json', '--kind', 'cues', '--json', '--pdf', 'x.pdf'], 'not both');
  });

  it('proposes pages, and writes the show with them', async () => {
    const { code, out } = await lantern('pages', 'demo.json', '--json');
    const told = json(out);
    expect(code).toBe(0);
    expect(told.controller).toBe('Treadle Ten');
    expect(told.pages.length).toBeGreaterThanOrEqual(8);
    expect(told.left).toEqual([]);
    const text = await lantern('pages', 'demo.json', '--controller', 'treadle ten', '--out', 'paged.json');
    expect(text.out).toMatch(/^Treadle Ten: \d+ pages; on every page /);
    expect((await lantern('check', 'paged.json')).code).toBe((await lantern('check', 'demo.json')).code);
    await refuses(
      ['pages', 'demo.json', '--controller', 'Nobody'],
      /There is no controller "Nobody"; there is "Treadle Ten"/,
    );
  });

  it('writes the set as one MIDI file, in one track', async () => {
    const { code, out } = await lantern('export', 'demo.json', '--smf', 'set.mid', '--one-track');
    expect(code).toBe(0);
    expect(out).toMatch(/"Evening at the pier" written, 1 track, \d+ messages/);
    const file = parseMidi(readFileSync(path('set.mid')));
    expect([file.header.format, file.header.numTracks]).toEqual([0, 1]);
  });
});
