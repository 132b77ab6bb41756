import { defineConfig } from '@playwright/test';
import stories from './playwright.config.js';

/** Takes the pictures that the README shows, of the demo: `npm run screenshots`. */
export default defineConfig({ ...stories, testMatch: 'screenshots.ts' });
