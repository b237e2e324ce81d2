import { describe, expect, it } from 'vitest';
import { monitorWords } from '../wording';
import { demoShow } from '../core/demo';
import { MONITOR_LINES, Monitor, withLines } from './monitor';

const show = demoShow();

describe('the monitor', () => {
  const noted = (...messages: readonly (readonly [number, ...number[]])[]): string[] => {
    const monitor = new Monitor();
    monitor.follow(show);
    for (const bytes of messages) monitor.note('out', show.ports[0]!.id, 0, bytes);
    return monitor.take().map((l) => monitorWords(show, l));
  };

  it('says in plain words what each message does', () => {
    const { channel } = show.units[0]!;
    const status = (kind: number) => kind | (channel - 1);
    expect(noted([status(0xb0), 0, 1], [status(0xc0), 3], [status(0xb0), 85, 2], [status(0xb0), 68, 127])).toEqual([
      'Quillback: bank select 1 (from 0)',
      'Quillback: preset factory B6, Show Room Lead',
      'Quillback: scene Bite',
      'Quillback: Tuner, on',
    ]);
    expect(noted([status(0xb0), 0, 1], [status(0xc0), 99])[1]).toBe(
      'Quillback: program 99 (from 0), which calls no preset',
    );
    expect(noted([status(0xb0), 3, 1])).toEqual(['Quillback: makes nothing of it']);
    expect(noted([0xcf, 1])).toEqual(['nothing on this port listens on channel 16']);
    expect(noted([0xf8])).toEqual(['for all units']);
  });

  it('keeps ten thousand lines, and slows down nothing', () => {
    const monitor = new Monitor();
    monitor.follow(show);
    for (let i = 0; i < 50_000; i++) monitor.note('out', 'rack', i, [0xc0, i & 127]);
    const lines = monitor.take();
    expect(lines).toHaveLength(MONITOR_LINES);
    expect(lines.at(-1)!.number).toBe(50_000);
    expect(monitor.take()).toEqual([]);
    const more = withLines(lines, [{ ...lines[0]!, number: 50_001 }]);
    expect(more).toHaveLength(MONITOR_LINES);
    expect([more[0]!.number, more.at(-1)!.number]).toEqual([lines[1]!.number, 50_001]);
  });

  it('never throws, whatever passes', () => {
    const monitor = new Monitor();
    monitor.note('in', 'none', 0, [1, 2, 3]);
    monitor.follow(show);
    for (let a = 0; a < 256; a++)
      for (const b of [0, 127, 200]) monitor.note(a & 1 ? 'in' : 'out', 'rack', 0, [a, b, 5]);
    expect(monitor.take().every((l) => monitorWords(show, l) !== '')).toBe(true);
  });
});
