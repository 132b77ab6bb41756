import { House } from '../testing/harness.js';
import type { Visitor } from '../testing/harness.js';
import { plainPdf } from '../testing/pdf-files.js';

describe('an upload in parts (tus 1.0)', () => {
  let house: House;
  let bytes: Buffer;

  beforeEach(async () => {
    house = await House.open('uploads', { maxUploadBytes: 200_000 });
    bytes = await plainPdf(20);
  });
  afterEach(() => house.close());

  const TUS = { 'tus-resumable': '1.0.0' };
  const begin = (length = bytes.length): Promise<Response> =>
    house.fetch(house.tutor, '/materials/uploads', {
      method: 'POST',
      headers: {
        ...TUS,
        'upload-length': String(length),
        'upload-metadata': `name ${Buffer.from('Ebb.pdf').toString('base64')}`,
      },
    });
  const part = (path: string, from: number, to: number, who = house.tutor): Promise<Response> =>
    house.fetch(who, path, {
      method: 'PATCH',
      headers: {
        ...TUS,
        'upload-offset': String(from),
        'content-type': 'application/offset+octet-stream',
      },
      body: bytes.subarray(from, to),
    });
  const offset = async (path: string, who: Visitor = house.tutor): Promise<string | null> =>
    (await house.fetch(who, path, { method: 'HEAD', headers: TUS })).headers.get('upload-offset');
  const pathOf = (response: Response): string =>
    response.headers.get('location')!.replace('/api', '');

  it('goes on where it broke off, also after the server was stopped', async () => {
    const path = pathOf(await begin());
    expect((await part(path, 0, 700)).status).toBe(204);
    expect(await offset(path)).toBe('700');
    await house.restart();
    expect(await offset(path)).toBe('700');
    // A part that doesn’t fit is not taken.
    expect((await part(path, 900, 1000)).status).toBe(409);
    const last = await part(path, 700, bytes.length);
    expect(last.status).toBe(200);
    const asset = (await last.json()) as { name: string; pages: number; file: string };
    expect([asset.name, asset.pages]).toEqual(['Ebb.pdf', 20]);
    const file = await house.tutor.get(`/files/${asset.file}`);
    expect(Buffer.compare(file.rawPayload, bytes)).toBe(0);
    expect(await offset(path)).toBeNull();
  });

  it('says what of a file isn’t in what is kept of it', async () => {
    bytes = Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="90" height="60"><rect width="90" height="60"/>' +
        '<foreignObject width="9" height="9"><p xmlns="http://www.w3.org/1999/xhtml">Ebb</p></foreignObject></svg>',
    );
    const last = await part(pathOf(await begin()), 0, bytes.length);
    const asset = (await last.json()) as { kind: string; remarks: string[] };
    expect([asset.kind, asset.remarks]).toEqual(['picture', ['html']]);
    bytes = await plainPdf(2);
    const plain = await part(pathOf(await begin()), 0, bytes.length);
    expect(((await plain.json()) as { remarks: string[] }).remarks).toEqual([]);
  });

  it('can be given up', async () => {
    const path = pathOf(await begin());
    await part(path, 0, 700);
    const gone = await house.fetch(house.tutor, path, { method: 'DELETE', headers: TUS });
    expect(gone.status).toBe(204);
    expect((await part(path, 700, bytes.length)).status).toBe(404);
    expect((await house.tutor.get('/materials')).json<{ assets: object[] }>().assets).toEqual([]);
  });

  it('is its own tutor’s only', async () => {
    const other = await house.otherTutor('Sigrid');
    const path = pathOf(await begin());
    expect(await offset(path, other)).toBeNull();
    expect((await part(path, 0, 700, other)).status).toBe(404);
    expect((await part(path, 0, 700, house.visitor())).status).toBe(401);
    expect(await offset(path)).toBe('0');
  });

  it('that is too large is told before a byte is sent', async () => {
    const response = await begin(300_000);
    expect(response.status).toBe(413);
    expect(((await response.json()) as { title: string }).title).toBe('This file is too large.');
  });
});
