/**
 * Gives the keyboard to what the view is about: its sheet, chart or floor, where one works by keys; the view as a whole
 * where it has none such.
 */
export function goHome(): void {
  const sheet = document.querySelector<HTMLElement>('[data-home]');
  const stop = sheet?.matches('[tabindex="0"]') ? sheet : sheet?.querySelector<HTMLElement>('[tabindex="0"]');
  (stop ?? document.getElementById('view'))?.focus();
}
