import { describe, expect, it } from 'vitest';
import { CODE_RATES, codeMicros, codeText, labelOf, frameMicros, readCode, type CodeRate } from '../core/clock';
import { stateAt } from '../core/compile';
import { codeRanges } from '../core/meaning';
import { Chance } from '../core/nights/draw';
import { demoShow } from '../core/demo';
import { applyEdit, indexShow, microsAt, setSongField, setTimeCode, songTime, ticksAt, type Show } from '../core/show';
import type { RigState } from '../core/rig';
import { CodeMachine, type MachineWays } from './codeMachine';
import { REAL_AHEAD, placeIn } from './sessionState';
import { played } from './testing/played';

const PORT = 'pads';
const plain = demoShow();

/** The demo with its first songs at places of a time code, in seconds from midnight. */
function coded(rate: CodeRate, places: Readonly<Record<string, number>>): Show {
  let show = applyEdit(plain, setTimeCode(plain, { portId: PORT, rate })!);
  for (const [id, seconds] of Object.entries(places)) {
    const code = codeText(labelOf(Math.round((seconds * 1e6) / frameMicros(rate)), rate), rate);
    show = applyEdit(show, setSongField(show, id, 'code', code)!);
  }
  return show;
}

const HOUR = 3600;
const PLACES = { 'slack-tide': HOUR, 'rope-ledger': HOUR + 120 };

/** A show that a machine leads. */
function led(rate: CodeRate = '25', show = coded(rate, PLACES)) {
  const p = played(show, REAL_AHEAD);
  const machine = new CodeMachine((at, bytes) => p.arrive(PORT, bytes, at));
  const start = (id: string): number => codeMicros(readCode(indexShow(show).songs.get(id)!.code!, rate)!, rate);
  const go = (millis: number): void => {
    for (let i = 0; i < millis / 8; i++) {
      p.go(8);
      machine.advance(p.now());
    }
  };
  let from = { at: 0, place: 0, speed: 1 };
  const play = (place: number, rest: Partial<MachineWays> = {}): void => {
    const ways = { rate, speed: 1, jitter: 0, ...rest };
    const frame = Math.floor(place / frameMicros(rate));
    from = { at: p.now(), place: frame * frameMicros(rate), speed: ways.speed };
    machine.act({ kind: 'play', place, ...ways }, p.now());
  };
  /** Where the song is against where the machine is, in milliseconds. */
  const off = (id: string): number => {
    const code = from.place + (p.now() - from.at) * from.speed;
    return (placeIn(p.playback.session, p.now()).place - (code - start(id))) / 1000;
  };
  const isOn = (id: string): boolean =>
    p.playback.session.transport.kind === 'playing' && p.playback.session.song?.id === id;
  return { ...p, machine, go, play, off, isOn, start, show };
}

/** What stand-ins are on is what the song has there, as far as it says. */
function expectSound(show: Show, id: string, place: number, state: RigState): void {
  const song = indexShow(show).songs.get(id)!;
  const wanted = stateAt(show, song, ticksAt(songTime(song), place));
  for (const [unitId, { slot }] of Object.entries(wanted))
    if (slot !== null) expect([unitId, state[unitId]!.slot]).toEqual([unitId, slot]);
}

describe('a song that time code leads', () => {
  it.each(CODE_RATES)(
    'begins at its place at %s, with all that it sends ahead, and stays there to a millisecond',
    (rate) => {
      const { play, go, off, isOn, start, show, standIns, out } = led(rate);
      play(start('slack-tide') - 5e6);
      go(2000);
      expect(isOn('slack-tide')).toBe(true);
      go(2900);
      // What the opening sends has left before the start.
      expect(out().length).toBeGreaterThan(0);
      go(1100);
      for (let i = 0; i < 12; i++) {
        go(1500);
        expect(Math.abs(off('slack-tide'))).toBeLessThan(1);
      }
      expectSound(show, 'slack-tide', 18e6, standIns.state());
    },
  );

  it('waits between songs, and goes to the next by itself', () => {
    const { play, go, isOn, start, events, playback } = led();
    const { songs } = indexShow(plain);
    const length = songTime(songs.get('slack-tide')!).end;
    const end = microsAt(songTime(songs.get('slack-tide')!), length);
    play(start('slack-tide') + end - 3e6);
    go(1500);
    expect(isOn('slack-tide')).toBe(true);
    go(4000);
    expect(playback.session.transport.kind).toBe('stopped');
    play(start('rope-ledger') - 3e6);
    go(4000);
    expect(isOn('rope-ledger')).toBe(true);
    expect(events.filter((e) => e.kind === 'code')).toEqual([]);
  });

  it('goes where the code jumps, and the rig is in the sound of that place', () => {
    const { play, go, off, isOn, start, show, standIns } = led();
    play(start('slack-tide') - 1e6);
    go(5000);
    play(start('slack-tide') + 40e6);
    go(2500);
    expect([isOn('slack-tide'), Math.abs(off('slack-tide')) < 1]).toEqual([true, true]);
    expectSound(show, 'slack-tide', 42e6, standIns.state());
    play(start('rope-ledger') + 20e6);
    go(2500);
    expect([isOn('rope-ledger'), Math.abs(off('rope-ledger')) < 1]).toEqual([true, true]);
    play(start('slack-tide') + 10e6);
    go(2500);
    expect([isOn('slack-tide'), Math.abs(off('slack-tide')) < 1]).toEqual([true, true]);
    // To where no song is.
    play(codeMicros({ hours: 9, minutes: 0, seconds: 0, frames: 0 }, '25'));
    go(1000);
    expect(isOn('slack-tide')).toBe(false);
  });

  it('stops with the machine, and stands while that is wound or runs backwards', () => {
    const { machine, play, go, isOn, now, start, events } = led();
    play(start('slack-tide') + 10e6);
    go(3000);
    machine.act({ kind: 'stop' }, now());
    go(300);
    expect(isOn('slack-tide')).toBe(false);
    play(start('slack-tide') + 30e6, { speed: -1 });
    go(2000);
    expect(isOn('slack-tide')).toBe(false);
    play(start('slack-tide') + 30e6, { speed: 6 });
    go(2000);
    expect(isOn('slack-tide')).toBe(false);
    expect(events.filter((e) => e.kind === 'code').map((e) => e.what)).toEqual(['backwards']);
    play(start('slack-tide') + 20e6);
    go(1500);
    expect(isOn('slack-tide')).toBe(true);
  });

  it('runs on where the code drops out, and says so after two seconds', () => {
    const { machine, play, go, off, isOn, now, start, events } = led();
    play(start('slack-tide') + 5e6);
    go(4000);
    machine.act({ kind: 'drop-out', length: 1.9e6 }, now());
    go(2500);
    expect(events.filter((e) => e.kind === 'code')).toEqual([]);
    expect(Math.abs(off('slack-tide'))).toBeLessThan(1);
    machine.act({ kind: 'drop-out', length: 6e6 }, now());
    go(4000);
    expect(isOn('slack-tide')).toBe(true);
    expect(events.filter((e) => e.kind === 'code').map((e) => e.what)).toEqual(['lost']);
    go(3000);
    expect(events.filter((e) => e.kind === 'code').map((e) => e.what)).toEqual(['lost', 'back']);
    expect(Math.abs(off('slack-tide'))).toBeLessThan(1);
  });

  it('shakes by 0.15 ms where the code shakes by 1 ms: what nights reckon with', () => {
    const { play, go, off, start } = led('25');
    // Evenly within 1.7 ms to either side: a deviation of 1 ms.
    play(start('slack-tide') - 1e6, { jitter: 1732 });
    go(4000);
    const offs = Array.from({ length: 200 }, () => {
      go(248);
      return off('slack-tide');
    });
    const mean = offs.reduce((sum, o) => sum + o, 0) / offs.length;
    const deviation = Math.sqrt(offs.reduce((sum, o) => sum + (o - mean) ** 2, 0) / offs.length);
    expect(deviation).toBeGreaterThan(0.1);
    expect(deviation).toBeLessThan(0.2);
  });

  it.each([0.99, 1.01])('follows a machine that runs at %f of its speed, and one that shakes', (speed) => {
    const { play, go, off, start } = led();
    play(start('slack-tide') - 3e6, { speed });
    go(8000);
    for (let i = 0; i < 8; i++) {
      go(1500);
      expect(Math.abs(off('slack-tide'))).toBeLessThan(1);
    }
    play(start('slack-tide') + 20e6, { jitter: 2000 });
    go(3000);
    const errors: number[] = [];
    for (let i = 0; i < 100; i++) {
      go(96);
      errors.push(Math.abs(off('slack-tide')));
    }
    expect(errors.toSorted((a, b) => a - b)[94]).toBeLessThan(3);
  });

  it('is left alone by code once somebody stops or plays by hand, until it leads again', () => {
    const { playback, play, go, isOn, start } = led();
    play(start('slack-tide') + 5e6);
    go(2000);
    playback.stop();
    go(2000);
    expect([isOn('slack-tide'), playback.session.isLed]).toEqual([false, false]);
    playback.beLed(true);
    go(1500);
    expect(isOn('slack-tide')).toBe(true);
    playback.play('rope-ledger', 0);
    go(2000);
    expect([isOn('rope-ledger'), playback.session.isLed]).toEqual([true, false]);
    const byHand: readonly (() => void)[] = [
      () => playback.goSong(1),
      () => playback.goChange(1),
      () => playback.back(),
      () => playback.speed(0.8),
      () => playback.loop({ songId: 'slack-tide', from: 0, to: 3840 }),
    ];
    for (const act of byHand) {
      playback.beLed(true);
      go(1500);
      expect([isOn('slack-tide'), playback.session.isLed]).toEqual([true, true]);
      act();
      expect(playback.session.isLed).toBe(false);
    }
  });

  it('says that the code has another rate than the show, once', () => {
    const { play, go, start, events, isOn } = led('25');
    play(start('slack-tide') + 5e6, { rate: '24' });
    go(3000);
    expect(isOn('slack-tide')).toBe(true);
    expect(events.filter((e) => e.kind === 'code')).toEqual([{ kind: 'code', what: 'rate', rate: '24' }]);
  });
});

/** Whether no change is on its way about a place: what units are on is what they stay on. */
function isBetween(show: Show, id: string, place: number): boolean {
  const song = indexShow(show).songs.get(id)!;
  const slots = (at: number): string =>
    Object.values(stateAt(show, song, ticksAt(songTime(song), Math.max(0, at))))
      .map((s) => s.slot)
      .join(' ');
  return slots(place - 2e6) === slots(place) && slots(place) === slots(place + 1e6);
}

describe('a long run of code', () => {
  const hour = Number(process.env['LANTERN_RUNS'] ?? 0) > 0;
  /** What happens to a machine on the way: where it is after that is where the songs have to be. */
  type Event = 'jump' | 'drop-out' | 'stop' | 'backwards' | 'other-rate' | 'shake' | 'none';

  it(`through all four rates leaves every sound where it is due, or tells (${hour ? 'an hour' : 'some minutes'})`, () => {
    const chance = new Chance(`code ${process.env['LANTERN_SEED'] ?? 0}`);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(chance.next() * list.length)]!;
    const events: readonly Event[] = ['jump', 'drop-out', 'stop', 'backwards', 'other-rate', 'shake', 'none'];
    const ids = plain.songs.map((s) => s.id);
    for (const rate of CODE_RATES) {
      // Each song of the set at its place, one behind the other with some seconds between.
      let at = HOUR;
      const places: Record<string, number> = {};
      for (const id of ids) {
        places[id] = Math.round(at);
        const time = songTime(indexShow(plain).songs.get(id)!);
        at += microsAt(time, time.end) / 1e6 + 12;
      }
      const show = coded(rate, places);
      const p = led(rate, show);
      let told = 0;
      let [place, last, now] = [0, p.now(), rate];
      const begin = (to: number, rest: Partial<MachineWays> = {}): void => {
        p.play(to, rest);
        const frame = frameMicros(rest.rate ?? rate);
        [place, last, now] = [Math.floor(to / frame) * frame, p.now(), rest.rate ?? rate];
      };
      begin((HOUR - 5) * 1e6);
      for (let minute = 0; minute < (hour ? 15 : 2) * 4; minute++) {
        const event = pick(events);
        if (event === 'jump') begin((HOUR + chance.next() * (at - HOUR)) * 1e6);
        if (event === 'shake') begin(place + (p.now() - last), { jitter: 2000 });
        if (event === 'other-rate')
          begin(place + (p.now() - last), { rate: pick(CODE_RATES.filter((r) => r !== rate)) });
        if (event === 'drop-out')
          p.machine.act({ kind: 'drop-out', length: 500_000 + chance.next() * 4_000_000 }, p.now());
        if (event === 'stop' || event === 'backwards') {
          const here = place + (p.now() - last);
          if (event === 'stop') p.machine.act({ kind: 'stop' }, p.now());
          else p.play(here, { speed: -1 });
          p.go(3000);
          expect(p.playback.session.transport.kind).toBe('stopped');
          begin(here);
        }
        // By then what was moved is believed, and the rig is brought there.
        p.go(6000);
        for (let i = 0; i < 3; i++) {
          p.go(3000);
          const code = place + (p.now() - last);
          const { session } = p.playback;
          // A place is read at the rate that comes.
          const range = codeRanges(show, now).find((r) => code > r.from + 1e6 && code < r.to - 1e6);
          if (range === undefined) continue;
          expect([rate, event, session.transport.kind]).toEqual([rate, event, 'playing']);
          expect([rate, event, session.song?.id]).toEqual([rate, event, range.songId]);
          const off = placeIn(session, p.now()).place - (code - range.from);
          expect(Math.abs(off), `${rate} ${event} ${range.songId}`).toBeLessThan(6000);
          const here = placeIn(session, p.now()).place;
          if (isBetween(show, range.songId, here)) expectSound(show, range.songId, here, p.standIns.state());
        }
        told += p.events.filter((e) => e.kind === 'code').length;
      }
      expect(told).toBeGreaterThan(0);
    }
  });
});
