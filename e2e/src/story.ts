import { test as base } from '@playwright/test';

export { expect } from '@playwright/test';

/**
 * A story with browsers of its own: when it is told, all its windows are closed. Windows that stay open go on
 * looking for a server that is gone, and slow down every story after theirs.
 */
export const test = base.extend<{ closing: void }>({
  closing: [
    async ({ browser }, use) => {
      await use();
      await Promise.all(browser.contexts().map((context) => context.close()));
    },
    { auto: true },
  ],
});
