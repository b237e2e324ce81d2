import { useCallback, useState, useSyncExternalStore } from 'react';
import { flushSync } from 'react-dom';

/** What is so near to what is in sight is drawn already, in pixels. */
const AHEAD = '500px 0px';

/** The element that something is scrolled in; null where that is the window. */
function scrollerOf(element: Element): Element | null {
  for (let up = element.parentElement; up; up = up.parentElement) {
    const { overflowY } = getComputedStyle(up);
    if (overflowY === 'auto' || overflowY === 'scroll') return up;
  }
  return null;
}

type Told = (near: boolean, height: number) => void;

const observers = new Map<
  Element | null,
  { readonly observer: IntersectionObserver; readonly told: Map<Element, Told> }
>();

/** Has an element watched for coming near to what is in sight of its scroller. Gives what ends that. */
function watch(element: Element, tell: Told): () => void {
  const root = scrollerOf(element);
  let watched = observers.get(root);
  if (!watched) {
    const told = new Map<Element, Told>();
    const observer = new IntersectionObserver(
      (entries) => {
        for (const e of entries) told.get(e.target)?.(e.isIntersecting, e.boundingClientRect.height);
      },
      { root, rootMargin: AHEAD },
    );
    watched = { observer, told };
    observers.set(root, watched);
  }
  const { observer, told } = watched;
  told.set(element, tell);
  observer.observe(element);
  return () => {
    observer.unobserve(element);
    told.delete(element);
    if (told.size > 0) return;
    observer.disconnect();
    observers.delete(root);
  };
}

/** Whether the page is being printed: then everything is drawn. */
const printing = {
  now: false,
  subscribe: (changed: () => void): (() => void) => {
    const set = (now: boolean) => (): void => {
      printing.now = now;
      // The browser takes the page as it is when the event is over.
      flushSync(changed);
    };
    const [before, after] = [set(true), set(false)];
    window.addEventListener('beforeprint', before);
    window.addEventListener('afterprint', after);
    return () => {
      window.removeEventListener('beforeprint', before);
      window.removeEventListener('afterprint', after);
    };
  },
};

const usePrinting = (): boolean => useSyncExternalStore(printing.subscribe, () => printing.now);

interface Nearness {
  /** The element has to be given this. */
  readonly ref: (element: Element | null) => (() => void) | undefined;
  /** It is in sight, or nearly, or printed. */
  readonly near: boolean;
  /** How high it was when it went out of sight, in pixels; null where it was not drawn yet. */
  readonly height: number | null;
}

/** Whether an element is in sight or nearly. While the page is printed everything is. */
export function useNear(): Nearness {
  const [{ near, height }, set] = useState<Omit<Nearness, 'ref'>>({ near: false, height: null });
  const prints = usePrinting();
  const ref = useCallback((element: Element | null) => {
    if (!element) return undefined;
    return watch(element, (now, high) => {
      // What has the keyboard stays, or the keyboard would be lost.
      const stays = now || element.contains(document.activeElement);
      set((was) => (stays ? { ...was, near: was.near || now } : { near: false, height: was.near ? high : was.height }));
    });
  }, []);
  return { ref, near: near || prints, height };
}
