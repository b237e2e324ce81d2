import { z } from 'zod';
import type { Bytes } from '../../core/midi';

/** A port of this computer, as the browser names it. */
export interface RealPort {
  /** The browser's own name for it: the same as long as it stays plugged in, not always afterwards. */
  readonly key: string;
  readonly name: string;
  readonly maker: string;
  readonly direction: 'in' | 'out';
}

/** Whether this computer's ports can be used, or why not. */
export type Access =
  /** Nobody asked for them yet. */
  | { readonly kind: 'unasked' }
  | { readonly kind: 'asking' }
  /** The browser has no Web MIDI, or not for this page. */
  | { readonly kind: 'missing' }
  /** Somebody, or the browser, said no. */
  | { readonly kind: 'refused' }
  /** The browser has it, and cannot open it. */
  | { readonly kind: 'failed'; readonly why: string }
  | { readonly kind: 'open' };

/** Where real ports tell what comes of them. */
export interface RealEars {
  /** What is plugged in has changed. */
  readonly ports: (ports: readonly RealPort[]) => void;
  /** Bytes came in; `at` is in milliseconds of the page's clock. */
  readonly bytes: (key: string, at: number, bytes: Bytes) => void;
}

/** What came of a message: it is on its way, its port is not there, or its port does not take it. */
export type SendOutcome = 'sent' | 'gone' | 'refused';

/** Real ports that are open. */
export interface RealPorts {
  readonly ports: readonly RealPort[];
  /** Sends a whole message at a time of the page's clock, in milliseconds. */
  readonly send: (key: string, at: number, bytes: Bytes) => SendOutcome;
}

const portShape = z.object({
  id: z.string(),
  name: z.string().nullish(),
  manufacturer: z.string().nullish(),
  state: z.enum(['connected', 'disconnected']),
});

function listed(access: MIDIAccess): RealPort[] {
  const of = (ports: ReadonlyMap<string, MIDIPort>, direction: 'in' | 'out'): RealPort[] =>
    [...ports.values()].flatMap((port) => {
      // What the browser says of a port comes from a driver.
      const read = portShape.safeParse({
        id: port.id,
        name: port.name,
        manufacturer: port.manufacturer,
        state: port.state,
      });
      if (!read.success || read.data.state === 'disconnected') return [];
      const { id, name, manufacturer } = read.data;
      return [{ key: id, name: name || 'Port without a name', maker: manufacturer ?? '', direction }];
    });
  return [...of(access.inputs, 'in'), ...of(access.outputs, 'out')];
}

/** Opens this computer's ports; where that cannot be, says why. System exclusive is asked for too: units say by it who they are. */
export async function openRealPorts(
  ears: RealEars,
): Promise<{ readonly access: Access; readonly real: RealPorts | null }> {
  if (typeof navigator.requestMIDIAccess !== 'function') return { access: { kind: 'missing' }, real: null };
  let access: MIDIAccess;
  try {
    access = await navigator.requestMIDIAccess({ sysex: true });
  } catch (error) {
    const { name, message } = error as Error;
    const refused = name === 'NotAllowedError' || name === 'SecurityError';
    return { access: refused ? { kind: 'refused' } : { kind: 'failed', why: message || name }, real: null };
  }
  const listen = (): void => {
    for (const input of access.inputs.values()) {
      input.onmidimessage = (event) => {
        if (event.data) ears.bytes(input.id, event.timeStamp, [...event.data]);
      };
    }
  };
  listen();
  access.addEventListener('statechange', () => {
    listen();
    ears.ports(listed(access));
  });
  return {
    access: { kind: 'open' },
    real: {
      get ports() {
        return listed(access);
      },
      send: (key, at, bytes) => {
        const output = access.outputs.get(key);
        if (!output || output.state === 'disconnected') return 'gone';
        try {
          output.send([...bytes], at);
          return 'sent';
        } catch {
          // A port that goes while it is sent to says so by failing; one that stays has something else wrong with it.
          return access.outputs.get(key)?.state === 'connected' ? 'refused' : 'gone';
        }
      },
    },
  };
}
