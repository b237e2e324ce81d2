import { describe, expect, it } from 'vitest';
import { compileSong, stateAt } from '../compile';
import { demoShow } from '../demo';
import { routeTo } from '../meaning';
import { applyEdit, checkShow, indexShow, setTonight, type Show, type Tonight } from '../show';
import { changesFor, tonightOf } from './showTonight';

const demo = demoShow();
const as = (...all: readonly Tonight[]): Show =>
  all.reduce((show, how) => applyEdit(show, setTonight(show, how.unitId, how)!), demo);

describe('a unit that is off for the night', () => {
  const show = as({ how: 'off', unitId: 'tarn' });
  const tonight = tonightOf(show);

  it('is sent nothing, and nothing is wanted of it', () => {
    expect(checkShow(tonight)).toEqual([]);
    expect(routeTo(tonight, indexShow(tonight).units.get('tarn')!)).toBeUndefined();
    for (const song of tonight.songs) {
      const { events, lates } = compileSong(tonight, song);
      expect(events.some((e) => e.unitId === 'tarn')).toBe(false);
      expect(lates.some((l) => l.unitId === 'tarn')).toBe(false);
    }
    const used = demo.songs.some((s) => compileSong(demo, s).events.some((e) => e.unitId === 'tarn'));
    expect(used).toBe(true);
  });

  it('gets no taps, sweeps, steps of moves or single values, and its neighbours theirs', () => {
    const [first, ...rest] = demo.songs;
    const sent = (unitId: string) => ({
      taps: [{ id: `taps-${unitId}`, unitId, controlId: 'tap', count: 4 }],
      cues: [
        {
          id: `cue-${unitId}`,
          at: 0,
          shift: 0,
          landing: 'sent',
          muted: false,
          action: { kind: 'message', unitId, bytes: 'f8' },
        },
      ] as const,
    });
    const both = {
      ...first!,
      taps: [...sent('tarn').taps, ...sent('thistle').taps],
      cues: [...sent('tarn').cues, ...sent('thistle').cues],
    };
    const [song] = tonightOf({ ...show, songs: [both, ...rest] }).songs;
    expect(song!.taps.map((t) => t.unitId)).toEqual(['thistle']);
    expect(song!.cues.map((c) => c.id)).toEqual(['cue-thistle']);
  });

  it('has no cable, in or out', () => {
    const wired = {
      ...show,
      units: show.units.map((u) => (u.id === 'tarn' ? { ...u, returns: { portId: 'rack', thru: false } } : u)),
    };
    const tarn = indexShow(tonightOf(wired)).units.get('tarn')!;
    expect([tarn.input, tarn.returns]).toEqual([null, null]);
  });

  it('leaves the others as they are', () => {
    for (const [i, song] of tonight.songs.entries()) {
      const { tarn: _, ...rest } = stateAt(tonight, song, 1e6);
      const { tarn: __, ...all } = stateAt(demo, demo.songs[i]!, 1e6);
      expect(rest).toEqual(all);
    }
  });

  it('is a change of the night only: what did not change stays the same object', () => {
    expect(tonightOf(demo)).toBe(demo);
    expect(tonightOf(show)).toBe(tonight);
    expect(tonightOf(tonight)).toBe(tonight);
    const edited = { ...show, title: 'Another' };
    const again = tonightOf(edited);
    expect(again.songs.every((s, i) => s === tonight.songs[i])).toBe(true);
    expect(again.tones.every((t, i) => t === tonight.tones[i])).toBe(true);
    expect(again.units.every((u, i) => u === tonight.units[i])).toBe(true);
  });

  it('that relay rules call is called by none', () => {
    const relayed = tonightOf(as({ how: 'off', unitId: 'oxbow' }));
    expect(relayed.units.flatMap((u) => u.relays)).toEqual([]);
  });

  it('says what of the set it is missed in', () => {
    const missed = changesFor(demo, 'tarn');
    expect(missed.length).toBeGreaterThan(0);
    expect(missed.every((m) => m.changes > 0)).toBe(true);
    const taps = demo.moves.find((m) => m.id === 'four-taps')!;
    const used = demo.songs.filter((s) => s.cues.some((c) => c.action.kind === 'move' && c.action.moveId === taps.id));
    for (const { id } of used) expect(changesFor(demo, 'thistle').map((m) => m.songId)).toContain(id);
  });
});

describe('a spare for the night', () => {
  it('is sent to on its own channel, as its firmware wants it', () => {
    const tonight = tonightOf(as({ how: 'spare', unitId: 'thistle', channel: 12, firmware: '3.0' }));
    const thistle = indexShow(tonight).units.get('thistle')!;
    expect([thistle.channel, thistle.listens, thistle.profile.firmware]).toEqual([12, 12, '3.0']);
    const sent = tonight.songs.flatMap((s) => compileSong(tonight, s).events.filter((e) => e.unitId === 'thistle'));
    expect(sent.length).toBeGreaterThan(0);
    expect(sent.every((e) => (e.bytes[0]! & 15) === 11)).toBe(true);
    const same = tonightOf(as({ how: 'spare', unitId: 'thistle', channel: 4, firmware: '' }));
    expect(indexShow(same).units.get('thistle')!.profile.firmware).toBe('2.4');
  });
});
