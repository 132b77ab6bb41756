import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { ServerProcess } from '../testing/server-process.js';
import { openDatabase } from './index.js';

describe('starting the server', () => {
  let folder: string;
  const started: ServerProcess[] = [];
  const start = (env: Record<string, string> = {}): ServerProcess => {
    const one = new ServerProcess(folder, env);
    started.push(one);
    return one;
  };

  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'cuaderno-starting-'));
  });
  afterEach(async () => {
    for (const one of started.splice(0)) {
      one.process.kill('SIGKILL');
      await one.ended;
    }
    rmSync(folder, { recursive: true, force: true });
  });

  it('is for one process a folder: a second says so and stops, and takes over when the first is gone', async () => {
    const first = start();
    await first.listens();
    const second = start();
    expect(await second.ended).toBe(1);
    expect(second.said).toContain(
      `Another Cuaderno is using the folder ${folder}. Stop that one first, or name another folder with CUADERNO_DATA.`,
    );
    expect(first.process.exitCode).toBeNull();
    // However it went.
    first.process.kill('SIGKILL');
    await first.ended;
    await start().listens();
  });

  it('says in a sentence that the database is damaged, and what to do', async () => {
    writeFileSync(join(folder, 'cuaderno.db'), 'no database at all '.repeat(500));
    const one = start();
    expect(await one.ended).toBe(1);
    expect(one.said).toContain('is damaged and can’t be read');
    expect(one.said).toContain('npm run restore');
    expect(one.said).not.toContain('    at ');
  });

  it('says which setting can’t be used, and that a port is taken', async () => {
    const odd = start({ CUADERNO_PROXIES: 'everyone' });
    expect(await odd.ended).toBe(1);
    expect(odd.said).toMatch(/CUADERNO_PROXIES can't be used: give the number of proxies/);
    const first = start();
    const port = String(await first.listens());
    const elsewhere = mkdtempSync(join(tmpdir(), 'cuaderno-starting-'));
    const second = start({ CUADERNO_DATA: elsewhere, PORT: port });
    expect(await second.ended).toBe(1);
    expect(second.said).toContain(`Something else listens on port ${port} already.`);
    rmSync(elsewhere, { recursive: true, force: true });
  });

  it('keeps the database as it was before its tables are changed, and only then', async () => {
    const copies = (): string[] => {
      try {
        return readdirSync(join(folder, 'before-updates'));
      } catch {
        return [];
      }
    };
    const db = await openDatabase(folder);
    await db.close();
    const again = await openDatabase(folder);
    expect(copies()).toEqual([]);
    await again.close();
    // As an older server left it.
    const older = new URL('../../test-data/2026-11-30/cuaderno.db.gz', import.meta.url);
    for (const file of readdirSync(folder).filter((name) => name.startsWith('cuaderno.db')))
      rmSync(join(folder, file));
    writeFileSync(join(folder, 'cuaderno.db'), gunzipSync(readFileSync(older)));
    const newer = await openDatabase(folder);
    expect(copies().length).toBe(1);
    await newer.close();
  });
});
