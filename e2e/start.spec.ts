import { expect, test } from '@playwright/test';
import { type ChildProcess, spawn } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A port nobody has, taken and let go. */
function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address !== null ? address.port : 0));
    });
  });
}

interface Started {
  readonly child: ChildProcess;
  readonly said: () => string;
  readonly ended: Promise<number | null>;
}

function start(data: string, port: number): Started {
  const child = spawn(process.execPath, ['scripts/start.mjs'], {
    env: { ...process.env, HEATHSTEP_DATA: data, PORT: String(port), DATABASE_URL: '' },
  });
  let text = '';
  child.stdout.on('data', (chunk) => (text += String(chunk)));
  child.stderr.on('data', (chunk) => (text += String(chunk)));
  return {
    child,
    said: () => text,
    ended: new Promise((resolve) => child.once('exit', (code) => resolve(code))),
  };
}

const ready = (s: Started, port: number) =>
  expect.poll(s.said, { timeout: 60_000 }).toContain(`Heathstep is ready at http://127.0.0.1:${port}`);
const health = async (port: number) =>
  (await fetch(`http://127.0.0.1:${port}/api/health`)).json() as Promise<unknown>;

test.describe('npm start', () => {
  let data: string;
  let port: number;
  test.beforeEach(async () => {
    data = mkdtempSync(join(tmpdir(), 'heathstep-start-'));
    chmodSync(data, 0o755);
    port = await freePort();
  });
  test.afterEach(() => rmSync(data, { recursive: true, force: true }));

  test('starts from a half-made cluster, survives being killed, and stops cleanly', async () => {
    mkdirSync(join(data, 'postgres'));
    writeFileSync(join(data, 'postgres', 'half'), 'made');
    const first = start(data, port);
    await ready(first, port);
    expect(await health(port)).toMatchObject({ status: 'ok', database: 'ok' });
    expect(first.said()).toMatch(/lead +orla\.rendell@heathstep\.example/);

    const second = start(data, port);
    expect(await second.ended).toBe(1);
    expect(second.said()).toContain('Heathstep is running already on this data');

    first.child.kill('SIGKILL');
    await first.ended;
    writeFileSync(join(data, 'running.json'), '');
    const third = start(data, port);
    await ready(third, port);
    expect(await health(port)).toMatchObject({ status: 'ok' });
    third.child.kill('SIGTERM');
    expect(await third.ended).toBe(0);
    await expect(health(port)).rejects.toThrow();
  });

  test('says plainly that the port is taken', async () => {
    const other = createServer().listen(port, '127.0.0.1');
    const started = start(data, port);
    expect(await started.ended).toBe(1);
    expect(started.said()).toContain(`Port ${port} is taken by another program`);
    other.close();
  });
});
