import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

const MAIN = resolve(import.meta.dirname, '../../apps/server/dist/main.js');

export function freePort(): Promise<number> {
  return new Promise((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });
}

/** A server in a process of its own, with a tutor, a course and a board on it. */
export class BenchServer {
  readonly folder = mkdtempSync(join(tmpdir(), 'cuaderno-bench-'));
  cookie = '';
  course = { id: '', linkToken: '' };
  private child: ChildProcess | null = null;

  private constructor(readonly port: number) {}

  static async start(): Promise<BenchServer> {
    const server = new BenchServer(await freePort());
    server.child = spawn(process.execPath, [MAIN], {
      env: {
        ...process.env,
        CUADERNO_DATA: server.folder,
        PORT: String(server.port),
        LOG_LEVEL: 'error',
        CUADERNO_MESSAGES_PER_SECOND: '1000000',
      },
      stdio: 'ignore',
    });
    for (;;) {
      const up = await fetch(`${server.url}/api/health/ready`).then(
        (r) => r.ok,
        () => false,
      );
      if (up) break;
      await new Promise((done) => setTimeout(done, 50));
    }
    await server.post('/set-up', {
      name: 'Maren',
      email: 'maren@example.org',
      password: 'low-water-at-ten',
    });
    server.course = await server.post('/courses', { name: 'Bench' });
    await server.post(`/courses/${server.course.id}/door`, { door: 'all' });
    return server;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Keeps the cookie of the tutor; a student’s is returned by `join`. */
  async post<T>(path: string, body: object | Buffer = {}, type = 'application/json'): Promise<T> {
    const response = await fetch(`${this.url}/api${path}`, {
      method: 'POST',
      headers: { 'content-type': type, cookie: this.cookie },
      body: Buffer.isBuffer(body) ? new Uint8Array(body) : JSON.stringify(body),
    });
    if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`);
    const set = response.headers.getSetCookie();
    if (set.length > 0) this.cookie = set.map((c) => c.split(';')[0]).join('; ');
    return (response.status === 204 ? undefined : await response.json()) as T;
  }

  /** Goes on as another tutor, whom this one invites. */
  async changeTutor(email: string): Promise<void> {
    const { token } = await this.post<{ token: string }>('/invitations');
    this.cookie = '';
    const password = 'ropes-and-knots';
    await this.post('/invitations/accept', { token, name: 'Another tutor', email, password });
  }

  get pid(): number {
    return this.child!.pid!;
  }

  async join(name: string, link = this.course.linkToken): Promise<string> {
    const response = await fetch(`${this.url}/api/join`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ by: { link }, name }),
    });
    return response.headers
      .getSetCookie()
      .map((c) => c.split(';')[0])
      .join('; ');
  }

  upload(name: string, bytes: Buffer): Promise<{ id: string }> {
    return this.post(
      `/courses/${this.course.id}/boards/import?name=${name}`,
      bytes,
      'application/octet-stream',
    );
  }

  async close(): Promise<void> {
    const gone = new Promise((done) => this.child?.once('exit', done));
    this.child?.kill('SIGTERM');
    await gone;
    rmSync(this.folder, { recursive: true, force: true });
  }
}
