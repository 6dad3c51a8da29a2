import 'reflect-metadata';
import { createApp } from './app.js';
import { Sealing } from './audit/sealing.js';
import { readConfig } from './config.js';
import { Metrics } from './health/metrics.js';
import { Db } from './persistence/db.js';

// What cannot be said, on a full disk say, is no reason to stop.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);
const config = readConfig();
let isThere: () => Promise<boolean> = () => Promise.resolve(false);
const metrics = config.metricsPort === null ? null : new Metrics(() => isThere());
const app = await createApp(config, metrics);
isThere = () => app.get(Db).ping();
await metrics?.listen(config.metricsPort ?? 0);
await app.listen(config.port, '127.0.0.1');
app.get(Sealing).begin();
process.send?.('ready');
/** What is under way when it ends has so long; then a browser that goes on asking is told by a closed line. [convention] */
const GRACE_MS = 500;
const letGo = (): void => {
  setTimeout(() => app.getHttpServer().closeAllConnections(), GRACE_MS).unref();
};
process.on('SIGTERM', letGo);
// Whoever started it is gone, perhaps killed: leave the port to the next start.
process.on('disconnect', () => {
  letGo();
  void app.close().finally(() => process.exit(0));
});
