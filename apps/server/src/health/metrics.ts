import { createServer, type Server } from 'node:http';
import type { NextFunction, Request, Response } from 'express';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';

/** Bounds of the time of an answer, in seconds. [convention] */
const BUCKETS = [0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10];

/** How the server is, in the open text format: by route and status, never by who or whom. */
export class Metrics {
  private readonly registry = new Registry();
  private readonly answers = new Histogram({
    name: 'heathstep_answer_seconds',
    help: 'Time of answers by method, route and status',
    labelNames: ['method', 'route', 'status'],
    buckets: BUCKETS,
    registers: [this.registry],
  });

  constructor(databaseIsThere: () => Promise<boolean>) {
    collectDefaultMetrics({ register: this.registry });
    new Gauge({
      name: 'heathstep_database_up',
      help: '1 when the database answers',
      registers: [this.registry],
      async collect() {
        this.set((await databaseIsThere()) ? 1 : 0);
      },
    });
  }

  /** Counts every answer under the pattern of its route; what is no route of ours counts together. */
  readonly count = (request: Request, response: Response, next: NextFunction): void => {
    const end = this.answers.startTimer();
    response.once('finish', () => {
      const route: unknown = (request.route as { path?: unknown } | undefined)?.path;
      end({
        method: request.method,
        route: typeof route === 'string' && route.startsWith('/') ? route : 'other',
        status: response.statusCode,
      });
    });
    next();
  };

  /** Tells them on a port of its own on loopback, which no proxy passes on. */
  async listen(port: number): Promise<Server> {
    const server = createServer((request, response) => {
      if (request.method !== 'GET' || request.url !== '/metrics') {
        response.writeHead(404).end();
        return;
      }
      void this.registry.metrics().then(
        (text) => response.writeHead(200, { 'Content-Type': this.registry.contentType }).end(text),
        () => response.writeHead(500).end(),
      );
    });
    await new Promise<void>((resolve, reject) => {
      server.once('error', reject).listen(port, '127.0.0.1', resolve);
    });
    return server;
  }
}
