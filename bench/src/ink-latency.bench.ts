import type { Page } from 'playwright-core';
import { WebSocketServer, WebSocket as Wire } from 'ws';
import { launch, visitor, whenSharp } from './browser.js';
import { median, percentile, result } from './result.js';
import type { Result } from './result.js';
import { BenchServer, freePort } from './server.js';
import { BareWindow } from './windows.js';
import { FRAME, BenchWriter } from './writer.js';

const MOVES = 150;
/** How often eight write, and the baseline's eight: a machine that is busy elsewhere for a moment spoils one of them. */
const TURNS = 3;
const LIMIT_MS = 60;
/** How far ahead of the ink, in px, new ink is looked for. */
const NEXT = 160;

type Host = HTMLElement & {
  cuaStage: {
    page(): string;
    locate(page: string, point: { x: number; y: number }): { x: number; y: number };
  };
};
type Timed = Window & { sent: number[]; seen: number[]; onSeen: () => void };

/** Longest that is waited for one move to be seen, in ms. */
const PATIENCE = 10_000;

/**
 * Notes every pointer event on `target`, and the moment at which the ink in row `y` (CSS px) of a
 * canvas reaches farther right than before: painted pixels, read off the canvas right after it was
 * drawn on. (Looking in every frame would keep the machine busier than the ink does.)
 */
async function watch(
  page: Page,
  target: string,
  canvas: string,
  nameOrdinal: number,
  y: number,
): Promise<void> {
  await page.evaluate(
    ({ target, canvas, nameOrdinal, NEXT, y }) => {
      const w = window as unknown as Timed;
      w.sent = [];
      w.seen = [];
      w.onSeen = () => undefined;
      document
        .querySelector(target)!
        .addEventListener('pointermove', (event) =>
          w.sent.push(performance.timeOrigin + event.timeStamp),
        );
      const element = document.querySelectorAll<HTMLCanvasElement>(canvas)[nameOrdinal]!;
      // What watched it before is gone with its ways of drawing: they stand on the canvas's own context.
      const context = element.getContext('2d')!;
      for (const own of ['stroke', 'fillRect']) Reflect.deleteProperty(context, own);
      const top = Math.round(y * devicePixelRatio) - 2;
      let reach = 0;
      const look = (): void => {
        const strip = Math.min(NEXT, element.width - reach - 1);
        if (strip <= 0) return;
        const row = context.getImageData(reach + 1, top, strip, 4).data;
        let far = 0;
        for (let x = strip - 1; x >= 0 && far === 0; x--)
          for (let line = 0; line < 4; line++)
            if (row[(line * strip + x) * 4 + 3]! > 100) far = reach + 1 + x;
        if (far <= reach) return;
        reach = far;
        w.seen.push(performance.timeOrigin + performance.now());
        w.onSeen();
      };
      // Once for all that is drawn in one go: eight people's lines are hundreds of strokes of the pen.
      let looks = false;
      const lookSoon = (): void => {
        if (looks) return;
        looks = true;
        queueMicrotask(() => {
          looks = false;
          look();
        });
      };
      const { stroke, fillRect } = context;
      context.stroke = (...path: unknown[]) => {
        stroke.apply(context, path as unknown as [Path2D]);
        lookSoon();
      };
      context.fillRect = (...box) => {
        fillRect.apply(context, box);
        lookSoon();
      };
    },
    { target, canvas, nameOrdinal, NEXT, y },
  );
}

/**
 * The same trip through a bare `ws` echo: events batched by frame, drawn in the next frame.
 * @param others how many more write at the same time: a point every 8 ms, told once a frame
 */
async function bareTrip(
  browser: Awaited<ReturnType<typeof launch>>,
  others = 0,
): Promise<number[]> {
  const port = await freePort();
  const echo = new WebSocketServer({ port, host: '127.0.0.1', perMessageDeflate: false });
  echo.on('connection', (socket) =>
    socket.on('message', (data) => {
      for (const other of echo.clients) if (other !== socket) other.send(data, { binary: false });
    }),
  );
  const [a, b] = await Promise.all(
    [0, 1].map(async () =>
      (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage(),
    ),
  );
  for (const [page, sends] of [
    [a!, true],
    [b!, false],
  ] as const) {
    await page.setContent(
      '<body style="height:100vh"><canvas width=1200 height=700 style="position:fixed;left:40px;top:40px"></canvas>',
    );
    await page.evaluate(
      ({ port, sends }) =>
        new Promise<void>((ready) => {
          const socket = new WebSocket(`ws://127.0.0.1:${port}`);
          socket.onopen = () => ready();
          const context = document.querySelector('canvas')!.getContext('2d')!;
          let batch: [number, number][] = [];
          document.addEventListener('pointermove', (event) => {
            if (!sends) return;
            if (batch.length === 0)
              requestAnimationFrame(() => {
                socket.send(JSON.stringify(batch));
                batch = [];
              });
            batch.push([event.clientX - 44, 348]);
          });
          let queue: [number, number][] = [];
          socket.onmessage = (event: MessageEvent<string>) => {
            queue.push(...(JSON.parse(event.data) as [number, number][]));
            requestAnimationFrame(() => {
              if (queue.length === 0) return;
              for (const [x, y] of queue) context.fillRect(x, y, 4, 4);
              queue = [];
            });
          };
        }),
      { port, sends },
    );
    await watch(page, 'body', 'canvas', 0, 350);
  }
  const sockets = await Promise.all(
    Array.from(
      { length: others },
      () =>
        new Promise<Wire>((ready) => {
          const socket = new Wire(`ws://127.0.0.1:${port}`);
          socket.once('open', () => ready(socket));
        }),
    ),
  );
  let frame = 0;
  const began = performance.now();
  const timer = setInterval(() => {
    for (; frame * FRAME < performance.now() - began; frame++)
      for (const [i, socket] of sockets.entries()) {
        const x = 60 + ((frame * 4 + i * 150) % 1100);
        socket.send(JSON.stringify([x, x + 2].map((x) => [x, 40 + i * 30])));
      }
  }, 4);
  const trips = await drive(a!, b!, { x: 100, y: 390 }, 5);
  clearInterval(timer);
  for (const socket of sockets) socket.close();
  for (const page of [a!, b!]) await page.context().close();
  echo.close();
  return trips;
}

/** Moves a pointer in steps and pairs each with the first frame in which the other shows it. */
async function drive(
  writer: Page,
  reader: Page,
  from: { x: number; y: number },
  step: number,
): Promise<number[]> {
  await writer.mouse.move(from.x, from.y);
  await writer.mouse.down();
  const trips: number[] = [];
  for (let i = 1; i <= MOVES; i++) {
    const before = await reader.evaluate(() => (window as unknown as Timed).seen.length);
    const sentBefore = await writer.evaluate(() => (window as unknown as Timed).sent.length);
    await writer.mouse.move(from.x + i * step, from.y);
    const seenAt = await reader.evaluate(
      ({ n, PATIENCE }) =>
        new Promise<number>((done, fail) => {
          const w = window as unknown as Timed;
          setTimeout(() => fail(new Error(`Move ${n} was never seen.`)), PATIENCE);
          w.onSeen = () => w.seen.length > n && done(w.seen[n]!);
          w.onSeen();
        }),
      { n: before, PATIENCE },
    );
    const sentAt = await writer.evaluate((n) => (window as unknown as Timed).sent[n]!, sentBefore);
    trips.push(seenAt - sentAt);
  }
  await writer.mouse.up();
  return trips;
}

/** From the pointer event in one browser to the painted pixel in another, on the same machine. */
export async function measure(): Promise<Result[]> {
  const server = await BenchServer.start();
  const browser = await launch();
  const before = await bareTrip(browser);
  const { id } = await server.post<{ id: string }>(`/courses/${server.course.id}/boards`, {
    title: 'Ink',
  });
  await server.post(`/boards/${id}/lesson`);
  const tutor = await (await visitor(browser, server.url, server.cookie)).newPage();
  await tutor.goto(`${server.url}/boards/${id}`);
  await whenSharp(tutor);
  const student = await (await visitor(browser, server.url, await server.join('Ana'))).newPage();
  await student.goto(`${server.url}/lesson`);
  await whenSharp(student);
  await tutor.getByRole('button', { name: 'Writing for all' }).click();
  await student.locator('header .pen.has').waitFor();
  // A line in the middle of what the tutor sees, from near the page's left edge to its right one.
  const { page, y, width } = await tutor.evaluate(() => {
    const { cuaStage: stage, clientHeight } = document.querySelector('cua-stage .host') as Host;
    const page = stage.page();
    const [left, right] = [0, 1].map((x) => stage.locate(page, { x, y: 0 }));
    const zoom = right!.x - left!.x;
    return { page, y: (clientHeight / 2 - left!.y) / zoom, width: 595 };
  });
  /** Watches a row of the page in windows; where it begins in the first, and how long it is, in CSS px. */
  const row = async (y: number, ...windows: Page[]) => {
    const [ends] = await Promise.all(
      windows.map(async (window) => {
        const ends = await window.evaluate(
          ({ page, y, width }) => {
            const host = document.querySelector('cua-stage .host') as Host;
            const box = host.getBoundingClientRect();
            const [from, to] = [40, width - 40].map((x) => host.cuaStage.locate(page, { x, y }));
            return {
              x: box.x + from!.x,
              y: box.y + from!.y,
              row: from!.y,
              length: to!.x - from!.x,
            };
          },
          { page, y, width },
        );
        await watch(window, 'cua-stage .host', 'cua-stage .host canvas', 2, ends.row);
        return ends;
      }),
    );
    return ends!;
  };
  const ends = await row(y, student, tutor);
  const trips = await drive(student, tutor, ends, ends.length / MOVES);
  // The student's own line, in the student's window: until it is on the canvas.
  const own = await student.evaluate(() => {
    const { sent, seen } = window as unknown as Timed;
    return seen.map((at) => at - Math.max(...sent.filter((t) => t <= at)));
  });
  const seven = await Promise.all(
    Array.from({ length: 7 }, async (_, i) => {
      const cookie = await server.join(`Student ${i}`);
      return (await BareWindow.open(`ws://127.0.0.1:${server.port}/live/lesson`, cookie))[0];
    }),
  );
  const began = performance.now();
  // Elsewhere on the page, or their ink would be taken for the one that is waited for.
  const writers = seven.map((window, i) => new BenchWriter(window, page, i, [40, y - 120]));
  let frames = 0;
  const timer = setInterval(() => {
    for (; frames * FRAME < performance.now() - began; frames++)
      for (const writer of writers) writer.frame(frames * FRAME);
  }, 4);
  const eight: number[][] = [];
  for (let turn = 0; turn < TURNS; turn++) {
    const below = await row(y + 40 + turn * 16, student, tutor);
    // Here it only matters when the student's pen moved: looking for ink costs both windows time.
    await student.evaluate(() => {
      const pens = document.querySelectorAll<HTMLCanvasElement>('cua-stage .host canvas')[2]!;
      for (const own of ['stroke', 'fillRect']) Reflect.deleteProperty(pens.getContext('2d')!, own);
    });
    eight.push(await drive(student, tutor, below, below.length / MOVES));
  }
  clearInterval(timer);
  for (const window of seven) window.close();
  await student.context().close();
  await tutor.context().close();
  // Frames make steps of what is measured: where one in twenty falls, a single run doesn't tell.
  const bare = [...before, ...(await bareTrip(browser)), ...(await bareTrip(browser))];
  const bareEight: number[][] = [];
  for (let turn = 0; turn < TURNS; turn++) bareEight.push(await bareTrip(browser, 7));
  const all8 = { eight: eight.flat(), bareEight: bareEight.flat() };
  for (const [name, all] of Object.entries({ own, ours: trips, ...all8, bare }))
    console.log(
      `${name}: p50 ${percentile(all, 0.5).toFixed(1)} ms, p95 ${percentile(all, 0.95).toFixed(1)} ms`,
    );
  await browser.close();
  await server.close();
  const p95 = percentile(trips, 0.95);
  return [
    // An event waits for the frame it falls into at most; its ink is drawn in that one or the next.
    result('ink-latency own ink', 'ms, p95', percentile(own, 0.95), 2 * FRAME, 1),
    result(
      'ink-latency of eight',
      'ms, p95',
      median(eight.map((turn) => percentile(turn, 0.95))),
      median(bareEight.map((turn) => percentile(turn, 0.95))),
      2,
    ),
    result('ink-latency p95', 'ms', p95, LIMIT_MS, 1),
    result('ink-latency', 'ms, p95', p95, percentile(bare, 0.95), 2, { also: p95 <= LIMIT_MS }),
  ];
}
