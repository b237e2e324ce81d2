import { META_END, META_METRE, META_PORT, META_TEMPO, TEXT_TYPES, type SmfEvent, type SmfFile } from './types';

/** A buffer that doubles when it is full, so that writing takes time in proportion to the file. */
class Buffer_ {
  private bytes = new Uint8Array(4096);
  length = 0;

  private room(count: number): void {
    if (this.length + count <= this.bytes.length) return;
    const next = new Uint8Array(Math.max(this.bytes.length * 2, this.length + count));
    next.set(this.bytes);
    this.bytes = next;
  }

  put(...values: number[]): void {
    this.all(values);
  }

  all(values: ArrayLike<number>): void {
    this.room(values.length);
    for (let i = 0; i < values.length; i++) this.bytes[this.length++] = values[i]!;
  }

  u32(value: number): void {
    this.put((value >>> 24) & 255, (value >>> 16) & 255, (value >>> 8) & 255, value & 255);
  }

  /** Sets four bytes that were left open. */
  patch(at: number, value: number): void {
    const end = this.length;
    this.length = at;
    this.u32(value);
    this.length = end;
  }

  variable(value: number): void {
    let rest = value;
    const digits = [rest & 0x7f];
    while ((rest = Math.floor(rest / 128)) > 0) digits.push((rest & 0x7f) | 0x80);
    this.all(digits.reverse());
  }

  done(): Uint8Array {
    return this.bytes.slice(0, this.length);
  }
}

/** Longest delta time that a file can hold (four bytes of seven bits). */
export const MAX_DELTA = 0x0fffffff;

const text = new TextEncoder();

/**
 * Writes a Standard MIDI File 1.0. Events must be in order of their ticks, which must be
 * whole; running status is not used, so that every message stands alone. Throws RangeError
 * for ticks that go back, are not whole, or leave a gap that no delta time can hold.
 */
export function writeSmf(file: SmfFile): Uint8Array {
  const out = new Buffer_();
  const { division, format, tracks } = file;
  out.all(text.encode('MThd'));
  out.u32(6);
  out.put(0, format, tracks.length >> 8, tracks.length & 255);
  if (division.kind === 'quarter') out.put(division.ticks >> 8, division.ticks & 255);
  else out.put(256 - division.frames, division.ticks);
  for (const track of tracks) {
    out.all(text.encode('MTrk'));
    const start = out.length;
    out.u32(0);
    let tick = 0;
    const wait = (to: number): void => {
      let delta = to - tick;
      if (!Number.isInteger(delta) || delta < 0) {
        throw new RangeError(
          `an event at tick ${to} cannot follow one at tick ${tick}: events come in the order of time`,
        );
      }
      // Standard MIDI Files 1.0: a delta-time has four bytes at the most. A longer wait is cut by texts without letters.
      for (; delta > MAX_DELTA; delta -= MAX_DELTA) {
        out.variable(MAX_DELTA);
        out.put(0xff, 0x01, 0);
      }
      out.variable(delta);
      tick = to;
    };
    for (const event of track.events) {
      wait(event.tick);
      writeEvent(out, event);
    }
    wait(Math.max(track.end, tick));
    out.put(0xff, META_END, 0);
    out.patch(start, out.length - start - 4);
  }
  return out.done();
}

function writeEvent(out: Buffer_, event: SmfEvent): void {
  switch (event.kind) {
    case 'message':
      return out.all(event.bytes);
    case 'packet': {
      const first = event.bytes[0] === 0xf0;
      out.put(first ? 0xf0 : 0xf7);
      out.variable(event.bytes.length - (first ? 1 : 0));
      return out.all(first ? event.bytes.slice(1) : event.bytes);
    }
    case 'tempo':
      return out.put(0xff, META_TEMPO, 3, event.micros >> 16, (event.micros >> 8) & 255, event.micros & 255);
    case 'metre':
      // 24 clocks to a click and 8 thirty-seconds to a quarter, as nearly all files have them.
      return out.put(0xff, META_METRE, 4, event.beats, Math.log2(event.unit), 24, 8);
    case 'text': {
      const bytes = text.encode(event.text);
      out.put(0xff, TEXT_TYPES.indexOf(event.type));
      out.variable(bytes.length);
      return out.all(bytes);
    }
    case 'port':
      return out.put(0xff, META_PORT, 1, event.port);
    case 'meta':
      throw new RangeError(`meta event ${event.type} was read without its data and cannot be written`);
  }
}
