import { useEffect } from 'react';
import { goHome } from '../widgets/home';
import { takesText } from '../widgets/takesText';

/** Something that Escape closes by itself: a list under a field, or a dialog around it. */
const closes = (field: Element): boolean =>
  field.getAttribute('aria-expanded') === 'true' || field.closest('[role="dialog"], [role="alertdialog"]') !== null;

/** Escape leaves a field for what the view is about, so that its keys work again. */
export function useEscape(): void {
  useEffect(() => {
    let leaves: EventTarget | null = null;
    // Asked before anything else hears of it: what the key closes is closed by then.
    const ask = ({ key, target, isComposing }: KeyboardEvent): void => {
      const field = key === 'Escape' && !isComposing && takesText(target) ? (target as Element) : null;
      leaves = field && !closes(field) ? field : null;
    };
    const leave = ({ target, defaultPrevented }: KeyboardEvent): void => {
      if (leaves !== null && leaves === target && !defaultPrevented) goHome();
      leaves = null;
    };
    window.addEventListener('keydown', ask, true);
    window.addEventListener('keydown', leave);
    return () => {
      window.removeEventListener('keydown', ask, true);
      window.removeEventListener('keydown', leave);
    };
  }, []);
}
