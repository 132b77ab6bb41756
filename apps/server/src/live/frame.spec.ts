import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { WebSocket, WebSocketServer } from 'ws';
import { pack, readServerMessages } from '@cuaderno/core';
import { framed, framedTogether } from './frame.js';

describe('a message as a frame', () => {
  it('is read by `ws` as it was, at each length at which the header changes (RFC 6455, 5.2)', async () => {
    const messages = [0, 1, 125, 126, 65_535, 65_536, 300_000].map((length) =>
      new Uint8Array(length).map((_, i) => i % 251),
    );
    const server = new WebSocketServer({ port: 0, host: '127.0.0.1', perMessageDeflate: false });
    await once(server, 'listening');
    server.on('connection', (_, request) => {
      for (const message of messages) request.socket.write(framed(message));
    });
    const heard: Buffer[] = [];
    const client = new WebSocket(`ws://127.0.0.1:${(server.address() as AddressInfo).port}`);
    await new Promise<void>((done, fail) => {
      client.on('error', fail);
      client.on('message', (data: Buffer, isBinary) => {
        expect(isBinary).toBeTrue();
        if (heard.push(data) === messages.length) done();
      });
    });
    heard.forEach((data, i) => expect(data.equals(messages[i]!)).toBeTrue());
    client.terminate();
    server.close();
  });

  it('is built once for all windows to which it goes, and never taken for another', () => {
    const [a, b] = [pack('a'), pack('b')];
    expect(framed(a)).toBe(framed(a));
    const read = (frame: Buffer) => readServerMessages(frame.subarray(2)) as unknown as string[];
    expect(read(framedTogether([a, b]))).toEqual(['a', 'b']);
    expect(framedTogether([a, b])).toBe(framedTogether([a, b]));
    expect(read(framedTogether([b, a]))).toEqual(['b', 'a']);
    expect(read(framedTogether([a]))).toEqual(['a']);
    expect(read(framedTogether([a, b, a]))).toEqual(['a', 'b', 'a']);
    expect(read(framed(b))).toEqual(['b']);
  });
});
