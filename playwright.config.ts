import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defineConfig } from '@playwright/test';
import { findChromium } from './scripts/chromium.mjs';

const PORT = 4399;
process.env.SUNDEW_E2E_DATA ??= mkdtempSync(join(tmpdir(), 'sundew-e2e-'));

export default defineConfig({
  testDir: 'e2e',
  workers: 2,
  // Limits of patience, no measures of speed: the machine may be busy.
  timeout: 240_000,
  expect: { timeout: 40_000 },
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    // Emptied after each test, but with the scripts still there.
    reuseContext: true,
    viewport: { width: 1280, height: 800 },
    // A quarter of the pixels. What is about exact pixels asks for all of them.
    deviceScaleFactor: 0.5,
    // What moves only for the eye takes time from what is tested.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: findChromium(),
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        // A page lives too briefly for its scripts to be worth the last optimisation; kernels get theirs.
        '--js-flags=--no-opt',
      ],
    },
  },
  webServer: {
    command: 'npm run seed -- e2e && npm start',
    url: `http://127.0.0.1:${PORT}/api/scenes`,
    env: { SUNDEW_DATA: process.env.SUNDEW_E2E_DATA, PORT: String(PORT) },
    timeout: 240_000,
  },
});
