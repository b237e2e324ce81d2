import { describe, expect, it } from 'vitest';
import { CODE_RATES, codeMicros, codeText, labelOf, frameMicros, readCode, type CodeRate } from '../core/clock';
import { stateAt } from '../core/compile';
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
