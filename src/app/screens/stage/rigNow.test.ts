import { describe, expect, it } from 'vitest';
import { stateAt } from '../../../core/compile';
import { demoShow } from '../../../core/demo';
import { songTime } from '../../../core/show';
import { barAt } from '../../../core/time';
import { rigNow } from './rigNow';
import { tonesOf } from './stageOf';

const show = demoShow();
const song = show.songs[0]!;
const bar = (n: number): number => barAt(songTime(song).bars, n).tick;
const opening = stateAt(show, song, 0);

describe('what the rig is on', () => {
  it('is said of nothing where it is what the stage shows', () => {
    expect(rigNow(show, song, 0, opening, null)).toBeNull();
  });

  it('is a tone of the song, where a song was stopped and begins elsewhere', () => {
    const [first, ...others] = tonesOf(show, song);
    const { at, tone } = others.find((p) => p.tone.id !== first!.tone.id)!;
    expect(rigNow(show, song, 0, stateAt(show, song, at), null)).toBe(`The rig is on ${tone.name}.`);
  });

  it('is not known before anything was sent, and of what hangs on a port that is gone', () => {
    expect(rigNow(show, song, 0, {}, null)).toBe('What the rig is on is not known yet.');
    const { quillback: _, ...rest } = opening;
    expect(rigNow(show, song, 0, rest, null)).toBe('The rig is elsewhere: Quillback: not known.');
  });

  it('is told of one player’s units alone on that player’s stage', () => {
    const quillback = show.units.find((u) => u.id === 'quillback')!;
    const other = show.players.find((p) => p.id !== quillback.playerId)!;
    const moved = { ...opening, quillback: { ...opening.quillback!, slot: 99 } };
    expect(rigNow(show, song, bar(1), moved, other.id)).toBeNull();
    expect(rigNow(show, song, bar(1), moved, quillback.playerId)).toMatch(/^The rig is elsewhere: Quillback: \w+/);
  });

  it('names three units, and how many more', () => {
    const known = Object.keys(opening).filter((id) => opening[id]!.slot !== null);
    expect(known.length).toBeGreaterThan(3);
    const lost = Object.fromEntries(known.slice(1).map((id) => [id, { ...opening[id]!, slot: null }]));
    const said = rigNow(show, song, 0, { ...opening, ...lost }, null);
    expect(said).toMatch(new RegExp(`, and ${known.length - 4} more\\.$`));
  });
});
