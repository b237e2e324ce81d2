import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { problemLine } from '../../../wording';
import { demoShow } from '../../demo';
import type { Audio, Show } from '../../show';
import { runs } from '../../testing/runs';
import { writeShowFile } from '../show-file';
import { readBundle, writeBundle } from './';
import { soundEntry } from './names';

const sound = (id: string, size: number, type = 'audio/wav'): Audio => ({
  id,
  name: `${id} take`,
  type,
  length: 1,
  size,
});
const bytesOf = (size: number, seed = 1): Uint8Array =>
  Uint8Array.from({ length: size }, (_, i) => (i * 31 + seed) & 255);

function withSounds(audio: readonly Audio[]): Show {
  const show = demoShow();
  const [song, ...rest] = show.songs;
  const tracks = audio.map(({ id }) => ({
    id: `t-${id}`,
    audioId: id,
    role: 'backing' as const,
    playerId: null,
    stemId: null,
    at: 0,
    offset: 12,
    gain: -3,
    muted: false,
  }));
  return { ...show, audio: [...audio], songs: [{ ...song!, tracks }, ...rest] };
}
const codes = (bytes: Uint8Array): string[] => readBundle(bytes).problems.map((p) => p.code);

describe('a show with its recordings', () => {
  it('comes back whole, whatever the ids of its recordings are', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.string({ minLength: 1, maxLength: 20 }), { minLength: 1, maxLength: 4 }),
        fc.array(fc.nat(3000), { minLength: 4, maxLength: 4 }),
        (ids, sizes) => {
          const show = withSounds(ids.map((id, i) => sound(id, sizes[i]! + 1)));
          const sounds = new Map(show.audio.map((a, i) => [a.id, bytesOf(a.size, i)]));
          const { bytes, missing } = writeBundle(show, sounds);
          expect(missing).toEqual([]);
          const { value, problems } = readBundle(bytes);
          expect(problems).toEqual([]);
          expect(value!.show).toEqual(show);
          expect([...value!.sounds].map(([id, b]) => [id, [...b]])).toEqual([...sounds].map(([id, b]) => [id, [...b]]));
        },
      ),
      runs(501, 40),
    );
  });

  it('says which recordings are not in it', () => {
    const show = withSounds([sound('a', 10), sound('b', 20)]);
    const { bytes, missing } = writeBundle(show, new Map([['a', bytesOf(10)]]));
    expect(missing).toEqual(['b take']);
    const { value, problems } = readBundle(bytes);
    expect([...value!.sounds.keys()]).toEqual(['a']);
    expect(problems.map(problemLine)).toEqual(['"b take" is not in the file; its place in the songs is kept.']);
  });

  it('leaves out a recording of another size than the show says, and whatever is not the show’s', () => {
    const show = withSounds([sound('a', 10)]);
    const bytes = zipSync({
      'show.json': strToU8(writeShowFile(show)),
      [soundEntry(show.audio[0]!)]: bytesOf(11),
      'notes.txt': strToU8('hello'),
    });
    const { value, problems } = readBundle(bytes);
    expect(value!.sounds.size).toBe(0);
    expect(problems.map((p) => p.code).toSorted()).toEqual(['bundle.extra', 'bundle.sound-size']);
  });
});

describe('a file that is no such bundle', () => {
  const show = strToU8(writeShowFile(withSounds([])));

  it('is refused with a sentence', () => {
    expect(readBundle(strToU8('PK but not really')).problems.map(problemLine)).toEqual(['The file is not a zip file.']);
    expect(codes(zipSync({ 'other.json': show }))).toEqual(['bundle.no-show']);
    expect(codes(zipSync({ 'show.json': strToU8('{') }))).toEqual(['json.syntax']);
    const whole = zipSync({ 'show.json': show });
    expect(codes(whole.slice(0, whole.length / 2))).toEqual(['bundle.damaged']);
  });

  it.each(['../show.json', '/etc/passwd', 'sounds/../../x', 'C:/x', 'a\\b'])(
    'is refused for a path out of it: %s',
    (name) => {
      expect(codes(zipSync({ 'show.json': show, [name]: bytesOf(3) }))).toEqual(['bundle.path']);
    },
  );

  it('is refused before anything is unpacked when it would be far too large', () => {
    // 120 MB of blanks, packed into a tenth of a megabyte.
    const bomb = zipSync({ 'show.json': new Uint8Array(120_000_000).fill(32) }, { level: 9 });
    expect(bomb.length).toBeLessThan(1_000_000);
    expect(codes(bomb)).toEqual(['bundle.too-large']);
  });

  it('does not believe a size that is a lie', () => {
    const bytes = zipSync({ 'show.json': new Uint8Array(5_000_000).fill(32) }, { level: 9 });
    // The size in the central directory (APPNOTE 4.3.12, offset 24), said to be 10.
    const at = bytes.findLastIndex(
      (b, i) => b === 0x50 && bytes[i + 1] === 0x4b && bytes[i + 2] === 1 && bytes[i + 3] === 2,
    );
    new DataView(bytes.buffer, bytes.byteOffset).setUint32(at + 24, 10, true);
    const { value, problems } = readBundle(bytes);
    expect(value).toBeUndefined();
    expect(problems).toHaveLength(1);
  });

  it('never throws, whatever bytes come', () => {
    const good = writeBundle(withSounds([sound('a', 40)]), new Map([['a', bytesOf(40)]])).bytes;
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(good.length - 1), fc.nat(255)), { maxLength: 8 }),
        fc.nat(good.length),
        (edits, cut) => {
          const bytes = good.slice(0, edits.length % 2 === 0 ? good.length : cut);
          for (const [at, value] of edits) if (at < bytes.length) bytes[at] = value;
          const { value, problems } = readBundle(bytes);
          expect(value !== undefined || problems.length > 0).toBe(true);
        },
      ),
      runs(502, 300),
    );
  });
});
