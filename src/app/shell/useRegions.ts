import { useEffect } from 'react';
import { tinykeys } from 'tinykeys';

/** The regions of a page that F6 goes through, in their order, each with what takes the keyboard there. */
const REGIONS: readonly (readonly [region: string, first: string])[] = [
  ['main', 'main'],
  ['footer', 'footer button'],
  ['nav[aria-label="Views"]', 'nav[aria-label="Views"] a[aria-current="page"]'],
  ['header', 'header a'],
];

/** F6 goes from region to region, as systems do, and with Shift back: whatever a view holds, each is a few presses away. */
export function useRegions(): void {
  useEffect(() => {
    const go = (by: 1 | -1) => (event: KeyboardEvent) => {
      const there = REGIONS.filter(([region]) => document.querySelector(region));
      const now = there.findIndex(([region]) => document.querySelector(region)?.contains(document.activeElement));
      // Somewhere else, such as in a dialog that lies above everything, it goes nowhere.
      if (now < 0 && document.activeElement !== document.body) return;
      event.preventDefault();
      const [, first] = there.at((Math.max(now, by > 0 ? -1 : 0) + by) % there.length) ?? [];
      if (first !== undefined) document.querySelector<HTMLElement>(first)?.focus();
    };
    return tinykeys(window, { F6: go(1), 'Shift+F6': go(-1) });
  }, []);
}
