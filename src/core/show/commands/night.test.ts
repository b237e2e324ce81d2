import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { checkShow } from '../check/checkShow';
import { applyEdit, type Edit } from '../edits';
import { setOf } from '../find';
import { showSchema, type Audio, type Reaction, type Show } from '../schema';
import { changeProfile, withoutControl } from './profiles';
import { removePlayer, removePort, removeUnit } from './rig';
import { removeMove } from './sweeps';
import { removeTone, removeToneEverywhere } from './tones';
import { moveReaction, setLevel, setMissing, setTonight } from './night';
import { addTrack, deleteSong, putReaction, removeReaction, removeTrack } from './sound';
import { doingTo } from '../../testing/doing';

const reaction = (id: string, does: Reaction['does'], rest: Partial<Reaction> = {}): Reaction => ({
  id,
  name: id,
  on: true,
  songId: null,
  hears: { portId: 'feet', kind: 'control', channel: null, number: 80, low: 0, high: 127 },
  swallow: true,
  does,
  ...rest,
});

const straight = { from: 0, to: 100, bend: 'straight' } as const;
const sound: Audio = { id: 'gull', name: 'Gull', type: 'audio/wav', length: 1, size: 100 };

/** The demo with everything referred to that the night can refer to. */
function linked(): Show {
  const base = demoShow();
  const [song] = base.songs;
  const show: Show = {
    ...base,
    audio: [sound],
    tones: [...base.tones, { id: 'spare-tone', name: 'Spare', notes: '', parts: [] }],
    moves: [
      ...base.moves,
      { id: 'spare-move', name: 'Spare', notes: '', steps: [{ unitId: 'tarn', controlId: 'hold', value: 1 }] },
    ],
    reactions: [
      reaction('stop', { kind: 'session', act: 'stop' }),
      reaction('song', { kind: 'song', songId: song!.id, how: 'start' }),
      reaction('only', { kind: 'session', act: 'panic' }, { songId: song!.id }),
      reaction('tone', { kind: 'tone', toneId: 'spare-tone' }),
      reaction('move', { kind: 'move', moveId: 'spare-move' }),
      reaction('gull', { kind: 'sample', audioId: 'gull', gain: 0 }),
      reaction('mix', { kind: 'control', unitId: 'tarn', controlId: 'mix', curve: straight }),
      reaction('wah', { kind: 'switch', unitId: 'tarn', controlId: 'active', above: 20, below: 5, millis: 100 }),
      reaction('out', { kind: 'message', portId: 'rack', channel: 4, number: null, curve: { ...straight, to: 127 } }),
    ],
    songs: base.songs.map((s, i) =>
      i > 0
        ? s
        : {
            ...s,
            followsPortId: 'pads',
            tracks: [
              {
                id: 't',
                audioId: 'gull',
                role: 'part',
                playerId: 'maude',
                stemId: null,
                at: 0,
                offset: 0,
                gain: 0,
                muted: false,
              },
            ],
          },
    ),
    sets: base.sets.map((s) => ({
      ...s,
      missing: ['maude'],
      tonight: [
        { how: 'off', unitId: 'tarn' },
        { how: 'spare', unitId: 'oxbow', channel: 9, firmware: '' },
      ],
      entries: s.entries.map((e, i) =>
        e.kind === 'song' && i === 0
          ? { ...e, bridgeToneId: 'spare-tone', launch: { portId: 'pads', bytes: '9024', does: 'start' } }
          : e,
      ),
    })),
  };
  // What is used in here is what the schema allows.
  showSchema.parse(show);
  expect(checkShow(show)).toEqual([]);
  return show;
}

const done = (show: Show, edit: Edit | null): Show => doingTo(show)(edit);

const kept = (show: Show): string[] => show.reactions.map((r) => r.id);
const first = (show: Show) => {
  const entry = setOf(show).entries[0]!;
  return entry.kind === 'song' ? entry : undefined;
};

describe('what the night refers to goes with what it refers to', () => {
  const show = linked();

  it('a port takes launches, followed clocks, and reactions to and from it along', () => {
    const pads = done(show, removePort(show, 'pads'));
    expect([first(pads)!.launch, pads.songs[0]!.followsPortId]).toEqual([null, null]);
    expect(kept(done(show, removePort(show, 'feet')))).toEqual([]);
    expect(kept(done(show, removePort(show, 'rack')))).not.toContain('out');
  });

  it('a player, a unit', () => {
    const left = done(show, removePlayer(show, 'maude'));
    expect([setOf(left).missing, left.songs[0]!.tracks[0]!.playerId]).toEqual([[], null]);
    const without = done(show, removeUnit(show, 'tarn'));
    expect(setOf(without).tonight.map((t) => t.unitId)).toEqual(['oxbow']);
    // Its move goes with it, and what plays the move.
    expect(kept(without)).toEqual(['stop', 'song', 'only', 'tone', 'gull', 'out']);
  });

  it('a tone that songs use no more, a tone everywhere, a move, a song', () => {
    for (const remove of [removeTone, removeToneEverywhere]) {
      const gone = done(show, remove(show, 'spare-tone'));
      expect(first(gone)!.bridgeToneId).toBeNull();
      expect(kept(gone)).not.toContain('tone');
    }
    expect(kept(done(show, removeMove(show, 'spare-move')))).not.toContain('move');
    const songless = done(show, deleteSong(show, show.songs[0]!.id));
    expect(kept(songless)).toEqual(['stop', 'tone', 'move', 'gull', 'mix', 'wah', 'out']);
    // The sound is played by a reaction still.
    expect(songless.audio).toEqual([sound]);
  });

  it('a control that the unit has no more takes reactions along, and says so', () => {
    const { profile } = show.units.find((u) => u.id === 'tarn')!;
    const change = changeProfile(show, 'tarn', withoutControl(profile, 'mix'));
    if (!change.ok) throw new Error('refused');
    expect(kept(done(show, change.edit))).not.toContain('mix');
    expect(change.dropped.map((d) => d.name)).toContain('mix');
  });
});

describe('commands of the night', () => {
  const show = linked();

  it('puts reactions in their order', () => {
    expect(kept(done(show, moveReaction(show, 'song', -1))).slice(0, 2)).toEqual(['song', 'stop']);
    expect(moveReaction(show, 'stop', -1)).toBeNull();
    expect(moveReaction(show, 'out', 1)).toBeNull();
    expect(putReaction(show, show.reactions[0]!)).toBeNull();
    const changed = { ...show.reactions[0]!, on: false };
    expect(done(show, putReaction(show, changed)).reactions[0]).toEqual(changed);
  });

  it('a sample leaves the show with its last use', () => {
    const bare = done(show, removeTrack(show, show.songs[0]!.id, 't'));
    expect(bare.audio).toEqual([sound]);
    expect(done(bare, removeReaction(bare, 'gull')).audio).toEqual([]);
    const gull = bare.reactions.find((r) => r.id === 'gull')!;
    const other: Audio = { ...sound, id: 'bell', name: 'Bell' };
    const swapped = putReaction(bare, { ...gull, does: { kind: 'sample', audioId: 'bell', gain: -3 } }, other);
    expect(done(bare, swapped).audio).toEqual([other]);
    // One that a song plays stays.
    expect(done(show, removeReaction(show, 'gull')).audio).toEqual([sound]);
    const { tracks } = show.songs[0]!;
    const twice = applyEdit(show, addTrack(show, show.songs[1]!.id, { ...tracks[0]!, id: 'u' }, null)!);
    expect(done(twice, removeTrack(twice, show.songs[0]!.id, 't')).audio).toEqual([sound]);
  });

  it('says who and what is missing, and how loud', () => {
    expect(setOf(done(show, setMissing(show, 'maude', false))).missing).toEqual([]);
    expect(setOf(done(show, setMissing(show, 'ines', true))).missing).toEqual(['maude', 'ines']);
    expect([setMissing(show, 'maude', true), setMissing(show, 'nobody', true)]).toEqual([null, null]);
    expect(setOf(done(show, setTonight(show, 'tarn', null))).tonight).toHaveLength(1);
    const spare = { how: 'spare', unitId: 'tarn', channel: 3, firmware: '' } as const;
    expect(setOf(done(show, setTonight(show, 'tarn', spare))).tonight).toContainEqual(spare);
    expect(setTonight(show, 'harrow', null)).toBeNull();
    expect(setTonight(show, 'harrow', spare)).toBeNull();
    const [song] = show.songs;
    expect(done(show, setLevel(show, song!.id, 'calls', -6)).songs[0]!.levels.calls).toBe(-6);
    expect(setLevel(show, song!.id, 'click', 0)).toBeNull();
  });
});
