import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type ErrorRequestHandler, type Express } from 'express';
import helmet from 'helmet';
import { cacheOf, compressed } from './compressed';

/** What an error looks like on the wire: a code for programs, a sentence for people. */
export interface ApiError {
  readonly error: { readonly code: string; readonly sentence: string };
}

const apiError = (code: string, sentence: string): ApiError => ({ error: { code, sentence } });

/** Names under which the server answers: its own. A page elsewhere cannot reach it by a name of its making. */
export const OWN_HOSTS = ['localhost', '127.0.0.1', '[::1]'];

/** Serves the built application from `dist`. */
export function createApp(dist: string, hosts: readonly string[] = OWN_HOSTS): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use((request, response, next) => {
    const host = (request.headers.host ?? '').replace(/:\d+$/, '');
    if (hosts.includes(host)) next();
    else
      response.status(421).json(apiError('host', `This server does not answer to the name "${host.slice(0, 100)}".`));
  });
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          'default-src': ["'self'"],
          // The voice is a program of its own, in WebAssembly.
          'script-src': ["'self'", "'wasm-unsafe-eval'"],
          'worker-src': ["'self'"],
          // Styles are put in by the application itself, each with its own text.
          'style-src': ["'self'", "'unsafe-inline'"],
          'font-src': ["'self'"],
          // A sound file is asked how long it plays before it is decoded.
          'media-src': ["'self'", 'blob:'],
          'img-src': ["'self'", 'data:'],
          'connect-src': ["'self'"],
          'object-src': ["'none'"],
          'base-uri': ["'none'"],
          'form-action': ["'none'"],
          'frame-ancestors': ["'none'"],
        },
      },
    }),
  );

  const isView = (path: string): boolean => !/\.\w+$/.test(path);
  app.use(compressed(dist, (path) => (isView(path) ? '/index.html' : path)));
  app.use(
    express.static(dist, {
      index: false,
      cacheControl: false,
      setHeaders: (response) => void response.set('Cache-Control', cacheOf(response.req.path)),
    }),
  );
  app.get('/{*path}', (request, response, next) => {
    const page = join(dist, 'index.html');
    // A missing file is not found; any other address is a view of the application.
    if (!isView(request.path) || !existsSync(page)) next();
    // By its root: what lies above may have a folder whose name begins with a dot.
    else response.set('Cache-Control', cacheOf('/')).sendFile('index.html', { root: dist, cacheControl: false });
  });
  app.use((request, response) => {
    response.status(404).json(apiError('not-found', `There is nothing at ${request.path}.`));
  });

  const onError: ErrorRequestHandler = (error: { status?: number }, request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const status = error.status !== undefined && error.status >= 400 && error.status < 500 ? error.status : 500;
    const sentence =
      status === 500
        ? 'The server could not answer; the fault is its own.'
        : `The request for ${request.path.slice(0, 200)} is malformed.`;
    response.status(status).json(apiError(status === 500 ? 'server' : 'bad-request', sentence));
  };
  app.use(onError);
  return app;
}
