/** A button in sight, and what it is called. */
export interface SeenButton {
  readonly name: string;
  readonly element: HTMLElement;
}

const nameOf = (element: HTMLElement): string =>
  (element.getAttribute('aria-label') ?? element.textContent).replace(/\s+/g, ' ').trim();

/** The buttons of the view that can be pressed now, each name once. */
export function buttonsInSight(): readonly SeenButton[] {
  const found = new Map<string, SeenButton>();
  for (const element of document.querySelectorAll<HTMLElement>('main button:not([disabled])')) {
    // The face of a list that opens is named by its label, and is no action.
    if (element.getAttribute('aria-haspopup') === 'listbox' || element.closest('[inert], [aria-hidden=true]')) continue;
    if (element.getClientRects().length === 0) continue;
    const name = nameOf(element);
    if (name !== '' && !found.has(name)) found.set(name, { name, element });
  }
  return [...found.values()];
}

/** A view, and what it makes before it can be printed, has so many milliseconds to come. */
const PATIENCE = 8000;

/**
 * Presses a button of the view by its name, once it is there; `refused` is called where it does not come, or cannot be
 * pressed. Whoever presses something else meanwhile has gone on: then it is neither pressed nor refused.
 */
export function pressByName(name: string, refused: () => void): void {
  const tried = (): boolean => {
    const button = buttonsInSight().find((b) => b.name === name);
    if (!button) return false;
    button.element.focus();
    button.element.click();
    return true;
  };
  if (tried()) return;
  const goneOn = new AbortController();
  const end = (): void => {
    clearTimeout(patience);
    watch.disconnect();
    goneOn.abort();
  };
  const patience = setTimeout(() => {
    end();
    refused();
  }, PATIENCE);
  const watch = new MutationObserver(() => {
    if (tried()) end();
  });
  for (const pressed of ['keydown', 'pointerdown']) {
    window.addEventListener(pressed, end, { capture: true, signal: goneOn.signal });
  }
  watch.observe(document.body, { subtree: true, childList: true, attributes: true, attributeFilter: ['disabled'] });
}
