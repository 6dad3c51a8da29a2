import { spawnSync } from 'node:child_process';
import { ROOT } from './paths.mjs';

/** Runs a command to its end with its output on stderr; throws with the command's name when it fails. */
export function runOrThrow(command, args, options = {}) {
  const { quiet = false, ...rest } = options;
  const result = spawnSync(command, args, {
    cwd: ROOT,
    encoding: 'utf8',
    stdio: ['ignore', quiet ? 'pipe' : 2, quiet ? 'pipe' : 2],
    ...rest,
  });
  if (result.error) throw new Error(`${command} could not be run: ${result.error.message}`);
  if (result.status !== 0) {
    const said = quiet ? `\n${result.stdout}${result.stderr}` : '';
    throw new Error(`${[command, ...args].join(' ')} failed (${result.status ?? result.signal})${said}`);
  }
  return result.stdout ?? '';
}
