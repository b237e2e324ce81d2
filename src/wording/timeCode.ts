import { codeText, type CodeRate } from '../core/clock';

/** How a place in time code is written, for one that cannot be read. */
export const codeExample = (rate: CodeRate): string =>
  `Expected hours, minutes, seconds and frames, as in ${codeText({ hours: 1, minutes: 2, seconds: 3, frames: 4 }, rate)}, each there at ${rate} frames a second.`;
