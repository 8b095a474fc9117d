// The Chromium that drives the interface in tests and pictures. The headless shell has no window of its own to draw.
import { existsSync } from 'node:fs';

const KNOWN = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];

/** Where a Chromium is; undefined where there is none. */
export const findChromium = () => process.env.CHROMIUM ?? KNOWN.find((path) => existsSync(path));
