/** The application: guards, headers, routes, then the page itself. */
import { readFile } from 'node:fs/promises';
import type { ServerResponse } from 'node:http';
import { basename, dirname, join } from 'node:path';
import Koa from 'koa';
import helmet from 'koa-helmet';
import serve from 'koa-static';
import { failures } from './failures';
import { guard } from './guard';
import type { InFlight } from './inFlight';
import { Problem } from './problem';
import { routes, type RouteOptions } from './routes';
import { log } from './log';

export interface AppOptions extends RouteOptions {
  /** Folder of the built page. */
  page: string;
  inFlight: InFlight;
}

const GONE = new Set(['ERR_STREAM_PREMATURE_CLOSE', 'ECONNRESET', 'EPIPE', 'ECANCELED', 'HPE_INVALID_EOF_STATE']);

export function createApp(options: AppOptions): Koa {
  const app = new Koa();
  // Whoever asked went away before the answer was out: nobody is left to tell, and nothing is wrong here.
  app.on('error', (error: NodeJS.ErrnoException) => {
    if (!GONE.has(error.code ?? '')) log.error(error, 'An answer could not be sent');
  });
  app.use(options.inFlight.count());
  app.use(failures());
  app.use(guard());
  app.use(headers());
  const router = routes(options);
  app.use(router.routes()).use(
    router.allowedMethods({
      throw: true,
      methodNotAllowed: () => new Problem(405, 'no-method', 'That can’t be done at this address.'),
      notImplemented: () => new Problem(501, 'no-method', 'That can’t be done here.'),
    }),
  );
  app.use(serve(options.page, { maxage: 0, setHeaders: keepForever }));
  app.use(async (ctx, next) => {
    // Every other address is a place inside the page.
    if (ctx.method !== 'GET' || ctx.path.startsWith('/api/') || /\.\w+$/.test(ctx.path)) return next();
    ctx.type = 'text/html';
    ctx.body = await readFile(join(options.page, 'index.html'));
  });
  return app;
}

/** Files that are named by their content never change. */
function keepForever(response: ServerResponse, path: string): void {
  if (basename(dirname(path)) === 'assets') response.setHeader('Cache-Control', 'public, max-age=31536000, immutable');
}

/**
 * The scripts that make functions of text, each in a worker without a page: the packages that cut pictures and unwrap
 * meshes do so.
 */
const MAKERS = /^\/assets\/(grabCut|unwrap)\.worker-[\w-]+\.js$/;

/** Isolation, so that the page may share memory with its workers, and a policy that runs our own scripts alone. */
function headers(): Koa.Middleware {
  const strict = headersWith({ scripts: ["'wasm-unsafe-eval'"] });
  // Its compiled part comes inside it, as data.
  const loose = headersWith({ scripts: ["'wasm-unsafe-eval'", "'unsafe-eval'"], connect: ['data:'] });
  return (ctx, next) => (MAKERS.test(ctx.path) ? loose : strict)(ctx, next);
}

/** What is allowed besides our own. */
function headersWith({ scripts, connect = [] }: { scripts: string[]; connect?: string[] }): Koa.Middleware {
  return helmet({
    crossOriginEmbedderPolicy: { policy: 'require-corp' },
    crossOriginOpenerPolicy: { policy: 'same-origin' },
    strictTransportSecurity: false,
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", ...scripts],
        // Vue and Element Plus place elements by style attributes.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'blob:', 'data:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'", ...connect],
        workerSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        frameAncestors: ["'none'"],
        formAction: ["'none'"],
      },
    },
  });
}
