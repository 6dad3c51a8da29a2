import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import compression from 'compression';
import cookieParser from 'cookie-parser';
import express, { type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import { Logger } from 'nestjs-pino';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { BUNDLE_BYTES, CAPTURE_LIMITS, PHOTO_LIMITS, TABLE_BYTES, TRACK_BYTES } from '@heathstep/contracts';
import { AppModule } from './app.module.js';
import type { Config } from './config.js';
import { Content } from './content/content.controller.js';
import type { Metrics } from './health/metrics.js';
import { ownAddress } from './http/ownAddress.js';
import { plainBodies } from './http/plainBodies.js';
import { sameOrigin } from './http/sameOrigin.js';
import { answersIn } from './http/speaking.js';
import { signedInFirst } from './http/signedInFirst.js';
import { Clock } from './clock.js';
import { Db } from './persistence/db.js';

const YEAR_SECONDS = 31_536_000;

const policy = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'none'"],
      scriptSrc: ["'self'"],
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      fontSrc: ["'self'"],
      // Devices speak from this machine, through the bridge that stands beside the browser.
      connectSrc: ["'self'", 'ws://127.0.0.1:*', 'ws://localhost:*'],
      workerSrc: ["'self'"],
      manifestSrc: ["'self'"],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
      baseUri: ["'none'"],
    },
  },
  referrerPolicy: { policy: 'no-referrer' },
  strictTransportSecurity: false,
});

/** The built web application: hashed files for a year, everything else is the one page, never cached. */
function serveWeb(app: NestExpressApplication, root: string): void {
  const page = join(root, 'index.html');
  if (!existsSync(page)) return;
  app.use(
    '/assets',
    express.static(join(root, 'assets'), {
      immutable: true,
      maxAge: YEAR_SECONDS * 1000,
      fallthrough: false,
    }),
  );
  app.use(express.static(root, { index: false }));
  app.use((request: Request, response: Response, next: NextFunction) => {
    const wantsPage = request.method === 'GET' && !/^\/(api|fhir)\//.test(request.path);
    if (!wantsPage) {
      next();
      return;
    }
    response.set('Cache-Control', 'no-cache').sendFile(page);
  });
}

/** The whole server, not yet listening. */
export async function createApp(
  config: Config,
  metrics: Metrics | null = null,
): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(config), {
    bufferLogs: true,
    bodyParser: false,
  });
  app.useLogger(app.get(Logger));
  app.disable('x-powered-by');
  // Only what stands in front of it on this machine is believed about who asks.
  if (config.publicUrl !== null) app.set('trust proxy', 'loopback');
  app.use(ownAddress(config.publicUrl));
  if (metrics !== null) app.use('/api', metrics.count);
  app.use(policy);
  app.use(compression());
  app.use(cookieParser());
  app.use('/api', answersIn(app.get(Content).bundle.languages));
  app.use('/api', sameOrigin(config.publicUrl));
  app.use('/api', signedInFirst(app.get(Db), app.get(Clock)));
  app.use('/api/visits/:id/photos', express.raw({ type: () => true, limit: PHOTO_LIMITS.bytes }));
  app.use('/api/episodes/:id/captures', express.raw({ type: () => true, limit: CAPTURE_LIMITS.bytes }));
  app.use('/api/people/:id/outings', express.raw({ type: () => true, limit: TRACK_BYTES }));
  app.use('/api/exchange/measurements', express.raw({ type: () => true, limit: TABLE_BYTES }));
  app.use('/api/exchange/people', express.raw({ type: () => true, limit: TABLE_BYTES }));
  app.use('/api/exchange/fhir', express.json({ limit: BUNDLE_BYTES }));
  app.use(express.json({ limit: '1mb' }));
  app.use('/api', plainBodies);
  app.use('/api', (_request: Request, response: Response, next: NextFunction) => {
    response.set('Cache-Control', 'no-store');
    next();
  });
  serveWeb(app, config.webRoot);
  app.enableShutdownHooks();
  return app;
}
