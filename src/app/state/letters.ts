import { fontLetters } from '../adapters/letters';
import { askLetters } from './asks';
import { useApp } from './store';
import { strangeLetters, toldLetters } from './strangeLetters';

/** So long after a change letters are looked for: not at each stroke of a key. */
const AFTER_MILLIS = 300;

/** Fonts that the page has, by their names. */
const there = new Set<string>();

/** Has fonts for everything that some data says, in whatever script; they are fetched where they are wanted first. */
export async function showLetters(data: unknown): Promise<void> {
  const fresh = strangeLetters(data);
  if (fresh.length === 0) return;
  try {
    for (const font of await askLetters(toldLetters(fresh), [...there])) {
      there.add(font.name);
      await fontLetters(font);
    }
  } catch {
    // Without its fonts a text is shown in those of the computer, and asked for again with the next letter.
  }
}

/** From now on the open show's letters are there. */
function followLetters(): void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  useApp.subscribe(({ open }, { open: before }) => {
    if (!open || open.show === before?.show) return;
    clearTimeout(timer);
    timer = setTimeout(() => void showLetters(useApp.getState().open?.show), AFTER_MILLIS);
  });
}
followLetters();
