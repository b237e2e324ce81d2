import { PIECES, frameMicros, frameOf, fullFrame, labelOf, quarterFrames, readCode } from '../core/clock';
import type { Bytes } from '../core/midi';
import { indexShow } from '../core/show';
import type { Micros } from '../core/time';
import type { Session } from './sessionState';

/** A message of time code that is to leave. */
export interface CodeOut {
  readonly portId: string;
  readonly at: Micros;
  readonly bytes: Bytes;
}

/**
 * The time code that goes along with a song, on the ports that the show names: quarter frames from the song's own place
 * on, while it is played as it is written. Under practice there is none: no machine follows a loop, or half the tempo.
 */
export class CodeSender {
  /** Clock time of the song's start that code was sent for, and the next quarter frame counted from there. */
  private zero: Micros | null = null;
  private next = 0;
  /** Ports and the place of the last message: where a stop leaves whoever follows. */
  private last: { readonly ports: readonly string[]; readonly frame: number } | null = null;

  /** What has to leave until `until`. */
  take(session: Session, now: Micros, until: Micros): readonly CodeOut[] {
    const { show, song, transport, speed, loop } = session;
    const sends = show?.timeCode.sends ?? [];
    const rate = show?.timeCode.rate ?? '25';
    const label = song?.code ? readCode(song.code, rate) : null;
    const written = speed === 1 && loop?.songId !== song?.id;
    if (!show || sends.length === 0 || !label || transport.kind !== 'playing' || !written) return this.stop(show, now);
    const quarter = frameMicros(rate) / 4;
    const first = frameOf(label, rate);
    const { zero } = transport;
    // Moved by less than a quarter frame it goes on; by more it begins anew with a whole label.
    if (this.zero === null || Math.abs(zero - this.zero) > quarter) {
      const from = Math.max(transport.line.place, now - zero, 0);
      this.next = Math.ceil(from / quarter / PIECES) * PIECES;
    }
    this.zero = zero;
    const { ports } = indexShow(show);
    const open = sends.filter((id) => ports.get(id)?.active && !session.gone.has(id));
    const out: CodeOut[] = [];
    for (; zero + this.next * quarter <= until; this.next++) {
      const at = zero + this.next * quarter;
      const piece = this.next % PIECES;
      const frame = first + ((this.next - piece) / PIECES) * 2;
      const bytes = quarterFrames(labelOf(frame, rate), rate)[piece]!;
      for (const portId of open) out.push({ portId, at, bytes });
      this.last = { ports: open, frame: first + Math.floor(this.next / 4) };
    }
    return out;
  }

  /** What played has ended: a full message says where, so that nobody runs on. */
  private stop(show: Session['show'], now: Micros): readonly CodeOut[] {
    const { last } = this;
    this.zero = null;
    this.last = null;
    if (!last || !show) return [];
    const { rate } = show.timeCode;
    return last.ports.map((portId) => ({ portId, at: now, bytes: fullFrame(labelOf(last.frame, rate), rate) }));
  }
}
