import { readFileSync } from 'node:fs';
import { run } from './run.js';

const result = run(process.argv.slice(2), () => readFileSync(0, 'utf8'));
process.stdout.write(result.stdout);
process.stderr.write(result.stderr);
process.exitCode = result.exitCode;
