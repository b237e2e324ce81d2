import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { songTime } from '../show';
import { randomShow } from '../testing/randomShow';
import { runs } from '../testing/runs';
import { barStart } from '../time';
import type { Answer } from './answer';
import { ask } from './ask';

const show = demoShow();
const asked = (question: string, songId: string | null = 'slack-tide'): readonly Answer[] =>
  ask(show, question, { songId });
const kinds = (question: string): readonly string[] => asked(question).map((a) => a.kind);

describe('a question about a place', () => {
  it('is answered with the tone and what every unit is on', () => {
    const [answer] = asked('9');
    expect(answer).toMatchObject({ kind: 'place', songId: 'slack-tide', toneId: 'ledger-rhythm' });
    const rig = answer?.kind === 'place' ? answer.rig : [];
    expect(rig.find((u) => u.unitId === 'quillback')?.state).toMatchObject({ slot: 6, variant: 1 });
    // Oxbow is told by Quillback's relay rules.
    expect(rig.find((u) => u.unitId === 'oxbow')?.state.slot).toBe(2);
  });

  it('is of the song that stands, or of the first of the set', () => {
    expect(asked('3', 'fog-bell')[0]).toMatchObject({ kind: 'place', songId: 'fog-bell' });
    expect(asked('3', null)[0]).toMatchObject({ kind: 'place', songId: 'slack-tide' });
  });

  it('says which tone the song opens with, before its first cue', () => {
    expect(asked('1|1')[0]).toMatchObject({ kind: 'place', toneId: 'still-water' });
  });

  it('names a bar that is not there, and a second one', () => {
    expect(asked('999')).toEqual([
      { kind: 'no-place', songId: 'slack-tide', problem: { code: 'bar', number: 999, last: 44, meant: '' } },
    ]);
    expect(asked('9(2)')[0]).toMatchObject({ kind: 'no-place', problem: { code: 'time' } });
  });

  it('finds both bars that are printed with one number', () => {
    const song = { ...show.songs[0]!, printed: [{ bar: 9, number: 1 }] };
    const twice = { ...show, songs: [song, ...show.songs.slice(1)] };
    const found = ask(twice, '3', { songId: song.id }).filter((a) => a.kind === 'place');
    expect(found.map((a) => (a.kind === 'place' ? a.at : null))).toHaveLength(2);
  });

  it('goes to the bar that is meant where the printed numbers start anew', () => {
    const song = { ...show.songs[0]!, printed: [{ bar: 30, number: 1 }] };
    const found = ask({ ...show, songs: [song, ...show.songs.slice(1)] }, '33', { songId: song.id });
    expect(found).toMatchObject([
      { kind: 'no-place', problem: { code: 'bar', number: 33, last: 29, meant: '4(2)' } },
      { kind: 'place', at: barStart(songTime(song).bars, 33) },
    ]);
  });

  it('is of one unit, with the cue that its lateness belongs to', () => {
    expect(asked('5 harrow')).toMatchObject([{ kind: 'unit-there', unitId: 'harrow' }]);
    expect(asked('9 qb')).toMatchObject([{ kind: 'unit-there', unitId: 'quillback', cueId: expect.any(String) }]);
    expect(asked('9 nobody')).toEqual([]);
  });

  it('is of the bytes that leave for its bar, with how long before', () => {
    const [answer] = asked('bytes 9');
    const sent = answer?.kind === 'sent' ? answer.sent : [];
    const call = sent.find((s) => s.unitId === 'quillback' && s.bytes[0] === 0xc0);
    expect(call?.bytes).toEqual([0xc0, 6]);
    expect(call!.before).toBeGreaterThan(0.1);
    expect(asked('bytes 2')).toMatchObject([{ kind: 'sent', sent: [] }]);
  });
});

describe('a question about a number', () => {
  it('counts a program from 1 unless it is said', () => {
    const at = (question: string): number | undefined => {
      const found = asked(question).find((a) => a.kind === 'slot' && a.unitId === 'quillback');
      return found?.kind === 'slot' ? found.index : undefined;
    };
    expect(at('program 48')).toBe(47);
    expect(at('pc 48')).toBe(47);
    expect(at('47 from 0')).toBe(47);
    expect(at('48 from 1')).toBe(47);
    expect(at('program 47 from 0')).toBe(47);
  });

  it('finds a preset by its label, with its tones and songs', () => {
    const [answer] = asked('h6');
    expect(answer).toMatchObject({ kind: 'slot', unitId: 'quillback', index: 47 });
    expect(answer?.kind === 'slot' && answer.toneIds).toContain('fog-lead');
    expect(answer?.kind === 'slot' && answer.songIds).toContain('fog-bell');
  });

  it('finds the tones with the state of an amplifier that others tell', () => {
    const [answer] = asked('state 4');
    expect(answer).toMatchObject({ kind: 'slot', unitId: 'oxbow', index: 3 });
    expect(answer?.kind === 'slot' && answer.toneIds).toContain('fog-lead');
  });

  it('finds controls, and variants, by their number', () => {
    expect(asked('cc 85')).toEqual([{ kind: 'control', unitId: 'quillback', controlId: null }]);
    expect(asked('control 52').every((a) => a.kind === 'control')).toBe(true);
  });

  it('reads bytes as the units of each port hear them', () => {
    expect(asked('B0 55 02')).toMatchObject([
      { kind: 'message', bytes: [0xb0, 85, 2], meanings: [{ what: 'variant', unitId: 'quillback', variant: 2 }] },
    ]);
    expect(asked('b05502')).toEqual(asked('B0 55 02'));
    expect(asked('55 02')).toEqual([]);
  });
});

describe('a question about a name', () => {
  it.each([
    ['fog lead', 'tone'],
    ['fog bell', 'song'],
    ['harrow', 'unit'],
    ['okoro', 'player'],
    ['rack', 'port'],
    ['switch 1', 'switch'],
  ])('%s', (question, kind) => {
    expect(kinds(question)[0]).toBe(kind);
  });

  it('says when a song begins, and what follows it', () => {
    expect(asked('fog bell')[0]).toMatchObject({ number: 3, nextSongId: 'gull-arithmetic' });
    expect(asked('last boat')[0]).toMatchObject({ number: 8, nextSongId: null });
  });

  it('says what hangs on a port, who plays what, and what is wanted of a unit', () => {
    expect(asked('rack')[0]).toMatchObject({ kind: 'port', unitIds: ['quillback', 'marram'] });
    expect(asked('okoro')[0]).toMatchObject({ kind: 'player', unitIds: ['marram'] });
    expect(asked('harrow')[0]).toMatchObject({ kind: 'unit', songs: 8 });
  });

  it('has what a switch does on each page', () => {
    const [answer] = asked('switch 10');
    expect(answer).toMatchObject({
      kind: 'switch',
      does: [{ pageId: null, does: { kind: 'session', act: 'next-change' } }],
    });
  });

  it('asks for more than one letter, and is nothing where nothing is called so', () => {
    expect(asked('f')).toEqual([]);
    expect(asked('xylophone')).toEqual([]);
    expect(asked('   ')).toEqual([]);
  });
});

describe('any question', () => {
  it('has an answer or none, of any show, and never throws', () => {
    const words = fc.oneof(
      fc.string({ maxLength: 30 }),
      fc.constantFrom('1', '-3|9', '9(0)', '1 u0', 'bytes 1', 'program 0', '0 from 1', 'CC 128', 'F0 7E', 'FF', '1|99'),
      fc.tuple(fc.nat(999), fc.string({ maxLength: 8 })).map(([n, s]) => `${n} ${s}`),
    );
    fc.assert(
      fc.property(randomShow({ gap: 480 }), words, ({ show: any, song }, question) => {
        expect(ask(any, question, { songId: song.id }).length).toBeLessThanOrEqual(14);
      }),
      runs(91, 120),
    );
  });
});
