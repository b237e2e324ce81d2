import { By, type Browser } from './browser';

const VIEWS = 'nav[aria-label="Views"] a';
/** The ways to a view's parts, or to its units. */
const PARTS = 'main nav a';

const links = (b: Browser, css: string): Promise<readonly string[]> =>
  b.driver.executeScript(
    `return [...document.querySelectorAll(arguments[0])].map((a) => a.innerText.trim().replaceAll('\\n', ' '))`,
    css,
  );

async function follow(b: Browser, css: string, place: number): Promise<void> {
  const all = await b.driver.findElements(By.css(css));
  await all[place]!.click();
}

/** Opens every view of the open show but the stage, and each part of it, one after the other as somebody would. */
export async function everyView(b: Browser, visited: (name: string) => Promise<void>): Promise<void> {
  for (const [v, view] of (await links(b, VIEWS)).entries()) {
    if (view === 'Stage') continue;
    const open = async (): Promise<void> => {
      await follow(b, VIEWS, v);
      await b.wait(async () => (await b.driver.getTitle()).startsWith(`${view} · `), `${view} is there`);
    };
    await open();
    await visited(view);
    const parts = await links(b, PARTS);
    for (const [p, part] of parts.entries()) {
      if (p === 0) continue;
      // A part may be a view of its own, with other ways.
      if ((await links(b, PARTS))[p] !== part) {
        await open();
        await b.wait(async () => (await links(b, PARTS))[p] === part, `${view} has its ways again`);
      }
      await follow(b, PARTS, p);
      await b.wait(async () => (await links(b, `${PARTS}[aria-current=page]`)).includes(part), `${part} is there`);
      await visited(`${view}: ${part}`);
    }
  }
}
