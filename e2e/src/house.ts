import type { ChildProcess } from 'node:child_process';
import { execFileSync, fork, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { connect, createServer } from 'node:net';
import type { Server, Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import type { HostAnswer, HostOrder } from '../../apps/server/dist/testing/app-host.js';

const SERVER = resolve(import.meta.dirname, '../../apps/server/dist');
const MAIN = join(SERVER, 'main.js');
const DEMO = join(SERVER, 'demo/main.js');

/**
 * Where ports are looked for: below those that systems give to outgoing connections (from 32768 on), and for each of
 * Playwright's workers apart, so that no two servers are ever told the same.
 */
const FIRST_PORT = 12_000;
const PORTS_OF_A_WORKER = 2_000;
let taken = process.pid % 500;

/** A port of this machine that nothing listens on. */
export async function freePort(): Promise<number> {
  const first = FIRST_PORT + Number(process.env['TEST_PARALLEL_INDEX'] ?? 0) * PORTS_OF_A_WORKER;
  for (;;) {
    const port = first + (taken++ % PORTS_OF_A_WORKER);
    if (await isFree(port)) return port;
  }
}

function isFree(port: number): Promise<boolean> {
  return new Promise((done) => {
    const probe = createServer();
    probe.once('error', () => done(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => done(true)));
  });
}

/** What a server is to a story: where it is, and that it ends. */
export interface RunningServer {
  readonly url: string;
  readonly port: number;
  close(): Promise<void>;
}

/** The process in which stories of this worker have their servers: its code is loaded once. */
let host: ChildProcess | null = null;

function hosted(order: HostOrder): Promise<void> {
  const child = (host ??= fork(join(SERVER, 'testing/app-host.js')));
  return new Promise((done, failed) => {
    const hear = ({ port, problem }: HostAnswer): void => {
      if (port !== order.port) return;
      child.off('message', hear).off('exit', gone);
      if (problem === null) done();
      else failed(new Error(problem));
    };
    const gone = (): void => {
      host = null;
      failed(new Error('The process that has the servers of stories is gone.'));
    };
    child.on('message', hear).once('exit', gone);
    child.send(order);
  });
}

/** A real server with a data folder of its own, in a process that others share. */
export class SharedProcessServer implements RunningServer {
  private readonly folder = mkdtempSync(join(tmpdir(), 'cuaderno-e2e-'));

  private constructor(readonly port: number) {}

  static async start(): Promise<SharedProcessServer> {
    const server = new SharedProcessServer(await freePort());
    await hosted({ kind: 'start', port: server.port, folder: server.folder });
    return server;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async close(): Promise<void> {
    await hosted({ kind: 'close', port: this.port });
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** A real server in a process of its own, with a data folder of its own, that can be killed. */
export class KillableServer implements RunningServer {
  private child: ChildProcess | null = null;
  readonly folder = mkdtempSync(join(tmpdir(), 'cuaderno-e2e-'));

  protected constructor(readonly port: number) {}

  static async start(): Promise<KillableServer> {
    const server = new KillableServer(await freePort());
    await server.run();
    return server;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  protected get env(): NodeJS.ProcessEnv {
    return {
      ...process.env,
      ...{ CUADERNO_DATA: this.folder, PORT: String(this.port), LOG_LEVEL: 'error' },
    };
  }

  async run(): Promise<void> {
    this.child = spawn(process.execPath, [MAIN], {
      env: this.env,
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    for (;;) {
      if (this.child.exitCode !== null)
        throw new Error(`The server ended with ${this.child.exitCode} before it was ready.`);
      const ready = await fetch(`${this.url}/api/health/ready`).then(
        (response) => response.ok,
        () => false,
      );
      if (ready) return;
      await new Promise((done) => setTimeout(done, 50));
    }
  }

  /** As a power cut would: no goodbye. */
  async kill(signal: 'SIGKILL' | 'SIGTERM' = 'SIGKILL'): Promise<number | null> {
    const { child } = this;
    if (!child || child.exitCode !== null) return null;
    const gone = new Promise<number | null>((done) => child.once('exit', done));
    child.kill(signal);
    return gone;
  }

  async close(): Promise<void> {
    await this.kill();
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** A line between a browser and the server that can be cut and mended. */
export class Line {
  private readonly sockets = new Set<Socket>();
  private server: Server | null = null;
  private isCut = false;
  /** Bytes a second that go to the server at most. */
  pace = Infinity;
  /** Bytes that went to the server. */
  sent = 0;

  private constructor(
    readonly port: number,
    private readonly target: number,
  ) {}

  static async to(target: number): Promise<Line> {
    const line = new Line(await freePort(), target);
    await new Promise<void>((done) => {
      line.server = createServer((near) => line.join(near)).listen(line.port, '127.0.0.1', done);
    });
    return line;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  cut(): void {
    this.isCut = true;
    for (const socket of this.sockets) socket.destroy();
  }

  mend(): void {
    this.isCut = false;
  }

  close(): void {
    this.cut();
    this.server?.close();
  }

  private join(near: Socket): void {
    if (this.isCut) return void near.destroy();
    const far = connect(this.target, '127.0.0.1');
    near.on('data', (bytes: Buffer) => this.passOn(bytes, near, far));
    far.pipe(near);
    for (const [from, to] of [
      [near, far],
      [far, near],
    ] as const) {
      this.sockets.add(from);
      from.on('end', () => to.end());
      from.on('error', () => to.destroy());
      from.on('close', () => {
        this.sockets.delete(from);
        to.destroy();
      });
    }
  }

  private passOn(bytes: Buffer, near: Socket, far: Socket): void {
    this.sent += bytes.length;
    far.write(bytes);
    if (this.pace === Infinity) return;
    near.pause();
    setTimeout(() => near.resume(), (bytes.length / this.pace) * 1000);
  }
}

/** A server that is filled with the demo. */
export class DemoServer extends KillableServer {
  /** Where students of the demo's class come in, as a path. */
  wayIn = '';

  static override async start(): Promise<DemoServer> {
    const server = new DemoServer(await freePort());
    server.wayIn = execFileSync(process.execPath, [DEMO], { env: server.env }).toString();
    await server.run();
    return server;
  }

  protected override get env(): NodeJS.ProcessEnv {
    return { ...super.env, CUADERNO_DEMO: '1' };
  }
}
