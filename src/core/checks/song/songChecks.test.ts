import { describe, expect, it } from 'vitest';
import { findingSentence, fixWords } from '../../../wording';
import { newControl, type Profile, timesFrom, exactly } from '../../addressing';
import { compileSong } from '../../compile';
import {
  actionCue,
  applyEdit,
  changeCue,
  checkShow,
  messageCue,
  newSection,
  newSong,
  newPart,
  newSweep,
  newTone,
  toneCue,
  type Cue,
  type Show,
  type Song,
  type Sweep,
  type Tone,
  type Unit,
} from '../../show';
import { rigSpec, songWants } from '../../meaning';
import { dryRun } from '../../simulate';
import { modelerProfile, testShow, testUnit } from '../../testing/rigs';
import { checkSong, type Finding, type FindingCode } from '..';
import { tonightOf } from '../../tonight';

const Q = 960;
const BAR = 4 * Q;

const flip = newControl('turn', 'Turn', { kind: 'flip', number: 62, send: 127, only: null });
const channel = newControl('channel', 'Channel', { kind: 'index', number: 63, base: 0, step: 1, count: 4 });
const quick: Profile = {
  ...modelerProfile,
  controls: [...modelerProfile.controls, flip, channel],
  // Nothing is late by itself here: the checks of what lands are tried elsewhere.
  times: timesFrom({ recall: 0, variant: 0, control: 0, settle: 0 }, exactly),
};
const a = testUnit('a', 1, quick);
const b = testUnit('b', 2, quick);
const part = (unitId: string, slot: number | null, rest: Partial<Tone['parts'][number]> = {}) => ({
  unitId,
  slotId: slot === null ? null : `${unitId}-s${slot}`,
  variant: null,
  controls: [],
  effects: [],
  ...rest,
});
const tones = [
  newTone('clean', 'Clean', [part('a', 0), part('b', 0)]),
  newTone('lead', 'Lead', [part('a', 9)]),
  newTone('low', 'Low', [part('b', 9)]),
  newTone('delay-on', 'Delay on', [part('a', null, { controls: [{ controlId: 'delay', value: 1 }] })]),
  newTone('turned', 'Turned', [part('a', null, { controls: [{ controlId: 'turn', value: 1 }] })]),
];

/** What the checks say of a song of sixteen bars; with a dry run where one is asked for. */
function found(change: Partial<Song>, run = false, more: Partial<Show> = {}): Finding[] {
  const song: Song = { ...newSong('song', 'Song', { bars: 16 }), openingToneId: 'clean', ...change };
  const show: Show = { ...testShow([a, b]), tones, songs: [song], ...more };
  const compiled = compileSong(show, song);
  const dry = dryRun(rigSpec(show), compiled.events, songWants(show, song));
  return checkSong(tonightOf(show), song, run ? { compiled, dry } : null);
}
const codes = (change: Partial<Song>, run = false): FindingCode[] => found(change, run).map((f) => f.code);
/** Mends the first finding of a kind, and gives what is left of that kind. */
function mended(code: FindingCode, change: Partial<Song>): FindingCode[] {
  const song: Song = { ...newSong('song', 'Song', { bars: 16 }), openingToneId: 'clean', ...change };
  const show: Show = { ...testShow([a, b]), tones, songs: [song] };
  const first = checkSong(tonightOf(show), song).find((f) => f.code === code);
  const after = applyEdit(show, first!.fix!);
  expect(checkShow(after)).toEqual([]);
  return checkSong(tonightOf(after), after.songs[0]!)
    .map((f) => f.code)
    .filter((c) => c === code);
}
const set = (id: string, at: number, controlId: string, value: number): Cue =>
  actionCue(id, at, { kind: 'control', unitId: 'a', controlId, value });
const mix = quick.controls.find((c) => c.id === 'mix')!;
const sweep = (id: string, from: number, to: number, rest: Partial<Sweep> = {}): Sweep => ({
  ...newSweep(id, a, mix, from, to),
  ...rest,
});

describe('a sound song', () => {
  it('has nothing said of it, with or without a dry run', () => {
    const cues = [toneCue('1', 4 * BAR, 'lead'), toneCue('2', 8 * BAR, 'clean'), toneCue('3', 12 * BAR, 'low')];
    const sweeps = [sweep('s', 5 * BAR, 6 * BAR)];
    expect(codes({ cues, sweeps })).toEqual([]);
    expect(codes({ cues, sweeps }, true)).toEqual([]);
  });
});

describe('what stands outside the song', () => {
  it('is a cue on the end and past it, not one on the last tick', () => {
    expect(codes({ cues: [toneCue('x', 16 * BAR - 1, 'lead')] })).toEqual([]);
    expect(codes({ cues: [toneCue('x', 16 * BAR, 'lead')] })).toEqual(['song.outside']);
    expect(codes({ cues: [{ ...toneCue('x', 16 * BAR, 'lead'), muted: true }] })).toEqual([]);
    expect(mended('song.outside', { cues: [toneCue('x', 40 * BAR, 'lead')] })).toEqual([]);
  });

  it('is a sweep that goes on past the end, not one that ends with it', () => {
    expect(codes({ sweeps: [sweep('s', 15 * BAR, 16 * BAR)] })).toEqual([]);
    expect(codes({ sweeps: [sweep('s', 15 * BAR, 16 * BAR + 1)] })).toEqual(['song.outside']);
  });

  it('cannot be mended where it stands before the song', () => {
    const early = found({ cues: [toneCue('x', -Q, 'lead')] }).find((f) => f.code === 'song.outside')!;
    expect(early.fix).toBeNull();
    expect(findingSentence(early)).toBe('Song: something stands before the song begins.');
  });
});

describe('cues that do nothing', () => {
  it('are found, but not reloads, moves of bytes, or what changes one unit of two', () => {
    expect(codes({ cues: [toneCue('x', BAR, 'clean')] })).toEqual(['song.no-change']);
    const reload: Cue['action'] = { kind: 'tone', toneId: 'clean', reload: true };
    expect(codes({ cues: [toneCue('x', BAR, 'clean', { action: reload })] })).toEqual([]);
    expect(codes({ cues: [toneCue('x', BAR, 'lead'), toneCue('y', 2 * BAR, 'clean')] })).toEqual([]);
    expect(codes({ cues: [set('x', BAR, 'delay', 1), set('y', 2 * BAR, 'delay', 1)] })).toEqual(['song.no-change']);
  });

  it('are called twice where they stand twice, and nothing else', () => {
    const twice = { cues: [toneCue('x', BAR, 'lead'), toneCue('y', BAR, 'lead')] };
    expect(codes(twice)).toEqual(['song.duplicate']);
    expect(mended('song.duplicate', twice)).toEqual([]);
    // Another shift is another time.
    const shifted = [toneCue('x', BAR, 'lead'), toneCue('y', BAR, 'lead', { shift: 5 })];
    expect(codes({ cues: shifted })).toEqual(['song.no-change']);
    expect(codes({ cues: [twice.cues[0]!, { ...twice.cues[1]!, muted: true }] })).toEqual([]);
  });
});

describe('two tones on one beat', () => {
  it('clash where they want different things of one unit', () => {
    const cues = [toneCue('x', BAR, 'lead'), toneCue('y', BAR, 'clean')];
    const [clash] = found({ cues }).filter((f) => f.code === 'song.tones-clash');
    expect(findingSentence(clash!)).toBe(
      'Song, 2|1: Lead and Clean want different things of a on one beat; Clean wins.',
    );
    expect(mended('song.tones-clash', { cues })).toEqual([]);
  });

  it('do not where each has its own units, or one of them is muted, or a moment later', () => {
    expect(codes({ cues: [toneCue('x', BAR, 'lead'), toneCue('y', BAR, 'low')] })).toEqual([]);
    const muted = [toneCue('x', BAR, 'lead'), { ...toneCue('y', BAR, 'clean'), muted: true }];
    expect(codes({ cues: muted })).toEqual([]);
    expect(codes({ cues: [toneCue('x', BAR, 'lead'), toneCue('y', BAR + Q, 'clean')] })).toEqual([]);
  });

  it('cannot be mended by taking one away that has a say over another unit', () => {
    const cues = [toneCue('x', BAR, 'clean'), toneCue('y', BAR, 'lead')];
    const [clash] = found({ cues }).filter((f) => f.code === 'song.tones-clash');
    expect(clash!.fix).toBeNull();
  });
});

describe('ramps through a selector', () => {
  const run = (...values: number[]): Cue[] => values.map((v, i) => set(`r${i}`, BAR + i * 60, 'channel', v));
  it('are three neighbours and more, up or down', () => {
    expect(codes({ cues: run(1, 2, 3) })).toEqual(['song.selector-ramp']);
    expect(codes({ cues: run(3, 2, 1, 0) })).toEqual(['song.selector-ramp']);
    expect(mended('song.selector-ramp', { cues: run(1, 2, 3) })).toEqual([]);
  });

  it('are not two steps, leaps, turns, or steps that are far apart', () => {
    expect(codes({ cues: run(1, 2) })).toEqual([]);
    expect(codes({ cues: run(0, 2, 3) })).not.toContain('song.selector-ramp');
    expect(codes({ cues: run(1, 2, 1, 2) })).not.toContain('song.selector-ramp');
    const slow = [1, 2, 3].map((v, i) => set(`s${i}`, BAR + i * Q, 'channel', v));
    expect(codes({ cues: slow })).toEqual([]);
  });

  it('leave the last where the first fix is pressed', () => {
    const song: Song = { ...newSong('song', 'Song', { bars: 16 }), openingToneId: 'clean', cues: run(1, 2, 3) };
    const show: Show = { ...testShow([a, b]), tones, songs: [song] };
    const after = applyEdit(show, checkSong(tonightOf(show), song)[0]!.fix!);
    expect(after.songs[0]!.cues.map((c) => c.id)).toEqual(['r2']);
  });
});

describe('a tone in two places', () => {
  const leave = (id: string, name: string, controls: Tone['parts'][number]['controls']): Tone =>
    newTone(id, name, [part('a', null, { variant: id === 'once' ? 1 : 2, controls })]);
  const more = {
    tones: [...tones, leave('once', 'Once', []), leave('loud', 'Loud', [{ controlId: 'mix', value: 80 }])],
  };
  const cues = ['once', 'loud', 'once'].map((id, i) => toneCue(`c${i}`, i * 2 * BAR, id));

  it('is told that it sounds otherwise, by whom, and says it itself once mended', () => {
    const list = found({ cues }, false, more).filter((f) => f.code === 'song.tone-differs');
    expect(list.map(findingSentence)).toEqual([
      'Song, 5|1: Once sounds other than at 1|1: Delay mix of a is left as Loud set it.',
    ]);
    const song: Song = { ...newSong('song', 'Song', { bars: 16 }), openingToneId: 'clean', cues };
    const show: Show = { ...testShow([a, b]), ...more, songs: [song] };
    const after = applyEdit(show, list[0]!.fix!);
    expect(checkSong(tonightOf(after), after.songs[0]!).filter((f) => f.code === 'song.tone-differs')).toEqual([]);
  });

  it('is left alone where nothing that it names a unit for was moved, or where another preset loads', () => {
    const other = cues.toSpliced(1, 1, toneCue('x', 2 * BAR, 'low'));
    expect(found({ cues: other }, false, more).map((f) => f.code)).not.toContain('song.tone-differs');
    const loaded = [cues[0]!, cues[1]!, toneCue('y', 3 * BAR, 'lead'), { ...cues[2]!, at: 5 * BAR }];
    expect(found({ cues: loaded }, false, more).map((f) => f.code)).not.toContain('song.tone-differs');
  });
});

describe('sweeps', () => {
  it('overlap only on one control, and end where the next begins once mended', () => {
    const two = { sweeps: [sweep('x', BAR, 3 * BAR), sweep('y', 2 * BAR, 4 * BAR)] };
    expect(codes(two)).toEqual(['song.sweeps-overlap']);
    expect(mended('song.sweeps-overlap', two)).toEqual([]);
    expect(codes({ sweeps: [sweep('x', BAR, 2 * BAR), sweep('y', 2 * BAR, 4 * BAR)] })).toEqual([]);
    const other = { ...newSweep('y', b, mix, 2 * BAR, 4 * BAR) };
    expect(codes({ sweeps: [sweep('x', BAR, 3 * BAR), other] })).toEqual([]);
    expect(codes({ sweeps: [sweep('x', BAR, 3 * BAR), { ...sweep('y', 2 * BAR, 4 * BAR), muted: true }] })).toEqual([]);
  });

  it('are left off their rest only where nothing sets the control afterwards', () => {
    const held = [sweep('x', BAR, 2 * BAR, { after: 'hold' })];
    expect(codes({ sweeps: held })).toEqual(['song.off-rest']);
    expect(mended('song.off-rest', { sweeps: held })).toEqual([]);
    expect(codes({ sweeps: held, cues: [set('c', 3 * BAR, 'mix', 30)] })).toEqual([]);
    expect(codes({ sweeps: [...held, sweep('y', 3 * BAR, 4 * BAR)] })).toEqual([]);
    // A preset that loads brings its own value along.
    expect(codes({ sweeps: held, cues: [toneCue('c', 3 * BAR, 'lead')] })).toEqual([]);
  });

  it('leave an effect on that a cue switched on for them', () => {
    const sweeps = [sweep('x', BAR, 2 * BAR)];
    const on = set('on', BAR, 'delay', 1);
    expect(codes({ sweeps, cues: [on] })).toEqual(['song.effect-left']);
    expect(mended('song.effect-left', { sweeps, cues: [on] })).toEqual([]);
    expect(codes({ sweeps, cues: [on, set('off', 2 * BAR, 'delay', 0)] })).toEqual([]);
    expect(codes({ sweeps: [sweep('x', BAR, 2 * BAR, { switchId: 'delay' })] })).toEqual([]);
    // Switched on long before, it is on for its own sake.
    expect(codes({ sweeps, cues: [set('on', 0, 'delay', 1)] })).toEqual([]);
  });
});

describe('what turns over', () => {
  it('is asked about once a song, where nobody knows how it stands', () => {
    const cues = [toneCue('x', BAR, 'turned'), set('y', 2 * BAR, 'turn', 0)];
    const unknown: Show['units'] = [a, b].map((u) => ({
      ...u,
      slots: u.slots.map((s) => ({ ...s, startControls: [] })),
    }));
    const flips = found({ cues }, false, { units: unknown }).filter((f) => f.code === 'song.flip-unknown');
    expect(flips.map(findingSentence)).toEqual([
      'Song, 2|1: Turn of a only turns over, and nothing before says in which state it is.',
    ]);
    // Where the preset is written down, it is known from the opening on.
    expect(codes({ cues })).not.toContain('song.flip-unknown');
  });
});

describe('bytes that stand in a song', () => {
  const raw = (hex: string): Partial<Song> => ({ cues: [messageCue('m', BAR, 'a', hex)] });
  it.each([
    ['c12f', 'song.other-channel'],
    ['b0630a', 'song.not-understood'],
    ['903c40', 'song.not-understood'],
    ['f07d01f7', 'song.not-understood'],
  ] as const)('%s: %s', (hex, code) => {
    expect(codes(raw(hex))).toEqual([code]);
  });

  it.each([['b03500'], ['b05503'], ['b00001'], ['f8'], ['c009']])('%s is understood', (hex) => {
    expect(codes(raw(hex))).toEqual([]);
  });

  it('call a slot only in a bank that is known, and that is there', () => {
    expect(codes({ ...raw('c009'), openingToneId: null })).toContain('song.bank-unknown');
    const cues = [messageCue('m', BAR, 'a', 'b00001'), messageCue('n', BAR + 60, 'a', 'c064')];
    expect(codes({ cues })).toEqual(['song.no-such-slot']);
  });
});

describe('an opening', () => {
  it('has to name every unit that the song uses', () => {
    expect(codes({ openingToneId: 'lead', cues: [toneCue('x', BAR, 'clean')] })).toEqual(['song.no-opening']);
    expect(codes({ openingToneId: null, cues: [toneCue('x', BAR, 'lead')] })).toEqual(['song.no-opening']);
    expect(codes({ openingToneId: 'lead', cues: [toneCue('x', BAR, 'delay-on')] })).toEqual([]);
    expect(codes({ openingToneId: null })).toEqual([]);
  });

  it('is offered: the first tone of the song that sets all that it uses', () => {
    const [bare] = found({ openingToneId: null, cues: [toneCue('x', BAR, 'lead')] });
    expect(bare!.fix).not.toBeNull();
    // The lead alone does not set both.
    const cues = [toneCue('x', BAR, 'lead'), set('y', 2 * BAR, 'delay', 1)];
    expect(mended('song.no-opening', { openingToneId: null, cues: [...cues, toneCue('z', 3 * BAR, 'clean')] })).toEqual(
      [],
    );
    const two = found({
      openingToneId: null,
      cues: [toneCue('x', BAR, 'lead'), messageCue('m', BAR, 'b', 'c101')],
    }).find((f) => f.code === 'song.no-opening');
    expect(two).toMatchObject({ code: 'song.no-opening', fix: null });
  });

  it('says which, by name', () => {
    const [first] = found({ openingToneId: 'lead', cues: [toneCue('x', BAR, 'clean')] });
    expect(findingSentence(first!)).toBe('Song uses b, which its opening, Lead, does not set.');
  });
});

describe('sections that can be skipped', () => {
  const sections = [newSection('s1', 'One', 1), newSection('s2', 'Two', 5), newSection('s3', 'Three', 9)];
  it('leave on what only they switch off', () => {
    const cues = [set('on', BAR, 'delay', 1), set('off', 5 * BAR, 'delay', 0), toneCue('x', 8 * BAR, 'low')];
    const [skipped] = found({ cues, sections }).filter((f) => f.code === 'song.section-state');
    expect(findingSentence(skipped!)).toBe('Song, 9|1: who goes from One straight to Three still has Delay of a on.');
    // A tone that loads a's preset there sets it right.
    const right = [...cues.slice(0, 2), toneCue('x', 8 * BAR, 'lead')];
    expect(codes({ cues: right, sections })).not.toContain('song.section-state');
  });
});

describe('a fix', () => {
  it('is an edit like any other: the cue that it moved can be moved back', () => {
    const cues = [toneCue('x', 16 * BAR + Q, 'lead')];
    const song: Song = { ...newSong('song', 'Song', { bars: 16 }), openingToneId: 'clean', cues };
    const show: Show = { ...testShow([a, b]), tones, songs: [song] };
    const after = applyEdit(show, checkSong(tonightOf(show), song)[0]!.fix!);
    expect(after.songs[0]!.bars).toBe(17);
    const back = applyEdit(after, changeCue(after, 'song', 'x', { at: 0 })!);
    // On the first beat a cue comes over the opening: that is what openings are for.
    expect(checkSong(tonightOf(back), back.songs[0]!)).toEqual([]);
  });
});

describe('a preset that sounds in its stored scene first', () => {
  const slow: Profile = {
    ...modelerProfile,
    times: timesFrom({ recall: 100, settle: 168, variant: 12, control: 5 }, exactly),
  };
  const unit = testUnit('u0', 1, slow);
  const made = (change: Partial<Unit> = {}, others: readonly Tone[] = []): Finding[] => {
    const tones = [
      newTone('a', 'A', [newPart('u0', { slotId: 'u0-s9', variant: 2 })]),
      newTone('b', 'B', [newPart('u0', { slotId: 'u0-s18', variant: 2 })]),
      ...others,
    ];
    const song: Song = {
      ...newSong('s', 'S', { bars: 16 }),
      cues: [toneCue('x', 9600, 'a'), toneCue('y', 19200, 'b')],
    };
    const show: Show = { ...testShow([{ ...unit, ...change }]), tones, songs: [song] };
    const compiled = compileSong(show, song);
    const dry = dryRun(rigSpec(show), compiled.events, songWants(show, song));
    expect(dry.verdicts.every((v) => v.outcome === 'on-time' && Math.abs(v.offset!) < 0.01)).toBe(true);
    return checkSong(tonightOf(show), song, { compiled, dry }).filter((f) => f.code === 'song.stored-between');
  };

  it('is said with how long, also where the cue before asked for the same scene', () => {
    const found = made();
    expect(found.map((f) => f.place)).toMatchObject([{ cueId: 'x' }, { cueId: 'y' }]);
    // It is taken 168 ms after the recall and needs 12: 80 ms after the preset is there.
    expect(found.map(findingSentence)[1]).toBe(
      'S, 6|1: u0 sounds 80 ms in the scene that the preset stores before 3 is there.',
    );
    const noted = unit.slots.map((s) => ({ ...s, startVariant: 0 }));
    expect(findingSentence(made({ slots: noted })[1]!)).toBe('S, 6|1: u0 sounds 80 ms in scene 1 before 3 is there.');
  });

  it('is mended by storing the preset with it, where no other tone wants it otherwise', () => {
    const [, found] = made();
    expect(fixWords(found!)).toBe('Store D1 in the unit with 3, and note it');
    expect(found!.fix).not.toBeNull();
    const other = newTone('c', 'C', [newPart('u0', { slotId: 'u0-s18', variant: 5 })]);
    expect(made({}, [other])[1]!.fix).toBeNull();
    const stored = unit.slots.map((s) => ({ ...s, startVariant: 2 }));
    expect(made({ slots: stored })).toEqual([]);
  });

  it('is nothing where the scene is there as soon as the preset is', () => {
    expect(made({ profile: modelerProfile })).toEqual([]);
  });
});
