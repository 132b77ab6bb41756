import { chromium } from 'playwright-core';
import type { Browser, BrowserContext, Page } from 'playwright-core';

export function launch(): Promise<Browser> {
  return chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--no-first-run',
      '--disable-quic',
    ],
  });
}

/** A context that is signed in with these cookies. */
export async function visitor(
  browser: Browser,
  url: string,
  cookie: string,
): Promise<BrowserContext> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.addCookies(
    cookie.split('; ').map((pair) => {
      const at = pair.indexOf('=');
      return { name: pair.slice(0, at), value: pair.slice(at + 1), url };
    }),
  );
  return context;
}

/** Waits in the page until its stage is sharp; resolves to the page's clock then, in ms. */
export function whenSharp(page: Page): Promise<number> {
  return page.evaluate(
    () =>
      new Promise<number>((done) => {
        const look = (): void => {
          const host = document.querySelector('cua-stage .host') as
            (Element & { cuaStage?: { isSharp: boolean } }) | null;
          if (host?.cuaStage?.isSharp) done(performance.timeOrigin + performance.now());
          else requestAnimationFrame(look);
        };
        look();
      }),
  );
}
