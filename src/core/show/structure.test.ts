import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { runs } from '../testing/runs';
import { newSong } from './builders';
import { applyEdit, invertEdit } from './edits';
import { indexShow } from './find';
import type { Show, Song } from './schema';
import { songTime, songLength } from './songTime';
import { isStructureLine, readStructureLine, rewriteStructure, structureEdit, structureLines } from './structure';

const BAR = 3840;
let ids = 0;
const newId = (): string => `n${ids++}`;
const showOf = (song: Song): Show => ({ ...demoShow(), songs: [song] });
const empty = (bars = 64): Show => showOf(newSong('s', 'S', { bars }));
const songOf = (show: Show): Song => show.songs[0]!;

/** A show with lines written into its only song, one after the other; what cannot be read or done throws. */
function write(show: Show, ...lines: readonly string[]): Show {
  return lines.reduce((state, text) => {
    const read = readStructureLine(songOf(state), text);
    if (!read.ok) throw new Error(`${text}: ${read.problem.code}`);
    const edit = structureEdit(state, songOf(state).id, read.line, newId);
    if (!edit) throw new Error(`${text}: changes nothing`);
    const after = applyEdit(state, edit);
    // Each line is one edit, taken back as one.
    expect(applyEdit(after, invertEdit(edit))).toEqual(state);
    return after;
  }, show);
}

const refusal = (text: string, song = songOf(empty())): string => {
  const read = readStructureLine(song, text);
  return read.ok ? 'read' : read.problem.code;
};

describe('a line of a structure', () => {
  it('is a metre from a bar on', () => {
    expect(songOf(write(empty(), '17 7/8')).metre).toEqual([
      { bar: 1, beats: 4, unit: 4 },
      { bar: 17, beats: 7, unit: 8 },
    ]);
  });

  it('is a tempo, counted in other beats where it says so', () => {
    const { tempo } = songOf(write(empty(), '1 tempo 126', '9 tempo 84.5 dotted', '17|3 TEMPO 60 half'));
    expect(tempo).toEqual([
      { at: 0, bpm: 126, beat: 1, rampTo: null },
      { at: 8 * BAR, bpm: 84.5, beat: 1.5, rampTo: null },
      { at: 16 * BAR + 1920, bpm: 60, beat: 2, rampTo: null },
    ]);
  });

  it('is a ramp: to where it says, to the next tempo, or to the last bar', () => {
    expect(songOf(write(empty(), '41 ramp 132 to 57 until 45')).tempo).toEqual([
      { at: 0, bpm: 120, beat: 1, rampTo: null },
      { at: 40 * BAR, bpm: 132, beat: 1, rampTo: 57 },
      { at: 44 * BAR, bpm: 57, beat: 1, rampTo: null },
    ]);
    expect(songOf(write(empty(), '9 tempo 90', '5 ramp 120 to 90')).tempo[1]).toMatchObject({
      at: 4 * BAR,
      rampTo: 90,
    });
    expect(songOf(write(empty(), '41 ramp 132 to 57')).tempo.at(-1)).toMatchObject({ at: 63 * BAR, bpm: 57 });
  });

  it('is a ramp through tempos that stood in its way, which go', () => {
    const { tempo } = songOf(write(empty(), '5 tempo 100', '7 tempo 110', '3 ramp 90 to 60 until 9'));
    expect(tempo.map((m) => m.at / BAR)).toEqual([0, 2, 8]);
  });

  it('is a section, which another name takes the place of', () => {
    const { sections } = songOf(write(empty(), '9 Chorus', '17 Verse 2', '9 First chorus'));
    expect(sections.map((s) => [s.bar, s.name])).toEqual([
      [9, 'First chorus'],
      [17, 'Verse 2'],
    ]);
  });

  it('is a printed number, and bars behind it are written by it', () => {
    const show = write(empty(), '25 = 18', '18(2) Bridge');
    expect(songOf(show).printed).toEqual([{ bar: 25, number: 18 }]);
    expect(songOf(show).sections[0]).toMatchObject({ bar: 25, name: 'Bridge' });
  });

  it('is a pickup in beats, and a call so many bars ahead', () => {
    const song = songOf(write(empty(), 'pickup 2', 'call Solo 2 before 33'));
    expect(song.pickup).toBe(1920);
    expect(song.calls).toMatchObject([{ bar: 33, call: { how: 'voice', text: 'Solo', ahead: 8 } }]);
  });

  it('moves a section', () => {
    const { sections } = songOf(write(empty(), '9 Verse', '17 Chorus', '25 Bridge', '17 move to 9'));
    expect(sections.map((s) => [s.bar, s.name])).toEqual([
      [9, 'Chorus'],
      [17, 'Verse'],
      [25, 'Bridge'],
    ]);
  });

  it.each([
    ['17 7/9', 'structure.metre'],
    ['17 0/4', 'structure.metre'],
    ['17 tempo 9000', 'structure.tempo'],
    ['41 ramp 132 to 5', 'structure.tempo'],
    ['41 ramp fast', 'structure.form'],
    ['99 Chorus', 'position.bar'],
    ['17(2) Chorus', 'position.time'],
    ['17|9 7/8', 'position.beat'],
    ['9 move to 99', 'position.bar'],
    ['call Solo 2 before 99', 'position.bar'],
    ['9 120', 'structure.form'],
    ['Chorus', 'structure.form'],
  ])('"%s" is refused: %s', (text, code) => {
    expect(refusal(text)).toBe(code);
  });

  it('changes nothing where there is nothing to change', () => {
    const show = write(empty(), '9 Verse');
    for (const text of ['9 Verse', '1 4/4', '1 tempo 120', '10 move to 20', '9 move to 9']) {
      const read = readStructureLine(songOf(show), text);
      expect(read.ok && structureEdit(show, 's', read.line, newId), text).toBeNull();
    }
  });

  it('is told from a place, and from what is placed', () => {
    for (const text of ['17 7/8', 'pickup 2', '9 Chorus', '9 x', 'call A 1 before 2'])
      expect(isStructureLine(text)).toBe(true);
    for (const text of ['17', '17|3', '17|3.5', '18(2)', '17|1|113', 'fog']) expect(isStructureLine(text)).toBe(false);
  });
});

describe('the lines of a song', () => {
  it('make its structure again from nothing', () => {
    const demo = demoShow();
    for (const song of demo.songs) {
      const lines = structureLines(song);
      const bare = { ...newSong('s', 'S', { bars: song.bars }), id: song.id };
      const again = lines.reduce((state, text) => {
        const read = readStructureLine(songOf(state), text);
        expect(read.ok, `${song.title}: ${text}`).toBe(true);
        const edit = read.ok ? structureEdit(state, song.id, read.line, newId) : null;
        // The first metre and tempo may be those that stand there.
        return edit ? applyEdit(state, edit) : state;
      }, showOf(bare));
      const made = songOf(again);
      const plain = (of: Song) => ({
        metre: of.metre,
        tempo: of.tempo,
        printed: of.printed,
        pickup: of.pickup,
        sections: of.sections.map((s) => [s.bar, s.name]),
      });
      expect(plain(made), song.title).toEqual(plain(indexShow(demo).songs.get(song.id)!));
      expect(songLength(made)).toBeCloseTo(songLength(song), 6);
      expect(songTime(made).end).toBe(songTime(song).end);
    }
  });
});

describe('a structure that was edited as text', () => {
  const after = (show: Show, text: string): Song => {
    const read = rewriteStructure(show, 's', text, newId);
    if (!read.ok) throw new Error(read.problem.code);
    return songOf(read.edit ? applyEdit(show, read.edit) : show);
  };
  const show = write(empty(), '9 Verse', '17 7/8', '17 Chorus', '41 ramp 132 to 57 until 45', 'pickup 1');
  const lines = structureLines(songOf(show));

  it('is as it was where nothing was changed', () => {
    expect(rewriteStructure(show, 's', lines.join('\n'), newId)).toEqual({ ok: true, edit: null });
  });

  it('has what is new, without what is gone, and keeps the rest', () => {
    const [verse] = songOf(show).sections;
    const made = after(
      show,
      lines
        .map((l) => (l === '17 Chorus' ? '17 Solo' : l))
        .filter((l) => l !== '17 7/8')
        .join('\n'),
    );
    expect(made.metre).toEqual([{ bar: 1, beats: 4, unit: 4 }]);
    expect(made.sections.map((s) => s.name)).toEqual(['Verse', 'Solo']);
    expect(made.sections[0]).toEqual(verse);
    expect(after(show, lines.filter((l) => !l.startsWith('pickup')).join('\r\n')).pickup).toBe(0);
  });

  it('keeps cues at their bar and beat through a change of metre', () => {
    const cue = { id: 'c', at: 20 * BAR, shift: 0, landing: 'complete', muted: false } as const;
    const song = {
      ...newSong('s', 'S', { bars: 64 }),
      cues: [{ ...cue, action: { kind: 'tone', toneId: 't', reload: false } as const }],
    };
    const made = after(showOf(song), '1 4/4\n1 tempo 120\n9 7/8');
    // Twelve bars of 7/8 before bar 21.
    expect(made.cues[0]!.at).toBe(8 * BAR + 12 * 7 * 480);
  });

  it('names the line that cannot be read', () => {
    expect(rewriteStructure(show, 's', '1 4/4\n\n9 7/9', newId)).toMatchObject({
      ok: false,
      row: 3,
      problem: { code: 'structure.metre' },
    });
  });
});

describe('any text', () => {
  it('is a line or a problem, and a line an edit that is taken back, or nothing', () => {
    const words = fc.array(
      fc.oneof(
        fc.constantFrom('17', '9', '64', '0', '18(2)', '7/8', '0/4', '4/256', 'ramp', 'tempo', 'to', '120', '57', '='),
        fc.constantFrom(
          'pickup',
          'call',
          'before',
          'until',
          'move',
          'dotted',
          'half',
          'Chorus',
          '2',
          '-1',
          '3.5',
          '1|3',
        ),
        fc.string({ maxLength: 6 }),
      ),
      { maxLength: 8 },
    );
    fc.assert(
      fc.property(words, (list) => {
        const show = write(empty(), '9 Verse', '25 = 18');
        const read = readStructureLine(songOf(show), list.join(' '));
        if (!read.ok) return;
        const edit = structureEdit(show, 's', read.line, newId);
        if (edit) expect(applyEdit(applyEdit(show, edit), invertEdit(edit))).toEqual(show);
      }),
      runs(92, 400),
    );
  });
});
