import type { Audio } from '../../show';

/** The show's own entry in a bundle. */
export const SHOW_ENTRY = 'show.json';
const FOLDER = 'sounds/';

/** Endings for the kinds of sound that browsers decode. */
const ENDINGS: Readonly<Record<string, string>> = {
  'audio/wav': 'wav',
  'audio/x-wav': 'wav',
  'audio/wave': 'wav',
  'audio/mpeg': 'mp3',
  'audio/mp3': 'mp3',
  'audio/ogg': 'ogg',
  'audio/flac': 'flac',
  'audio/x-flac': 'flac',
  'audio/webm': 'webm',
};

/** The name of a sound's entry: its id, with nothing in it that a path could be made of. */
export const soundEntry = ({ id, type }: Audio): string =>
  `${FOLDER}${encodeURIComponent(id).replaceAll('.', '%2E')}.${ENDINGS[type.split(';')[0]!.trim()] ?? 'bin'}`;

/** A name that leads out of the folder that it is unpacked to, or to no file. */
export const leadsOut = (name: string): boolean =>
  name.startsWith('/') ||
  name.includes('\\') ||
  /^[a-z]:/i.test(name) ||
  name.split('/').includes('..') ||
  name.includes('\0');
