import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { compileSong } from '../src/core/compile';
import { demoShow } from '../src/core/demo';
import { writeShowFile } from '../src/core/formats/show-file';
import { rigSpec, songWants } from '../src/core/meaning';
import {
  applyEdit,
  indexShow,
  microsAt,
  newSong,
  setTonight,
  songEntry,
  songTime,
  toneCue,
  type Reaction,
  type Show,
  type Song,
} from '../src/core/show';
import { dryRun } from '../src/core/simulate';
import { barAt, type Micros } from '../src/core/time';
import { otherUnitOf, tonightOf } from '../src/core/tonight';
import { begin, chooseFile, closeTab, hold, openShelf, unlock } from './begin';
import { arrive, injectMidi, left, plug, pull } from './standInMidi';

// A night of four songs on real ports, by feet and pads, in which a port is pulled, the tab is closed amid a song, and
// a unit is replaced by another one. What left on the ports is played to a rig that knows nothing but the bytes.
const { b, folder } = begin();

const demo = demoShow();
/** Beats of eight bars are over in a quarter of a minute. */
const song = (id: string, title: string, ...tones: readonly string[]): Song => {
  const empty = newSong(id, title, { bars: 8, bpm: 150 });
  const at = (bar: number): number => barAt(songTime(empty).bars, bar).tick;
  const cues = tones.map((tone, i) => toneCue(`${id}-${i}`, at(3 + 2 * i), tone));
  return { ...empty, opening: 'show', click: { ...empty.click, countIn: 0 }, cues };
};
const pressed = (id: string, number: number, act: 'play' | 'next-song'): Reaction => ({
  id,
  name: id,
  on: true,
  songId: null,
  hears: { portId: 'feet', kind: 'control', channel: 16, number, low: 64, high: 127 },
  swallow: true,
  does: { kind: 'session', act },
});
const harrow = indexShow(demo).units.get('harrow')!;
/** The harmoniser's stand-in for the night: the same presets, twenty places further on. */
const fly = {
  ...harrow,
  id: 'fly',
  name: 'Fly Harrow',
  monogram: 'FH',
  channel: 14,
  listens: 14 as const,
  slots: harrow.slots.map((s) => ({ ...s, id: `fly-${s.id}`, index: s.index + 20 })),
};
const songs = [
  song('one', 'Salt on the Rail', 'harbour-clean', 'ledger-rhythm', 'fog-lead'),
  song('two', 'Low Lantern', 'ledger-echo', 'undertow', 'harbour-clean'),
  song('three', 'Ninth Bollard', 'fog-lead', 'harbour-clean', 'ledger-rhythm'),
  song('four', 'Ebb and After', 'undertow', 'ledger-echo', 'fog-lead'),
];
const show: Show = {
  ...demo,
  title: 'Four at the pier',
  units: [...demo.units, fly],
  songs,
  reactions: [pressed('go', 20, 'play'), pressed('on', 21, 'next-song')],
  feet: [],
  sets: demo.sets.map((s) => ({
    ...s,
    entries: songs.map((own, i) =>
      songEntry(`e${i}`, own.id, i === 1 ? { launch: { portId: 'pads', bytes: '9E30', does: 'start' } } : {}),
    ),
  })),
};

const BOXES = { 'Grey box': 'rack', 'Board box': 'board' } as const;

/** Presses a foot switch and lets it go. */
async function tread(number: number): Promise<void> {
  await arrive(b, 'Foot board', 0xbf, number, 127);
  await arrive(b, 'Foot board', 0xbf, number, 0);
}

const played = (title: string): Promise<void> =>
  b.wait(async () => (await b.text('h1')).startsWith(title), `${title} is on`);
const over = (): Promise<unknown> => b.find('button', 'Start, hold');
const barNow = async (): Promise<number> => Number(await b.text('[aria-label="Bar"]'));

/** All that left on the two boxes since the page was opened, in the order of time, in microseconds. */
async function recorded(): Promise<
  { at: Micros; portId: string; bytes: readonly number[]; cueId: string; unitId: string }[]
> {
  const all = await Promise.all(
    Object.entries(BOXES).map(async ([box, portId]) =>
      (await left(b, box)).map(({ at, bytes }) => ({ at: at * 1000, portId, bytes, cueId: '', unitId: '' })),
    ),
  );
  return all.flat().sort((x, y) => x.at - y.at);
}

/**
 * What a song wanted of the units behind the two boxes and did not get in time, from the bytes that left: the song's
 * start is where most of its messages lie as they were planned. `from` leaves out what was due before a bar.
 */
async function missed(
  of: Show,
  own: Song,
  from = 1,
  skip: (unitId: string) => boolean = () => false,
): Promise<string[]> {
  const tonight = tonightOf(of);
  const played = tonight.songs.find((s) => s.id === own.id)!;
  const events = await recorded();
  const key = (e: { portId: string; bytes: readonly number[] }): string => `${e.portId} ${e.bytes.join(' ')}`;
  const shifts = compileSong(tonight, played)
    .events.filter((e) => e.at > 1e6)
    .flatMap((e) => events.filter((r) => key(r) === key(e)).map((r) => r.at - e.at));
  const votes = (shift: number): number => shifts.filter((s) => Math.abs(s - shift) < 4000).length;
  const zero = shifts.toSorted((x, y) => votes(y) - votes(x))[0] ?? 0;
  const behind = new Set(
    tonight.units
      .filter(
        (u) =>
          u.input?.from === 'port' && Object.values(BOXES).some((p) => p === (u.input as { portId: string }).portId),
      )
      .map((u) => u.id),
  );
  const begins = microsAt(songTime(played), barAt(songTime(played).bars, from).tick) - 1;
  const wants = songWants(tonight, played).filter((w) => behind.has(w.unitId) && w.due >= begins && !skip(w.unitId));
  expect(wants.length).toBeGreaterThan(0);
  const run = dryRun(
    rigSpec(tonight),
    events.map((e) => ({ ...e, at: e.at - zero })),
    wants,
    { tolerance: tonight.tolerance },
  );
  // What a song opens with may be on long before it begins; so may what is looked at from a bar on.
  return run.verdicts
    .filter((v) => v.outcome !== 'on-time' && !((v.cueId === 'opening' || from > 1) && v.outcome === 'early'))
    .map((v) => `${v.cueId} ${v.unitId} ${v.outcome} ${v.reason.kind}`);
}

describe('a night of four songs', () => {
  it('is brought in a file and begun on this computer’s ports', async () => {
    const path = join(folder, 'four.lantern.json');
    writeFileSync(path, writeShowFile(show));
    await injectMidi(b);
    await openShelf(b);
    await chooseFile(b, path);
    await b.find('heading', 'The set');
    await b.click('link', 'Rig');
    await b.click('link', 'Ports');
    await b.click('button', "Use this computer's ports");
    await b.find('table', 'Ports');
    for (const [port, real] of [
      ['Rack output', 'Grey box'],
      ['Board output', 'Board box'],
      ['Feet input', 'Foot board'],
      ['Pads input', 'Pad box'],
    ] as const) {
      await plug(b, real);
      await b.pick(new RegExp(`${port}$`), real);
    }
    await b.click('link', 'Set');
    await b.click('button', 'Start the show …');
    await hold(b, /^Hold: start the show/, 1300);
    await over();
  });

  it('has its first song started by foot: every change is complete on its beat', async () => {
    await tread(20);
    await played('Salt on the Rail');
    await b.find('button', 'Stop');
    await over();
    expect(await missed(show, songs[0]!)).toEqual([]);
  });

  it('has the second started by a pad, and a port pulled amid it: it is said, and caught up whole', async () => {
    await arrive(b, 'Pad box', 0x9e, 48, 127);
    await played('Low Lantern');
    await b.wait(async () => (await barNow()) >= 2, 'it runs');
    await pull(b, 'Board box');
    await b.wait(async () => (await b.text('main')).includes('Board: the real port is not connected.'), 'it is said');
    await b.wait(async () => (await barNow()) >= 4, 'it goes on');
    await plug(b, 'Board box');
    await b.wait(async () => !(await b.text('main')).includes('not connected'), 'it is back');
    await over();
    // What hangs on the rack never noticed; what hangs on the board is right from the next change on.
    const onRack = (id: string): boolean => id === 'quillback' || id === 'marram';
    expect(await missed(show, songs[1]!, 1, (id) => !onRack(id))).toEqual([]);
    expect(await missed(show, songs[1]!, 7, onRack)).toEqual([]);
  });

  it('has the tab closed amid the third: it goes on at its bar, by foot', async () => {
    await tread(21);
    await tread(20);
    await played('Ninth Bollard');
    await b.wait(async () => (await barNow()) >= 3, 'it is in bar 3');
    await closeTab(b, () => injectMidi(b));
    await b.says('status', 'Go on', /Ninth Bollard was at bar [2-6]/);
    for (const box of ['Grey box', 'Board box', 'Foot board', 'Pad box']) await plug(b, box);
    await b.wait(async () => {
      await tread(20);
      return (await b.text('[aria-label="Stage keys"]')).includes('Stop');
    }, 'a foot switch goes on');
    await over();
    expect(await missed(show, songs[2]!, 7)).toEqual([]);
  });

  it('has a unit replaced before the fourth, while the show is on: what its map has is sent where it listens', async () => {
    await unlock(b);
    await b.click('button', 'Leave the stage');
    await b.click('link', 'Tonight');
    await b.pick(/Harrow tonight$/, 'another unit');
    await b.click('button', 'Choose the unit in place of Harrow');
    await b.pick(/Its map$/, 'one like Fly Harrow');
    await b.click('button', 'It is there tonight');
    await b.says('status', 'Tonight differs', 'Fly Harrow for Harrow (channel 14)');
    await b.says('list', 'Units tonight', 'Everything that the set wants has something that stands for it.');
    await b.click('link', 'Stage');
    await tread(21);
    await played('Ebb and After');
    await tread(20);
    await b.find('button', 'Stop');
    await over();
    const other = otherUnitOf('harrow', fly, null);
    const tonight = applyEdit(show, setTonight(show, 'harrow', other)!);
    expect(await missed(tonight, songs[3]!)).toEqual([]);
    const programs = (await left(b, 'Board box')).filter(({ bytes }) => bytes[0] === 0xc0 + 13);
    expect(programs.length).toBeGreaterThan(0);
    expect(programs.every(({ bytes }) => bytes[1]! >= 20)).toBe(true);
  });

  it('is over, with all four in its list, and all as usual again by one press', async () => {
    await unlock(b);
    await hold(b, 'End the show, hold', 1300);
    await b.click('button', 'Leave the stage');
    await b.wait(async () => /Ebb and After|Show of/.test(await b.text('[aria-label=Played]')), 'its list');
    await b.click('button', 'All as usual again');
    await b.gone('status', 'Tonight differs');
  });
});
