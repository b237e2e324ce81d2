import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inspect } from 'node:util';
import { Builder, By, Key, error, until, type WebElement } from 'selenium-webdriver';
import { Devtools } from './devtools';
import { Options, ServiceBuilder, type Driver } from 'selenium-webdriver/chrome.js';

const FLAGS = [
  '--headless=new',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-dev-shm-usage',
  // A sound input that beeps, and nobody to ask whether it may be used.
  '--use-fake-ui-for-media-stream',
  '--use-fake-device-for-media-stream',
];

/** How long a state is waited for, in ms. */
const PATIENCE = 15_000;
/** How often it is looked for. A look keeps the page busy for some 30 ms: looked for oftener, what plays is late by it. */
const POLL = 200;

/** Where pictures of failures are put; not part of the project. */
const FAILURES = 'failures';

let nameNow = (): string => 'outside of tests';
/** What a picture of a failure is called. */
export const nameFailures = (name: () => string): void => {
  nameNow = name;
};

const MODIFIERS: readonly string[] = [Key.SHIFT, Key.CONTROL, Key.ALT, Key.META];

interface AxNode {
  readonly ignored: boolean;
  readonly name?: { readonly value?: string };
  readonly backendDOMNodeId: number;
}

/** A browser with an empty profile, driven as a user would: by role and name, by keyboard and pointer. */
export class Browser {
  readonly downloads = mkdtempSync(join(tmpdir(), 'lantern-downloads-'));
  private readonly profile = mkdtempSync(join(tmpdir(), 'lantern-browser-'));
  private started: Driver | undefined;

  static async open(width = 1280, height = 800): Promise<Browser> {
    const browser = new Browser();
    await browser.start(width, height);
    return browser;
  }

  get driver(): Driver {
    if (!this.started) throw new Error('The browser is not started yet.');
    return this.started;
  }

  async start(width = 1280, height = 800): Promise<void> {
    const options = new Options().setChromeBinaryPath('/usr/bin/chromium');
    options.addArguments(...FLAGS, `--user-data-dir=${this.profile}`);
    const driver = (await new Builder()
      .forBrowser('chrome')
      .setChromeOptions(options)
      .setChromeService(new ServiceBuilder('/usr/bin/chromedriver'))
      .build()) as Driver;
    const size = { width, height, deviceScaleFactor: 1, mobile: false };
    await driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', size);
    await driver.sendDevToolsCommand('Browser.setDownloadBehavior', {
      behavior: 'allow',
      downloadPath: this.downloads,
    });
    this.started = driver;
    await this.look();
  }

  /** Looks at the window that the driver is in. */
  private async look(): Promise<void> {
    const options = (await this.driver.getCapabilities()).get('goog:chromeOptions') as { debuggerAddress: string };
    this.devtools?.close();
    this.devtools = await Devtools.open(options.debuggerAddress, await this.driver.getWindowHandle());
    // Else the browser makes its tree of what there is anew for each question.
    await this.devtools.ask('Accessibility.enable');
  }

  /** Opens another window beside this one, and goes there. */
  async newWindow(): Promise<void> {
    await this.driver.switchTo().newWindow('tab');
    await this.look();
  }

  async toWindow(handle: string): Promise<void> {
    await this.driver.switchTo().window(handle);
    await this.look();
  }

  async close(): Promise<void> {
    this.devtools?.close();
    await this.started?.quit();
    rmSync(this.profile, { recursive: true, force: true, maxRetries: 3 });
    rmSync(this.downloads, { recursive: true, force: true });
  }

  go(address: string): Promise<void> {
    return this.driver.get(address);
  }

  async picture(path: string): Promise<void> {
    writeFileSync(path, await this.driver.takeScreenshot(), 'base64');
  }

  /** What there is to see when something failed; gives where the picture is. */
  async pictureOfFailure(name: string): Promise<string> {
    mkdirSync(FAILURES, { recursive: true });
    const path = join(FAILURES, `${name}.png`.replace(/[^\w. -]/g, '_'));
    await this.picture(path).catch(() => undefined);
    return path;
  }

  /** Waits for a state. One that does not come leaves a picture of what there is, and what looking met with. */
  async wait(condition: () => Promise<boolean>, what: string, patience = PATIENCE): Promise<void> {
    this.swallowed = undefined;
    const holds = async (): Promise<boolean> => {
      try {
        return await condition();
      } catch (error) {
        // The page changed while it was looked at; if that is not it, it is told when time is up.
        this.swallowed = error;
        return false;
      }
    };
    try {
      await this.driver.wait(holds, patience, undefined, POLL);
    } catch (error) {
      const path = await this.pictureOfFailure(nameNow());
      const met = this.swallowed === undefined ? '' : `; looking met with: ${inspect(this.swallowed)}`;
      throw new Error(`${what}${met}; see ${path}`, { cause: error });
    }
  }

  /** The first visible element with a role and an accessible name (whole, or matching). Waits for it. */
  async find(role: string, name?: string | RegExp): Promise<WebElement> {
    let found: WebElement | undefined;
    await this.wait(
      async () => (found = await this.seek(role, name)) !== undefined,
      `no ${role} named ${String(name)}`,
    );
    return found!;
  }

  /** Waits until there is no such element. */
  async gone(role: string, name?: string | RegExp): Promise<void> {
    await this.wait(
      async () => (await this.seek(role, name)) === undefined,
      `there still is a ${role} named ${String(name)}`,
    );
  }

  /** Asks the browser's own accessibility tree, what a screen reader would be told; gives the first answer of what it is asked of. */
  private async first<T>(
    role: string,
    name: string | RegExp | undefined,
    of: (backendNodeId: number) => Promise<T | undefined>,
  ): Promise<T | undefined> {
    const { result } = await this.ask<{ result: { objectId: string } }>('Runtime.evaluate', { expression: 'document' });
    const query = typeof name === 'string' ? { accessibleName: name } : {};
    const { nodes } = await this.ask<{ nodes: AxNode[] }>('Accessibility.queryAXTree', {
      objectId: result.objectId,
      role,
      ...query,
    });
    for (const node of nodes) {
      if (node.ignored || (name instanceof RegExp && !name.test(node.name?.value ?? ''))) continue;
      const found = await of(node.backendDOMNodeId);
      if (found !== undefined) return found;
    }
    return undefined;
  }

  private seek(role: string, name?: string | RegExp): Promise<WebElement | undefined> {
    return this.first(role, name, (node) => this.shownOf(node));
  }

  /** The text of an element as it is seen. It is read in one go: nothing can be drawn anew in between. */
  private textOf(role: string, name?: string | RegExp): Promise<string | undefined> {
    return this.first(role, name, (node) =>
      this.onShown<string>(node, 'return shown.innerText.replaceAll("\u00a0", " ");'),
    );
  }

  /** The element of a node, if there is something of it to see. */
  private async shownOf(backendNodeId: number): Promise<WebElement | undefined> {
    const mark = `found-${++this.marks}`;
    const seen = await this.onShown<boolean>(backendNodeId, `shown.setAttribute('data-${mark}', ''); return true;`);
    return seen ? (await this.driver.findElements(By.css(`[data-${mark}]`)))[0] : undefined;
  }

  /** Runs a line in the page on the element of a node, `shown`; undefined where there is nothing of it to see. */
  private async onShown<T>(backendNodeId: number, line: string): Promise<T | undefined> {
    const { object } = await this.ask<{ object: { objectId: string } }>('DOM.resolveNode', { backendNodeId });
    // What one sees and clicks of a radio button or switch is its label.
    const functionDeclaration = `function () {
      const shown = (this.matches?.('input[type=radio], input[type=checkbox]') ? this.closest('label') : null) ?? this;
      const { width, height } = shown.getBoundingClientRect?.() ?? {};
      if (!(width > 0 && height > 0) || !shown.checkVisibility({ opacityProperty: true, visibilityProperty: true })) return undefined;
      ${line}
    }`;
    const { result } = await this.ask<{ result: { value?: T } }>('Runtime.callFunctionOn', {
      objectId: object.objectId,
      functionDeclaration,
      returnByValue: true,
    });
    return result.value;
  }

  private devtools: Devtools | undefined;
  private marks = 0;
  private swallowed: unknown;

  private ask<T>(command: string, parameters: object): Promise<T> {
    if (!this.devtools) throw new Error('The browser is not started yet.');
    return this.devtools.ask<T>(command, parameters);
  }

  /** Does something to an element; to the one in its place, where it was drawn anew meanwhile. */
  private async to<T>(
    role: string,
    name: string | RegExp | undefined,
    what: (e: WebElement) => Promise<T>,
  ): Promise<T> {
    try {
      return await what(await this.find(role, name));
    } catch (met) {
      if (!(met instanceof error.StaleElementReferenceError)) throw met;
      return what(await this.find(role, name));
    }
  }

  click(role: string, name?: string | RegExp): Promise<void> {
    return this.to(role, name, (element) => element.click());
  }

  /** What the computer says that its user wishes of pages, such as a dark one. */
  async media(wishes: Readonly<Record<string, string>>): Promise<void> {
    const features = Object.entries(wishes).map(([name, value]) => ({ name, value }));
    await this.ask('Emulation.setEmulatedMedia', { features });
  }

  /** Types where the keyboard is. */
  async type(...keys: string[]): Promise<void> {
    await this.driver
      .switchTo()
      .activeElement()
      .sendKeys(...keys);
  }

  /** Takes hold of the slider within something, by a press on its thumb: what is pressed then is its. */
  async grip(label: string): Promise<void> {
    const input = await this.driver.findElement(By.css(`[aria-label="${label}"] input[type=range]`));
    // The input itself is seen by screen readers alone.
    const thumb = await input.findElement(By.xpath('./../..'));
    await this.driver.actions().move({ origin: thumb }).click().perform();
  }

  /** Presses keys and chords, whatever has the keyboard. */
  async keys(...keys: string[]): Promise<void> {
    const actions = this.driver.actions();
    for (const key of keys) {
      // Of a chord all but the last are held.
      const held = Array.from(key.replace(Key.NULL, ''));
      const last = held.pop()!;
      if (held.some((h) => !MODIFIERS.includes(h))) throw new Error('a chord of modifiers and one key, or one key');
      for (const h of held) actions.keyDown(h);
      actions.sendKeys(last);
      for (const h of held.toReversed()) actions.keyUp(h);
    }
    await actions.perform();
  }

  /** Sends keys to an element, which takes the keyboard first. */
  press(role: string, name: string | RegExp | undefined, ...keys: string[]): Promise<void> {
    return this.to(role, name, (element) => element.sendKeys(...keys));
  }

  /** Puts a text in place of what a field holds. */
  fill(role: string, name: string | RegExp, text: string): Promise<void> {
    return this.press(role, name, Key.chord(Key.CONTROL, 'a'), text);
  }

  /** Waits until an element's text contains something. */
  async says(
    role: string,
    name: string | RegExp | undefined,
    text: string | RegExp,
    patience = PATIENCE,
  ): Promise<void> {
    let own = '';
    await this.wait(
      async () => {
        own = (await this.textOf(role, name)) ?? '';
        return typeof text === 'string' ? own.includes(text) : text.test(own);
      },
      `the ${role} ${String(name)} does not say ${String(text)}`,
      patience,
    ).catch((error: unknown) => {
      throw new Error(`${(error as Error).message}; it says: ${own}`, { cause: error });
    });
  }

  /** Picks from a list that opens under a button. */
  async pick(label: RegExp, option: string | RegExp): Promise<void> {
    await this.click('button', label);
    await this.click('option', option);
  }

  /** Adds a sweep of a control at the caret, as its dialog asks for it. */
  async addSweep(control: string): Promise<void> {
    await this.click('button', 'Sweep …');
    await this.pick(/Control$/, control);
    await this.click('button', 'Add the sweep');
    await this.find('region', 'Chosen sweep');
  }
}

export { By, Key, until };
