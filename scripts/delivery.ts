import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import type { Plugin } from 'vite';

/** Smaller files are not worth a second one. */
const LEAST = 1024;
const TEXTS = /\.(js|css|html|svg|json)$/;

/** Fonts that the first view is set in: fetched at once, not when the first text is laid out. */
const FIRST_FONTS = /(bricolage-grotesque|ibm-plex-sans)-latin-wght-normal.*\.woff2$/;

/** Has the page ask for its fonts at once, and puts a compressed copy beside every file of text. */
export const delivery = (): Plugin => ({
  name: 'delivery',
  apply: 'build',
  transformIndexHtml: {
    order: 'post',
    handler: (_, { bundle }) =>
      Object.keys(bundle ?? {})
        .filter((name) => FIRST_FONTS.test(name))
        .map((name) => ({
          tag: 'link',
          attrs: { rel: 'preload', as: 'font', type: 'font/woff2', href: `/${name}`, crossorigin: true },
          injectTo: 'head' as const,
        })),
  },
  writeBundle: ({ dir }) => {
    for (const name of readdirSync(dir!, { recursive: true, encoding: 'utf8' })) {
      if (!TEXTS.test(name)) continue;
      const path = join(dir!, name);
      const bytes = readFileSync(path);
      if (bytes.length < LEAST) continue;
      const params = { [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length };
      writeFileSync(`${path}.br`, brotliCompressSync(bytes, { params }));
      writeFileSync(`${path}.gz`, gzipSync(bytes, { level: 9 }));
    }
  },
});
