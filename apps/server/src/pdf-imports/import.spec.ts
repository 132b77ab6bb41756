import { pagesInOrder } from '@cuaderno/core';
import type { PageSpec } from '@cuaderno/core';
import { sniffPicture } from '@cuaderno/formats/picture-in';
import { House } from '../testing/harness.js';
import { lockedPdf, namedPdf, oddPdf, plainPdf } from '../testing/pdf-files.js';
import { titleFromFileName } from '../boards/title.js';

describe('bringing a PDF', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('import', { maxUploadBytes: 3_000_000, maxPages: 2500 });
  });
  afterEach(() => house.close());

  async function bring(
    bytes: Buffer,
    name = 'sheet.pdf',
  ): Promise<{ id: string; title: string; pages: PageSpec[] }> {
    const response = await house.tutor.upload(house.course.id, name, bytes);
    expect(response.statusCode).withContext(response.body).toBe(201);
    const { id, title } = response.json<{ id: string; title: string }>();
    await house.app.imports.settled();
    const host = (await house.app.bus.host(id))!;
    return { id, title, pages: await host.between((board) => pagesInOrder(board)) };
  }

  async function refused(bytes: Buffer, name = 'sheet.pdf'): Promise<[number, string, string]> {
    const response = await house.tutor.upload(house.course.id, name, bytes);
    const { type, detail } = response.json<{ type: string; detail: string }>();
    const boards = (await house.tutor.get(`/courses/${house.course.id}`)).json<{
      boards: object[];
    }>().boards;
    expect(boards.length).withContext('nothing is left behind').toBe(1);
    return [response.statusCode, type.replace('urn:cuaderno:', ''), detail];
  }

  it('makes a board with a page for each page, in order', async () => {
    const { title, pages } = await bring(await plainPdf(3), 'Fractions, week 4.pdf');
    expect(title).toBe('Fractions, week 4');
    expect(pages.map(({ paper }) => paper.kind === 'pdf' && paper.number)).toEqual([1, 2, 3]);
    expect([pages[0]!.width, pages[0]!.height]).toEqual([595, 842]);
  });

  it('takes sizes, crop boxes and turns from the file', async () => {
    const { pages } = await bring(await oddPdf());
    expect(pages.map(({ width, height }) => [width, height])).toEqual([
      [300, 400],
      [400, 300],
      [300, 400],
      [400, 300],
    ]);
    expect(pages.map(({ paper }) => paper.kind === 'pdf' && [paper.rotate, paper.box])).toEqual(
      [0, 90, 180, 270].map((turn) => [turn, [50, 100, 350, 500]]) as never,
    );
  });

  it('names pages as the file’s outline and page labels do, the first and the last', async () => {
    const { pages } = await bring(await namedPdf(12));
    expect(pages.map(({ name }) => name)).toEqual([
      'i',
      'ii',
      'Ebb – 干潮',
      'A-2',
      'Neap tides',
      ...['A-4', 'A-5', 'A-6', 'A-7', 'A-8', 'A-9'],
      'Answers',
    ]);
  });

  it('brings 2,000 pages, the first before the last', async () => {
    const { pages } = await bring(await plainPdf(2000, [200, 200]));
    expect(pages.length).toBe(2000);
    expect(
      pages.every(({ paper }, i) => paper.kind === 'pdf' && paper.number === i + 1),
    ).toBeTrue();
  });

  it('brings a page of 200 inches', async () => {
    const { pages } = await bring(await plainPdf(1, [14_400, 14_400]));
    expect([pages[0]!.width, pages[0]!.height]).toEqual([14_400, 14_400]);
  });

  it('stores the same file once', async () => {
    const bytes = await plainPdf(1);
    const [a, b] = [await bring(bytes), await bring(bytes, 'again.pdf')];
    const file = (p: { pages: PageSpec[] }) =>
      p.pages[0]!.paper.kind === 'pdf' && p.pages[0]!.paper.file;
    expect(file(a)).toEqual(file(b));
  });

  it('goes on with the rest after a stop half way', async () => {
    const { id, pages } = await bring(await plainPdf(30));
    const host = (await house.app.bus.host(id))!;
    expect(pages.length).toBe(30);
    // As a killed server leaves it: the log ends after the first pages.
    const end = await host.between((_board, seq) => seq);
    await house.app.db.raw([
      {
        sql: 'DELETE FROM operations WHERE seq = ? AND board = (SELECT num FROM boards WHERE id = ?)',
        params: [end, id],
      },
    ]);
    await house.restart();
    const again = (await house.app.bus.host(id))!;
    const numbers = await again.between((board) =>
      pagesInOrder(board).map(({ paper }) => paper.kind === 'pdf' && paper.number),
    );
    expect(numbers).toEqual(Array.from({ length: 30 }, (_, i) => i + 1));
  });

  it('says what is wrong with a file that is none, and leaves nothing behind', async () => {
    const whole = await plainPdf(2);
    expect((await refused(Buffer.alloc(0)))[1]).toBe('file-empty');
    expect((await refused(Buffer.from('Dear student, this is a letter.')))[1]).toBe('file-not-pdf');
    expect((await refused(whole.subarray(0, whole.length >> 1)))[1]).toBe('file-truncated');
    expect((await refused(Buffer.from('%PDF-1.7\nnothing in here\n%%EOF')))[1]).toBe('file-broken');
    const [status, code, detail] = await refused(await lockedPdf());
    expect([status, code]).toEqual([422, 'file-locked']);
    expect(detail).toContain('without a password');
  });

  it('says how large a file may be', async () => {
    const [status, code, detail] = await refused(
      Buffer.concat([await plainPdf(1), Buffer.alloc(3_100_000)]),
    );
    expect([status, code]).toEqual([413, 'file-too-large']);
    expect(detail).toContain('3 MB');
  });

  it('says how many pages a board holds', async () => {
    await house.close();
    house = await House.open('import', { maxPages: 5 });
    const [status, code, detail] = await refused(await plainPdf(6));
    expect([status, code]).toEqual([422, 'too-many-pages']);
    expect(detail).toContain('6 pages');
  });

  it('says when no page has a size that can be shown', async () => {
    expect((await refused(await plainPdf(1, [20_000, 300])))[1]).toBe('page-size');
  });

  it('puts an empty sheet for a page that can’t be shown, so that the others keep their numbers', async () => {
    const { PDFDocument } = await import('@cantoo/pdf-lib');
    const doc = await PDFDocument.create();
    for (const size of [
      [300, 300],
      [20_000, 300],
      [300, 300],
    ] as [number, number][])
      doc.addPage(size).drawText('x');
    const { pages } = await bring(Buffer.from(await doc.save()));
    expect(pages.map(({ paper }) => paper.kind)).toEqual(['pdf', 'plain', 'pdf']);
    expect(pages[1]!.name).toContain('can’t be shown');
  });

  it('makes a title of any file name', () => {
    expect(titleFromFileName('C:\\papers\\Ebb & flow.PDF')).toBe('Ebb & flow');
    expect(titleFromFileName('潮汐表.pdf')).toBe('潮汐表');
    expect(titleFromFileName('<img src=x>.pdf')).toBe('<img src=x>');
    expect([...titleFromFileName(`${'x'.repeat(10_000)}.pdf`)].length).toBe(120);
    expect(titleFromFileName('\u202e.pdf')).toBe('Board');
  });
});

describe('a stored file', () => {
  let house: House;
  let hash: string;

  beforeEach(async () => {
    house = await House.open('files');
    const bytes = await plainPdf(2);
    const { id } = (await house.tutor.upload(house.course.id, 'a.pdf', bytes)).json<{
      id: string;
    }>();
    await house.app.imports.settled();
    house.board = id;
    const host = (await house.app.bus.host(id))!;
    hash = await host.between((board) => {
      const { paper } = pagesInOrder(board)[0]!;
      return paper.kind === 'pdf' ? paper.file : '';
    });
  });
  afterEach(() => house.close());

  it('is served in byte ranges, and never changes', async () => {
    const whole = await house.tutor.get(`/files/${hash}`);
    expect(whole.headers['content-type']).toBe('application/pdf');
    expect(whole.headers['cache-control']).toContain('immutable');
    const part = await house.tutor.request('GET', `/files/${hash}`, undefined, {
      range: 'bytes=5-9',
    });
    expect(part.statusCode).toBe(206);
    expect(part.rawPayload).toEqual(whole.rawPayload.subarray(5, 10));
    expect(part.headers['content-range']).toBe(`bytes 5-9/${whole.rawPayload.length}`);
  });

  it('is there for students of a lesson on its board, and for nobody else', async () => {
    await house.openLesson();
    expect((await (await house.student('Ana')).get(`/files/${hash}`)).statusCode).toBe(200);
    expect((await house.visitor().get(`/files/${hash}`)).statusCode).toBe(401);
    const other = await house.tutor.post(`/courses/${house.course.id}/boards`, { title: 'Other' });
    expect((await house.tutor.get(`/files/${'0'.repeat(64)}`)).statusCode).toBe(404);
    expect(other.statusCode).toBe(201);
  });

  it('can be had a page at a time as a picture, by the same people', async () => {
    await house.openLesson();
    const ana = await house.student('Ana');
    const page = (n: number, side = 720) => `/files/${hash}/pages/${n}?side=${side}`;
    const got = await ana.get(page(1));
    expect(got.headers['content-type']).toBe('image/webp');
    const { width, height } = sniffPicture(new Uint8Array(got.rawPayload));
    expect(Math.max(width, height)).toBe(720);
    expect((await house.tutor.get(page(1, 1440))).statusCode).toBe(200);
    expect((await house.visitor().get(page(1))).statusCode).toBe(401);
    expect((await ana.get(page(9999))).statusCode).toBe(404);
    // Not of any size that somebody wishes.
    expect((await ana.get(page(1, 20_000))).statusCode).toBe(400);
    expect((await ana.get(page(0))).statusCode).toBe(400);
  });
});
