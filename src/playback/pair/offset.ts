import type { Micros } from '../../core/time';

/** So many exchanges are looked at: of the last two seconds. */
const LOOKED_AT = 20;

/**
 * How far another clock is off, from messages that go to and fro (RFC 5905, clause 8): of the last exchanges the one
 * that was the quickest tells best.
 */
export class ClockOffset {
  private readonly exchanges: { readonly trip: Micros; readonly offset: Micros }[] = [];

  /**
   * A message came at `now` that left at `at` of the other clock; it answers one that left here at `asked`, and was held
   * there for so long.
   */
  heard(now: Micros, at: Micros, asked: Micros, held: Micros): void {
    const trip = now - asked - held;
    if (trip < 0) return;
    this.exchanges.push({ trip, offset: now - trip / 2 - at });
    if (this.exchanges.length > LOOKED_AT) this.exchanges.shift();
  }

  /** What has to be added to a time of the other clock for one of ours; null before any exchange. */
  get micros(): Micros | null {
    const [first, ...rest] = this.exchanges;
    return first ? rest.reduce((best, e) => (e.trip < best.trip ? e : best), first).offset : null;
  }

  forget(): void {
    this.exchanges.length = 0;
  }
}
