import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: './src',
  fullyParallel: false,
  workers: 1,
  // Machines that many share stand still for a minute now and then: nothing is wrong with a story then.
  timeout: 360_000,
  expect: { timeout: 45_000 },
  reporter: 'list',
  outputDir: './test-results',
  use: {
    actionTimeout: 90_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      // Debian's Chromium without a window: it draws and runs all that the other does, for two thirds of the work.
      executablePath: '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
        '--disable-quic',
      ],
    },
  },
});
