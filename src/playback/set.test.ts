import { describe, expect, it } from 'vitest';
import { stateAt } from '../core/compile';
import { demoShow } from '../core/demo';
import { toneAims } from '../core/meaning';
import {
  applyEdit,
  changeEntry,
  inOrder,
  indexShow,
  microsAt,
  setOf,
  setSongField,
  songEntries,
  songTime,
  type Show,
} from '../core/show';
import { expectSame } from '../core/testing/expectSame';
import type { RigState } from '../core/rig';
import { barAt } from '../core/time';
import { launchBytes } from '../core/show';
import { commandsOf, nextStart } from './commands';
import { changePlaces } from './running';
import { placeIn } from './sessionState';
import { played } from './testing/played';

const show = demoShow();
const entries = songEntries(show);
const songOf = (i: number) => indexShow(show).songs.get(entries[i]!.songId)!;
/** In the demo, the third song goes on into the fourth by itself. */
const FOLLOWED = 2;
const change = (i: number, to: Parameters<typeof changeEntry>[2], of: Show = show): Show =>
  applyEdit(of, changeEntry(of, songEntries(of)[i]!, to)!);

/** The same with songs that are counted in. */
const COUNTED = 2;
const counting: Show = {
  ...show,
  songs: show.songs.map((s) => ({ ...s, click: { ...s.click, countIn: COUNTED } })),
};

/** A playback that is near the end of a song of the set. */
function nearEnd(i: number, of: Show = show) {
  const made = played(of);
  const song = songOf(i);
  made.playback.play(song.id, barAt(songTime(song).bars, song.bars).tick);
  return made;
}

describe('a song that is over', () => {
  it('waits to be told what comes next, and is remembered', () => {
    const { go, events, playback } = nearEnd(0);
    go(12_000);
    expect(events.at(-1)).toMatchObject({ kind: 'stopped', why: 'end', follows: false });
    go(60_000);
    expect(go(50).playing).toBe(false);
    const [first] = playback.session.history;
    expect(first).toMatchObject({ entryId: entries[0]!.id, title: songOf(0).title, how: 'asked' });
    expect(first!.until! - first!.at).toBeGreaterThan(1e6);
  });

  it('goes on into the next by itself, over the tone in between', () => {
    const { go, events, playback, standIns } = nearEnd(FOLLOWED);
    for (let i = 0; i < 4000 && events.at(-1)?.kind !== 'started'; i++) go(8);
    for (let i = 0; i < 4000 && playback.session.song!.id === songOf(FOLLOWED).id; i++) go(8);
    const next = songOf(FOLLOWED + 1);
    expect(playback.session).toMatchObject({ entryId: entries[FOLLOWED + 1]!.id, song: { id: next.id } });
    // The pause is four seconds; the tone in between is there before the next song opens.
    go(1500);
    const bridge = toneAims(show, indexShow(show).tones.get(entries[FOLLOWED]!.bridgeToneId!)!);
    for (const [unitId, { slot }] of bridge) if (slot !== undefined) expect(standIns.state()[unitId]!.slot).toBe(slot);
    const zero = (playback.session.transport as { zero: number }).zero;
    const [before, after] = playback.session.history;
    expect(zero - before!.until!).toBeGreaterThanOrEqual(4e6 - 1);
    expect(zero - before!.until!).toBeLessThan(4.5e6);
    expect(after).toMatchObject({ how: 'follows', until: null });
  });

  it('goes on into what was queued, and no longer into it when somebody thought better of it', () => {
    const far = entries[6]!;
    const queued = nearEnd(FOLLOWED);
    queued.playback.queue(far.id);
    expect(queued.go(50).queued).toBe(far.id);
    queued.go(20_000);
    expect(queued.playback.session.entryId).toBe(far.id);
    expect(queued.playback.session.queued).toBeNull();
    const unqueued = nearEnd(FOLLOWED);
    unqueued.playback.queue(far.id);
    unqueued.playback.queue(null);
    unqueued.go(20_000);
    expect(unqueued.playback.session.entryId).toBe(entries[FOLLOWED + 1]!.id);
  });

  it('goes on at once, without the count-in of the next, where the set says so', () => {
    const counted = (follow: 'on' | 'at-once'): number => {
      const { go, events, playback } = nearEnd(
        FOLLOWED,
        change(FOLLOWED, { follow, pause: 0, bridgeToneId: null }, counting),
      );
      for (let i = 0; i < 4000 && !events.some((e) => e.kind === 'stopped'); i++) go(8);
      for (let i = 0; i < 4000 && playback.session.song!.id === songOf(FOLLOWED).id; i++) go(8);
      const { song, transport, counted: is } = playback.session;
      expect(song!.id).toBe(songOf(FOLLOWED + 1).id);
      expect(is).toBe(follow === 'on');
      return transport.kind === 'playing' ? transport.zero + transport.line.place - playback.now() : 0;
    };
    const { length } = barAt(songTime(songOf(FOLLOWED + 1)).bars, 1);
    const bar = microsAt(songTime(songOf(FOLLOWED + 1)), length) * COUNTED;
    // What remains is the time that the rig takes to open the song.
    expect(counted('on') - counted('at-once')).toBeGreaterThan(bar * 0.4);
    expect(counted('at-once')).toBeLessThan(1.2e6);
  });

  it('does not go on when it was stopped, nor behind the last of the set', () => {
    const stopped = nearEnd(FOLLOWED);
    stopped.go(500);
    stopped.playback.stop();
    stopped.go(30_000);
    expect(stopped.playback.session.history).toHaveLength(1);
    const last = entries.length - 1;
    const ended = nearEnd(last, change(last, { follow: 'on' }));
    ended.go(30_000);
    expect(ended.go(50).playing).toBe(false);
  });
});

describe('from song to song', () => {
  it('is browsed without being started: chosen, changed again, taken back, then gone to', () => {
    const { playback, go } = played(show);
    playback.play(songOf(0).id, 0);
    go(500);
    const songs = entries.filter((e) => e.kind === 'song');
    const queued = (by: 1 | -1): unknown => {
      playback.chooseSong(by);
      const news = go(50);
      expect(news).toMatchObject({ playing: true, songId: songOf(0).id });
      return news.queued;
    };
    expect([queued(1), queued(1), queued(1)]).toEqual([songs[1]!.id, songs[2]!.id, songs[3]!.id]);
    expect([queued(-1), queued(-1)]).toEqual([songs[2]!.id, songs[1]!.id]);
    // Back at what is on, none is chosen; before the first there is none.
    expect([queued(-1), queued(-1)]).toEqual([null, null]);
    expect([queued(1), queued(1)]).toEqual([songs[1]!.id, songs[2]!.id]);
    playback.goSong(1);
    expect(go(50)).toMatchObject({ playing: true, songId: songOf(2).id, queued: null });
  });

  it('is gone to by the rig alone while nothing plays, and is chosen no more then', () => {
    const { playback, go } = played(show);
    playback.select(songOf(0).id, 0);
    go(50);
    playback.chooseSong(1);
    playback.chooseSong(1);
    playback.goSong(1);
    expect(go(50)).toMatchObject({ playing: false, songId: songOf(2).id, queued: null });
  });

  it('goes on with the next while one plays, and to the queued one first', () => {
    const { playback, go } = played(show);
    playback.play(songOf(0).id, 0);
    go(500);
    playback.goSong(1);
    expect(go(50)).toMatchObject({ playing: true, songId: songOf(1).id });
    playback.queue(entries[5]!.id);
    playback.goSong(1);
    expect(go(50)).toMatchObject({ playing: true, songId: songOf(5).id, queued: null });
    playback.goSong(-1);
    expect(go(50).songId).toBe(songOf(4).id);
  });

  it('is left by the change after its last where the set runs on, and never else', () => {
    const places = changePlaces(show, songOf(0));
    const stepped = (runsOn: boolean): unknown => {
      const own: Show = { ...show, sets: show.sets.map((s) => (s.id === show.setId ? { ...s, runsOn } : s)) };
      const { playback, go } = played(own);
      playback.select(songOf(0).id, 0);
      go(50);
      return places.map(() => {
        playback.goChange(1);
        return go(50).songId;
      });
    };
    const inside = places.slice(1).map(() => songOf(0).id);
    expect(stepped(true)).toEqual([...inside, songOf(1).id]);
    expect(stepped(false)).toEqual([...inside, songOf(0).id]);
  });

  it('is never left so where it is played beside the set', () => {
    const out = show.sets.map((s) => ({ ...s, runsOn: true, entries: s.entries.slice(1) }));
    const { playback, go } = played({ ...show, sets: out });
    playback.select(songOf(0).id, 0);
    go(50);
    for (const _ of changePlaces(show, songOf(0))) playback.goChange(1);
    expect(go(50).songId).toBe(songOf(0).id);
  });

  it('goes there with the rig while nothing plays, past the break', () => {
    const { playback, go, standIns, out } = played(show);
    for (let i = 0; i < 5; i++) playback.goSong(1);
    expect(setOf(show).entries[4]!.kind).toBe('break');
    expect(go(1500)).toMatchObject({ playing: false, songId: songOf(4).id, place: 0 });
    expectSame(stateAt(show, songOf(4), 0), standIns.state());
    expect(out().length).toBeGreaterThan(3);
    playback.goSong(-1);
    expect(go(50).songId).toBe(songOf(3).id);
  });
});

/** Slots and variants: values that are swept are as near as the wire has them. */
const whereabouts = (rig: RigState) =>
  Object.fromEntries(Object.entries(rig).map(([id, s]) => [id, [s.slot, s.variant]]));

describe('from change to change', () => {
  const song = songOf(0);
  const places = changePlaces(show, song);

  it('steps a song that stands, each with the rig as the song has it there, and stays within it', () => {
    const { playback, go, standIns } = played(show);
    playback.select(song.id, 0);
    go(1500);
    for (const place of places.slice(1)) {
      playback.goChange(1);
      go(1500);
      expect(whereabouts(standIns.state())).toMatchObject(whereabouts(stateAt(show, song, place)));
    }
    playback.goChange(1);
    const last = go(50);
    expect(last.songId).toBe(song.id);
    playback.goChange(-1);
    go(1500);
    expect(whereabouts(standIns.state())).toMatchObject(whereabouts(stateAt(show, song, places.at(-2)!)));
  });

  it('knows a song that was edited while it stood, and where it stood', () => {
    const { playback, go, edit } = played(show);
    playback.select(song.id, places[2]!);
    const before = go(500).place;
    const slow = applyEdit(show, setSongField(show, song.id, 'tempo', [{ ...song.tempo[0]!, bpm: 63 }])!);
    edit(slow);
    expect(playback.session.song).toBe(slow.songs.find((s) => s.id === song.id));
    expect(go(50).place).toBeCloseTo(before * 2, -3);
    edit({ ...show, ...inOrder([]), songs: show.songs.filter((s) => s.id !== song.id) });
    expect(playback.session.song).toBeNull();
  });

  it('says where it stands also where the rig is there already, and nothing is sent', () => {
    const { playback, go, out } = played(show);
    playback.play(song.id, 0);
    go(200);
    playback.select(song.id, places[2]!);
    go(3000);
    // A start that is stopped before anything of it leaves: the rig is still on the change that comes next.
    playback.play(song.id, places[1]!);
    playback.stop();
    go(3000);
    const sent = out().length;
    playback.select(song.id, places[2]!);
    const there = go(50).place;
    expect(there).toBeCloseTo(placeIn(playback.session, 0).place, 0);
    expect(out().length - sent).toBe(0);
  });

  it('counts one that was stopped in its count-in as at its start', () => {
    const counted = { ...song, click: { ...song.click, countIn: 1 } };
    const { playback, go } = played({ ...show, songs: show.songs.map((s) => (s === song ? counted : s)) });
    playback.play(counted.id, 0);
    go(200);
    playback.stop();
    playback.goChange(1);
    expect(go(50).place).toBeGreaterThan(0);
  });

  it('has a song that plays go on from there', () => {
    const { playback, go, now } = played(show);
    playback.play(song.id, 0);
    go(3000);
    playback.goChange(1);
    go(1200);
    expect(go(50).playing).toBe(true);
    expect(placeIn(playback.session, now()).place).toBeGreaterThan(6e6);
    // It is the same song that plays: one start, which is what is taken back.
    expect(playback.session.history).toHaveLength(1);
    expect(playback.session.before!.song).toBeNull();
  });
});

describe('a wrong start', () => {
  it('is taken back by one press: the rig is on what it was on, and so is the set', () => {
    const { playback, go, standIns } = played(show);
    playback.select(songOf(1).id, 0);
    go(2000);
    const before = standIns.state();
    playback.play(songOf(6).id, 0);
    expect(go(2500).canGoBack).toBe(true);
    playback.back();
    const news = go(2500);
    expect(news).toMatchObject({ playing: false, songId: songOf(1).id, entryId: entries[1]!.id, canGoBack: false });
    expectSame(before, standIns.state());
    expect(playback.session.history.at(-1)!.until).not.toBeNull();
  });
});

describe('panic', () => {
  it('has every unit that is reached fall silent, on its own channel, while the song goes on', () => {
    const { playback, go, out } = played(show);
    playback.play(songOf(0).id, 0);
    go(1000);
    const before = out().length;
    playback.panic();
    expect(go(150).playing).toBe(true);
    const sent = out()
      .slice(before)
      .map((l) => l.bytes.join(' '));
    for (const { id, channel } of show.units.filter((u) => u.input?.from === 'port')) {
      for (const control of [120, 123]) expect(sent, id).toContain(`${0xaf + channel} ${control} 0`);
    }
  });
});

describe('a unit that falls silent in its own way', () => {
  it('is sent what its map says, and the usual only where that is wanted', () => {
    const own = (silence: Show['units'][0]['profile']['silence']): string[] => {
      const units = show.units.map((u) => (u.id === 'tarn' ? { ...u, profile: { ...u.profile, silence } } : u));
      const { playback, go, out } = played({ ...show, units });
      playback.panic();
      go(200);
      const { channel } = show.units.find((u) => u.id === 'tarn')!;
      const status = `${0xaf + channel} `;
      return out()
        .map((l) => l.bytes.join(' '))
        .filter((t) => t.startsWith(status));
    };
    expect(own({ usual: false, bytes: 'b60700b64900' })).toEqual(['182 7 0', '182 73 0']);
    expect(own({ usual: true, bytes: 'b60700' })).toEqual(['182 7 0', '182 120 0', '182 123 0']);
    // What is no whole message is not sent.
    expect(own({ usual: false, bytes: 'b607' })).toEqual([]);
  });
});

describe('a message that a song waits for', () => {
  const pads = show.units.find((u) => u.id === 'pebble')!;
  const { portId } = pads.returns!;
  const sender = pads.profile.senders[0]!;

  it('starts it, or has it come next; what else arrives does neither', () => {
    const { playback, standIns, go, now } = played(show);
    const press = () => standIns.touch(pads.id, sender.id, 0, now());
    press();
    go(50);
    const bytes = playback.session.show === show ? heardFirst(pads.id, sender.id) : '';
    const starts = change(5, { launch: { portId, bytes, does: 'start' } });
    playback.show(starts);
    press();
    expect(go(100)).toMatchObject({ playing: true, songId: songOf(5).id });
    expect(playback.session.history.at(-1)!.how).toBe('launched');
    playback.show(change(5, { launch: { portId, bytes, does: 'queue' } }, change(5, { launch: null }, starts)));
    playback.stop();
    press();
    expect(go(100)).toMatchObject({ playing: false, queued: entries[5]!.id });
    playback.queue(null);
    playback.show(change(5, { launch: { portId: 'rack', bytes, does: 'start' } }));
    press();
    expect(go(100)).toMatchObject({ playing: false, queued: null });
  });
});

/** What a pad sends when it is pressed, as a launch is written. */
function heardFirst(unitId: string, senderId: string): string {
  const { standIns, playback, go, now } = played(show);
  const heard: string[] = [];
  Object.assign(playback.ears, {
    lines: (lines: readonly { direction: string; bytes: readonly number[] }[]) => {
      for (const l of lines) if (l.direction === 'in') heard.push(launchBytes(l.bytes) ?? '');
    },
  });
  standIns.touch(unitId, senderId, 0, now());
  go(200);
  return heard.find((h) => h !== '')!;
}

describe('a count-in', () => {
  it('is left out of the starts that are made while it is chosen to be, and said of what plays', () => {
    const { playback, go } = played(counting);
    const song = songOf(0);
    const lead = (): number => {
      playback.play(song.id, 0, null);
      const { transport } = playback.session;
      return transport.kind === 'playing' ? transport.zero - playback.now() : 0;
    };
    const withIt = lead();
    playback.stop();
    go(2000);
    playback.countIn(false);
    const without = lead();
    expect(withIt - without).toBeGreaterThan(500_000);
    expect(go(50)).toMatchObject({ counted: false, countsIn: false, playing: true });
    playback.countIn(true);
    expect(go(50)).toMatchObject({ counted: false, countsIn: true });
  });
});

describe('where the next start begins', () => {
  it('is where somebody said, for a foot switch too; nothing is sent before', () => {
    const { playback, go, out } = played(show);
    playback.select(songOf(0).id, 0);
    go(3000);
    const sent = out().length;
    const at = barAt(songTime(songOf(2).id === songOf(0).id ? songOf(1) : songOf(2)).bars, 3).tick;
    playback.stand(songOf(2).id, at);
    go(500);
    expect(out()).toHaveLength(sent);
    expect(playback.session.song!.id).toBe(songOf(0).id);
    for (const command of commandsOf({ kind: 'session', act: 'play' }, playback.session, playback.now())) {
      expect(command).toEqual({ kind: 'play', songId: songOf(2).id, from: at, entryId: entries[2]!.id });
    }
    playback.play(songOf(2).id, at);
    expect(playback.session.next).toBeNull();
  });

  it('is nowhere else once another place was gone to, or the song is gone', () => {
    const { playback } = played(show);
    playback.stand(songOf(2).id, 960);
    playback.select(songOf(1).id, 0);
    expect(playback.session.next).toBeNull();
    playback.stand('gone', 0);
    expect(nextStart(playback.session)).toBeNull();
  });
});
