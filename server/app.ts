import type { ServerResponse } from 'node:http';
import express, { type ErrorRequestHandler, type Express } from 'express';
import helmet from 'helmet';
import sirv from 'sirv';

/** What an error looks like on the wire: a code for programs, a sentence for people. */
export interface ApiError {
  readonly error: { readonly code: string; readonly sentence: string };
}

const apiError = (code: string, sentence: string): ApiError => ({ error: { code, sentence } });

/** Names under which the server answers: its own. A page elsewhere cannot reach it by a name of its making. */
export const OWN_HOSTS = ['localhost', '127.0.0.1', '[::1]'];

/** Files with a hash in their name never change; the page that names them is asked for anew each time. */
const cache = (response: ServerResponse, path: string): void => {
  const forGood = path.startsWith('/assets/');
  response.setHeader('Cache-Control', forGood ? 'public, max-age=31536000, immutable' : 'no-cache');
  response.setHeader('Vary', 'Accept-Encoding');
};

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

  // Looks at the folder anew each time: a newer build may have taken its place. A missing file is not found; any
  // other address is a view of the application. The compressed copies that the build made go to whoever takes them.
  const files = sirv(dist, { dev: true, brotli: true, gzip: true, single: true, setHeaders: cache });
  app.get('/{*path}', files);
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
