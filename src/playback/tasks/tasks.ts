import { isFootBytes, type Errand } from '../../core/feet';
import { routeTo } from '../../core/meaning';
import type { Bytes } from '../../core/midi';
import { indexShow } from '../../core/show';
import type { Micros } from '../../core/time';
import { report, type Command } from '../commands';
import type { Arrival } from '../ports';
import { placeIn, type Session } from '../sessionState';
import { pedalPoint, type PedalPoint, type PedalRecording } from './record';
import { learnt, startLesson, teachOn, type Lesson, type Teaching } from './teach';
import {
  cancelTransfer,
  startTransfer,
  transferHears,
  transferNews,
  transferOn,
  type TransferNews,
  type Transferring,
  type TransferStep,
} from './transfer';
import { startWalk, walkOn, type Walk, type Walking } from './walk';

/** How the tasks stand. */
export interface TaskNews {
  /** Where a walk is: the aim that was sent last, counted from 0. */
  readonly walk: { readonly unitId: string; readonly at: number; readonly count: number } | null;
  /** How often a lesson was sent, and what the unit took in. */
  readonly lesson: { readonly unitId: string; readonly sent: number; readonly learnt: Bytes | null } | null;
  /** Pages on their way to a controller, or back. */
  readonly transfer: TransferNews | null;
}

/**
 * What the playback does beside songs, over some time: a walk through a unit, a lesson, a transfer, a pedal that is
 * recorded. One of each at a time. Returns what is to be sent.
 */
export class Tasks {
  private walking: Walking | null = null;
  private teaching: Teaching | null = null;
  private transferring: Transferring | null = null;
  private recording: PedalRecording | null = null;
  private points: PedalPoint[] = [];

  /** `changed` is called whenever there is news of a task. */
  constructor(private readonly changed: () => void) {}

  walk(walk: Walk, now: Micros): void {
    this.walking = startWalk(walk, now);
  }

  stopWalk(): void {
    this.walking = null;
    this.changed();
  }

  teach(lesson: Lesson, now: Micros): void {
    this.teaching = startLesson(lesson, now);
  }

  /** A unit said what it took in. */
  learnt(bytes: Bytes): void {
    if (this.teaching) this.teaching = learnt(this.teaching, bytes);
    this.changed();
  }

  stopTeaching(): void {
    this.teaching = null;
    this.changed();
  }

  /** A song begins: nothing else is sent to its units. */
  songBegins(): void {
    this.walking = null;
    this.teaching = null;
  }

  /** Programs a controller with a memory, or reads what it has. Null where no cable leads there and back. */
  transfer({ show }: Session, unitId: string, errand: Errand, now: Micros): readonly Command[] | null {
    const unit = show && indexShow(show).units.get(unitId);
    const route = unit && routeTo(show, unit);
    if (!unit?.returns || !route) return null;
    const where = { unitId, outPortId: route.portId, inPortId: unit.returns.portId };
    return this.transferStep(startTransfer(where, errand, unit.channel - 1, now));
  }

  /** Ends a transfer where it is; one that is over is forgotten. */
  stopTransfer(now: Micros): readonly Command[] {
    if (!this.transferring) return [];
    this.changed();
    if (!this.transferring.transfer.end) return this.transferStep(cancelTransfer(this.transferring, now));
    this.transferring = null;
    return [];
  }

  /**
   * A message of a transfer that is under way: what is sent on it; null where it is none. `isBeside` says whether a
   * stand-in answered what real ports were asked.
   */
  transferHears(
    arrival: Arrival,
    now: Micros,
    isBeside: (arrival: Arrival, asked: readonly string[]) => boolean,
  ): readonly Command[] | null {
    if (this.transferring?.inPortId !== arrival.portId || !isFootBytes(arrival.bytes)) return null;
    if (isBeside(arrival, [this.transferring.outPortId])) return [];
    return this.transferStep(transferHears(this.transferring, arrival.bytes, now));
  }

  record(what: PedalRecording | null): void {
    this.recording = what;
    if (what) this.points = [];
  }

  recorded(): readonly PedalPoint[] {
    return this.points;
  }

  /** Notes the position of a pedal that is recorded. */
  keep(arrival: Arrival, session: Session): void {
    const { show, transport } = session;
    if (!this.recording || !show || transport.kind !== 'playing') return;
    const point = pedalPoint(show, this.recording, arrival, placeIn(session, arrival.at).place);
    if (point) this.points.push(point);
  }

  /** What is due of the tasks at a time. */
  wake(session: Session, now: Micros): readonly Command[] {
    return [
      ...this.walkOn(now),
      ...this.teachOn(session, now),
      ...(this.transferring ? this.transferStep(transferOn(this.transferring, now)) : []),
    ];
  }

  news(): TaskNews {
    const { walking, teaching, transferring } = this;
    return {
      walk: walking && { unitId: walking.unitId, at: walking.at, count: walking.aims.length },
      lesson: teaching && { unitId: teaching.unitId, sent: teaching.sent, learnt: teaching.learnt },
      transfer: transferring && transferNews(transferring),
    };
  }

  private walkOn(now: Micros): readonly Command[] {
    if (!this.walking) return [];
    const { unitId } = this.walking;
    const { walking, aim } = walkOn(this.walking, now);
    if (walking !== this.walking) this.changed();
    this.walking = walking;
    return aim ? [{ kind: 'input', input: { kind: 'audition', unitId, aim } }] : [];
  }

  private teachOn({ show }: Session, now: Micros): readonly Command[] {
    if (!this.teaching || !show) return [];
    const { teaching, messages } = teachOn(this.teaching, now);
    if (teaching === this.teaching) return [];
    this.teaching = teaching;
    this.changed();
    const unit = indexShow(show).units.get(teaching.unitId);
    const route = unit && routeTo(show, unit);
    return route ? messages.map((bytes) => ({ kind: 'send', portId: route.portId, bytes })) : [];
  }

  private transferStep({ transferring, sends }: TransferStep): readonly Command[] {
    if (transferring === this.transferring && sends.length === 0) return [];
    const ended = this.transferring?.transfer.end;
    this.transferring = transferring;
    this.changed();
    const stored = ended ? null : storedBy(transferring);
    const { unitId, outPortId } = transferring;
    return [
      ...(stored ? [report({ kind: 'foot-stored', unitId, bytes: stored })] : []),
      ...sends.map((bytes): Command => ({ kind: 'send', portId: outPortId, bytes })),
    ];
  }
}

/** What a controller holds after a transfer that went well; null while that is not known. What was read back is what it holds. */
function storedBy({ transfer: { end, errand } }: Transferring): Bytes | null {
  if (end?.how === 'read') return end.bytes;
  return end?.how === 'identical' && errand.kind === 'write' ? errand.bytes : null;
}
