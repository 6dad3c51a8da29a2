import { existsSync } from 'node:fs';

/** Debian's Chromium, built without windows where it is there: it does the same in a sixth less time. */
const PLACES = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium', '/usr/bin/chromium-browser'];

/** The path of Debian's Chromium; undefined when there is none. */
export const findChromium = () => process.env.CHROMIUM ?? PLACES.find(existsSync);
