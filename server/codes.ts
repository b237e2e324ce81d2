import { randomInt, timingSafeEqual } from 'node:crypto';

/** A code holds so long, for one that joins. */
export const CODE_SECONDS = 180;
/** So many wrong codes may come from one address for one code; and so many tries a minute, whatever the code. */
const WRONG_CODES = 5;
const TRIES_A_MINUTE = 10;

/** Codes of six digits by which others are let in, one at a time. */
export class Codes {
  private code: { readonly text: string; readonly until: number; readonly wrong: Map<string, number> } | null = null;
  private readonly tries = new Map<string, number[]>();

  /** `now`: milliseconds from any fixed time. */
  constructor(private readonly now: () => number) {}

  /** A new code; the one before lets nobody in any more. */
  make(): string {
    const text = String(randomInt(1_000_000)).padStart(6, '0');
    this.code = { text, until: this.now() + CODE_SECONDS * 1000, wrong: new Map() };
    return text;
  }

  /** No code lets anybody in until one is made. */
  end(): void {
    this.code = null;
  }

  /** Whether an address tries too often. */
  often(address: string): boolean {
    const since = this.now() - 60_000;
    for (const [other, times] of this.tries) if (times.at(-1)! <= since) this.tries.delete(other);
    const recent = (this.tries.get(address) ?? []).filter((t) => t > since);
    this.tries.set(address, [...recent, this.now()].slice(-TRIES_A_MINUTE - 1));
    return recent.length >= TRIES_A_MINUTE;
  }

  /** Whether a code lets somebody in. Who guesses loses their own tries, nobody else's: the code stays good for others. */
  takes(typed: string, address: string): boolean {
    const { code } = this;
    if (!code || this.now() > code.until) return false;
    const wrong = code.wrong.get(address) ?? 0;
    if (wrong >= WRONG_CODES) return false;
    const same = /^[0-9]{6}$/.test(typed) && timingSafeEqual(Buffer.from(typed), Buffer.from(code.text));
    if (same) this.code = null;
    else code.wrong.set(address, wrong + 1);
    return same;
  }
}
