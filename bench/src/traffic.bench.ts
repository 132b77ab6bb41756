import { connect, createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { result } from './result.js';
import type { Result } from './result.js';
import { BenchServer } from './server.js';
import { BareWindow } from './windows.js';
import { FRAME, Writer } from './writer.js';

/** For how long two people write, in ms; what it costs a second is what an hour costs a second. */
const WRITING = 60_000;
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
