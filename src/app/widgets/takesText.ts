/** Whether keys that are pressed on something write there. A checkbox, a slider and the like take keys, and no text. */
export const takesText = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.closest(
    'textarea, select, [contenteditable], input:not([type=checkbox], [type=radio], [type=range], [type=file], [type=button])',
  ) !== null;
