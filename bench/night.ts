import { Browser, By, Key } from '../e2e/browser';
import { arrive, injectMidi, plug } from '../e2e/standInMidi';
import { demoShow } from '../src/core/demo';
import { REAL_AHEAD } from '../src/playback';
import { PlaybackHost } from '../src/workers/playbackHost';
import { updateOf } from '../src/workers/showMirror';
import { serve } from './serve';
import { size } from './size';

/** A message on its way to a port: when it was handed to the browser, and the time that it was given, in milliseconds of the page. */
export interface Handed {
  readonly bytes: readonly number[];
  readonly at: number;
  readonly called: number;
}

const NOTING = `const before = window.standInMidi;
  window.handed = [];
  const plug = before.plug.bind(before);
  before.plug = (name) => { plug(name); };
  const ask = navigator.requestMIDIAccess;
  navigator.requestMIDIAccess = async () => {
    const access = await ask();
    for (const p of access.outputs.values()) note(p);
    access.addEventListener('statechange', () => { for (const p of access.outputs.values()) note(p); });
    return access;
  };
  function note(p) {
    if (p.noted) return;
    p.noted = true;
    p.send = (bytes, at) => { const now = performance.now(); window.handed.push({ bytes: [...bytes], at: at || now, called: now }); };
  }`;

const busy = `window.busyTimer = setInterval(() => { const until = performance.now() + 250; while (performance.now() < until); }, 400);`;

export interface PortTimes {
  /** By how many milliseconds each message was handed over too late for its time; 0 for in time. */
  readonly off: readonly number[];
  /** Whether any left in another order than their times, or twice at one time. */
  readonly disordered: number;
}

async function played(seconds: number, way: 'busy' | 'hidden'): Promise<PortTimes> {
  const { address, stop } = await serve();
  const b = await Browser.open();
  try {
    await injectMidi(b);
    await b.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', { source: NOTING });
    await openOnPorts(b, address);
    await b.click('link', 'Set');
    await b.click('button', 'Play Slack Tide in Seven now');
    await b.find('button', 'Stop');
    if (way === 'busy') await b.driver.executeScript(busy);
    else await b.driver.switchTo().newWindow('tab');
    const end = Date.now() + seconds * 1000;
    const [first] = await b.driver.getAllWindowHandles();
    while (Date.now() < end) {
      await new Promise((resolve) => setTimeout(resolve, 1000));
      if (way === 'hidden') continue;
      const stopped = await b.driver.findElements(By.css('button[aria-label="Play"]'));
      if (stopped.length > 0) await b.click('button', 'Play Slack Tide in Seven now');
    }
    if (way === 'hidden') await b.driver.switchTo().window(first!);
    await b.driver.executeScript('clearInterval(window.busyTimer)');
    const handed = await b.driver.executeScript<readonly Handed[]>('return window.handed');
    const times = handed.toSorted((x, y) => x.at - y.at);
    const twice = times.filter(
      (h, i) => i > 0 && h.at === times[i - 1]!.at && h.bytes.join() === times[i - 1]!.bytes.join(),
    );
    return { off: handed.map((h) => Math.max(0, h.called - h.at)), disordered: twice.length };
  } finally {
    await b.close();
    stop();
  }
}

async function openOnPorts(b: Browser, address: string): Promise<void> {
  await b.go(`${address}demo`);
  await b.find('heading', 'The set');
  await b.click('link', 'Rig');
  await b.click('link', 'Ports');
  await b.click('button', "Use this computer's ports");
  await plug(b, 'Grey box');
  await plug(b, 'Foot board');
  await b.pick(/Rack output$/, 'Grey box');
  await b.pick(/Feet input$/, 'Foot board');
}

/** What leaves on a real port, against its time, while the page is busy for a quarter of a second again and again, and while it is hidden. */
export const portTimes = async (seconds: number): Promise<Record<'busy' | 'hidden', PortTimes>> => ({
  busy: await played(seconds, 'busy'),
  hidden: await played(seconds, 'hidden'),
});

/** Milliseconds from a foot switch that is pressed to the first byte that leaves for it. */
export async function footTimes(presses: number): Promise<readonly number[]> {
  const { address, stop } = await serve();
  const b = await Browser.open();
  try {
    await injectMidi(b);
    await b.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', { source: NOTING });
    await openOnPorts(b, address);
    await b.click('link', 'Reactions');
    await b.click('button', 'Add a reaction');
    await b.click('button', 'Learn what it waits for');
    await arrive(b, 'Foot board', 0xb0, 99, 127);
    await b.says('status', 'Learnt', 'control 99');
    await b.click('button', 'Use it');
    await b.pick(/Kind$/, 'Another message');
    await b.pick(/Out of$/, 'Rack');
    await b.type(Key.ESCAPE);
    // Pressed in the page, so that the driver's own way to it is not counted.
    return await b.driver.executeAsyncScript<number[]>(
      `const [count, done] = arguments;
       const times = [];
       const press = () => {
         if (times.length >= count) return done(times);
         const before = window.handed.length;
         const start = performance.now();
         window.standInMidi.arrive('Foot board', [0xb0, 99, 127]);
         const look = () => {
           if (window.handed.length > before) {
             times.push(window.handed[before].called - start);
             setTimeout(press, 70 + Math.random() * 30);
           } else setTimeout(look, 0);
         };
         look();
       };
       press();`,
      presses,
    );
  } finally {
    await b.close();
    stop();
  }
}

export interface Hour {
  readonly wakes: number;
  readonly messages: number;
  /** Megabytes of the heap after each tenth of the hour. */
  readonly heap: readonly number[];
  /** The longest that one waking took, in milliseconds. */
  readonly longest: number;
}

/** An hour of the demo set, song after song, by a clock that goes as fast as it can. */
export async function hour(): Promise<Hour> {
  let now = 1e9;
  let wake = (): void => undefined;
  let messages = 0;
  let playing = true;
  const show = demoShow();
  const host = new PlaybackHost({ now: () => now, every: (_, run) => (wake = run) });
  host.update(updateOf(undefined, show));
  host.bindPorts(show.ports.map((p) => ({ portId: p.id, standIn: true, real: true })));
  host.listen(
    (news) => (playing = news.playing),
    () => undefined,
    () => undefined,
    (batch) => (messages += batch.length),
    () => undefined,
  );
  const songs = show.songs.map((s) => s.id);
  const heap: number[] = [];
  let at = 0;
  let wakes = 0;
  let longest = 0;
  const end = now + size(3600e6, 60e6);
  let next = now;
  host.play(songs[0]!, 0);
  while (now < end) {
    now += 8000;
    wakes += 1;
    const start = performance.now();
    wake();
    longest = Math.max(longest, performance.now() - start);
    // What is handed over leaves between two wakings.
    await Promise.resolve();
    if (!playing) host.play(songs[++at % songs.length]!, 0);
    if (now >= next) {
      next += 360e6;
      (globalThis as { gc?: () => void }).gc?.();
      heap.push(process.memoryUsage().heapUsed / 1e6);
    }
  }
  return { wakes, messages, heap, longest };
}

export const AHEAD_MILLIS = REAL_AHEAD / 1000;
