import { encodePiece, encodePoints, encodeStroke, newId, operation } from '@cuaderno/core';
import type { Id, InkPoint } from '@cuaderno/core';
import { chance, handwriting } from '@cuaderno/core/testing';
import { connect, createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';
import { BareWindow } from './windows.js';

/** For how long two people write, in ms; what it costs a second is what an hour costs a second. */
const WRITING = 60_000;
const FRAME = 1000 / 60;
/** Most that may come to a student, in kbit/s. */
const LIMIT = 20;
/** IPv4 and TCP with timestamps, for each segment, in bytes (RFC 791, RFC 9293, RFC 7323). */
const HEADERS = 52;

const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** A line to a port that counts what comes from there. */
async function counting(port: number) {
  let bytes = 0;
  let segments = 0;
  const server = createServer((near) => {
    const far = connect(port, '127.0.0.1');
    far.setNoDelay(true);
    near.setNoDelay(true);
    far.on('data', (data) => {
      bytes += data.length;
      segments += Math.ceil(data.length / 1448);
      near.write(data);
    });
    near.pipe(far);
    for (const one of [near, far]) one.on('error', () => undefined);
    near.on('close', () => far.destroy());
    far.on('close', () => near.destroy());
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  return {
    port: (server.address() as AddressInfo).port,
    count: () => ({ bytes, segments }),
    close: () => server.close(),
  };
}

/**
 * Writes without a rest but those between strokes and words, as the web client tells it: the points of each
 * frame as a piece, the finished line as an operation. A pen tells of itself every 8 ms. A stroke takes some
 * 0.4 s and is followed by 0.15 s in the air, a word by half a second: common practice, no source.
 */
class Writer {
  private readonly random: () => number;
  private line: readonly InkPoint[] = [];
  private id: Id = newId();
  private next = 0;
  private began = 0;
  private restUntil = 0;
  private strokes = 0;

  constructor(
    private readonly window: BareWindow,
    private readonly page: Id,
    private readonly seed: number,
  ) {
    this.random = chance(seed);
  }

  /** @returns whether the pen was on the page in this frame */
  frame(now: number): boolean {
    if (now < this.restUntil) return false;
    if (this.line.length === 0) this.begin(now);
    const due: InkPoint[] = [];
    while (this.next < this.line.length && this.line[this.next]!.time <= now - this.began)
      due.push(this.line[this.next++]!);
    const first = due[0] === this.line[0];
    const style = { tool: 'pen', ink: 'midnight', width: 2.4 } as const;
    if (due.length > 0)
      this.window.say(
        first
          ? {
              kind: 'live.ink',
              stroke: this.id,
              start: { page: this.page, style },
              points: encodePoints(due),
            }
          : { kind: 'live.more', piece: encodePiece(due, this.line[0]!) },
      );
    if (this.next === this.line.length) this.finish(now);
    return true;
  }

  private begin(now: number): void {
    this.id = newId();
    this.began = now;
    this.next = 0;
    const seed = this.seed * 10_000 + this.strokes;
    const count = 25 + Math.floor(this.random() * 50);
    const x = 60 + this.random() * 400;
    this.line = handwriting(seed, { count, x, y: 60 + this.random() * 700 }).points;
  }

  private finish(now: number): void {
    const style = { tool: 'pen', ink: 'midnight', width: 2.4 } as const;
    const ink = encodeStroke({ style, points: this.line });
    const op = { ...operation({ kind: 'ink.add', page: this.page, ink }), id: this.id };
    this.window.say({ kind: 'ops', ops: [op] });
    this.line = [];
    this.restUntil = now + (++this.strokes % 5 === 0 ? 500 : 150);
  }
}

/** What two people who write steadily cost a student who looks on, on average. */
export async function measure(): Promise<Result> {
  const server = await BenchServer.start();
  const { id: board } = await server.post<{ id: string }>(`/courses/${server.course.id}/boards`, {
    title: 'Traffic',
  });
  await server.post(`/boards/${board}/lesson`);
  const live = (port: number): string => `ws://127.0.0.1:${port}/live`;
  const [tutor, welcome] = await BareWindow.open(
    `${live(server.port)}/boards/${board}`,
    server.cookie,
  );
  const page = welcome.board!.pages[0]!.id;
  tutor.say({ kind: 'trust', who: 'all', trust: 'write' });
  const [ida] = await BareWindow.open(
    `${live(server.port)}/lesson`,
    await server.join('Ida', server.course.linkToken),
  );
  const line = await counting(server.port);
  const [noor] = await BareWindow.open(
    `${live(line.port)}/lesson`,
    await server.join('Noor', server.course.linkToken),
  );
  let pieces = 0;
  let lines = 0;
  noor.listen((message) => {
    if (message.kind === 'live.more') pieces++;
    if (message.kind === 'applied') lines += message.ops.length;
  });
  await wait(500);
  const before = line.count();
  const writers = [new Writer(tutor, page, 1), new Writer(ida, page, 2)];
  const began = performance.now();
  let [frames, down] = [0, 0];
  await new Promise<void>((done) => {
    const timer = setInterval(() => {
      const now = performance.now() - began;
      for (; frames * FRAME < now; frames++)
        for (const writer of writers) if (writer.frame(frames * FRAME)) down++;
      if (now < WRITING) return;
      clearInterval(timer);
      done();
    }, 4);
  });
  await wait(500);
  const after = line.count();
  const kbits = (bytes: number): number => (bytes * 8) / WRITING;
  const bytes = after.bytes - before.bytes;
  const headers = (after.segments - before.segments) * HEADERS;
  for (const window of [tutor, ida, noor]) window.close();
  line.close();
  await server.close();
  console.log(
    `traffic: ${lines} lines and ${pieces} pieces came; pens were down ${((50 * down) / frames).toFixed(0)} % of the time; ` +
      `${kbits(bytes).toFixed(1)} kbit/s within TCP, ${kbits(bytes + headers).toFixed(1)} kbit/s with the headers of TCP and IP; ` +
      `an hour is ${((bytes * 3600) / (WRITING / 1000) / 1e6).toFixed(1)} MB`,
  );
  const also = lines > 100 && pieces > 2000;
  return result('traffic', 'kbit/s', kbits(bytes), LIMIT, 1, { also });
}
