import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('..', import.meta.url));
const text = (path: string): string => readFileSync(join(root, path), 'utf8');

/** Needs that came later, as far as they are answered. */
const LATER = 'F12 F13 M16 S13 S14 S15 S16 S17 S18 T18 T19 T20 T21 T22 T23 X8 X9'.split(' ');

/** The needs that there were first, by letter. */
const NEEDS: Readonly<Record<string, number>> = { W: 5, M: 15, T: 17, D: 6, F: 11, S: 12, X: 7, R: 8 };

describe('the page of what it does', () => {
  const rows = text('docs/coverage.md')
    .split('\n')
    .flatMap((line) => {
      const cells = line.split('|').map((c) => c.trim());
      return /^[WMTDFSXR]\d+$/.test(cells[1] ?? '') ? [{ id: cells[1]!, shown: cells[4] ?? '' }] : [];
    });

  it('has every need once', () => {
    const wanted = Object.entries(NEEDS).flatMap(([letter, n]) =>
      Array.from({ length: n }, (_, i) => `${letter}${i + 1}`),
    );
    expect(rows.map((r) => r.id).sort()).toEqual([...wanted, ...LATER].sort());
  });

  it.each(rows)('names tests for $id that there are', ({ shown }) => {
    const named = shown.split('<br>').map((t) => /^`([^`]+)`: (.+)$/.exec(t));
    expect(named.length).toBeGreaterThan(0);
    for (const found of named) {
      const [, file, name] = found!;
      expect(text(file!)).toContain(name!);
    }
  });
});

describe('links of the docs', () => {
  it.each([
    'README.md',
    'CONTRIBUTING.md',
    'CHANGELOG.md',
    'docs/architecture.md',
    'docs/show-file.md',
    'docs/dump-form.md',
    'docs/glossary.md',
    'docs/adding.md',
  ])('of %s lead somewhere', (path) => {
    for (const [, to] of text(path).matchAll(/\]\(([^)#:\s]+)(?:#[^)]*)?\)/g)) {
      expect(existsSync(join(root, dirname(path), to!)), to).toBe(true);
    }
  });
});
