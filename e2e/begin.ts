import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, inject } from 'vitest';
import { Browser, By, Key } from './browser';

/**
 * The browser of a test file, with an empty profile, and a folder for files that are given to it. The tests
 * of a file go on where the one before stopped, unless the file says otherwise; each failure leaves a picture.
 */
export function begin(keepsForOffline = false): { readonly b: Browser; readonly folder: string } {
  const b = new Browser(keepsForOffline);
  const folder = mkdtempSync(join(tmpdir(), 'lantern-files-'));
  beforeAll(() => b.start());
  afterEach(async ({ task }) => {
    if (task.result?.state === 'fail') await b.pictureOfFailure(`${task.name} (end)`);
  });
  afterAll(async () => {
    await b.close();
    rmSync(folder, { recursive: true, force: true });
  });
  return { b, folder };
}

/** All shows: the first view. */
export const openShelf = (b: Browser): Promise<void> => b.go(inject('address'));

/** The demo show as somebody opens it for the first time: its set. */
export async function openDemo(b: Browser): Promise<void> {
  await openShelf(b);
  await b.click('button', 'Open the demo show');
  await b.find('heading', 'The set');
}

/** The show as a whole: its title, who plays what, the way out as a file. */
export async function openShowFacts(b: Browser): Promise<void> {
  await b.click('link', 'Set');
  await b.find('grid', 'Running order');
  await b.click('link', 'Show');
  await b.find('textbox', 'Title of the show');
}

/** The chart of the demo show's first song. */
export async function openDemoChart(b: Browser): Promise<void> {
  await openDemo(b);
  await b.click('link', 'Chart');
  await b.find('group', 'Chart of Slack Tide in Seven');
}

/** The caret of the chart to a place, by its field. */
export async function goTo(b: Browser, place: string): Promise<void> {
  await b.fill('textbox', /^Bar\|beat/, `${place}${Key.ENTER}`);
  await b.type(Key.ESCAPE);
}

/** A tone, a move or a value to a place of the chart, by keyboard. */
export async function placeAt(b: Browser, place: string, name: string): Promise<void> {
  await b.fill('textbox', /^Bar\|beat/, `${place}${Key.ENTER}`);
  await b.type(name, Key.ENTER);
}

/** Gives a file to the file field, as choosing it in the dialog would. */
export async function chooseFile(b: Browser, path: string): Promise<void> {
  const field = By.css('input[type=file]');
  await b.wait(async () => (await b.driver.findElements(field)).length > 0, 'there is a field for files');
  await b.driver.findElement(field).sendKeys(path);
}

/** What a unit's lamp at the foot says. */
export const lampOf = (b: Browser, unit: string): Promise<string> =>
  b.text(`[aria-label="Units now"] [aria-label="${unit}"]`);

/** The bar that plays, at the foot. */
export const barNow = async (b: Browser): Promise<number> =>
  Number((await b.text('[aria-label="Position"]')).split('|')[0]);

/** Takes the stage's lock off: its key is held for a second. */
export async function unlock(b: Browser): Promise<void> {
  const lock = await b.find('button', 'Unlock, hold for a second');
  await b.driver.actions().move({ origin: lock }).press().pause(1300).release().perform();
}

/** Holds a button down for so long, in milliseconds. */
export async function hold(b: Browser, name: string | RegExp, millis: number): Promise<void> {
  const button = await b.find('button', name);
  await b.driver.actions().move({ origin: button }).press().pause(millis).release().perform();
}

/** The tab is closed without a word, and another is there, which `ready` is done in before the application is opened. */
export async function closeTab(
  b: Browser,
  ready: () => Promise<unknown> = () => Promise.resolve(),
  address = inject('address'),
): Promise<void> {
  const old = await b.driver.getWindowHandle();
  await b.newWindow();
  const fresh = await b.driver.getWindowHandle();
  await b.toWindow(old);
  await b.closeWindow();
  await b.toWindow(fresh);
  await ready();
  await b.go(address);
}

/** A new show, empty, with its map in sight. */
export async function newShow(b: Browser): Promise<void> {
  await openShelf(b);
  await b.click('button', 'New show');
  await b.find('heading', 'No songs yet');
  await b.click('link', 'Map');
}

/** A unit of the library, or one of the kind that is offered first, added in the map. */
export async function addUnit(b: Browser, name: string, kind?: RegExp): Promise<void> {
  await b.click('button', 'Add a unit');
  await b.fill('textbox', 'Name', name);
  if (kind) await b.pick(/Kind$/, kind);
  await b.click('button', 'Add the unit');
  await b.find('heading', name);
}

/** Names typed one below the other, from a slot on. */
export async function namePresets(b: Browser, first: string, ...names: readonly string[]): Promise<void> {
  await b.click('gridcell', first);
  await b.type(...names.flatMap((name) => [name, Key.ENTER]));
  await b.find('gridcell', new RegExp(`${names.at(-1)!}$`));
}

/** A song from nothing, with its chart in sight. */
export async function addSong(b: Browser, title: string, tempo = '120', bars = '32'): Promise<void> {
  await b.click('button', 'Add a song');
  await b.fill('textbox', 'Title', title);
  await b.fill('textbox', /^Tempo/, tempo);
  // An empty field is a song without an end.
  await b.fill('textbox', /^Bars/, bars || Key.DELETE);
  await b.click('button', 'Add the song');
  await b.find('group', `Chart of ${title}`);
}

/** Taps the beat of a recording that plays: a tap before its first sound is heard counts for nothing. */
export const tapUntilHeard = (b: Browser): Promise<void> =>
  b.wait(async () => {
    await b.click('button', 'Tap the beat');
    return (await b.texts('[aria-label="Taps"]')).length > 0;
  }, 'a tap counts');

/** Moves the pedal that has the keyboard up and down until a sweep is recorded: that ends by itself. */
export async function movePedal(b: Browser): Promise<void> {
  let moves = 0;
  const recorded = async (): Promise<boolean> => {
    await b.type(moves++ % 16 < 8 ? Key.ARROW_RIGHT : Key.ARROW_LEFT);
    return (await b.texts('[aria-label="Recording"]')).length > 0;
  };
  await b.wait(recorded, 'the sweep is recorded', 30_000);
}
