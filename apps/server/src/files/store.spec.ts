import { createHash } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { House } from '../testing/harness.js';
import { FileStore } from './store.js';

const sha256 = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

describe('stored files', () => {
  let folder: string;
  let store: FileStore;

  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), 'cuaderno-store-'));
    store = new FileStore(folder);
    await store.open();
  });
  afterEach(() => rmSync(folder, { recursive: true }));

  const fault = (work: Promise<unknown>): Promise<string> =>
    work.then(
      () => 'none',
      (error: { code: string }) => error.code,
    );

  it('lie under the SHA-256 of their content, once', async () => {
    const bytes = Buffer.from('low water at ten');
    const [first, second] = [
      await store.put(Readable.from([bytes.subarray(0, 3), bytes.subarray(3)]), 100),
      await store.put(Readable.from([bytes]), 100),
    ];
    expect(first).toEqual(second);
    expect(first.hash).toBe(sha256(bytes));
    expect(readFileSync(first.path)).toEqual(bytes);
    expect(readdirSync(store.incoming)).toEqual([]);
  });

  it('are taken over from where they lie on this disk', async () => {
    const path = join(folder, 'came');
    writeFileSync(path, 'high water at four');
    const { hash, bytes } = await store.adopt(path);
    expect([hash, bytes]).toEqual([sha256(Buffer.from('high water at four')), 18]);
    writeFileSync(path, '');
    expect(await fault(store.adopt(path))).toBe('file-empty');
  });

  it('leave nothing behind where they are too large, empty, or cut off', async () => {
    const cut = Readable.from(
      (async function* () {
        yield Buffer.from('half of');
        await Promise.reject(new Error('the line is gone'));
      })(),
    );
    expect(await fault(store.put(cut, 100))).toBe('upload-broken-off');
    expect(await fault(store.put(Readable.from([Buffer.alloc(9)]), 8))).toBe('file-too-large');
    expect(await fault(store.put(Readable.from([]), 8))).toBe('file-empty');
    expect(readdirSync(store.incoming)).toEqual([]);
  });

  it('aren’t removed while someone holds them', async () => {
    const { hash, path } = await store.put(Readable.from([Buffer.from('neap')]), 100);
    const release = store.hold(hash);
    await store.remove(hash);
    expect(readFileSync(path, 'utf8')).toBe('neap');
    release();
    await store.remove(hash);
    expect(() => readFileSync(path)).toThrow();
  });
});

describe('an upload that is cut off', () => {
  it('makes no board and leaves nothing behind', async () => {
    const house = await House.open('cut-off');
    const { port } = house.app.server.address() as { port: number };
    const before = (await house.tutor.get(`/courses/${house.course.id}`)).json<{
      boards: object[];
    }>().boards.length;
    const incoming = join(house.folder, 'files', 'incoming');
    await new Promise<void>((done) => {
      const sending = request({
        port,
        method: 'POST',
        path: `/api/courses/${house.course.id}/boards/import?name=Ebb.pdf`,
        headers: {
          cookie: house.tutor.cookie,
          'content-type': 'application/octet-stream',
          'content-length': '1000000',
        },
      });
      sending.on('error', () => undefined);
      sending.on('close', () => done());
      sending.write(Buffer.concat([Buffer.from('%PDF-1.7\n'), Buffer.alloc(50_000)]), () =>
        sending.destroy(),
      );
    });
    // The server notices in its own time; what it had is gone then.
    while (readdirSync(incoming).length > 0) await new Promise((next) => setImmediate(next));
    const after = (await house.tutor.get(`/courses/${house.course.id}`)).json<{
      boards: object[];
    }>().boards.length;
    expect(after).toBe(before);
    await house.close();
  });
});
