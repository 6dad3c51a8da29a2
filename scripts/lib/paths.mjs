import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '..', '..');
export const DATA = resolve(ROOT, process.env.HEATHSTEP_DATA ?? '.data');
export const BIN = join(ROOT, 'node_modules', '.bin');
/** The compiler. Its quick native edition has no interface for programs; those that need one use the package `typescript`. */
export const TSC = join(ROOT, 'node_modules', 'typescript-compiler', 'bin', 'tsc');
