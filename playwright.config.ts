import { defineConfig } from '@playwright/test';
import { findChromium } from './scripts/lib/chromium.mjs';

/** Chromium of Debian, headless, with nothing that would look for a network. */
const args = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  // Pages of a journey live too short for what compiling them twice more would save.
  '--js-flags=--no-maglev --no-opt',
];

const LONG = /(visits|journey|bench|start|otherLanguage)\.spec\.ts/;

export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/globalSetup.mjs',
  workers: 3,
  fullyParallel: false,
  // The longest first, so that no worker is left alone with one at the end.
  projects: [
    { name: 'long', testMatch: LONG },
    { name: 'short', testIgnore: LONG },
  ],
  // A busy machine may be three times slower than a quiet one; what is wrong shows before.
  timeout: 300_000,
  // A press that a busy machine loses is tried once more, on a fresh clinic; the end of `npm test` names each that needed it.
  retries: 1,
  expect: { timeout: 20_000 },
  reporter: [['line'], ['json', { outputFile: 'test-results/e2e.json' }]],
  outputDir: 'test-results/e2e',
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'Europe/London',
    launchOptions: { executablePath: findChromium() ?? 'no Chromium', args },
    // Drawn figures move all the time; without a graphics card that takes most of a core. Where movement is looked at, it is on.
    contextOptions: { reducedMotion: 'reduce' },
    trace: 'off',
    actionTimeout: 20_000,
    screenshot: 'only-on-failure',
  },
});
