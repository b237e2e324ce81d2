/** A line to the server that is opened again by itself when it is lost. */
export interface LineOut {
  readonly send: (message: unknown) => void;
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

export function openLine(path: string, ears: LineEars): LineOut {
  let socket: WebSocket | undefined;
  let over = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const start = (): void => {
    const { protocol, host } = window.location;
    const next = new WebSocket(`${protocol === 'https:' ? 'wss' : 'ws'}://${host}${path}`);
    socket = next;
    next.addEventListener('open', () => ears.opened());
    next.addEventListener('message', (event) => {
      if (typeof event.data === 'string') ears.text(event.data);
    });
    next.addEventListener('close', () => {
      if (over || socket !== next) return;
      ears.lost();
      timer = setTimeout(start, AGAIN);
    });
  };
  start();
  return {
    send: (message) => {
      if (socket?.readyState === WebSocket.OPEN) socket.send(JSON.stringify(message));
    },
    end: () => {
      over = true;
      clearTimeout(timer);
      socket?.close();
    },
    behind: () => socket?.bufferedAmount ?? 0,
  };
}
