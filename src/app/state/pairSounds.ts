import { z } from 'zod';
import { readLine } from '../../core/formats/line';
import type { Show } from '../../core/show';

/** Recordings go over the line in pieces of so many bytes; while more than the second waits to leave, none is added. */
const PIECE = 192 << 10;
const BEHIND = 1 << 20;
/** Milliseconds until it is looked again whether there is room. */
const AGAIN = 40;

/** A recording of a show, as a browser keeps it. */
export interface Recording {
  readonly showId: string;
  readonly id: string;
  readonly type: string;
  readonly bytes: ArrayBuffer;
  readonly peaks: Uint8Array;
}

const id = z.string().max(64);
const base64 = z.base64().max(PIECE * 2);
const soundSchema = z.discriminatedUnion('kind', [
  /** Whoever follows has no bytes of these. */
  z.strictObject({ kind: z.literal('wants-sounds'), showId: id, ids: z.array(id).max(1000) }),
  /** A piece of one, from a byte on; all pieces of one follow each other. */
  z.strictObject({
    kind: z.literal('sound'),
    showId: id,
    id,
    type: z.string().max(100),
    size: z
      .int()
      .positive()
      .max(1 << 30),
    from: z.int().nonnegative(),
    bytes: base64,
    peaks: base64,
  }),
]);
type SoundMessage = z.infer<typeof soundSchema>;

export interface PairSoundsNeeds {
  readonly say: (message: SoundMessage) => void;
  /** Bytes that have not left yet. */
  readonly behind: () => number;
  readonly missing: (show: Show) => Promise<readonly string[]>;
  readonly load: (showId: string, id: string) => Promise<Recording | undefined>;
  readonly keep: (row: Recording) => Promise<unknown>;
  readonly wait: (millis: number) => Promise<void>;
}

export interface PairSounds {
  /** The show of the other computer is here: asks for the recordings that are not. */
  readonly ask: (show: Show) => Promise<void>;
  /** A message of the other computer; false where it is about something else. */
  readonly hear: (json: string) => boolean;
  /** The line is another one: what was under way is not. */
  readonly stop: () => void;
}

/** Recordings of a show on their way from the computer that has them to the one that has not. */
export function createPairSounds(needs: PairSoundsNeeds): PairSounds {
  let run = 0;
  let asked = '';
  let coming: { readonly key: string; readonly bytes: Uint8Array<ArrayBuffer>; got: number } | null = null;

  const room = async (): Promise<void> => {
    while (needs.behind() > BEHIND) await needs.wait(AGAIN);
  };
  const send = async (showId: string, ids: readonly string[]): Promise<void> => {
    const own = ++run;
    for (const one of ids) {
      const row = await needs.load(showId, one);
      if (!row) continue;
      const all = new Uint8Array(row.bytes);
      for (let from = 0; from < all.length; from += PIECE) {
        await room();
        if (own !== run) return;
        const { type, peaks } = row;
        const piece = toBase64(all.subarray(from, from + PIECE));
        const first = from === 0 ? toBase64(peaks) : '';
        needs.say({ kind: 'sound', showId, id: one, type, size: all.length, from, bytes: piece, peaks: first });
      }
    }
  };

  let peaksNow: Uint8Array = new Uint8Array();
  const take = (message: Extract<SoundMessage, { kind: 'sound' }>): void => {
    const { showId, id: one, type, size, from } = message;
    const key = `${showId} ${one} ${size}`;
    if (from === 0) {
      coming = { key, bytes: new Uint8Array(size), got: 0 };
      peaksNow = fromBase64(message.peaks);
    }
    const piece = fromBase64(message.bytes);
    // A piece that does not follow the one before is of a line that was lost: it comes again when it is asked for again.
    if (coming?.key !== key || coming.got !== from || from + piece.length > size) return;
    coming.bytes.set(piece, from);
    coming.got += piece.length;
    if (coming.got < size) return;
    const { bytes } = coming;
    coming = null;
    void needs.keep({ showId, id: one, type, bytes: bytes.buffer, peaks: peaksNow }).catch(() => undefined);
  };

  return {
    ask: async (show) => {
      const ids = await needs.missing(show);
      const text = `${show.id} ${ids.join(' ')}`;
      if (ids.length === 0 || text === asked) return;
      asked = text;
      needs.say({ kind: 'wants-sounds', showId: show.id, ids: [...ids] });
    },
    hear: (json) => {
      if (!json.startsWith('{"kind":"sound"') && !json.startsWith('{"kind":"wants-sounds"')) return false;
      const message = readLine(soundSchema, json);
      if (message?.kind === 'wants-sounds') void send(message.showId, message.ids).catch(() => undefined);
      else if (message) take(message);
      return true;
    },
    stop: () => {
      run += 1;
      asked = '';
      coming = null;
    },
  };
}

/** So many bytes become a text at once: a call takes only so many arguments. */
const AT_ONCE = 8192;

function toBase64(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += AT_ONCE) text += String.fromCharCode(...bytes.subarray(i, i + AT_ONCE));
  return btoa(text);
}

const fromBase64 = (text: string): Uint8Array<ArrayBuffer> => Uint8Array.from(atob(text), (c) => c.charCodeAt(0));
