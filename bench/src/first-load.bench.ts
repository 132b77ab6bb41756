import { launch } from './browser.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';

const LIMIT = 200_000;

/**
 * Bytes of script over the wire: until a student can enter their name; and, told beside it, all
 * that is loaded until they are in the lesson, pdf.js and its worker included.
 */
export async function measure(): Promise<Result> {
  const server = await BenchServer.start();
  const browser = await launch();
  const { id } = await server.post<{ id: string }>(`/courses/${server.course.id}/boards`, {
    title: 'First',
  });
  await server.post(`/boards/${id}/lesson`);
  // Without the lesson's code, which is fetched while the name is typed.
  const page = await browser.newPage();
  const session = await page.context().newCDPSession(page);
  await session.send('Network.enable');
  const scripts = new Map<string, boolean>();
  let bytes = 0;
  session.on('Network.responseReceived', ({ requestId, type, response }) => {
    if (type === 'Script' || /\.m?js(\?|$)/.test(response.url)) scripts.set(requestId, true);
  });
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (scripts.has(requestId)) bytes += encodedDataLength;
  });
  await page.addInitScript(() => {
    // Holds back what is loaded in idle moments, so that the way in is counted alone.
    window.requestIdleCallback = () => 0;
  });
  await page.goto(`${server.url}/join/${server.course.linkToken}`);
  await page.getByLabel('Your first name').waitFor();
  await page.waitForLoadState('networkidle');
  const atName = bytes;
  await page.getByLabel('Your first name').fill('Ana');
  await page.getByRole('button', { name: 'Go in' }).click();
  await page.locator('cua-stage').waitFor();
  await page.waitForLoadState('networkidle');
  console.log(`until in the lesson, with pdf.js: ${Math.round(bytes / 1000)} kB`);
  await browser.close();
  await server.close();
  const ratio = atName / LIMIT;
  return {
    name: 'first-load',
    value: atName,
    unit: 'bytes of script',
    baseline: LIMIT,
    ratio: Math.round(ratio * 1000) / 1000,
    limit: 1,
    pass: ratio <= 1,
  };
}
