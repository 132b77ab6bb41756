import { operation } from '@cuaderno/core';
import { addInk, somePages } from '@cuaderno/core/testing';
import type { Page } from 'playwright-core';
import { launch, visitor } from './browser.js';
import { median, result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';
import { BareWindow } from './windows.js';

/** Until the first page of another board is sharp, in ms: at the tutor, and at students who are in step. */
const TUTOR = 300;
const IN_STEP = 450;
const BOARDS = 3;
const PAGES = 8;
/** Lines on each page. */
const LINES = 60;
/** Times that another board is opened; each board is new to a window once, and comes back after that. */
const SWITCHES = 15;
const STUDENTS = 2;

/** A board of a lesson in the middle of a year. */
async function written(server: BenchServer, n: number): Promise<string> {
  const { id } = await server.post<{ id: string }>(`/courses/${server.course.id}/boards`, {
    title: `Switch ${n}`,
  });
  const [window] = await BareWindow.open(
    `ws://127.0.0.1:${server.port}/live/boards/${id}`,
    server.cookie,
  );
  const pages = somePages(PAGES);
  await window.keeps([operation({ kind: 'pages.add', pages })]);
  for (const { id: page } of pages)
    await window.keeps(Array.from({ length: LINES }, (_, i) => addInk(page, n * LINES + i)));
  window.close();
  return id;
}

/** Waits in a window until a board is there and sharp; resolves to the machine's clock then, in ms. */
function whenOn(page: Page, board: string): Promise<number> {
  return page.evaluate(
    (board) =>
      new Promise<number>((done) => {
        type Stage = Element & { cuaStage?: { isSharp: boolean; board(): { id: string } } };
        const look = (): void => {
          const stage = document.querySelector<Stage>('cua-stage .host')?.cuaStage;
          if (stage?.board().id === board && stage.isSharp)
            done(performance.timeOrigin + performance.now());
          else requestAnimationFrame(look);
        };
        look();
      }),
    board,
  );
}

/** Resolves once a window has drawn what it has to draw after it was opened: the first board is opened in a lesson, not as it begins. */
function atRest(page: Page): Promise<void> {
  return page.evaluate(
    () =>
      new Promise<void>((done) => {
        let calm = 0;
        const look = (idle: IdleDeadline): void => {
          calm = idle.timeRemaining() > 5 ? calm + 1 : 0;
          if (calm === 20) done();
          else requestAnimationFrame(() => requestIdleCallback(look));
        };
        requestIdleCallback(look);
      }),
  );
}

/** Opens a board by its picture; resolves to the machine's clock when it was touched, in ms. */
async function choose(page: Page, title: string): Promise<number> {
  await page.getByRole('button', { name: 'Boards' }).click();
  const card = page.locator('cua-boards-dialog .board', { hasText: title });
  await card.waitFor();
  return card.evaluate((element) => {
    const began = performance.timeOrigin + performance.now();
    (element as HTMLElement).click();
    return began;
  });
}

/** Opens one board after the other; resolves to how long it took until each was sharp in all of these windows, in ms. */
async function switches(
  tutor: Page,
  windows: readonly Page[],
  boards: readonly string[],
): Promise<number[]> {
  const times: number[] = [];
  await Promise.all([tutor, ...windows].map(atRest));
  for (let i = 1; i <= SWITCHES; i++) {
    const n = i % BOARDS;
    const began = await choose(tutor, `Switch ${n}`);
    const there = await Promise.all([tutor, ...windows].map((page) => whenOn(page, boards[n]!)));
    times.push(...(windows.length === 0 ? there : there.slice(1)).map((at) => at - began));
  }
  return times;
}

/**
 * Three boards in one lesson, each opened in turn: until its page is sharp, at the tutor and at two students in step. It is
 * the median of enough turns: a machine that is taken away for a moment says nothing of us; the slowest is told beside. The tutor is measured alone: in a lesson nobody else draws on their machine.
 */
export async function measure(): Promise<Result[]> {
  const server = await BenchServer.start();
  const boards: string[] = [];
  for (let n = 0; n < BOARDS; n++) boards.push(await written(server, n));
  await server.post(`/boards/${boards[0]}/lesson`);
  const browser = await launch();
  const tutor = await (await visitor(browser, server.url, server.cookie)).newPage();
  const begin = async (): Promise<void> => {
    await tutor.goto(`${server.url}/boards/${boards[0]}`);
    await whenOn(tutor, boards[0]!);
  };
  await begin();
  const own = await switches(tutor, [], boards);
  await begin();
  await tutor.getByRole('switch', { name: 'In step' }).click();
  const students: Page[] = [];
  for (let i = 0; i < STUDENTS; i++) {
    const context = await visitor(browser, server.url, await server.join(`Student ${i}`));
    const page = await context.newPage();
    await page.goto(`${server.url}/lesson`);
    await whenOn(page, boards[0]!);
    await page.getByText(/In step with/).waitFor();
    students.push(page);
  }
  const theirs = await switches(tutor, students, boards);
  await browser.close();
  await server.close();
  for (const [who, times] of [
    ['tutor', own],
    ['in step', theirs],
  ] as const)
    console.error(`${who}: ${times.length} times, the slowest ${Math.max(...times).toFixed(0)} ms`);
  return [
    result('board-switch', 'ms', median(own), TUTOR, 1),
    result('board-switch-in-step', 'ms', median(theirs), IN_STEP, 1),
  ];
}
