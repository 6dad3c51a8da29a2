// What the tests need of Debian's packages. A program of its own, so that it can go on beside the installing of packages.
import { existsSync } from 'node:fs';
import { findChromium } from './lib/chromium.mjs';
import { ensureDebian, POSTGRES } from './lib/debian.mjs';

const program = (name, path, ...packages) => ({
  name,
  found: () => (existsSync(path) ? path : undefined),
  packages,
});

try {
  ensureDebian(
    POSTGRES,
    { name: 'Chromium', found: findChromium, packages: ['chromium-headless-shell'] },
    // A reader of PDFs that had no part in making them.
    program('pdftotext', '/usr/bin/pdftotext', 'poppler-utils'),
    // What makes the certificate of the proxy that the server is asked through.
    program('openssl', '/usr/bin/openssl', 'openssl'),
  );
} catch (error) {
  console.error(error.message);
  process.exit(1);
}
