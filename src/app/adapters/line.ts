/** A line to the server that is opened again by itself when it is lost. */
export interface LineOut {
  readonly send: (message: unknown) => void;
  /** Sends a text as it stands. */
  readonly say: (text: string) => void;
  /** Ends it for good. */
  readonly end: () => void;
  /** Bytes that have not left yet. */
  readonly behind: () => number;
}

export interface LineEars {
  readonly opened: () => void;
  readonly text: (text: string) => void;
  /** It is lost, or could not be opened at all; it is tried again. */
  readonly lost: () => void;
}

/** Milliseconds until a lost line is tried again. */
const AGAIN = 1500;
/** Where nothing came for so long on a line on which something always comes, it is lost without a word. */
const QUIET = 1800;

/** `lively`: the other end says something every second. */
export function openLine(path: string, ears: LineEars, lively = false): LineOut {
  let socket: WebSocket | undefined;
  let over = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let quiet: ReturnType<typeof setTimeout> | undefined;
  const start = (): void => {
    const { protocol, host } = window.location;
    const next = new WebSocket(`${protocol === 'https:' ? 'wss' : 'ws'}://${host}${path}`);
    socket = next;
    const gone = (): void => {
      if (over || socket !== next) return;
      socket = undefined;
      clearTimeout(quiet);
      ears.lost();
      timer = setTimeout(start, AGAIN);
    };
    const listen = (): void => {
      clearTimeout(quiet);
      if (!lively) return;
      quiet = setTimeout(() => {
        // A line that is gone takes its time to close: that is not waited for.
        next.close();
        gone();
      }, QUIET);
    };
    listen();
    next.addEventListener('open', () => ears.opened());
    next.addEventListener('message', (event) => {
      listen();
      if (typeof event.data === 'string') ears.text(event.data);
    });
    next.addEventListener('close', gone);
  };
  start();
  const say = (text: string): void => {
    if (socket?.readyState === WebSocket.OPEN) socket.send(text);
  };
  return {
    send: (message) => say(JSON.stringify(message)),
    say,
    end: () => {
      over = true;
      clearTimeout(timer);
      clearTimeout(quiet);
      socket?.close();
    },
    behind: () => socket?.bufferedAmount ?? 0,
  };
}
