import { defineConfig } from '@playwright/test';

/** Debian's Chromium, driven against the built application; each worker starts servers of its own (workshop.ts). */
export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  fullyParallel: true,
  workers: 2,
  timeout: 120_000,
  expect: { timeout: 10_000 },
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    launchOptions: {
      executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
