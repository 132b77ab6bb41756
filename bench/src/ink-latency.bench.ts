import type { Page } from 'playwright-core';
import { WebSocketServer } from 'ws';
import { launch, visitor, whenSharp } from './browser.js';
import { percentile, result } from './result.js';
import type { Result } from './result.js';
import { BenchServer, freePort } from './server.js';

const MOVES = 150;
const LIMIT_MS = 60;
/** How far ahead of the ink, in px, new ink is looked for. */
const NEXT = 160;

type Timed = Window & { sent: number[]; seen: number[] };

/**
 * Notes every pointer event on `target`, and every frame in which the ink in the middle row of
 * a canvas reaches farther right than before: painted pixels, read off the canvas.
 */
async function watch(page: Page, target: string, canvas: string, nth: number): Promise<void> {
  await page.evaluate(
    ({ target, canvas, nth, NEXT }) => {
      const w = window as unknown as Timed;
      w.sent = [];
      w.seen = [];
      const now = (): number => performance.timeOrigin + performance.now();
      document
        .querySelector(target)!
        .addEventListener('pointermove', (event) =>
          w.sent.push(performance.timeOrigin + event.timeStamp),
        );
      const element = document.querySelectorAll<HTMLCanvasElement>(canvas)[nth]!;
      const context = element.getContext('2d')!;
      const { width } = element;
      const top = Math.round(element.height / 2) - 2;
      let reach = 0;
      const look = (): void => {
        // Only what may be new: reading a whole row back each frame would be slower than the ink.
        const strip = Math.min(NEXT, width - reach - 1);
        const row = strip > 0 ? context.getImageData(reach + 1, top, strip, 4).data : [];
        let far = 0;
        for (let x = strip - 1; x >= 0 && far === 0; x--)
          for (let y = 0; y < 4; y++) if (row[(y * strip + x) * 4 + 3]! > 100) far = reach + 1 + x;
        if (far > reach) {
          reach = far;
          w.seen.push(now());
        }
        requestAnimationFrame(look);
      };
      requestAnimationFrame(look);
    },
    { target, canvas, nth, NEXT },
  );
}

/** The same trip through a bare `ws` echo: events batched by frame, drawn in the next frame. */
async function bareTrip(browser: Awaited<ReturnType<typeof launch>>): Promise<number[]> {
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
          let batch: number[] = [];
          document.addEventListener('pointermove', (event) => {
            if (!sends) return;
            if (batch.length === 0)
              requestAnimationFrame(() => {
                socket.send(JSON.stringify(batch));
                batch = [];
              });
            batch.push(event.clientX);
          });
          let queue: number[] = [];
          socket.onmessage = (event: MessageEvent<string>) => {
            queue.push(...(JSON.parse(event.data) as number[]));
            requestAnimationFrame(() => {
              if (queue.length === 0) return;
              for (const x of queue) context.fillRect(x - 44, 348, 4, 4);
              queue = [];
            });
          };
        }),
      { port, sends },
    );
    await watch(page, 'body', 'canvas', 0);
  }
  const trips = await drive(a!, b!, { x: 100, y: 390 }, 1);
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
    await writer.mouse.move(from.x + i * step * 5, from.y);
    const seenAt = await reader.evaluate(
      (n) =>
        new Promise<number>((done) => {
          const w = window as unknown as Timed;
          const look = (): void => {
            if (w.seen.length > n) done(w.seen[n]!);
            else setTimeout(look, 1);
          };
          look();
        }),
      before,
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
  await tutor.getByRole('button', { name: 'Pens for all' }).click();
  await student.getByText('You have a pen').waitFor();
  // Both show the page alike, so that the student's line lies in the middle row of the tutor's window.
  for (const page of [tutor, student])
    await watch(page, 'cua-stage .host', 'cua-stage .host canvas', 2);
  const place = await tutor.evaluate(() => {
    const host = document.querySelector('cua-stage .host') as Element & {
      cuaStage: {
        zoom(): number;
        page(): string;
        locate(page: string, p: object): { x: number; y: number };
      };
    };
    const stage = host.cuaStage;
    const corner = stage.locate(stage.page(), { x: 0, y: 0 });
    return { page: stage.page(), y: (host.clientHeight / 2 - corner.y) / stage.zoom() };
  });
  const from = await student.evaluate(({ page, y }) => {
    const host = document.querySelector('cua-stage .host') as Element & {
      cuaStage: { locate(page: string, p: object): { x: number; y: number } };
    };
    const box = host.getBoundingClientRect();
    const at = host.cuaStage.locate(page, { x: 40, y });
    return { x: box.x + at.x, y: box.y + at.y };
  }, place);
  const trips = await drive(student, tutor, from, 1);
  // The student's own line, in the student's window: frames until it is on the canvas.
  const own = await student.evaluate(() => {
    const { sent, seen } = window as unknown as Timed;
    return seen.map((at) => at - Math.max(...sent.filter((t) => t <= at)));
  });
  console.log(
    `own ink: p50 ${percentile(own, 0.5).toFixed(1)} ms, p95 ${percentile(own, 0.95).toFixed(1)} ms from event to canvas, read once a frame`,
  );
  const bare = await bareTrip(browser);
  await browser.close();
  await server.close();
  const p95 = percentile(trips, 0.95);
  return [
    { ...result('ink-latency p95', 'ms', p95, LIMIT_MS, 1) },
    result('ink-latency', 'ms, p95', p95, percentile(bare, 0.95), 2, { also: p95 <= LIMIT_MS }),
  ];
}
