import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Plugin } from 'vite';

interface Package {
  readonly version?: string;
  readonly license?: string;
  readonly dev?: boolean;
}

const TEXT = /^(licen[cs]e|copying|notice)/i;

/** The licence texts of a package's folder; none where it has none. */
function textsIn(folder: string): readonly string[] {
  try {
    return readdirSync(folder)
      .filter((name) => TEXT.test(name))
      .map((name) => readFileSync(join(folder, name), 'utf8').trim());
  } catch {
    return [];
  }
}

/** The licences of all packages that are not for development alone, as the lock file lists them: name, version, text. */
export function licences(root: string): string {
  const lock = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8')) as {
    readonly packages: Readonly<Record<string, Package>>;
  };
  const parts = Object.entries(lock.packages)
    .filter(([path, { dev }]) => path !== '' && dev !== true)
    .map(([path, { version = '', license = 'not stated' }]) => {
      const name = path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length);
      return [`${name} ${version} (${license})`, ...textsIn(join(root, path))].join('\n\n');
    });
  return `Hollow Lantern is made with these packages.\n\n${parts.join(`\n\n${'-'.repeat(72)}\n\n`)}\n`;
}

/** Puts the licence texts of what is shipped beside the application. */
export const licenceTexts = (root: string): Plugin => ({
  name: 'licence-texts',
  apply: 'build',
  generateBundle() {
    this.emitFile({ type: 'asset', fileName: 'licences.txt', source: licences(root) });
  },
});
