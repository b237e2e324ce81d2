import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { doingTo } from '../../testing/doing';
import { newTrack } from '../builders';
import { checkShow } from '../check/checkShow';
import { applyEdit } from '../edits';
import type { Reaction, Show } from '../schema';
import {
  addTrack,
  hearing,
  putEar,
  putStem,
  removeEar,
  removePlayer,
  removeStem,
  meaningOf,
  setMeaning,
  setPlayerField,
  setStemOf,
  sourceName,
  sourcesOf,
} from './';

const demo = demoShow();
const ID = 'slack-tide';
const track = newTrack('t', 'a');
const show = applyEdit(
  demo,
  addTrack(demo, ID, track, { id: 'a', name: 'Drums', type: 'audio/wav', length: 9, size: 9 })!,
);
const done = doingTo(show);
const stemOf = (s: Show): string | null => s.songs.find((x) => x.id === ID)!.tracks[0]!.stemId;
const reaction = (id: string, does: Reaction['does']): Reaction => ({
  id,
  name: '',
  on: true,
  songId: null,
  hears: { portId: null, kind: 'control', channel: 1, number: 7, low: 0, high: 127 },
  swallow: true,
  does,
});

describe('stems', () => {
  it('are made where a recording is put to one, found again by name, and left by an empty one', () => {
    const one = done(setStemOf(show, ID, 't', ' Drums ', 's1'));
    expect(one.stems).toEqual([{ id: 's1', name: 'Drums' }]);
    expect(stemOf(one)).toBe('s1');
    expect(setStemOf(one, ID, 't', 'drums', 's2')).toBeNull();
    expect(stemOf(done(setStemOf(one, ID, 't', '', 's3'), one))).toBeNull();
    expect(sourcesOf(one).at(-1)).toEqual({ id: 's1', name: 'Drums' });
    expect(sourceName(one, 'click')).toBe('Click');
    expect(sourceName(one, 'gone')).toBe('');
  });

  it('have names of their own', () => {
    const one = done(putStem(show, { id: 's1', name: 'Keys' }));
    expect(putStem(one, { id: 's2', name: 'KEYS' })).toBeNull();
    expect(putStem(one, { id: 's1', name: ' ' })).toBeNull();
    expect(done(putStem(one, { id: 's1', name: 'Harp' }), one).stems[0]!.name).toBe('Harp');
  });

  it('take all that knows them with them', () => {
    const one = done(setStemOf(show, ID, 't', 'Drums', 's1'));
    const heard = done(
      putEar(one, {
        id: 'e',
        name: 'Ines',
        hears: [
          { of: 's1', gain: -3 },
          { of: 'click', gain: 0 },
        ],
      }),
      one,
    );
    const moved = {
      ...heard,
      reactions: [
        reaction('r1', { kind: 'level', of: 's1', from: -60, to: 6 }),
        reaction('r2', { kind: 'turn', of: 'click', how: 'flip' }),
      ],
    };
    expect(checkShow(moved)).toEqual([]);
    const gone = done(removeStem(moved, 's1'), moved);
    expect(checkShow(gone)).toEqual([]);
    expect(stemOf(gone)).toBeNull();
    expect(gone.ears[0]!.hears).toEqual([{ of: 'click', gain: 0 }]);
    expect(gone.reactions.map((r) => r.id)).toEqual(['r2']);
  });

  it('are refused where they are not there', () => {
    const bad: Show = {
      ...show,
      stems: [{ id: 'click', name: 'Click again' }],
      ears: [
        {
          id: 'e',
          name: 'Ines',
          hears: [
            { of: 'nowhere', gain: 0 },
            { of: 'calls', gain: 0 },
            { of: 'calls', gain: 1 },
          ],
        },
      ],
      reactions: [reaction('r', { kind: 'turn', of: 'nowhere', how: 'on' })],
    };
    expect(
      checkShow(bad)
        .map((p) => p.code)
        .sort(),
    ).toEqual(['show.missing', 'show.missing', 'show.twice', 'show.twice']);
  });
});

describe('mixes for ears', () => {
  it('are added, changed source by source, and removed', () => {
    const one = done(putEar(show, { id: 'e', name: 'Ines', hears: [] }));
    const louder = done(putEar(one, hearing(one.ears[0]!, 'click', 3)), one);
    expect(louder.ears[0]!.hears).toEqual([{ of: 'click', gain: 3 }]);
    expect(done(putEar(louder, hearing(louder.ears[0]!, 'click', null)), louder).ears[0]!.hears).toEqual([]);
    expect(putEar(one, { id: 'f', name: 'ines', hears: [] })).toBeNull();
    expect(done(removeEar(one, 'e'), one).ears).toEqual([]);
    expect(removeEar(one, 'f')).toBeNull();
  });
});

it('a switch for the part of a player goes with the player', () => {
  const playerId = show.players[0]!.id;
  const moved = { ...show, reactions: [...show.reactions, reaction('r', { kind: 'part', playerId, how: 'flip' })] };
  expect(checkShow(moved)).toEqual([]);
  const gone = done(removePlayer(moved, playerId), moved);
  expect(gone.reactions.some((r) => r.id === 'r')).toBe(false);
  expect(checkShow(gone)).toEqual([]);
});

describe('colours by meaning', () => {
  it('are said once, taken back by an empty text, and stand on players and switches', () => {
    const said = done(setMeaning(show, 'amber', ' solo '));
    expect(meaningOf(said, 'amber')).toBe('solo');
    expect(meaningOf(said, 'sea')).toBe('');
    expect(setMeaning(said, 'amber', 'solo')).toBeNull();
    expect(done(setMeaning(said, 'amber', ''), said).colours).toEqual([]);
    const coloured = done(setPlayerField(said, show.players[0]!.id, 'colour', 'amber'), said);
    expect(coloured.players[0]!.colour).toBe('amber');
    expect(checkShow(coloured)).toEqual([]);
  });
});
