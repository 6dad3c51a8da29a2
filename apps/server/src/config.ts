import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Everything the server reads from its environment, in one place. */
export interface Config {
  readonly port: number;
  /** Connects as a role that row-level security binds. */
  readonly databaseUrl: string;
  /** Owns the tables; for migrations and demo data only, and not given to the running server. */
  readonly ownerUrl: string;
  readonly webRoot: string;
  readonly version: string;
  readonly logLevel: string;
  /** Where the clinic's instruments speak; null when no service was started. */
  readonly devicesUrl: string | null;
  /** Folder with the `data` and `schemas` of other content than the shipped; null for the shipped. */
  readonly contentRoot: string | null;
  /** Folder of the letters that papers are set in. */
  readonly fontsRoot: string;
  /** Where people reach it, when something in front of it on this machine serves https; null on loopback alone. */
  readonly publicUrl: string | null;
  /** Secure cookies, when served over https. */
  readonly secureCookies: boolean;
  /** Where on loopback it tells how it is; null where it does not. */
  readonly metricsPort: number | null;
}

function required(env: NodeJS.ProcessEnv, name: string): string {
  const value = env[name];
  if (value === undefined || value === '') throw new Error(`${name} is not set; start with npm start`);
  return value;
}

/** `https://clinic.example`, without a path; null where it is not set. */
function outside(text: string): string | null {
  if (text === '') return null;
  const url = URL.canParse(text) ? new URL(text) : null;
  if (url === null || !['http:', 'https:'].includes(url.protocol) || url.pathname !== '/')
    throw new Error(`HEATHSTEP_PUBLIC_URL must be an address such as https://clinic.example, not ${text}`);
  return url.origin;
}

/** A port, or null where it is not set. */
function portOf(env: NodeJS.ProcessEnv, name: string): number | null {
  const said = env[name] ?? '';
  if (said === '') return null;
  const port = Number(said);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new Error(`${name} must be a number from 1 to 65535, not ${said}`);
  return port;
}

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

export function readConfig(env: NodeJS.ProcessEnv = process.env): Config {
  const publicUrl = outside(env['HEATHSTEP_PUBLIC_URL'] ?? '');
  const manifest = JSON.parse(readFileSync(here('../package.json'), 'utf8')) as { version: string };
  return {
    port: Number(env['PORT'] ?? 4310),
    databaseUrl: required(env, 'HEATHSTEP_APP_DATABASE_URL'),
    ownerUrl: env['HEATHSTEP_OWNER_DATABASE_URL'] ?? '',
    webRoot: env['HEATHSTEP_WEB_ROOT'] ?? join(here('..'), '..', 'web', 'dist'),
    version: manifest.version,
    logLevel: env['HEATHSTEP_LOG'] ?? 'info',
    devicesUrl: env['HEATHSTEP_DEVICES_URL'] ?? null,
    contentRoot: env['HEATHSTEP_CONTENT'] ?? null,
    fontsRoot: join(here('..'), '..', '..', 'node_modules', '@fontsource', 'hanken-grotesk', 'files'),
    publicUrl,
    secureCookies: publicUrl?.startsWith('https:') === true || env['HEATHSTEP_SECURE_COOKIES'] === '1',
    metricsPort: portOf(env, 'HEATHSTEP_METRICS_PORT'),
  };
}
