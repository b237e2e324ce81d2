import { readFileSync } from 'node:fs';
import { fontFilesOf, fontPath, type FontFile, type LoadedFont } from '../formats/pdf';
import type { Sheet } from '../sheets';

/** Font files as they are installed. */
export const installed = (files: readonly FontFile[]): readonly LoadedFont[] =>
  files.map((file) => ({ ...file, bytes: new Uint8Array(readFileSync(`node_modules/${fontPath(file)}`)) }));

/** The fonts that some sheets need. */
export const fontsOf = (sheets: readonly Sheet[], show = ''): readonly LoadedFont[] =>
  installed(fontFilesOf(sheets, show));
