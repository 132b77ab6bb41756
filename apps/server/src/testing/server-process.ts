import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const MAIN = fileURLToPath(new URL('../main.js', import.meta.url));

/** A server in a process of its own, with all that it says to the one who started it. */
export class ServerProcess {
  said = '';
  readonly process: ChildProcess;
  readonly ended: Promise<number | null>;

  constructor(folder: string, env: Record<string, string> = {}) {
    this.process = spawn(process.execPath, [MAIN], {
      env: { ...process.env, CUADERNO_DATA: folder, PORT: '0', LOG_LEVEL: 'info', ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    for (const stream of [this.process.stdout!, this.process.stderr!])
      stream.on('data', (part: Buffer) => (this.said += part.toString()));
    this.ended = new Promise((resolve) => this.process.once('exit', (code) => resolve(code)));
  }

  /** Resolves to its port, when it listens. Throws what it said where it ended instead. */
  async listens(): Promise<number> {
    for (;;) {
      const port = /listening at http:\/\/127\.0\.0\.1:(\d+)/.exec(this.said)?.[1];
      if (port) return Number(port);
      const over = await Promise.race([
        this.ended.then(() => true),
        new Promise<false>((resolve) => this.process.stdout!.once('data', () => resolve(false))),
      ]);
      if (over) throw new Error(`It ended: ${this.said}`);
    }
  }

  /** Memory that it takes up, in MB. */
  get memory(): number {
    const status = readFileSync(`/proc/${this.process.pid}/status`, 'utf8');
    return Number(/VmRSS:\s+(\d+)/.exec(status)![1]) / 1000;
  }

  /** Most memory that it took up, in MB. */
  get mostMemory(): number {
    const status = readFileSync(`/proc/${this.process.pid}/status`, 'utf8');
    return Number(/VmHWM:\s+(\d+)/.exec(status)![1]) / 1000;
  }

  async end(signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
    this.process.kill(signal);
    await this.ended;
  }
}
