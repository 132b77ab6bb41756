import { pptxOf } from '@cuaderno/formats/testing';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { launch, visitor, whenSharp } from './browser.js';
import { result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';

const SLIDES = 60;
const RUNS = 5;
/** How long a file is looked for in the browser's own dialog, in ms. */
const CHOOSING = 2000;
/**
 * Longest from the choice until the first page is seen, against LibreOffice's own conversion: 3 s on a machine on which
 * that takes 1.6 s.
 */
const FIRST_PAGE = 1.9;

/** A deck with notes on every slide and something that moves on every tenth. */
function deck(seed: number): Buffer {
  return Buffer.from(
    pptxOf(
      Array.from({ length: SLIDES }, (_, i) => ({
        title: `Tide ${i + 1} of ${SLIDES}, reading ${seed}`,
        notes: [`What to ask about tide ${i + 1}.`, 'Who has seen it?'],
        animated: i % 10 === 0,
        font: i % 2 ? 'Calibri' : 'Cambria',
      })),
    ),
  );
}

type State = { kind: string };

/** From the upload to the last note in its margin, against LibreOffice's own conversion of the deck. */
export async function measure(): Promise<Result[]> {
  const folder = mkdtempSync(join(tmpdir(), 'cuaderno-bench-slides-'));
  const server = await BenchServer.start();
  const browser = await launch();
  const ours: number[] = [];
  const bare: number[] = [];
  const seen: number[] = [];
  const convert = (bytes: Buffer): number => {
    const path = join(folder, 'deck.pptx');
    writeFileSync(path, bytes);
    const began = performance.now();
    execFileSync(
      'soffice',
      [
        '--headless',
        // Used before, as ours is: the first start of a profile takes as long as the deck.
        `-env:UserInstallation=file://${folder}/profile`,
        '--convert-to',
        'pdf',
        '--outdir',
        folder,
        path,
      ],
      { stdio: 'ignore' },
    );
    return performance.now() - began;
  };
  const bring = async (bytes: Buffer): Promise<number> => {
    const began = performance.now();
    const { job } = (await server.upload('deck.pptx', bytes)) as unknown as { job: string };
    for (;;) {
      const response = await fetch(`${server.url}/api/imports/${job}`, {
        headers: { cookie: server.cookie },
      });
      const { kind } = (await response.json()) as State;
      if (kind === 'failed') throw new Error('the deck was not taken');
      if (kind === 'done') return performance.now() - began;
      await new Promise((next) => setTimeout(next, 20));
    }
  };
  convert(deck(0));
  await bring(deck(0));
  for (let run = 1; run <= RUNS; run++) {
    bare.push(convert(deck(run)));
    ours.push(await bring(deck(run)));
    const page = await (await visitor(browser, server.url, server.cookie)).newPage();
    await page.goto(`${server.url}/courses/${server.course.id}`);
    const field = page.locator('label.drop input');
    await field.waitFor({ state: 'attached' });
    // The pointer comes to the place, and a file is looked for: nobody finds it sooner.
    await page.locator('label.drop').hover();
    await page.waitForTimeout(CHOOSING);
    const began = performance.now();
    await field.setInputFiles({
      name: 'deck.pptx',
      mimeType: 'application/octet-stream',
      buffer: deck(run + 100),
    });
    await page.waitForURL(/boards/);
    await whenSharp(page);
    seen.push(performance.now() - began);
    await page.context().close();
  }
  await browser.close();
  await server.close();
  rmSync(folder, { recursive: true, force: true });
  // Each against the bare one of its run: what slows the machine for longer slows both.
  const middle = (all: readonly number[]): [number, number] => {
    const runs = all.map((ms, i) => ({ ms, bare: bare[i]! }));
    runs.sort((a, b) => a.ms / a.bare - b.ms / b.bare);
    const { ms, bare: same } = runs[Math.floor(RUNS / 2)]!;
    return [ms, same];
  };
  return [
    result('slides-import first page', 'ms', ...middle(seen), FIRST_PAGE),
    result('slides-import', 'ms', ...middle(ours), 1.5),
  ];
}
