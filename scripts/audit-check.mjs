// npm run audit:check: whether the log of who saw and changed what is as it was written.
import { runWithDatabase } from './lib/withDatabase.mjs';

await runWithDatabase('checkAudit.js', []);
