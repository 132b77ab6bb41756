import { connect, createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';
import { BareWindow } from './windows.js';
import { FRAME, BenchWriter } from './writer.js';

/** For how long two people write, in ms; what it costs a second is what an hour costs a second. */
const WRITING = 60_000;
/** Most that may come to a student, in kbit/s. */
const LIMIT = 20;
/** IPv4 and TCP with timestamps, for each segment, in bytes (RFC 791, RFC 9293, RFC 7323). */
const HEADERS = 52;
/** How long a word takes there and back on a far line, in ms. */
const FAR = 180;

const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** A line to a port that counts what comes from there. @param delay of what goes through, each way, in ms */
async function counting(port: number, delay: number) {
  let bytes = 0;
  let segments = 0;
  const later = (then: () => void): unknown => (delay === 0 ? then() : setTimeout(then, delay));
  const server = createServer((near) => {
    const far = connect(port, '127.0.0.1');
    far.setNoDelay(true);
    near.setNoDelay(true);
    far.on('data', (data) => {
      bytes += data.length;
      segments += Math.ceil(data.length / 1448);
      later(() => near.write(data));
    });
    near.on('data', (data) => later(() => far.write(data)));
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

interface Cost {
  readonly bytes: number;
  readonly within: number;
  readonly headed: number;
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
  // Two students look on: one near, one far away.
  const lines = [await counting(server.port, 0), await counting(server.port, FAR / 2)];
  const lookers: BareWindow[] = [];
  let pieces = 0;
  let came = 0;
  for (const [i, line] of lines.entries()) {
    const [window] = await BareWindow.open(
      `${live(line.port)}/lesson`,
      await server.join(`Noor ${i}`, server.course.linkToken),
    );
    lookers.push(window);
  }
  lookers[0]!.listen((message) => {
    if (message.kind === 'live.more') pieces++;
    if (message.kind === 'applied') came += message.ops.length;
  });
  await wait(500);
  const before = lines.map((line) => line.count());
  const writers = [new BenchWriter(tutor, page, 1), new BenchWriter(ida, page, 2)];
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
  const kbits = (bytes: number): number => (bytes * 8) / WRITING;
  const [near, far] = lines.map((line, i) => {
    const after = line.count();
    const bytes = after.bytes - before[i]!.bytes;
    const headers = (after.segments - before[i]!.segments) * HEADERS;
    return { bytes, within: kbits(bytes), headed: kbits(bytes + headers) };
  }) as [Cost, Cost];
  for (const window of [tutor, ida, ...lookers]) window.close();
  for (const line of lines) line.close();
  await server.close();
  console.log(
    `traffic: ${came} lines and ${pieces} pieces came; pens were down ${((50 * down) / frames).toFixed(0)} % of the time; ` +
      `near: ${near.within.toFixed(1)} kbit/s within TCP, ${near.headed.toFixed(1)} kbit/s with the headers of TCP and IP; ` +
      `on a line of ${FAR} ms there and back: ${far.within.toFixed(1)} and ${far.headed.toFixed(1)}; ` +
      `an hour is ${((near.bytes * 3600) / (WRITING / 1000) / 1e6).toFixed(1)} MB`,
  );
  // Where it counts, on a far line, the headers are within the limit too.
  const also = came > 100 && pieces > 2000 && far.headed <= LIMIT;
  return result('traffic', 'kbit/s', near.within, LIMIT, 1, { also });
}
