import { EventEmitter } from 'node:events';
import { PassThrough } from 'node:stream';
import type { WebSocket } from 'ws';
import { pack, readServerMessages } from '@cuaderno/core';
import { APART, GATHER, SendQueue } from './send-queue.js';

/** A socket whose window answers when the test says so. */
class PretendSocket extends EventEmitter {
  readonly OPEN = 1;
  readyState = 1;
  bufferedAmount = 0;
  /** What was heard, message by message, of all that was sent as one. */
  readonly sent: number[][] = [];
  pings = 0;

  constructor(line: PassThrough) {
    super();
    // Short frames, each written by itself: two bytes, then the message.
    line.on('data', (frame: Buffer) =>
      this.sent.push(readServerMessages(frame.subarray(2)) as unknown as number[]),
    );
  }

  ping(): void {
    this.pings++;
  }

  terminate(): void {
    this.readyState = 3;
  }
}

describe('what goes out to a window', () => {
  let line: PassThrough;
  let socket: PretendSocket;
  let sendQueue: SendQueue;

  const word = (n: number): Uint8Array => pack(n);
  const pass = (ms: number) => jasmine.clock().tick(ms);

  /** A round trip takes so long, in ms: the first, while the window loads, longer. */
  function answered(ms: number): void {
    for (const late of [100, 0]) {
      pass(ms + late);
      socket.emit('pong');
    }
  }

  beforeEach(() => {
    jasmine.clock().install();
    let now = 1000;
    spyOn(performance, 'now').and.callFake(() => now);
    const tick = jasmine.clock().tick.bind(jasmine.clock());
    spyOn(jasmine.clock(), 'tick').and.callFake((ms: number) => {
      now += ms;
      tick(ms);
    });
    line = new PassThrough();
    socket = new PretendSocket(line);
    sendQueue = new SendQueue(socket as unknown as WebSocket, line, () => undefined);
  });
  afterEach(() => {
    socket.emit('close');
    jasmine.clock().uninstall();
  });

  it('goes at once on a good line where one person writes, sixty times a second', () => {
    answered(20);
    for (const n of [1, 2, 3]) {
      sendQueue.sendLive(word(n));
      expect(socket.sent.length).toBe(n);
      pass(16);
    }
    sendQueue.send(word(4));
    expect(socket.sent).toEqual([[1], [2], [3], [4]]);
  });

  it('goes together where several write at once, half a frame later at most', () => {
    answered(2 * APART);
    for (const n of [1, 2, 3]) sendQueue.sendLive(word(n));
    expect(socket.sent).toEqual([[1]]);
    pass(APART);
    expect(socket.sent).toEqual([[1], [2, 3]]);
    pass(APART / 2);
    sendQueue.sendLive(word(4));
    expect(socket.sent.length).toBe(2);
    pass(APART / 2);
    expect(socket.sent).toEqual([[1], [2, 3], [4]]);
  });

  it('is gathered on a slow one, if it is live, and goes as one', () => {
    answered(400);
    const uncork = spyOn(line, 'uncork').and.callThrough();
    for (const n of [1, 2, 3]) sendQueue.sendLive(word(n));
    expect(socket.sent).toEqual([[1]]);
    pass(GATHER - 1);
    expect(socket.sent).toEqual([[1]]);
    pass(1);
    expect(socket.sent).toEqual([[1], [2, 3]]);
    expect(uncork).toHaveBeenCalledTimes(1);
  });

  it('waits no longer than a word is on its way', () => {
    answered(60);
    for (const n of [1, 2, 3]) sendQueue.sendLive(word(n));
    pass(29);
    expect(socket.sent).toEqual([[1]]);
    pass(1);
    expect(socket.sent).toEqual([[1], [2, 3]]);
  });

  it('arrives in the order in which it was said, whatever it is', () => {
    answered(400);
    sendQueue.sendLive(word(1));
    sendQueue.sendLive(word(2));
    sendQueue.send(word(3));
    expect(socket.sent).toEqual([[1], [2], [3]]);
    pass(GATHER);
    expect(socket.sent).toEqual([[1], [2], [3]]);
  });

  it('is only what lasts where a window hasn’t answered for long, or is far behind', () => {
    answered(400);
    pass(5000);
    pass(3000);
    sendQueue.sendLive(word(1));
    sendQueue.send(word(2));
    socket.emit('pong');
    socket.bufferedAmount = 300 * 1024;
    sendQueue.sendLive(word(3));
    pass(GATHER);
    expect(socket.sent).toEqual([[2]]);
  });

  it('is given up where a window takes nothing at all: it comes back and catches up', () => {
    socket.bufferedAmount = 17 * 1024 * 1024;
    sendQueue.send(word(1));
    expect(socket.readyState).toBe(3);
  });
});
