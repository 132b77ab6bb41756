import { defineConfig } from '@playwright/test';
import stories from './playwright.config.js';

/** Takes the pictures that the README shows, of the demo: `npm run screenshots`. */
export default defineConfig({
  ...stories,
  testMatch: 'screenshots.ts',
  timeout: 120_000,
  expect: { timeout: 15_000 },
  use: { ...stories.use, actionTimeout: 15_000, locale: 'en-GB', timezoneId: 'Europe/Oslo' },
});
