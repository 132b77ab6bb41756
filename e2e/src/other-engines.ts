import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { existsSync } from 'node:fs';
import puppeteer from 'puppeteer-core';
import type { Browser, Page } from 'puppeteer-core';
import { Builder, Origin } from 'selenium-webdriver';
import type { WebDriver } from 'selenium-webdriver';
import { freePort } from './house.js';
import type { PagePoint } from './people.js';

/**
 * A window of an engine that Playwright has no driver for here: Debian's Firefox ESR, through WebDriver BiDi, and
 * WebKitGTK, through its WebDriver. Places are CSS px from the window's corner.
 */
export interface EngineWindow {
  goto(url: string): Promise<void>;
  reload(): Promise<void>;
  /** Runs a function in the page; what goes in and comes out is plain data. */
  evaluate<A, T>(run: (given: A) => T | Promise<T>, given: A): Promise<T>;
  click(at: PagePoint): Promise<void>;
  /** Presses the mouse at the first place, and lets it go at the last. */
  drag(places: readonly PagePoint[]): Promise<void>;
  type(text: string): Promise<void>;
  close(): Promise<void>;
}

export const ENGINES: Record<'Firefox' | 'WebKit', () => Promise<EngineWindow>> = {
  Firefox: () => FirefoxWindow.open(),
  WebKit: () => WebKitWindow.open(),
};

/** How long a browser may take to begin, in ms. */
const BEGINS = 180_000;
const SIZE = { width: 1280, height: 800 };

class FirefoxWindow implements EngineWindow {
  private constructor(
    private readonly browser: Browser,
    private readonly page: Page,
  ) {}

  static async open(): Promise<FirefoxWindow> {
    const browser = await puppeteer.launch({
      browser: 'firefox',
      executablePath: '/usr/bin/firefox-esr',
      headless: true,
      timeout: BEGINS,
      args: [`--width=${SIZE.width}`, `--height=${SIZE.height}`],
      defaultViewport: SIZE,
    });
    return new FirefoxWindow(browser, await browser.newPage());
  }

  async goto(url: string): Promise<void> {
    await this.page.goto(url);
  }

  async reload(): Promise<void> {
    await this.page.reload();
  }

  evaluate<A, T>(run: (given: A) => T | Promise<T>, given: A): Promise<T> {
    return this.page.evaluate(run as (given: unknown) => T, given) as Promise<T>;
  }

  click({ x, y }: PagePoint): Promise<void> {
    return this.page.mouse.click(x, y);
  }

  async drag([first, ...rest]: readonly PagePoint[]): Promise<void> {
    const { mouse } = this.page;
    await mouse.move(first!.x, first!.y);
    await mouse.down();
    for (const { x, y } of rest) await mouse.move(x, y, { steps: 3 });
    await mouse.up();
  }

  type(text: string): Promise<void> {
    return this.page.keyboard.type(text);
  }

  async close(): Promise<void> {
    await this.browser.close();
  }
}

class WebKitWindow implements EngineWindow {
  private constructor(
    private readonly driver: WebDriver,
    private readonly processes: readonly ChildProcess[],
  ) {}

  static async open(): Promise<WebKitWindow> {
    const { display, process: screen } = await openScreen();
    const port = await freePort();
    const service = spawn('WebKitWebDriver', [`--port=${port}`, '--host=127.0.0.1'], {
      env: { ...process.env, DISPLAY: display, GDK_BACKEND: 'x11' },
      stdio: 'ignore',
    });
    const processes = [service, screen];
    try {
      const server = `http://127.0.0.1:${port}`;
      await isReady(`${server}/status`);
      const driver = await new Builder()
        .usingServer(server)
        .withCapabilities({
          browserName: 'MiniBrowser',
          'webkitgtk:browserOptions': { binary: miniBrowser(), args: ['--automation'] },
        })
        .build();
      await driver
        .manage()
        .window()
        .setRect({ x: 0, y: 0, ...SIZE });
      await driver.manage().setTimeouts({ script: BEGINS });
      return new WebKitWindow(driver, processes);
    } catch (error) {
      for (const child of processes) child.kill();
      throw error;
    }
  }

  async goto(url: string): Promise<void> {
    await this.driver.get(url);
  }

  async reload(): Promise<void> {
    await this.driver.navigate().refresh();
  }

  async evaluate<A, T>(run: (given: A) => T | Promise<T>, given: A): Promise<T> {
    const script = `const [given, done] = arguments;
      Promise.resolve(given).then(${run.toString()}).then(
        (value) => done({ value }),
        (error) => done({ error: String(error) }),
      );`;
    const answer = await this.driver.executeAsyncScript<{ value?: T; error?: string }>(
      script,
      given,
    );
    if (answer.error) throw new Error(answer.error);
    return answer.value as T;
  }

  async click(at: PagePoint): Promise<void> {
    await this.drag([at]);
  }

  async drag([first, ...rest]: readonly PagePoint[]): Promise<void> {
    const to = ({ x, y }: PagePoint) => ({
      x: Math.round(x),
      y: Math.round(y),
      duration: 30,
      origin: Origin.VIEWPORT,
    });
    let actions = this.driver.actions().move(to(first!)).press();
    for (const place of rest) actions = actions.move(to(place));
    await actions.release().perform();
  }

  async type(text: string): Promise<void> {
    await this.driver.actions().sendKeys(text).perform();
  }

  async close(): Promise<void> {
    await this.driver.quit().catch(() => undefined);
    for (const child of this.processes) child.kill();
  }
}

/** A screen that nobody sees, for what has no other way to draw. */
function openScreen(): Promise<{ display: string; process: ChildProcess }> {
  const child = spawn('Xvfb', ['-displayfd', '1', '-screen', '0', '1400x1000x24'], {
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  return new Promise((resolve, reject) => {
    child.once('error', reject);
    child.once('exit', (code) => reject(new Error(`Xvfb ended with ${code}`)));
    child.stdout.once('data', (text: Buffer) =>
      resolve({ display: `:${text.toString().trim()}`, process: child }),
    );
  });
}

/** Where Debian puts WebKitGTK's own small browser. */
function miniBrowser(): string {
  const found = ['x86_64', 'aarch64']
    .flatMap((machine) =>
      ['4.1', '4.0'].map((api) => `/usr/lib/${machine}-linux-gnu/webkit2gtk-${api}/MiniBrowser`),
    )
    .find((path) => existsSync(path));
  if (!found) throw new Error('WebKitGTK’s MiniBrowser isn’t installed (webkit2gtk-driver).');
  return found;
}

async function isReady(url: string): Promise<void> {
  const end = Date.now() + BEGINS;
  for (;;) {
    const ready = await fetch(url).then(
      ({ ok }) => ok,
      () => false,
    );
    if (ready) return;
    if (Date.now() > end) throw new Error(`Nothing answers at ${url}`);
    await new Promise((done) => setTimeout(done, 50));
  }
}
