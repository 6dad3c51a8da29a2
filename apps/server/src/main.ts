import 'reflect-metadata';
import { createApp } from './app.js';
import { Sealing } from './audit/sealing.js';
import { readConfig } from './config.js';

// What cannot be said, on a full disk say, is no reason to stop.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);
const config = readConfig();
const app = await createApp(config);
await app.listen(config.port, '127.0.0.1');
app.get(Sealing).begin();
process.send?.('ready');
// Whoever started it is gone, perhaps killed: leave the port to the next start.
process.on('disconnect', () => void app.close().finally(() => process.exit(0)));
