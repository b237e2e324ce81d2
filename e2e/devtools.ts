import WebSocket from 'ws';

interface Answer {
  readonly id?: number;
  readonly result?: unknown;
  readonly error?: { readonly message: string };
}

/**
 * A line of its own to one window of the browser, for looking. What is asked through the driver passes two more
 * programs and waits for the page before and after, which takes ten times as long.
 */
export class Devtools {
  private readonly asked = new Map<number, { resolve: (result: never) => void; reject: (error: Error) => void }>();
  private last = 0;

  private constructor(private readonly socket: WebSocket) {
    socket.on('message', (data: Buffer) => {
      const { id, result, error } = JSON.parse(data.toString()) as Answer;
      const question = id === undefined ? undefined : this.asked.get(id);
      if (!question) return;
      this.asked.delete(id!);
      if (error) question.reject(new Error(error.message));
      else question.resolve(result as never);
    });
    socket.on('close', () => {
      for (const { reject } of this.asked.values()) reject(new Error('the window is gone'));
      this.asked.clear();
    });
  }

  /** To the window of a handle, in the browser that listens at an address. */
  static open(address: string, handle: string): Promise<Devtools> {
    const socket = new WebSocket(`ws://${address}/devtools/page/${handle}`, { perMessageDeflate: false });
    return new Promise((resolve, reject) => {
      socket.once('open', () => resolve(new Devtools(socket)));
      socket.once('error', reject);
    });
  }

  ask<T>(method: string, params: object = {}): Promise<T> {
    const id = ++this.last;
    return new Promise<T>((resolve, reject) => {
      if (this.socket.readyState !== WebSocket.OPEN) throw new Error('the window is gone');
      this.asked.set(id, { resolve, reject });
      this.socket.send(JSON.stringify({ id, method, params }));
    });
  }

  close(): void {
    this.socket.close();
  }
}
