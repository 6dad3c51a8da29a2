import { test } from '@playwright/test';
import { type ChildProcess, spawn } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, goToStep, openPerson, saved, takeTrials } from './support.js';

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
  expect.poll(s.said, { timeout: 120_000 }).toContain(`Heathstep is ready at http://127.0.0.1:${port}`);
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

  test('starts from a half-made cluster, survives being killed with a visit open, and stops cleanly', async ({
    page,
  }) => {
    mkdirSync(join(data, 'postgres'));
    writeFileSync(join(data, 'postgres', 'half'), 'made');
    const first = start(data, port);
    await ready(first, port);
    expect(await health(port)).toMatchObject({ status: 'ok', database: 'ok' });
    expect(first.said()).toMatch(/lead +orla\.rendell@heathstep\.example/);

    const second = start(data, port);
    expect(await second.ended).toBe(1);
    expect(second.said()).toContain('Heathstep is running already on this data');

    const password = /lead +\S+ +(\S+)/.exec(first.said())?.[1] ?? '';
    await page.goto(`http://127.0.0.1:${port}/sign-in`);
    await page.getByLabel('E-mail').fill('orla.rendell@heathstep.example');
    await page.getByLabel('Password').fill(password);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await openPerson(page, 'Marit Osgar', 'Visit');
    await page.getByRole('button', { name: 'Start a review' }).click();
    await goToStep(page, 'Load');
    await takeTrials(page, 'Single-leg heel raise', 'left', ['12']);
    await expect(saved(page)).toBeVisible();

    // The database dies under it: it is back by itself, and so is what was saved.
    const [pid] = readFileSync(join(data, 'postgres', 'postmaster.pid'), 'utf8').split('\n');
    process.kill(Number(pid), 'SIGKILL');
    await expect.poll(first.said, { timeout: 20_000 }).toContain('The database ended by itself');
    await expect
      .poll(async () => (await health(port).catch(() => null)) as { database?: string } | null, {
        timeout: 30_000,
      })
      .toMatchObject({ database: 'ok' });

    first.child.kill('SIGKILL');
    await first.ended;
    await expect(health(port)).rejects.toThrow();
    await takeTrials(page, 'Single-leg heel raise', 'left', ['13']);
    await takeTrials(page, 'Single-leg heel raise', 'right', ['18']);
    await expect(page.locator('[data-status="unreachable"]')).toContainText('kept on this device');
    writeFileSync(join(data, 'running.json'), '');
    const third = start(data, port);
    await ready(third, port);
    expect(await health(port)).toMatchObject({ status: 'ok' });
    await expect(saved(page)).toBeVisible({ timeout: 20_000 });
    await page.reload();
    await expect(page.getByLabel('Single-leg heel raise, left, trial 1')).toHaveValue('13');
    await expect(page.getByLabel('Single-leg heel raise, right, trial 1')).toHaveValue('18');
    third.child.kill('SIGTERM');
    expect(await third.ended).toBe(0);
    await expect(health(port)).rejects.toThrow();
  });

  test('ends with the npm that began it, and leaves nothing running', async () => {
    const npm = spawn('npm', ['start'], {
      env: {
        ...process.env,
        HEATHSTEP_DATA: data,
        PORT: String(port),
        DATABASE_URL: '',
        HEATHSTEP_DEMO: 'no',
      },
    });
    let said = '';
    npm.stdout.on('data', (chunk) => (said += String(chunk)));
    await expect.poll(() => said, { timeout: 90_000 }).toContain('Heathstep is ready at');
    // Without the demo clinic nobody can sign in yet.
    expect(said).not.toContain('Demo sign-ins');
    const [pid] = readFileSync(join(data, 'postgres', 'postmaster.pid'), 'utf8').split('\n');
    npm.kill('SIGTERM');
    await expect.poll(() => health(port).catch(() => 'gone'), { timeout: 20_000 }).toBe('gone');
    await expect.poll(() => existsSync(`/proc/${pid ?? ''}`), { timeout: 20_000 }).toBe(false);
  });

  test('says plainly that the port is taken', async () => {
    const other = createServer().listen(port, '127.0.0.1');
    const started = start(data, port);
    expect(await started.ended).toBe(1);
    expect(started.said()).toContain(`Port ${port} is taken by another program`);
    other.close();
  });
});
