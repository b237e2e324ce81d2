import { CODE_RATES, codeText, frameMicros, labelOf, type CodeRate } from '../src/core/clock';
import { demoShow } from '../src/core/demo';
import { applyEdit, setSongField, setTimeCode, type Show } from '../src/core/show';
import { CodeMachine } from '../src/playback/codeMachine';
import { REAL_AHEAD, placeIn } from '../src/playback/sessionState';
import { played } from '../src/playback/testing/played';
import { Browser } from '../e2e/browser';
import { hold } from '../e2e/begin';
import { serve } from '../e2e/serving';
import { bindRack, injectMidi, left } from '../e2e/standInMidi';
import { seeded } from './fullShow';

const PORT = 'pads';
const SONG = 'slack-tide';
const HOUR = 3600e6;

export interface CodePlaces {
  readonly rate: CodeRate;
  /** Microseconds by which a message of the code shakes, either way. */
  readonly jitter: number;
  /** How far the song was from where the machine was, in milliseconds, many times. */
  readonly off: readonly number[];
}

/** The demo's first song led by a machine for some seconds, at each rate, still and shaking. */
export function placesFromCode(seconds: number): readonly CodePlaces[] {
  return CODE_RATES.flatMap((rate) =>
    [0, 2000].map((jitter): CodePlaces => {
      const plain = demoShow();
      const led: Show = applyEdit(plain, setTimeCode(plain, { portId: PORT, rate })!);
      const code = codeText(labelOf(Math.round(HOUR / frameMicros(rate)), rate), rate);
      const p = played(applyEdit(led, setSongField(led, SONG, 'code', code)!), REAL_AHEAD);
      const machine = new CodeMachine((at, bytes) => p.arrive(PORT, bytes, at));
      const go = (millis: number): void => {
        for (let i = 0; i < millis / 8; i++) {
          p.go(8);
          machine.advance(p.now());
        }
      };
      const start = Math.round(HOUR / frameMicros(rate));
      const from = start - 50;
      machine.act({ kind: 'play', place: (from + 0.5) * frameMicros(rate), rate, speed: 1, jitter }, p.now());
      const begun = p.now();
      go(4000);
      const off: number[] = [];
      for (let i = 0; i < seconds * 20; i++) {
        go(48);
        const there = p.now() - begun - (start - from) * frameMicros(rate);
        off.push(Math.abs(placeIn(p.playback.session, p.now()).place - there) / 1000);
      }
      return { rate, jitter, off };
    }),
  );
}

export interface TakenOver {
  /** Milliseconds from the end of the first computer's browser to the lead of the second, and to its first byte. */
  readonly leads: number;
  readonly sends: number;
}

/** Marks when this page says that it leads, and is drawn so. */
const MARK = `new MutationObserver(() => {
  const text = document.querySelector('[aria-label="Of two computers"]')?.textContent ?? '';
  if (/^Leads/.test(text) && !window.ledAt) window.ledAt = performance.timeOrigin + performance.now();
}).observe(document, { subtree: true, childList: true, characterData: true });`;

/** Two browsers as two computers; the first is ended at a random moment of a song, some times over. */
export async function takeovers(times: number): Promise<readonly TakenOver[]> {
  const random = seeded(28);
  const results: TakenOver[] = [];
  for (let i = 0; i < times; i++) {
    const { server, address } = await serve(0);
    const [first, second] = [await Browser.open(), await Browser.open()];
    try {
      await injectMidi(first);
      await injectMidi(second);
      await first.go(`${address}/demo`);
      await bindRack(first);
      await first.click('link', 'Set');
      await first.click('link', 'Screens');
      await first.click('button', 'Let one follow');
      const code = await first.textOf('status', 'Code for the second computer');
      await second.go(`${address}/follow`);
      await second.fill('textbox', /^Its address/, address);
      await second.fill('textbox', /^The code/, code);
      await second.click('button', 'Follow');
      await second.find('button', 'Lead here, hold');
      const { pathname } = new URL(await second.driver.getCurrentUrl());
      await second.go(`${address}${pathname.replace(/\/stage$/, '/set')}`);
      await second.find('button', /^The other computer leads/);
      await bindRack(second);
      await second.click('link', 'Stage');
      await second.find('button', 'Lead here, hold');
      await second.driver.executeScript(MARK);
      await first.says('status', 'Of two computers', /takes over when it has to/);
      await first.click('link', 'Stage');
      await hold(first, 'Start, hold', 700);
      await new Promise((next) => setTimeout(next, 2000 + random() * 8000));
      const ended = Date.now();
      await first.driver.sendDevToolsCommand('Browser.crash', {}).catch(() => undefined);
      const ledAt = (): Promise<number | null> =>
        second.driver.executeScript<number | null>('return window.ledAt ?? null');
      await second.wait(async () => (await ledAt()) !== null, 'the second computer leads');
      await second.wait(async () => (await left(second, 'Grey box')).length > 0, 'it sends');
      const origin = await second.driver.executeScript<number>('return performance.timeOrigin');
      const [message] = (await left(second, 'Grey box')).toSorted((a, b) => a.called - b.called);
      results.push({ leads: (await ledAt())! - ended, sends: origin + message!.called - ended });
    } finally {
      await first.close().catch(() => undefined);
      await second.close();
      server.kill();
    }
  }
  return results;
}
