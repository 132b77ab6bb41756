import {
  decodePiece,
  decodePoints,
  encodePiece,
  encodePoints,
  encodeStroke,
  newId,
  operation,
} from '@cuaderno/core';
import type { Id, InkPoint } from '@cuaderno/core';
import { readFileSync } from 'node:fs';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { percentile, result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';
import { BareWindow } from './windows.js';

const LESSONS = 100;
/** Lessons of one tutor: nobody has more windows than a dozen. */
const EACH = 10;
const STUDENTS = 3;
/** Points a second, points of a line, and for how long all write, in ms. */
const RATE = 60;
const LINE = 60;
const WRITING = 20_000;
/** Within which all begin to write, in ms: no two classes begin in the same moment. The server comes fresh to it. */
const BEGINNING = 2000;
/** By when 99 of 100 points must have reached the others, in ms; most memory, in MB. */
const LIMIT = 100;
const MEMORY = 1024;

/** Where points lie isn't asked, only how many came. */
const ORIGIN = { x: 0, y: 0 };

const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** Where a stroke begins. */
function place(points: Uint8Array): string {
  const [{ x, y }] = decodePoints(points) as [InkPoint];
  return `${x} ${y}`;
}

/** One lesson: its tutor writes, three look on. */
class Lesson {
  readonly delays: number[] = [];
  readonly confirmed = new Set<Id>();
  /** When each piece was sent, by stroke and number of points so far. */
  private readonly sent = new Map<string, number>();
  private stroke = newId();
  /** Others know a stroke under way by where it begins. */
  private begun = '';
  private strokes = 0;
  private points: InkPoint[] = [];

  constructor(
    readonly board: Id,
    /** Its tutor's. */
    readonly cookie: string,
    private readonly page: Id,
    private readonly writer: BareWindow,
    private readonly watchers: readonly BareWindow[],
    /** Points of the first line: no two classes lift their pens in the same moment. */
    private length: number,
  ) {
    writer.listen((message) => {
      if (message.kind === 'confirmed') for (const id of message.ids) this.confirmed.add(id);
    });
    for (const watcher of watchers) {
      const counts = new Map<number, { stroke: string; points: number }>();
      watcher.listen((message) => {
        if (message.kind === 'live.ink')
          counts.set(message.n, { stroke: place(message.points), points: 0 });
        else if (message.kind !== 'live.more') return;
        const known = counts.get(message.n);
        if (!known) return;
        const now = performance.now();
        // Pieces that waited for each other come as one.
        const came = message.kind === 'live.ink' ? 1 : decodePiece(message.piece, ORIGIN).length;
        for (let i = 0; i < came; i++) {
          const at = this.sent.get(`${known.stroke} ${++known.points}`);
          if (at !== undefined) this.delays.push(now - at);
        }
      });
    }
  }

  /** The next point; a finished line is sent as one that is kept. */
  write(): void {
    const i = this.points.length;
    const point = {
      x: 80 + i * 4 + (this.strokes % 400),
      y: 100 + 20 * Math.sin(i / 5),
      pressure: 0.5,
      time: i * 16,
    };
    this.points.push(point);
    if (i === 0) this.begun = place(encodePoints([point]));
    const style = { tool: 'pen', ink: 'midnight', width: 2.4 } as const;
    this.sent.set(`${this.begun} ${this.points.length}`, performance.now());
    if (i === 0) {
      const start = { page: this.page, style };
      const points = encodePoints([point]);
      this.writer.say({ kind: 'live.ink', stroke: this.stroke, start, points });
    } else this.writer.say({ kind: 'live.more', piece: encodePiece([point], this.points[0]!) });
    if (this.points.length < this.length) return;
    this.length = LINE;
    const ink = encodeStroke({ style, points: this.points });
    this.writer.say({
      kind: 'ops',
      ops: [{ ...operation({ kind: 'ink.add', page: this.page, ink }), id: this.stroke }],
    });
    this.stroke = newId();
    this.strokes++;
    this.points = [];
  }

  close(): void {
    for (const window of [this.writer, ...this.watchers]) window.close();
  }
}

async function begin(server: BenchServer, n: number): Promise<Lesson> {
  const course = await server.post<{ id: string; linkToken: string }>('/courses', {
    name: `Course ${n}`,
  });
  await server.post(`/courses/${course.id}/door`, { door: 'all' });
  const { id: board } = await server.post<{ id: string }>(`/courses/${course.id}/boards`, {
    title: `Board ${n}`,
  });
  await server.post(`/boards/${board}/lesson`);
  const url = `ws://127.0.0.1:${server.port}`;
  const [writer, welcome] = await BareWindow.open(`${url}/live/boards/${board}`, server.cookie);
  const watchers = await Promise.all(
    Array.from({ length: STUDENTS }, async (_, i) => {
      const cookie = await server.join(`Student ${i}`, course.linkToken);
      return (await BareWindow.open(`${url}/live/lesson`, cookie))[0];
    }),
  );
  return new Lesson(
    board,
    server.cookie,
    welcome.board!.pages[0]!.id,
    writer,
    watchers,
    2 + (n % LINE),
  );
}

/** Lines of the board as it is on disk and sent to anyone who comes. */
async function kept(server: BenchServer, { board, cookie }: Lesson): Promise<Set<Id>> {
  const [window, welcome] = await BareWindow.open(
    `ws://127.0.0.1:${server.port}/live/boards/${board}`,
    cookie,
  );
  const ids = new Set<Id>();
  const asked: Id[] = [];
  for (const page of welcome.board!.pages)
    if ('items' in page) for (const { id } of page.items) ids.add(id);
    else asked.push(page.id);
  if (asked.length > 0) {
    const given = window.hears('pages');
    window.say({ kind: 'pages', ids: asked });
    for (const page of (await given).pages) for (const { id } of page.items) ids.add(id);
  }
  window.close();
  return ids;
}

/**
 * A hundred lessons of four people on one server, in each of which one writes 60 points a second: how long
 * points take to the others (p99), against 100 ms. No confirmed line may be missing, and memory stays bounded.
 */
export async function measure(): Promise<Result> {
  const server = await BenchServer.start();
  const lessons: Lesson[] = [];
  for (let n = 0; n < LESSONS; n++) {
    if (n > 0 && n % EACH === 0) await server.changeTutor(`tutor${n}@example.org`);
    lessons.push(await begin(server, n));
  }
  const own = monitorEventLoopDelay({ resolution: 2 });
  own.enable();
  const began = performance.now();
  await new Promise<void>((done) => {
    const written = lessons.map(() => 0);
    const timer = setInterval(() => {
      const since = performance.now() - began;
      // Each at its own moment, and no point left out where a tick came late.
      lessons.forEach((lesson, n) => {
        const due = Math.floor(((since - (n * BEGINNING) / LESSONS) / 1000) * RATE);
        for (; written[n]! < due; written[n]!++) lesson.write();
      });
      if (since < BEGINNING + WRITING) return;
      clearInterval(timer);
      done();
    }, 2);
  });
  await wait(1500);
  const delays = lessons.flatMap((lesson) => lesson.delays);
  const status = readFileSync(`/proc/${server.pid}/status`, 'utf8');
  const memory = Number(/VmHWM:\s+(\d+)/.exec(status)![1]) / 1024;
  let confirmed = 0;
  let lost = 0;
  for (const lesson of lessons) {
    const there = await kept(server, lesson);
    confirmed += lesson.confirmed.size;
    for (const id of lesson.confirmed) if (!there.has(id)) lost++;
  }
  for (const lesson of lessons) lesson.close();
  await server.close();
  const p99 = percentile(delays, 0.99);
  console.log(
    `lesson-load: ${delays.length} points, p50 ${percentile(delays, 0.5).toFixed(1)} ms, ` +
      `p99 ${p99.toFixed(1)} ms; ${confirmed} lines confirmed, ${lost} lost; ${memory.toFixed(0)} MB; ` +
      `this process itself was late by ${(own.percentile(99) / 1e6).toFixed(0)} ms (p99)`,
  );
  const also = lost === 0 && confirmed > 0 && memory <= MEMORY;
  return result('lesson-load', 'ms', p99, LIMIT, 1, { also });
}
