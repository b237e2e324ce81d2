import type { Browser } from './browser';

/** What left on a port of the stand-in: its bytes, and the time that they were given, in milliseconds of the page's clock. */
export interface Left {
  readonly bytes: readonly number[];
  readonly at: number;
  /** When it was handed to the port, in the same milliseconds. */
  readonly called: number;
}

/** Stands in for the browser's own MIDI, which needs a sound device: ports that are plugged in and pulled out by hand. */
const SOURCE = `(() => {
  const access = new EventTarget();
  Object.assign(access, { inputs: new Map(), outputs: new Map(), sysexEnabled: true });
  const sent = {};
  const broken = new Set();
  const port = (id, name, type) => Object.assign(new EventTarget(), {
    id, name, type, manufacturer: 'Pier', state: 'connected', onmidimessage: null,
    send(bytes, at) { if (broken.has(name)) throw new Error('the driver takes nothing'); const called = performance.now(); (sent[name] ??= []).push({ bytes: [...bytes], at: at || called, called }); },
  });
  let plugged = 0;
  window.standInMidi = {
    sent,
    plug(name) {
      const n = ++plugged;
      access.inputs.set('in' + n, port('in' + n, name, 'input'));
      access.outputs.set('out' + n, port('out' + n, name, 'output'));
      access.dispatchEvent(new Event('statechange'));
    },
    pull(name) {
      for (const all of [access.inputs, access.outputs]) {
        for (const [id, p] of all) if (p.name === name) { p.state = 'disconnected'; all.delete(id); }
      }
      access.dispatchEvent(new Event('statechange'));
    },
    breakDown(name, on) { if (on) broken.add(name); else broken.delete(name); },
    arrive(name, bytes) {
      for (const p of access.inputs.values()) {
        if (p.name === name) p.onmidimessage?.({ data: Uint8Array.from(bytes), timeStamp: performance.now() });
      }
    },
  };
  navigator.requestMIDIAccess = () => Promise.resolve(access);
})()`;

/** From the next page on, the browser has this MIDI and no other. */
export const injectMidi = (b: Browser): Promise<unknown> =>
  b.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', { source: SOURCE });

const call = <T>(b: Browser, script: string, ...args: unknown[]): Promise<T> =>
  b.driver.executeScript<T>(`return window.standInMidi.${script}`, ...args);

export const plug = (b: Browser, name: string): Promise<void> => call(b, 'plug(arguments[0])', name);
export const pull = (b: Browser, name: string): Promise<void> => call(b, 'pull(arguments[0])', name);
/** From now on a port is there and takes nothing, or takes messages again. */
export const breakDown = (b: Browser, name: string, on: boolean): Promise<void> =>
  call(b, 'breakDown(arguments[0], arguments[1])', name, on);
export const arrive = (b: Browser, name: string, ...bytes: readonly number[]): Promise<void> =>
  call(b, 'arrive(arguments[0], arguments[1])', name, bytes);
/** All that left on a port so far, in the order of time. */
export const left = async (b: Browser, name: string): Promise<readonly Left[]> =>
  (await call<readonly Left[]>(b, 'sent[arguments[0]] ?? []', name)).toSorted((x, y) => x.at - y.at);

/** What the rack of the demo hears goes out on a port of this computer, the "Grey box". */
export async function bindRack(b: Browser): Promise<void> {
  await b.click('link', 'Rig');
  await b.click('link', 'Ports');
  await b.click('button', "Use this computer's ports");
  await b.find('table', 'Ports');
  await plug(b, 'Grey box');
  await b.pick(/Rack output$/, 'Grey box');
}
