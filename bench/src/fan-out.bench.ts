import { encodeStroke, newId, operation, pack, PROTOCOL } from '@cuaderno/core';
import type { Id, ServerMessage } from '@cuaderno/core';
import { readServerMessages } from '@cuaderno/core';
import { handwriting } from '@cuaderno/core/testing';
import { spawn } from 'node:child_process';
import WebSocket from 'ws';
import { median, result } from './result.js';
import type { Result } from './result.js';
import { BenchServer, freePort } from './server.js';

const OPERATIONS = 4000;
/** Operations sent and not confirmed yet, as many as a quick class has under way and more. */
const WINDOW = 400;
const PEERS = 3;
const RUNS = 3;

function open(url: string, cookie = ''): Promise<WebSocket> {
  const socket = new WebSocket(url, { headers: { cookie }, perMessageDeflate: false });
  socket.binaryType = 'nodebuffer';
  return new Promise((done, fail) => socket.once('open', () => done(socket)).once('error', fail));
}

/** Seconds until every peer has had every byte and the sender every confirmation. */
function ours(server: BenchServer, board: string, page: Id): Promise<number> {
  return (async () => {
    const cookies = await Promise.all(
      Array.from({ length: PEERS }, (_, i) => server.join(`Peer ${i}`)),
    );
    const sender = await open(`ws://127.0.0.1:${server.port}/live/boards/${board}`, server.cookie);
    const peers = await Promise.all(
      cookies.map((cookie) => open(`ws://127.0.0.1:${server.port}/live/lesson`, cookie)),
    );
    const welcomed = [sender, ...peers].map(
      (socket) =>
        new Promise<void>((done) => {
          const look = (data: Buffer): void => {
            if (readServerMessages(data)[0]!.kind !== 'board.opened') return;
            socket.off('message', look);
            done();
          };
          socket.on('message', look);
          const boards = [{ board: socket === sender ? board : null, since: -1 }];
          socket.send(pack({ kind: 'hello', protocol: PROTOCOL, boards }));
        }),
    );
    await Promise.all(welcomed);
    const messages = Array.from({ length: OPERATIONS }, (_, i) =>
      pack({
        kind: 'ops',
        board,
        ops: [operation({ kind: 'ink.add', page, ink: encodeStroke(handwriting(i)) })],
      }),
    );
    const began = performance.now();
    let confirmed = 0;
    let next = 0;
    const all = Promise.all([
      new Promise<void>((done) => {
        sender.on('message', (data: Buffer) => {
          const [message] = readServerMessages(data) as [ServerMessage];
          if (message.kind !== 'confirmed') return;
          confirmed += message.ids.length;
          feed();
          if (confirmed === OPERATIONS) done();
        });
      }),
      ...peers.map(
        (peer) =>
          new Promise<void>((done) => {
            let seen = 0;
            peer.on('message', (data: Buffer) => {
              const [message] = readServerMessages(data) as [ServerMessage];
              if (message.kind === 'applied') seen += message.ops.length;
              if (seen === OPERATIONS) done();
            });
          }),
      ),
    ]);
    const feed = (): void => {
      while (next < OPERATIONS && next - confirmed < WINDOW) sender.send(messages[next++]!);
    };
    feed();
    await all;
    const seconds = (performance.now() - began) / 1000;
    for (const socket of [sender, ...peers]) socket.close();
    return seconds;
  })();
}

/** The same bytes through a bare `ws` server that sends each message on to the three others. */
async function bare(): Promise<number> {
  const port = await freePort();
  const child = spawn(
    process.execPath,
    [new URL('./bare-relay.js', import.meta.url).pathname, String(port)],
    { stdio: ['ignore', 'pipe', 'inherit'] },
  );
  await new Promise((done) => child.stdout.once('data', done));
  const [sender, ...peers] = (await Promise.all(
    Array.from({ length: PEERS + 1 }, () => open(`ws://127.0.0.1:${port}`)),
  )) as [WebSocket, ...WebSocket[]];
  const page = newId();
  const messages = Array.from({ length: OPERATIONS }, (_, i) =>
    pack({
      kind: 'ops',
      board: page,
      ops: [operation({ kind: 'ink.add', page, ink: encodeStroke(handwriting(i)) })],
    }),
  );
  const began = performance.now();
  let next = 0;
  const counts = peers.map(() => 0);
  await new Promise<void>((done) => {
    const feed = (): void => {
      const slowest = Math.min(...counts);
      while (next < OPERATIONS && next - slowest < WINDOW) sender.send(messages[next++]!);
      if (slowest === OPERATIONS) done();
    };
    peers.forEach((peer, i) =>
      peer.on('message', () => {
        counts[i]!++;
        feed();
      }),
    );
    feed();
  });
  const seconds = (performance.now() - began) / 1000;
  for (const socket of [sender, ...peers]) socket.close();
  child.kill();
  return seconds;
}

/**
 * Confirmed operations a second through validation, permission, durable write and sending to three
 * others, against bare `ws` sending the same bytes to the same peers.
 */
export async function measure(): Promise<Result> {
  const server = await BenchServer.start();
  const rates: number[] = [];
  const bareRates: number[] = [];
  for (let i = 0; i < RUNS; i++) {
    const { id } = await server.post<{ id: string }>(`/courses/${server.course.id}/boards`, {
      title: `Run ${i}`,
    });
    const lesson = await server.post<{ id: string }>(`/boards/${id}/lesson`);
    const page = await firstPage(server, id);
    rates.push(OPERATIONS / (await ours(server, id, page)));
    await server.post(`/lessons/${lesson.id}/close`);
    bareRates.push(OPERATIONS / (await bare()));
  }
  await server.close();
  return result('fan-out', 'operations/s', median(rates), median(bareRates), 0.4, {
    atLeast: true,
  });
}

export async function firstPage(server: BenchServer, board: string): Promise<Id> {
  const socket = await open(`ws://127.0.0.1:${server.port}/live/boards/${board}`, server.cookie);
  const page = await new Promise<Id>((done) => {
    socket.on('message', (data: Buffer) => {
      const [message] = readServerMessages(data) as [ServerMessage];
      if (message.kind === 'board.opened') done(message.outline!.pages[0]!.id);
    });
    socket.send(pack({ kind: 'hello', protocol: PROTOCOL, boards: [{ board, since: -1 }] }));
  });
  socket.close();
  return page;
}
