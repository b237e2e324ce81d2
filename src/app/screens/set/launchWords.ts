import { fromHex } from '../../../core/midi';
import { messageWords } from '../../../wording';

/** What a launch waits for, in words; a note and a control by what tells them apart. */
export const launchWords = (bytes: string): string =>
  messageWords([...fromHex(bytes)!, ...(bytes.startsWith('9') ? [100] : [])]);
