import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'vite';

/** Makes one file of a bench's worker, as the application's workers are made: what is measured is what ships. */
export async function bundle(entry: string): Promise<string> {
  const outDir = mkdtempSync(join(tmpdir(), 'lantern-bench-'));
  await build({
    root: fileURLToPath(new URL('..', import.meta.url)),
    configFile: false,
    logLevel: 'error',
    ssr: { noExternal: true },
    build: {
      ssr: fileURLToPath(new URL(entry, import.meta.url)),
      outDir,
      target: 'node20',
      minify: false,
      copyPublicDir: false,
    },
  });
  writeFileSync(join(outDir, 'package.json'), '{ "type": "module" }');
  return join(outDir, basename(entry).replace(/\.ts$/, '.js'));
}
