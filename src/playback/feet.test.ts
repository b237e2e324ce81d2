import { describe, expect, it } from 'vitest';
import { compareMemories, memoryBytes, memoryOf, readMemoryBytes } from '../core/feet';
import { demoShow } from '../core/demo';
import { INQUIRY } from '../core/midi';
import { applyEdit, newFootSwitch, pagesOf, putFootSwitches, songsOfSet, type Show } from '../core/show';
import { PlaybackHost } from '../workers/playbackHost';
import type { PlaybackNews } from './playback';
import type { SessionEvent } from './sessionState';

const demo = demoShow();
const pages = pagesOf(demo, 'treadle');

/** The playback with stand-ins, a clock that is turned by hand, and what it told. */
function desk(show: Show = demo) {
  let now = 1_000_000_000;
  let wake = (): void => undefined;
  const host = new PlaybackHost({ now: () => now, every: (_, run) => (wake = run) });
  const events: SessionEvent[] = [];
  let news: PlaybackNews | undefined;
  host.listen(
    (n) => (news = n),
    () => undefined,
    (list) => void events.push(...list),
    () => undefined,
    () => undefined,
  );
  const { songs, ...frame } = show;
  host.update({ frame, songs, order: songs.map((s) => s.id) });
  const pass = (millis: number): void => {
    for (let t = 0; t < millis; t += 8) {
      now += 8000;
      wake();
    }
  };
  pass(40);
  return {
    host,
    events,
    pass,
    news: () => news!,
    press: (id: string, unitId = 'treadle') => {
      host.foot(unitId, { kind: 'press', senderId: id });
      pass(120);
      host.foot(unitId, { kind: 'release', senderId: id });
      pass(900);
    },
    program: () => {
      host.transfer('treadle', { kind: 'write', bytes: memoryBytes(memoryOf(show, 'treadle')) });
      for (let i = 0; i < 100 && !news?.transfer?.end; i++) pass(400);
      return news!.transfer!;
    },
    slot: (id: string) => news!.rig[id]?.slot,
  };
}

describe('a foot controller among the stand-ins', () => {
  it('sends as it comes as long as nothing is programmed into it', () => {
    const { press, news, events } = desk();
    expect(news().floors.map((f) => [f.unitId, f.programmed])).toEqual([
      ['treadle', false],
      ['pebble', false],
    ]);
    press('switch-1');
    expect(events.filter((e) => e.kind === 'pressed').map((e) => e.toneId)).toEqual(['fog-lead']);
  });

  it('is programmed over its cable, and runs what it holds from then on', () => {
    const { program, press, news, slot, events } = desk();
    const { end, again, share } = program();
    expect(end).toEqual({ how: 'identical' });
    expect(again).toBe(0);
    expect(share).toBe(1);
    const stored = events.filter((e) => e.kind === 'foot-stored');
    expect(readMemoryBytes(stored.at(-1)!.bytes).value).toEqual(memoryOf(demo, 'treadle'));
    expect(news().floors[0]).toMatchObject({ programmed: true, page: 0, pageName: 'Core sounds' });
    press('switch-6');
    expect(slot('quillback')).toBe(2);
    expect(news().armed).toEqual({ treadle: pages[0]!.id });
    // Held, switch 10 turns the page; pressed it would have gone on in the song.
    press('switch-8');
    expect(news().floors[0]).toMatchObject({ page: 1, pageName: 'Slack Tide' });
    press('switch-4');
    expect(slot('quillback')).toBe(9);
    expect(news().armed).toEqual({ treadle: pages[1]!.id });
  });

  it('has a tone done once: what else its switch sends is passed over', () => {
    const { program, press, events, host } = desk();
    program();
    events.length = 0;
    press('switch-1');
    expect(events.filter((e) => e.kind === 'pressed')).toHaveLength(1);
    // The pedal that moves the same control as the tone is its own hand still.
    host.foot('treadle', { kind: 'pedal', senderId: 'pedal-1', share: 1 });
  });

  it('goes to the page that it is called to', () => {
    const { program, host, pass, news } = desk();
    program();
    host.send('feet', [0xcf, 4]);
    pass(60);
    expect(news().floors[0]).toMatchObject({ page: 4, pageName: 'Gull Arithme' });
    host.foot('treadle', { kind: 'press', senderId: 'switch-10' });
    pass(700);
    expect(news().floors[0]!.page).toBe(5);
  });

  it.each(['lose', 'damage', 'double', 'delay'] as const)('is programmed whole although its cable may %s', (how) => {
    const { host, program } = desk();
    host.footFaults('treadle', { how, every: 7 });
    const { end, again } = program();
    expect(end).toEqual({ how: 'identical' });
    if (how !== 'double') expect(again).toBeGreaterThan(0);
  });

  it('is not said to hold anything because its stand-in answers, where a real one was asked', () => {
    const { host, pass, news, events } = desk();
    const ports = demo.ports.map(({ id }) => ({ portId: id, standIn: true, real: id === 'feet' }));
    host.bindPorts(ports);
    host.transfer('treadle', { kind: 'write', bytes: memoryBytes(memoryOf(demo, 'treadle')) });
    for (let i = 0; i < 60; i++) pass(400);
    expect(news().transfer!.end).toMatchObject({ how: 'silent' });
    host.send('feet', [...INQUIRY]);
    pass(300);
    expect(events.filter((e) => e.kind === 'foot-stored' || e.kind === 'answered')).toEqual([]);
    // Asked itself, and nobody else, it answers.
    host.bindPorts(ports.map((p) => ({ ...p, real: false })));
    host.stopTransfer();
    host.transfer('treadle', { kind: 'write', bytes: memoryBytes(memoryOf(demo, 'treadle')) });
    for (let i = 0; i < 100 && !news().transfer?.end; i++) pass(400);
    expect(news().transfer!.end).toEqual({ how: 'identical' });
  });

  it('that never answers is said to; what it holds stays', () => {
    const { host, pass, news, events } = desk();
    host.footFaults('treadle', { how: 'lose', every: 1 });
    host.transfer('treadle', { kind: 'write', bytes: memoryBytes(memoryOf(demo, 'treadle')) });
    pass(6000);
    expect(news().transfer!.end).toEqual({ how: 'silent', at: 'begin', block: 0 });
    expect(events.filter((e) => e.kind === 'foot-stored')).toEqual([]);
    host.stopTransfer();
    pass(16);
    expect(news().transfer).toBeNull();
    // A unit that no cable comes back from cannot be asked at all.
    expect(host.transfer('tarn', { kind: 'read' })).toBe(false);
  });

  it('is read back, compared, and cancelled in the middle', () => {
    const { host, program, pass, news, events } = desk();
    program();
    host.stopTransfer();
    const other = applyEdit(
      demo,
      putFootSwitches(demo, 'treadle', pages[0]!.id, [newFootSwitch('switch-5', [{ kind: 'session', act: 'stop' }])])!,
    );
    events.length = 0;
    host.transfer('treadle', { kind: 'read' });
    for (let i = 0; i < 60 && !news().transfer?.end; i++) pass(400);
    expect(news().transfer!.end!.how).toBe('read');
    const held = readMemoryBytes(events.filter((e) => e.kind === 'foot-stored').at(-1)!.bytes).value!;
    expect(compareMemories(memoryOf(other, 'treadle'), held).map((d) => d.what)).toEqual(['switch-name', 'messages']);
    host.transfer('treadle', { kind: 'write', bytes: memoryBytes(memoryOf(other, 'treadle')) });
    pass(100);
    host.stopTransfer();
    pass(16);
    expect(news().transfer!.end).toEqual({ how: 'cancelled', written: false });
    expect(news().floors[0]!.names[4]).toBeUndefined();
  });

  it('holds what it held when it was here before, and forgets it when it is told to', () => {
    const { host, pass, news } = desk();
    host.loadFoot('treadle', memoryBytes(memoryOf(demo, 'treadle')));
    pass(16);
    expect(news().floors[0]!.programmed).toBe(true);
    host.loadFoot('treadle', [1, 2, 3]);
    expect(news().floors[0]!.programmed).toBe(true);
    host.loadFoot('treadle', null);
    pass(16);
    expect(news().floors[0]!.programmed).toBe(false);
  });

  it('plays a whole song by foot with the playback stopped: the rig follows', () => {
    const { program, press, host, news, slot } = desk();
    program();
    // To the page of the song.
    press('switch-8');
    const song = songsOfSet(demo)[0]!;
    const page = pages[1]!;
    const slots: (number | null | undefined)[] = [];
    for (const { action } of song.cues) {
      if (action.kind !== 'tone') continue;
      const entry = page.switches.find((s) =>
        s.doings.some((d) => d.does.kind === 'tone' && d.does.toneId === action.toneId),
      );
      press(entry!.id);
      slots.push(slot('quillback'));
    }
    expect(news().playing).toBe(false);
    expect(slots.length).toBeGreaterThan(4);
    host.select(song.id, 1e9, null);
    expect(slots.at(-1)).toBe(slot('quillback'));
  });
});
