import { defineConfig } from '@playwright/test';

/** Debian's Chromium, driven against the built application; each worker starts servers of its own (workshop.ts). */
export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  fullyParallel: true,
  workers: 2,
  timeout: 120_000,
  // What fails once is wrong: journeys wait for what is to be seen, never for time.
  retries: 0,
  expect: { timeout: 30_000 },
  use: {
    // A click that waits longer than this waits for something that will not come.
    actionTimeout: 30_000,
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
