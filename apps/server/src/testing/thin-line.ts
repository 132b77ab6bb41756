import { connect, createServer } from 'node:net';
import type { AddressInfo, Server, Socket } from 'node:net';

/** Bytes of a segment (1,500 less the headers of IP and TCP). */
const SEGMENT = 1448;
/** What a lost segment costs: a sender waits at least a second before it sends again (RFC 6298, 2.4). */
const AGAIN = 1000;
/** Bytes that wait in the line before its sender is held up, as the buffers of a modem would. */
const BUFFER = 24_000;

export interface Thinness {
  /** Bits a second, each way. */
  readonly rate: number;
  /** Of a segment, each way, in ms. */
  readonly delay: number;
  /** Part of the segments that are lost on the way. */
  readonly loss: number;
}

/** One way of the line: all connections share it. */
class LineWay {
  private free = 0;
  bytes = 0;

  constructor(
    private readonly thinness: () => Thinness | null,
    private readonly chance: () => number,
  ) {}

  /** When a segment that is sent now has arrived, by `performance.now()`. */
  take(bytes: number): number {
    const thin = this.thinness();
    const now = performance.now();
    this.bytes += bytes;
    if (!thin) return now;
    this.free = Math.max(this.free, now) + (bytes * 8 * 1000) / thin.rate;
    return this.free + thin.delay + (this.chance() < thin.loss ? AGAIN + 2 * thin.delay : 0);
  }
}

/** A line that is as thin as it is told to be: TCP as a browser has it over a bad mobile network. */
export class ThinLine {
  /** `null` for a good line. */
  thinness: Thinness | null = null;
  private readonly sockets = new Set<Socket>();
  private server: Server | null = null;
  private state = 7;
  /** Repeatable (a linear congruential generator; Numerical Recipes' constants). */
  private readonly chance = (): number =>
    (this.state = (this.state * 1664525 + 1013904223) >>> 0) / 2 ** 32;
  private readonly up = new LineWay(() => this.thinness, this.chance);
  private readonly down = new LineWay(() => this.thinness, this.chance);

  static async to(target: number): Promise<ThinLine> {
    const line = new ThinLine();
    line.server = createServer((near) => line.join(near, target));
    await new Promise<void>((ready) => line.server!.listen(0, '127.0.0.1', ready));
    return line;
  }

  get url(): string {
    return `http://127.0.0.1:${(this.server!.address() as AddressInfo).port}`;
  }

  /** Bytes that came down, to the browser. */
  get came(): number {
    return this.down.bytes;
  }

  close(): void {
    for (const socket of this.sockets) socket.destroy();
    this.server?.close();
  }

  private join(near: Socket, target: number): void {
    const far = connect(target, '127.0.0.1');
    near.setNoDelay(true);
    far.setNoDelay(true);
    this.pass(near, far, this.up);
    this.pass(far, near, this.down);
  }

  private pass(from: Socket, to: Socket, way: LineWay): void {
    this.sockets.add(from);
    let last = 0;
    let waiting = 0;
    const later = (at: number, then: () => void): void => {
      // What was sent later never arrives before.
      last = Math.max(last, at);
      setTimeout(then, Math.max(0, last - performance.now()));
    };
    from.on('data', (data: Buffer) => {
      for (let at = 0; at < data.length; at += SEGMENT) {
        const segment = data.subarray(at, at + SEGMENT);
        waiting += segment.length;
        later(way.take(segment.length), () => {
          waiting -= segment.length;
          to.write(segment);
          if (waiting < BUFFER) from.resume();
        });
      }
      if (waiting >= BUFFER) from.pause();
    });
    from.on('end', () => later(way.take(0), () => to.end()));
    from.on('error', () => to.destroy());
    from.on('close', () => {
      this.sockets.delete(from);
      later(way.take(0), () => to.destroy());
    });
  }
}
