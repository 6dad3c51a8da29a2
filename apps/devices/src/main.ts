import { startDevices } from './service.js';

const service = await startDevices(Number(process.env['PORT'] ?? 0));
process.send?.({ port: service.port });
const end = () => void service.stop().finally(() => process.exit(0));
process.on('SIGTERM', end);
process.on('SIGINT', end);
// Whoever started it is gone, perhaps killed: leave the port to the next start.
process.on('disconnect', end);
