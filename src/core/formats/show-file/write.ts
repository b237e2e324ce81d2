import type { Show } from '../../show';

/** The show as the text of a file: JSON, indented, with a line end at the end. */
export const writeShowFile = (show: Show): string => `${JSON.stringify(show, null, 1)}\n`;
