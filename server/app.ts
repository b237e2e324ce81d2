import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type ErrorRequestHandler, type Express } from 'express';
import helmet from 'helmet';
import { demoShow, faultyDemo } from '../src/core/demo';
import { readShowData } from '../src/core/formats/show-file';
import type { Show } from '../src/core/show';
import { LIBRARY, librarySchema } from '../src/core/library';

/** What an error looks like on the wire: a code for programs, a sentence for people. */
export interface ApiError {
  readonly error: { readonly code: string; readonly sentence: string };
}

const apiError = (code: string, sentence: string): ApiError => ({ error: { code, sentence } });

/** Serves the built application from `dist`, the demo show and the unit library. */
export function createApp(dist: string): Express {
  // What goes out is checked like what comes in: a fault here is a fault of the build.
  const checked = (show: Show): Show => {
    const { value, problems } = readShowData(show);
    if (!value) throw new Error(`${show.title} is not valid: ${JSON.stringify(problems)}`);
    return value;
  };
  const shows: Readonly<Record<string, Show>> = {
    '/api/demo': checked(demoShow()),
    '/api/demo/faults': checked(faultyDemo()),
  };
  const library = librarySchema.parse(LIBRARY);

  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          'default-src': ["'self'"],
          'script-src': ["'self'"],
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

  for (const [path, show] of Object.entries(shows)) {
    app.get(path, (_, response) => {
      response.json(show);
    });
  }
  app.get('/api/library', (_, response) => {
    response.json(library);
  });
  app.all('/api/{*path}', (request, response) => {
    const known = request.path in shows || request.path === '/api/library';
    if (known) {
      response.set('Allow', 'GET').status(405);
      response.json(apiError('method', `${request.path} is only there to be read (GET), not for ${request.method}.`));
    } else {
      response.status(404).json(apiError('not-found', `There is nothing at ${request.path}.`));
    }
  });

  app.use(express.static(dist, { index: 'index.html', maxAge: '1h' }));
  app.get('/{*path}', (request, response, next) => {
    const page = join(dist, 'index.html');
    // A missing file is not found; any other address is a view of the application.
    if (/\.\w+$/.test(request.path) || !existsSync(page)) next();
    else response.set('Cache-Control', 'no-cache').sendFile(page);
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
