/** What is remembered for this tab where the browser refuses to: gone with the page. */
const here = new Map<string, string>();

/** Runs something with the browser's storage of this tab; undefined where it refuses, as it may by its settings. */
function tried<T>(run: (storage: Storage) => T): T | undefined {
  try {
    return run(sessionStorage);
  } catch {
    return undefined;
  }
}

/** What a tab remembers across being loaded anew, as far as the browser lets it. */
export const tabStore = {
  get: (key: string): string | null => tried((s) => s.getItem(key)) ?? here.get(key) ?? null,
  set: (key: string, text: string): void => {
    here.set(key, text);
    tried((s) => s.setItem(key, text));
  },
  remove: (key: string): void => {
    here.delete(key);
    tried((s) => s.removeItem(key));
  },
} as const;
