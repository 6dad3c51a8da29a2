import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { ROOT } from './paths.mjs';

const serverEnvironment = (database, extra = {}) => ({
  ...process.env,
  HEATHSTEP_APP_DATABASE_URL: database.appUrl,
  HEATHSTEP_OWNER_DATABASE_URL: database.ownerUrl,
  ...extra,
});

/** Migrates and loads the demo when there is none; resolves to the demo's sign-ins. */
export function prepare(database, demoFile, ...args) {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [join(ROOT, 'apps/server/dist/prepare.js'), ...args], {
      env: serverEnvironment(database, { HEATHSTEP_DEMO_FILE: demoFile }),
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    let out = '';
    child.stdout.on('data', (chunk) => (out += chunk));
    child.on('exit', (code) =>
      code === 0
        ? resolve(JSON.parse(out || '[]'))
        : reject(new Error('The database could not be brought up to date')),
    );
  });
}

export function portIsFree(port) {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
  });
}

/** Starts the device service on a free port of this machine; resolves to it and the address it speaks at. */
export function startDevices() {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [join(ROOT, 'apps/devices/dist/main.js')], {
      env: { ...process.env, PORT: '0' },
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    child.once('message', ({ port }) => resolve({ child, url: `ws://127.0.0.1:${port}` }));
    child.once('exit', (code) => reject(new Error(`The device service ended before it was ready (${code})`)));
  });
}

/** Starts the server; resolves when it answers, rejects when it ends before. What it says goes to `log` and `failures`. */
export function startServer(database, port, extra = {}, log = 'inherit', failures = log) {
  return new Promise((resolve, reject) => {
    const { HEATHSTEP_OWNER_DATABASE_URL: _owner, ...env } = serverEnvironment(database, {
      PORT: String(port),
      ...extra,
    });
    const child = spawn(process.execPath, ['--enable-source-maps', join(ROOT, 'apps/server/dist/main.js')], {
      env,
      stdio: ['ignore', log, failures, 'ipc'],
    });
    child.once('message', () => resolve(child));
    child.once('exit', (code, signal) =>
      reject(new Error(`The server ended before it was ready (${code ?? signal})`)),
    );
  });
}

export function stopServer(child) {
  return new Promise((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null) return resolve();
    const hard = setTimeout(() => child.kill('SIGKILL'), 8000);
    child.once('exit', () => {
      clearTimeout(hard);
      resolve();
    });
    child.kill('SIGTERM');
  });
}
