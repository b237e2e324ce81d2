/** When a show stopped last: written at once, where the journal is on its way to the disk for a moment. */
const KEY = 'hollow-lantern.stopped';

/** A browser that refuses its storage has the journal alone. */
export function noteStop(showId: string, at: number): void {
  try {
    localStorage.setItem(KEY, `${at} ${showId}`);
  } catch {
    // The journal says it a moment later.
  }
}

/** Milliseconds from the epoch at which a show stopped last, where that was the last show that did; else null. */
export function stoppedAt(showId: string): number | null {
  try {
    const [, at, id] = /^(\d+) (.+)$/.exec(localStorage.getItem(KEY) ?? '') ?? [];
    return id === showId ? Number(at) : null;
  } catch {
    return null;
  }
}
