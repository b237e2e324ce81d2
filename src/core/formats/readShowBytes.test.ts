import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { writeBundle } from './bundle';
import { readMidiBytes, readShowBytes } from './readShowBytes';
import { writeShowFile } from './show-file';

const text = (t: string): Uint8Array => new TextEncoder().encode(t);

/** A header of one track, and one message on channel 1 at the start. */
const MIDI = Uint8Array.from(
  '4d546864 00000006 0000 0001 0060 4d54726b 00000007 00c005 00ff2f00'
    .match(/[0-9a-f]{2}/g)!
    .map((h) => Number.parseInt(h, 16)),
);

describe('a file that may be a show', () => {
  const show = demoShow();

  it('is read by what it is, not by what it is called', () => {
    expect(readShowBytes(text(writeShowFile(show)), 'x.zip').value?.show.title).toBe(show.title);
    const zip = writeBundle(show, new Map()).bytes;
    expect(readShowBytes(zip, 'x.json').value?.show.title).toBe(show.title);
  });

  it('is a MIDI file by its name, in whatever letters, and titled after it', () => {
    const read = readShowBytes(MIDI, 'Low Tide.v2.MID');
    expect(read.problems.filter((p) => p.severity === 'error')).toEqual([]);
    expect(read.value?.show.songs.map((s) => s.title)).toEqual(['Low Tide.v2']);
    expect(readShowBytes(MIDI, 'Low Tide').value).toBeUndefined();
  });

  it('has a title of a length that a show may have, also where its name is longer or none', () => {
    expect(readMidiBytes(MIDI, `${'a'.repeat(5000)}.mid`).value?.songs[0]?.title.length).toBeLessThan(1000);
    expect(readMidiBytes(MIDI, '.mid').value?.songs[0]?.title).toBe('Imported');
  });

  it('is refused with a place where it is none of these', () => {
    const { value, problems } = readShowBytes(text('{ "format": '), 'x.json');
    expect(value).toBeUndefined();
    expect(problems[0]?.severity).toBe('error');
  });
});
