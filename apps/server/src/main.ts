import 'reflect-metadata';
import { createApp } from './app.js';
import { readConfig } from './config.js';

const config = readConfig();
const app = await createApp(config);
await app.listen(config.port, '127.0.0.1');
process.send?.('ready');
