import { ThinLine } from '../../apps/server/dist/testing/thin-line.js';
import { launch, whenSharp } from './browser.js';
import { result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';
import { workbook } from './workbook.js';

/** A bad mobile line: bits a second, and ms each way, so that there and back is 400. */
const RATE = 64_000;
const DELAY = 200;
/** Until when it must be there, in seconds. */
const SECONDS = 60;

/**
 * A student who has never been here comes by the link over a line of 64 kbit/s and 400 ms: how long it takes until the
 * page in view is sharp, against the time that the bytes alone need which came until then.
 */
export async function measure(): Promise<Result> {
  const server = await BenchServer.start();
  const line = await ThinLine.to(server.port);
  const browser = await launch();
  try {
    const { id: board } = await server.upload('Workbook.pdf', await workbook(20));
    await server.post(`/boards/${board}/lesson`);
    line.thinness = { rate: RATE, delay: DELAY, loss: 0 };
    const page = await (
      await browser.newContext({ viewport: { width: 390, height: 844 } })
    ).newPage();
    const start = performance.now();
    const since = (): number => (performance.now() - start) / 1000;
    await page.goto(`${line.url}/join/${server.course.linkToken}`, { timeout: 300_000 });
    await page.getByLabel('Your first name').waitFor({ timeout: 300_000 });
    const form = since();
    const atForm = line.came;
    await page.getByLabel('Your first name').fill('Ana');
    await page.getByRole('button', { name: 'Go in' }).click();
    await page.locator('cua-stage').waitFor({ timeout: 300_000 });
    const host = since();
    page.setDefaultTimeout(300_000);
    await whenSharp(page);
    const value = since();
    const kB = (bytes: number): number => Math.round(bytes / 1000);
    console.log(
      `form ${form.toFixed(1)} s, ${kB(atForm)} kB; board ${host.toFixed(1)} s; page ${value.toFixed(1)} s, ${kB(line.came)} kB`,
    );
    const baseline = (line.came * 8) / RATE;
    return result('first-page-thin', 's', value, baseline, 1.5, { also: value <= SECONDS });
  } finally {
    await browser.close();
    line.close();
    await server.close();
  }
}
