import { fontPath, type FontFile, type LoadedFont } from '../core/formats/pdf';

/** Where each font file is fetched from; the files are the application's own. */
const addresses: Readonly<Record<string, string>> = {
  ...import.meta.glob<string>('/node_modules/@fontsource/ibm-plex-sans/files/*-{400,700}-normal.woff', {
    query: '?url',
    import: 'default',
    eager: true,
  }),
  ...import.meta.glob<string>('/node_modules/@fontsource/ibm-plex-sans-{jp,kr}/files/*-[0-9]*-{400,700}-normal.woff', {
    query: '?url',
    import: 'default',
    eager: true,
  }),
  ...import.meta.glob<string>(
    '/node_modules/@fontsource/ibm-plex-sans-{arabic,hebrew,devanagari}/files/*-{arabic,hebrew,devanagari}-{400,700}-normal.woff',
    { query: '?url', import: 'default', eager: true },
  ),
  ...import.meta.glob<string>('/node_modules/@fontsource/noto-sans/files/noto-sans-greek-ext-{400,700}-normal.woff', {
    query: '?url',
    import: 'default',
    eager: true,
  }),
  ...import.meta.glob<string>(
    '/node_modules/@fontsource/noto-sans-sc/files/*-chinese-simplified-{400,700}-normal.woff',
    {
      query: '?url',
      import: 'default',
      eager: true,
    },
  ),
  ...import.meta.glob<string>(
    '/node_modules/@fontsource/noto-{sans-symbols,sans-symbols-2,sans-math,music}/files/*-{400,700}-normal.woff',
    {
      query: '?url',
      import: 'default',
      eager: true,
    },
  ),
};

/** Files that were fetched: a show is printed more than once. */
const fetched = new Map<string, Promise<Uint8Array>>();

/** Font files with what is in them. Throws where one cannot be fetched. */
export const loadFonts = (files: readonly FontFile[]): Promise<readonly LoadedFont[]> =>
  Promise.all(
    files.map(async (file) => {
      const path = `/node_modules/${fontPath(file)}`;
      let bytes = fetched.get(path);
      if (!bytes) {
        bytes = fetchFont(addresses[path]);
        fetched.set(path, bytes);
        bytes.catch(() => fetched.delete(path));
      }
      return { ...file, bytes: await bytes };
    }),
  );

async function fetchFont(address: string | undefined): Promise<Uint8Array> {
  if (address === undefined) throw new Error('a font is missing');
  const answer = await fetch(address).catch(() => undefined);
  if (!answer?.ok) throw new Error('its fonts could not be fetched');
  return new Uint8Array(await answer.arrayBuffer());
}
