import { pagesInOrder } from '@cuaderno/core';
import { film, pptxOf, silentWav } from '@cuaderno/formats/testing';
import { existsSync, readdirSync } from 'node:fs';
import { House } from '../testing/harness.js';
import type { Visitor } from '../testing/harness.js';
import { plainPdf } from '../testing/pdf-files.js';

interface Told {
  readonly folders: { id: string; parent: string | null; name: string }[];
  readonly assets: {
    id: string;
    folder: string | null;
    name: string;
    kind: string;
    file: string;
    pages: number | null;
    bytes: number;
  }[];
  readonly binned: number;
}

describe('materials', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('materials');
  });
  afterEach(() => house.close());

  const told = async (who: Visitor = house.tutor): Promise<Told> =>
    (await who.get('/materials')).json<Told>();
  const named = async (name: string): Promise<Told['assets'][0]> =>
    (await told()).assets.find((asset) => asset.name === name)!;
  const folder = async (name: string, parent: string | null = null): Promise<string> =>
    (await house.tutor.post('/materials/folders', { name, parent })).json<{ id: string }>().id;
  const bring = async (name: string, bytes: Uint8Array, into = ''): Promise<Told['assets'][0]> => {
    const response = await house.uploadMaterial(house.tutor, name, bytes, into);
    const text = await response.text();
    expect(response.status).withContext(text).toBe(201);
    return JSON.parse(text) as Told['assets'][0];
  };
  const do_ = async (what: string, body: object): Promise<number> =>
    (await house.tutor.post(`/materials/${what}`, body)).statusCode;

  it('are what their content says, whatever they are called', async () => {
    const pdf = await bring('sheet.png', await plainPdf(3));
    expect([pdf.kind, pdf.pages, pdf.name]).toEqual(['pdf', 3, 'sheet.png']);
    expect((await bring('horn.pdf', silentWav(2))).kind).toBe('sound');
    expect((await bring('waves', await film('webm'))).kind).toBe('film');
    expect((await bring('deck.zip', pptxOf([{ title: 'Ebb' }]))).kind).toBe('slides');
    const broken = await house.uploadMaterial(house.tutor, 'x.pdf', Buffer.from('%PDF-1.7 oh'));
    expect(broken.status).toBe(422);
    expect(await broken.text()).toContain('This PDF');
    const odd = await house.uploadMaterial(house.tutor, 'x.pdf', Buffer.from('what is this'));
    expect(((await odd.json()) as { type: string }).type).toBe('urn:cuaderno:material-unknown');
    expect((await told()).assets.length).toBe(4);
    expect(readdirSync(`${house.folder}/uploads`)).toEqual([]);
  });

  it('are stored once, however often they are brought', async () => {
    const bytes = await plainPdf(1);
    const first = await bring('Ebb.pdf', bytes);
    expect((await bring('Ebb.pdf', bytes)).id).toBe(first.id);
    const other = await bring('Flood.pdf', bytes, await folder('Tides'));
    expect(other.file).toBe(first.file);
    expect(other.id).not.toBe(first.id);
    // Other content under the same name is told apart.
    expect((await bring('Ebb.pdf', await plainPdf(2))).name).toBe('Ebb 2.pdf');
  });

  it('lie in folders: made, named, moved, copied with all that is in them', async () => {
    const sky = await folder('Sky');
    const winter = await folder('Winter', sky);
    const tides = await folder('Tides');
    const { id } = await bring('Orion.pdf', await plainPdf(1), winter);
    expect(await do_('move', { folders: [sky], to: winter })).toBe(409);
    expect(await do_('move', { folders: [winter], to: tides })).toBe(204);
    expect(await do_('copy', { folders: [tides], assets: [id], to: null })).toBe(204);
    expect(await do_(`folders/${sky}/name`, { name: 'tides' })).toBe(204);
    const { folders, assets } = await told();
    // A name that is taken gets a number.
    expect(folders.map(({ name }) => name).sort()).toEqual([
      'Tides',
      'Tides 2',
      'Winter',
      'Winter',
      'tides 3',
    ]);
    expect(assets.map(({ name, file }) => [name, file])).toEqual(
      Array.from({ length: 3 }, () => ['Orion.pdf', assets[0]!.file]),
    );
    const copied = folders.find(({ name }) => name === 'Tides 2')!;
    const inside = folders.find(({ parent }) => parent === copied.id)!;
    expect(assets.some((asset) => asset.folder === inside.id)).toBeTrue();
    expect(await do_('move', { assets: ['nothing_here'], to: null })).toBe(404);
  });

  it('go to the bin and come back to where they were, or to the top', async () => {
    const sky = await folder('Sky');
    const winter = await folder('Winter', sky);
    const { id } = await bring('Orion.pdf', await plainPdf(1), winter);
    await do_('remove', { assets: [id] });
    await do_('remove', { folders: [sky] });
    expect(await told()).toEqual(jasmine.objectContaining({ folders: [], assets: [], binned: 1 }));
    await do_('restore', { folders: [sky] });
    expect((await told()).folders.map(({ name }) => name).sort()).toEqual(['Sky', 'Winter']);
    expect((await told()).binned).toBe(1);
    await do_('restore', { assets: [id] });
    expect((await named('Orion.pdf')).folder).toBe(winter);
    await do_('remove', { assets: [id] });
    await do_('remove', { folders: [sky] });
    await house.tutor.post('/materials/bin/empty');
    expect((await told()).binned).toBe(0);
    expect(await do_('restore', { folders: [sky] })).toBe(404);
  });

  it('that boards use stay on them, and are told with their pages', async () => {
    const bytes = await plainPdf(2);
    const asset = await bring('Ebb.pdf', bytes);
    const made = await house.tutor.post(`/materials/assets/${asset.id}/board`, {
      course: house.course.id,
    });
    expect(made.statusCode).withContext(made.body).toBe(201);
    await house.app.imports.settled();
    const uses = async (): Promise<unknown> =>
      (await house.tutor.post('/materials/uses', { assets: [asset.id] })).json();
    expect(await uses()).toEqual([
      { board: made.json<{ id: string }>().id, title: 'Ebb', course: 'Tides', pages: [1, 2] },
    ]);
    const laid = await house.tutor.post(`/materials/assets/${asset.id}/pages`, {
      board: house.board,
      after: null,
    });
    expect(await uses()).toHaveSize(2);
    // After the page that was named, in the order of the file.
    const pages = await (await house.app.bus.host(house.board))!.between((state) =>
      pagesInOrder(state).map(({ paper }) => (paper.kind === 'pdf' ? paper.number : 0)),
    );
    expect(pages).toEqual([0, 1, 2]);
    expect(laid.json<{ pages: string[] }>().pages.length).toBe(2);
    await do_('remove', { assets: [asset.id] });
    await house.tutor.post('/materials/bin/empty');
    expect((await house.tutor.get(`/files/${asset.file}`)).statusCode).toBe(200);
    // One that nothing shows is gone for good.
    const other = await bring('Flood.pdf', await plainPdf(5));
    const path = house.app.files.path(other.file);
    await house.tutor.get(`/materials/assets/${other.id}/picture`);
    expect(existsSync(path)).toBeTrue();
    expect(readdirSync(`${house.folder}/small-pictures`)).toHaveSize(1);
    await do_('remove', { assets: [other.id] });
    expect((await house.tutor.get(`/files/${other.file}`)).statusCode).toBe(200);
    await house.tutor.post('/materials/bin/empty');
    expect(existsSync(path)).toBeFalse();
    expect(readdirSync(`${house.folder}/small-pictures`)).toEqual([]);
    expect((await house.tutor.get(`/files/${other.file}`)).statusCode).toBe(404);
  });

  it('hold what is brought to a course, and to its boards in a lesson', async () => {
    await house.tutor.upload(house.course.id, 'Tables.pdf', await plainPdf(2));
    await house.app.arrivals.settled();
    const send = (query: string, bytes: Uint8Array) =>
      house.tutor.request('POST', `/boards/${house.board}/material?${query}`, Buffer.from(bytes), {
        'content-type': 'application/octet-stream',
      });
    await send('name=horn.wav', silentWav(2));
    await send('name=horn.wav', silentWav(2));
    const { assets, folders } = await told();
    expect(folders.map(({ name }) => name)).toEqual(['Tides']);
    expect(assets.map(({ name, folder: at, pages }) => [name, at, pages])).toEqual([
      ['Tables.pdf', folders[0]!.id, 2],
      ['horn.wav', folders[0]!.id, null],
    ]);
  });

  it('that are brought together land in one folder, and once more after they were put into the bin', async () => {
    const send = (name: string, bytes: Uint8Array) =>
      house.tutor.request(
        'POST',
        `/boards/${house.board}/material?name=${name}`,
        Buffer.from(bytes),
        { 'content-type': 'application/octet-stream' },
      );
    await Promise.all([1, 2, 3].map((seconds) => send('horn.wav', silentWav(seconds))));
    const first = await told();
    expect(first.folders.map(({ name }) => name)).toEqual(['Tides']);
    expect(first.assets.map(({ name }) => name).sort()).toEqual([
      'horn 2.wav',
      'horn 3.wav',
      'horn.wav',
    ]);
    await do_('remove', { folders: [first.folders[0]!.id] });
    await send('horn.wav', silentWav(1));
    expect((await told()).assets.map(({ name }) => name)).toEqual(['horn.wav']);
  });

  it('have small pictures, and are laid on boards', async () => {
    const pdf = await bring('Ebb.pdf', await plainPdf(1));
    const picture = await house.tutor.get(`/materials/assets/${pdf.id}/picture`);
    expect(picture.headers['content-type']).toBe('image/jpeg');
    expect([...picture.rawPayload.subarray(0, 2)]).toEqual([0xff, 0xd8]);
    const horn = await bring('horn.wav', silentWav(2));
    expect((await house.tutor.get(`/materials/assets/${horn.id}/picture`)).statusCode).toBe(404);
    const lay = (id: string) =>
      house.tutor.post(`/materials/assets/${id}/lay`, { board: house.board });
    expect((await lay(horn.id)).json<{ length: number }>().length).toBeCloseTo(2, 1);
    expect((await lay(pdf.id)).statusCode).toBe(422);
    expect(
      (await house.tutor.post(`/materials/assets/${horn.id}/board`, { course: house.course.id }))
        .statusCode,
    ).toBe(422);
  });
});
