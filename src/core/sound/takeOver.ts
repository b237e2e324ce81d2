/** A fader that stands this close to a level has it in hand, in decibels. */
const CLOSE = 0.75;

/**
 * Faders of a controller take a level over where it is, without a jump: one that stands elsewhere moves nothing until it
 * comes to the level, or passes it. What moves the level by another way (the screen, the next song) takes it out of hand.
 */
export class TakeOver {
  private readonly faders = new Map<string, { readonly stood: number; readonly set: number | null }>();

  /** A fader comes to a level, in decibels, where the level is another. Gives the level that is to be, or null where it stays. */
  move(fader: string, to: number, level: number): number | null {
    const before = this.faders.get(fader);
    // What it set last is still so: it is in hand.
    const inHand = typeof before?.set === 'number' && Math.abs(before.set - level) < 0.01;
    const passes = before !== undefined && (before.stood - level) * (to - level) <= 0;
    const takes = inHand || passes || Math.abs(to - level) <= CLOSE;
    this.faders.set(fader, { stood: to, set: takes ? to : null });
    return takes ? to : null;
  }
}
