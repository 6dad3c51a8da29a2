// The core's command line: builds it when stale, then runs it. Only the function's output goes to stdout.
import { ensurePackagesBuilt } from './lib/build.mjs';
import { ensureInstalled } from './lib/install.mjs';

ensureInstalled();
ensurePackagesBuilt();
await import('../packages/core/cli/dist/main.js');
