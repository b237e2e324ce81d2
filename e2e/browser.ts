import { mkdirSync, mkdtempSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inspect } from 'node:util';
import { Builder, By, Key, WebElement, until } from 'selenium-webdriver';
import { Devtools } from './devtools';
import { keyEvents } from './keyboard';
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
const PATIENCE = 40_000;
/**
 * How long it is waited between two looks, in ms: little at first, since most states come at once. A look keeps the
 * page busy for some 30 ms: looked for oftener, what plays is late by it.
 */
const PAUSES = [40, 80, 150];
const PAUSE = 200;

/** Where pictures of failures are put; not part of the project. */
const FAILURES = 'failures';

let nameNow = (): string => 'outside of tests';
/** What a picture of a failure is called. */
export const nameFailures = (name: () => string): void => {
  nameNow = name;
};

/** Gives an element the keyboard, unless something in it has it; a field is written on at its end. Nothing where it takes none. */
const TAKES_KEYS = `const has = () => this.contains(document.activeElement);
  if (has()) return true;
  this.focus();
  // A dialog that has just closed gives the keyboard back to its button a frame later: whoever loses it asks again.
  await new Promise((next) => { requestAnimationFrame(next); setTimeout(next, 100); });
  try { this.setSelectionRange?.(this.value.length, this.value.length); } catch {}
  return has() || undefined;`;

/**
 * Scrolls to the element `shown`, and gives its middle once it stands still: nothing while it moves from one frame to
 * the next, or while something else lies there.
 */
const PRESSABLE = `shown.scrollIntoViewIfNeeded();
  const middle = () => {
    const { left, top, width, height } = shown.getBoundingClientRect();
    return [left + width / 2, top + height / 2];
  };
  const [x, y] = middle();
  // A page that is out of sight draws no frames.
  await new Promise((next) => { requestAnimationFrame(next); setTimeout(next, 100); });
  const [laterX, laterY] = middle();
  const still = laterX === x && laterY === y;
  return still && shown.contains(document.elementFromPoint(x, y)) ? { x, y } : undefined;`;

/**
 * Until the page has drawn and has nothing else to do, which takes a busy machine seconds; a page that is out of sight
 * draws nothing. Whoever presses on before that may press in a view that is about to give way to another.
 */
const DRAWN = `new Promise((done) => {
  const still = () => requestIdleCallback(done, { timeout: 3000 });
  if (document.hidden) setTimeout(still);
  else requestAnimationFrame(still);
  setTimeout(done, 4000);
})`;

/** What the element `shown` says. */
const READ = 'return shown.innerText.replaceAll("\u00a0", " ");';

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
  private size = { width: 1280, height: 800, deviceScaleFactor: 1, mobile: false };

  /**
   * Whether pages are kept for times without network. A browser that does not fetches all of the application once
   * less: what is opened in it is opened once.
   */
  constructor(private readonly keepsForOffline = false) {}

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
    this.size = { width, height, deviceScaleFactor: 1, mobile: false };
    await driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', this.size);
    await driver.sendDevToolsCommand('Browser.setDownloadBehavior', {
      behavior: 'allow',
      downloadPath: this.downloads,
    });
    this.started = driver;
    await this.look();
    if (!this.keepsForOffline) {
      const source = 'delete Navigator.prototype.serviceWorker;';
      await driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', { source });
    }
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
    await this.driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', this.size);
    await this.look();
  }

  /** Closes the window that the driver is in, without asking the page; go to another one after it. */
  async closeWindow(): Promise<void> {
    this.devtools?.close();
    await this.driver.close();
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
    const end = Date.now() + patience;
    for (let looks = 0; !(await holds()); looks++) {
      if (Date.now() > end) {
        const path = await this.pictureOfFailure(nameNow());
        const met = this.swallowed === undefined ? '' : `; looking met with: ${inspect(this.swallowed)}`;
        throw new Error(`${what}, after ${patience / 1000} s${met}; see ${path}`, { cause: this.swallowed });
      }
      await new Promise((next) => setTimeout(next, PAUSES[looks] ?? PAUSE));
    }
  }

  /** The first visible element with a role and an accessible name (whole, or matching). Waits for it. */
  async find(role: string, name?: string | RegExp): Promise<WebElement> {
    const node = await this.waitFor(role, name, (id) =>
      this.onShown<boolean>(id, 'return true;').then((is) => (is ? id : undefined)),
    );
    return this.elementOf(node);
  }

  /** Waits until something comes of the first visible element with a role and a name. */
  private async waitFor<T>(
    role: string,
    name: string | RegExp | undefined,
    of: (backendNodeId: number) => Promise<T | undefined>,
  ): Promise<T> {
    let found: T | undefined;
    await this.wait(
      async () => (found = await this.first(role, name, of)) !== undefined,
      `no ${role} named ${String(name)}`,
    );
    return found!;
  }

  /** Waits until there is no such element. */
  async gone(role: string, name?: string | RegExp): Promise<void> {
    await this.wait(async () => !(await this.seek(role, name)), `there still is a ${role} named ${String(name)}`);
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

  private async seek(role: string, name?: string | RegExp): Promise<boolean> {
    return (await this.first(role, name, (node) => this.onShown<boolean>(node, 'return true;'))) ?? false;
  }

  /** The text of an element as it is seen. It is read in one go: nothing can be drawn anew in between. */
  private textNow(role: string, name?: string | RegExp): Promise<string | undefined> {
    return this.first(role, name, (node) => this.onShown<string>(node, READ));
  }

  /** The text of the first visible element with a role and a name. Waits for it. */
  textOf(role: string, name?: string | RegExp): Promise<string> {
    return this.waitFor(role, name, (node) => this.onShown<string>(node, READ));
  }

  /** The texts of all elements of a selector as they are seen, read in one go. */
  async texts(css: string): Promise<readonly string[]> {
    const expression = `[...document.querySelectorAll(${JSON.stringify(css)})].map((e) => e.innerText.replaceAll('\u00a0', ' '))`;
    const { result } = await this.ask<{ result: { value: string[] } }>('Runtime.evaluate', {
      expression,
      returnByValue: true,
    });
    return result.value;
  }

  /** The text of the first element of a selector; empty where there is none. */
  async text(css: string): Promise<string> {
    return (await this.texts(css))[0] ?? '';
  }

  /** The element of a node, as the driver names it. */
  private async elementOf(backendNodeId: number): Promise<WebElement> {
    const { frameTree } = await this.ask<{ frameTree: { frame: { id: string; loaderId: string } } }>(
      'Page.getFrameTree',
      {},
    );
    const { id, loaderId } = frameTree.frame;
    return new WebElement(this.driver, `f.${id}.d.${loaderId}.e.${backendNodeId}`);
  }

  /** Runs a line in the page on the element of a node, `shown`; undefined where there is nothing of it to see. */
  private async onShown<T>(backendNodeId: number, line: string): Promise<T | undefined> {
    const { object } = await this.ask<{ object: { objectId: string } }>('DOM.resolveNode', { backendNodeId });
    // What one sees and clicks of a radio button or switch is its label.
    const functionDeclaration = `async function () {
      const shown = (this.matches?.('input[type=radio], input[type=checkbox]') ? this.closest('label') : null) ?? this;
      const { width, height } = shown.getBoundingClientRect?.() ?? {};
      if (!(width > 0 && height > 0) || !shown.checkVisibility({ opacityProperty: true, visibilityProperty: true })) return undefined;
      ${line}
    }`;
    const { result } = await this.ask<{ result: { value?: T } }>('Runtime.callFunctionOn', {
      objectId: object.objectId,
      functionDeclaration,
      returnByValue: true,
      awaitPromise: true,
    });
    return result.value;
  }

  private devtools: Devtools | undefined;
  private swallowed: unknown;

  private ask<T>(command: string, parameters: object): Promise<T> {
    if (!this.devtools) throw new Error('The browser is not started yet.');
    return this.devtools.ask<T>(command, parameters);
  }

  /**
   * Presses the pointer on the middle of an element, once it is in sight and nothing lies over it. Through the driver
   * that takes a tenth of a second each time, most of it waiting for a new page that does not come.
   */
  async click(role: string, name?: string | RegExp): Promise<void> {
    const at = await this.waitFor(role, name, (node) => this.onShown<{ x: number; y: number }>(node, PRESSABLE));
    const press = { button: 'left', clickCount: 1 };
    const events = [{ type: 'mouseMoved' }, { type: 'mousePressed', ...press }, { type: 'mouseReleased', ...press }];
    await Promise.all(events.map((event) => this.ask('Input.dispatchMouseEvent', { ...at, ...event })));
    // Nobody presses again before what the press led to is drawn. A page that was left for another answers nothing.
    await this.ask('Runtime.evaluate', { expression: DRAWN, awaitPromise: true }).catch(() => undefined);
  }

  /** What the computer says that its user wishes of pages, such as a dark one. */
  async media(wishes: Readonly<Record<string, string>>): Promise<void> {
    const features = Object.entries(wishes).map(([name, value]) => ({ name, value }));
    await this.ask('Emulation.setEmulatedMedia', { features });
  }

  /** Types where the keyboard is. */
  async type(...keys: string[]): Promise<void> {
    // One behind the other without waiting for each: the browser keeps their order.
    await Promise.all(keyEvents(keys).map((event) => this.ask('Input.dispatchKeyEvent', event)));
  }

  /** Takes hold of the slider within something, by a press on its thumb: what is pressed then is its. */
  async grip(label: string): Promise<void> {
    const input = await this.driver.findElement(By.css(`[aria-label="${label}"] input[type=range]`));
    // The input itself is seen by screen readers alone.
    const thumb = await input.findElement(By.xpath('./../..'));
    await this.driver.actions().move({ origin: thumb }).click().perform();
  }

  /** Sends keys to an element, which takes the keyboard first. */
  async press(role: string, name: string | RegExp | undefined, ...keys: string[]): Promise<void> {
    await this.waitFor(role, name, (node) => this.onShown<boolean>(node, TAKES_KEYS));
    await this.type(...keys);
  }

  /** Puts a text in place of what a field holds. */
  fill(role: string, name: string | RegExp, text: string): Promise<void> {
    return this.press(role, name, Key.chord(Key.CONTROL, 'a'), text);
  }

  /** Waits until a file whose name ends like this is downloaded whole; gives its path. */
  async downloaded(ending: string): Promise<string> {
    let path = '';
    let size = -1;
    await this.wait(async () => {
      const name = readdirSync(this.downloads).find((n) => n.endsWith(ending));
      if (name === undefined) return false;
      path = join(this.downloads, name);
      const before = size;
      // It is there before all of it is written.
      size = statSync(path).size;
      return size > 0 && size === before;
    }, `${ending} arrives`);
    return path;
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
        own = (await this.textNow(role, name)) ?? '';
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
