import { useEffect } from 'react';

const FOCUSABLE =
  'button:not([disabled]), a[href], input:not([disabled]), select:not([disabled]), textarea:not([disabled]), [tabindex="0"]';

/**
 * Keeps the keyboard where one was: when what had the focus is taken away or switched off by
 * what one did, the nearest thing in the same part of the page gets it, instead of the page.
 */
export function useFocusKeeper(): void {
  useEffect(() => {
    let way: readonly Element[] = [];
    const note = ({ target }: FocusEvent): void => {
      const found: Element[] = [];
      for (let at = target instanceof Element ? target : null; at; at = at.parentElement) found.push(at);
      way = found;
    };
    const mend = (): void => {
      const [last] = way;
      const { activeElement } = document;
      const lost = activeElement === null || activeElement === document.body || activeElement.matches(':disabled');
      if (!last || !lost || (last.isConnected && last.matches(FOCUSABLE))) return;
      for (const around of way.slice(1)) {
        if (!around.isConnected || around === document.body) continue;
        // Beyond the view there is nothing near: the view as a whole, not the first thing on the page.
        const next = around.querySelector<HTMLElement>('#view') ?? around.querySelector<HTMLElement>(FOCUSABLE);
        if (!next) continue;
        next.focus();
        return;
      }
    };
    // Twice: an edit is on screen in the next frame, a dialog gone in one after it.
    const soon = (): void => void requestAnimationFrame(() => requestAnimationFrame(mend));
    document.addEventListener('focusin', note);
    document.addEventListener('keyup', soon);
    document.addEventListener('click', soon);
    return () => {
      document.removeEventListener('focusin', note);
      document.removeEventListener('keyup', soon);
      document.removeEventListener('click', soon);
    };
  }, []);
}
