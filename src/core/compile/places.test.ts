import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { applyEdit, changeCue, setOpening, songTime, type Show } from '../show';
import { rigSpec } from '../meaning';
import { SimulatedRig } from '../simulate';
import { parsePosition } from '../time';
import { audition, catchUp, catchUpSends, stateAt } from './catchUp';
import { compileSong, problemsOf, type CompiledSong } from './compileSong';
import type { Problem } from '../problems';
import { playLine } from './playLine';
import { stateLine } from './stateLine';
import { writtenSong } from './writtenSong';

const show = demoShow();
const song = show.songs[0]!;
const at = (text: string): number => {
  const place = parsePosition(songTime(song).bars, text, song.bars);
  if (!place.ok) throw new Error(text);
  return place.ticks;
};

describe('the state at a place', () => {
  it('has what is due there, and not what is due a tick later', () => {
    expect(stateAt(show, song, at('9')).quillback!.slot).toBe(6);
    expect(stateAt(show, song, at('9') - 1).quillback!.slot).toBe(2);
    expect(stateAt(show, song, 0)).toMatchObject({
      quillback: { slot: 2, variant: 0 },
      oxbow: { slot: 0 },
      wick: { slot: 0 },
    });
  });

  it('keeps what a tone does not name', () => {
    // Ledger Echo names no slot of the reverb.
    expect(stateAt(show, song, at('13|4')).tarn!.slot).toBe(0);
    expect(stateAt(show, song, at('13|4')).quillback).toMatchObject({
      variant: 3,
      controls: { delay: 1, 'delay-mix': 45, drive: 'stored' },
    });
  });

  it('counts shifts, leaves muted cues out, and is not known before a song without an opening', () => {
    const shifted = applyEdit(show, changeCue(show, song.id, 'slack-tide-cue-2', { shift: 10 })!);
    expect(stateAt(shifted, shifted.songs[0]!, at('9')).quillback!.slot).toBe(2);
    const muted = applyEdit(show, changeCue(show, song.id, 'slack-tide-cue-2', { muted: true })!);
    expect(stateAt(muted, muted.songs[0]!, at('12')).quillback!.slot).toBe(2);
    const open = applyEdit(show, setOpening(show, song.id, null)!);
    expect(stateAt(open, open.songs[0]!, at('4')).quillback).toBeUndefined();
  });

  it('is drawn as a line of changes a unit', () => {
    const lines = stateLine(show, song);
    expect(lines.get('quillback')!.map((c) => c.cueId)).toContain('slack-tide-cue-3');
    expect(lines.get('tarn')!.map((c) => c.cueId)).not.toContain('slack-tide-cue-3');
    expect(lines.get('oxbow')!.map((c) => c.state.slot)).toEqual([0, 2, 1, 2, 3, 0]);
  });
});

describe('catching up', () => {
  it('sends only what differs', () => {
    const from = stateAt(show, song, at('9'));
    const to = stateAt(show, song, at('13|4'));
    const sent = catchUp(show, from, to).events.map((e) => [e.unitId, ...e.bytes]);
    expect(sent.toSorted((a, b) => String(a).localeCompare(String(b)))).toEqual(
      [
        ['quillback', 0xb0, 85, 3],
        ['quillback', 0xb0, 52, 127],
        ['quillback', 0xb0, 53, 57],
        // The delay was ringing out with its input closed: only that has to open.
        ['quillback', 0xb0, 56, 127],
        ['marram', 0xb4, 34, 2],
      ].toSorted((a, b) => String(a).localeCompare(String(b))),
    );
  });

  it('loads a preset again where only that brings its stored values back', () => {
    const from = stateAt(show, song, at('13|4'));
    const to = {
      ...from,
      quillback: { ...from.quillback!, controls: { ...from.quillback!.controls, 'delay-mix': 'stored' as const } },
    };
    expect(catchUp(show, from, to).events.map((e) => e.bytes)[0]).toEqual([0xc0, 6]);
  });

  it('goes by the unit before for a unit that no port reaches', () => {
    const state = stateAt(show, song, at('9'));
    const moved = { ...state, oxbow: { ...state.oxbow!, slot: 0 } };
    const [plan] = catchUpSends(show, moved, state);
    expect(plan!.unit.id).toBe('quillback');
    expect(plan!.turns[0]![0]).toMatchObject({ kind: 'recall', bytes: [0xc0, 6] });
    const rig = new SimulatedRig(rigSpec(show));
    for (const e of catchUp(show, {}, state).events) rig.send(e.portId, e.at, e.bytes);
    rig.settle();
    expect(rig.state().oxbow!.slot).toBe(2);
  });

  it('waits for a unit to settle between its messages', () => {
    const { events } = catchUp(show, {}, stateAt(show, song, at('13|4')));
    const quillback = events.filter((e) => e.unitId === 'quillback');
    const recall = quillback.findIndex((e) => e.bytes[0] === 0xc0);
    const end = (i: number): number => quillback[i]!.at + quillback[i]!.bytes.length * 320;
    expect(end(recall + 1) - end(recall)).toBeGreaterThanOrEqual(40_000);
  });
});

describe('playing from a place', () => {
  it('from the start sends the song as it is', () => {
    const line = playLine(show, song, 0, {});
    const { events } = compileSong(show, song);
    expect(line.events).toEqual(events);
    expect(line.start).toBeLessThanOrEqual(events[0]!.at);
    expect(line.place).toBe(0);
  });

  it('from the middle catches up first, then sends only what is due later', () => {
    const line = playLine(show, song, at('9'), {});
    const caught = line.events.findLastIndex((e) => e.cueId === 'catch-up');
    expect(line.events.slice(caught + 1).map((e) => e.cueId)).not.toContain('slack-tide-cue-2');
    expect(line.events[caught + 1]!.cueId).toBe('slack-tide-cue-3');
    expect(line.events.map((e) => e.at)).toEqual(line.events.map((e) => e.at).toSorted((a, b) => a - b));
    expect(line.start).toBeLessThan(line.place);
  });

  it('leaves in time what is due right after the place', () => {
    const line = playLine(show, song, at('9') - 10, {});
    const cue = compileSong(show, song).events.find((e) => e.cueId === 'slack-tide-cue-2')!;
    expect(line.events).toContainEqual(cue);
    expect(line.start).toBeLessThanOrEqual(cue.at);
  });
});

describe('trying one thing', () => {
  it('sends it also where it is on already', () => {
    const known = stateAt(show, song, at('9'));
    const bytes = (aim: Parameters<typeof audition>[2]) =>
      audition(show, 'quillback', aim, known).events.map((e) => e.bytes);
    expect(bytes({ slot: 6, controls: {} })).toEqual([[0xc0, 6]]);
    expect(bytes({ variant: 1, controls: {} })).toEqual([[0xb0, 85, 1]]);
    expect(bytes({ controls: { delay: 0 } })).toEqual([[0xb0, 52, 0]]);
  });

  it('sends nothing to a unit that no port reaches', () => {
    expect(audition(show, 'oxbow', { slot: 1, controls: {} }, {})).toEqual({ events: [], length: 0 });
    expect(audition(show, 'nobody', { slot: 1, controls: {} }, {})).toEqual({ events: [], length: 0 });
  });
});

describe('a compiled song', () => {
  const without = (change: (s: Show) => Show): CompiledSong & { problems: Problem[] } => {
    const s = change(show);
    const compiled = compileSong(s, s.songs[0]!);
    return { ...compiled, problems: problemsOf(s, compiled) };
  };

  it('sends nothing that changes nothing, unless the cue says reload', () => {
    const twice = [song.cues[1]!, { ...song.cues[1]!, id: 'again', at: song.cues[1]!.at + 9600 }];
    const events = without((s) => ({ ...s, songs: [{ ...song, cues: twice }] })).events;
    expect(events.some((e) => e.cueId === 'again')).toBe(false);
    const reload = { ...twice[1]!, action: { ...twice[1]!.action, reload: true } } as (typeof twice)[0];
    const again = without((s) => ({ ...s, songs: [{ ...song, cues: [twice[0]!, reload] }] })).events;
    expect(again.filter((e) => e.cueId === 'again' && e.bytes[0] === 0xc0)).toHaveLength(1);
  });

  it('reports units that nothing can be sent to', () => {
    const off = without((s) => ({ ...s, ports: s.ports.map((p) => ({ ...p, active: p.id !== 'rack' })) }));
    expect(off.problems.map((p) => [p.code, p.data])).toContainEqual([
      'compile.port-off',
      { unit: 'Marram', port: 'Rack' },
    ]);
    const loose = without((s) => ({ ...s, units: s.units.map((u) => (u.id === 'tarn' ? { ...u, input: null } : u)) }));
    expect(loose.problems).toMatchObject([{ code: 'compile.no-port', data: { unit: 'Tarn' } }]);
    expect(loose.events.some((e) => e.unitId === 'tarn')).toBe(false);
  });

  it('lands sent where the cue says so: the first byte on the beat', () => {
    const cues = [{ ...song.cues[1]!, landing: 'sent' as const }];
    const { events } = without((s) => ({ ...s, songs: [{ ...song, cues }] }));
    const first = events.find((e) => e.cueId === cues[0]!.id && e.unitId === 'quillback')!;
    const due = (8 * 7 * 0.5 * 60e6) / 126;
    expect(first.at).toBeGreaterThanOrEqual(due - 0.001);
    expect(first.at).toBeLessThan(due + 5000);
  });

  it('leaves earlier for what a relay rule sets off', () => {
    const { forecasts } = compileSong(show, song);
    const cue = forecasts.filter((f) => f.cueId === 'slack-tide-cue-6');
    expect(cue.map((f) => f.unitId)).toContain('oxbow');
    for (const f of cue) expect(f.complete).toBeLessThanOrEqual(f.due + 0.01);
  });

  it('as written says everything on its beat', () => {
    const written = writtenSong(show, { ...song, sweeps: [], taps: [] });
    const places = new Set(written.map((m) => m.at));
    expect([...places]).toEqual([0, ...song.cues.map((c) => c.at)]);
    const counts = song.cues.map((c) => written.filter((m) => m.at === c.at && m.unitId === 'quillback').length);
    expect(counts).toEqual([4, 4, 6, 3, 4, 5, 6, 4, 4]);
  });
});
