import { describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { songLength, songTime } from '../../core/show';
import { CORE_START, NEW_SONG, newSongForm, songOfForm, startsOf } from './newSongForm';

const show = demoShow();
let count = 0;
const newId = (): string => `id-${++count}`;
const problems = (typed: Partial<typeof NEW_SONG>): string[] =>
  newSongForm
    .safeParse({ ...NEW_SONG, title: 'Kelp', ...typed })
    .error?.issues.map((i) => `${i.path.join('.')}: ${i.message}`) ?? [];
const made = (typed: Partial<typeof NEW_SONG>) =>
  songOfForm(show, newSongForm.parse({ ...NEW_SONG, title: 'Kelp', ...typed }), newId);

describe('the form of a new song', () => {
  it('says what is wrong at each field, all at once', () => {
    expect(problems({ title: '  ' })).toEqual(['title: Enter a title.']);
    expect(problems({ tempo: '401' })).toEqual(['tempo: Tempo: 20 to 400 quarter notes a minute, not "401".']);
    expect(problems({ metre: '7/9', bars: '0' })).toEqual([
      'metre: Metre: beats/unit, as in 7/8, with 1 to 64 beats of 1, 2, 4, 8, 16, 32, 64, 128; not "7/9".',
      'bars: Bars: a whole number from 1 to 2000, or nothing for a song without an end; not "0".',
    ]);
    expect(problems({ title: '', tempo: 'x', metre: '', bars: '0' })).toHaveLength(4);
    for (const bars of ['1.5', 'x', '2001', '-3']) expect(problems({ bars })).toHaveLength(1);
    for (const metre of ['', '0/4', '65/4', '4', '4/4/4']) expect(problems({ metre })).toHaveLength(1);
  });

  it('makes a song without an end where nobody says its bars, in any metre', () => {
    expect(made({ bars: ' ', metre: '11/64' })).toMatchObject({
      open: true,
      bars: 8,
      metre: [{ beats: 11, unit: 64 }],
    });
    expect(made({}).open).toBe(false);
  });

  it('takes a decimal comma', () => {
    expect(made({ tempo: '97,5' }).tempo[0]!.bpm).toBe(97.5);
  });

  it('makes a song of what was typed', () => {
    const song = made({ tempo: '100', metre: ' 7 / 8', bars: '40' });
    expect(song).toMatchObject({ title: 'Kelp', bars: 40, metre: [{ bar: 1, beats: 7, unit: 8 }] });
    expect(songLength(song)).toBeCloseTo((40 * 3.5 * 60) / 100, 6);
  });

  it('asks of a start only what that does not bring along', () => {
    const [pattern] = show.songs;
    expect(problems({ start: pattern!.id, metre: 'x', bars: 'y' })).toEqual([]);
    expect(problems({ start: CORE_START, bars: 'y' })).toEqual([]);
    const copy = made({ start: pattern!.id, tempo: '63' });
    expect(copy.bars).toBe(pattern!.bars);
    expect(songTime(copy).end).toBe(songTime(pattern!).end);
    expect(copy.tempo[0]!.bpm * copy.tempo[0]!.beat).toBeCloseTo(63, 9);
    // The first of the core tones is what the song opens with.
    expect(made({ start: CORE_START }).cues).toHaveLength(show.core.length - 1);
    expect(startsOf(show).length).toBe(show.songs.length + (show.core.length > 0 ? 2 : 1));
  });
});
