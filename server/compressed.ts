import { existsSync } from 'node:fs';
import { extname, join, normalize } from 'node:path';
import type { RequestHandler } from 'express';

const KINDS: Readonly<Record<string, string>> = {
  '.js': 'text/javascript; charset=utf-8',
  '.css': 'text/css; charset=utf-8',
  '.html': 'text/html; charset=utf-8',
  '.svg': 'image/svg+xml',
  '.json': 'application/json',
};

/** The smaller first. */
const CODINGS = [
  ['br', '.br'],
  ['gzip', '.gz'],
] as const;

/** Sends the compressed copy that the build made of a file, where the browser takes one (RFC 9110, 12.5.3). */
export function compressed(dist: string, pageOf: (path: string) => string): RequestHandler {
  return (request, response, next) => {
    const kind = KINDS[extname(pageOf(request.path))];
    if ((request.method !== 'GET' && request.method !== 'HEAD') || kind === undefined) {
      next();
      return;
    }
    // Absolute, so that nothing leads out of the folder.
    const path = normalize(join('/', pageOf(request.path)));
    const found = CODINGS.find(
      ([coding, ending]) => request.acceptsEncodings(coding) === coding && existsSync(join(dist, path + ending)),
    );
    response.vary('Accept-Encoding');
    if (!found) {
      next();
      return;
    }
    response.set({ 'Content-Encoding': found[0], 'Content-Type': kind, 'Cache-Control': cacheOf(request.path) });
    response.sendFile(path + found[1], { root: dist, cacheControl: false });
  };
}

/** Files with a hash in their name never change; the page that names them is asked for anew each time. */
export const cacheOf = (path: string): string =>
  path.startsWith('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache';
