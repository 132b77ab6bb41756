import { newId } from '@cuaderno/core';
import { House } from '../testing/harness.js';
import type { Visitor, Window } from '../testing/harness.js';
import { plainPdf } from '../testing/pdf-files.js';
import type { HandedFile, HandOverShape, Receiver } from '@cuaderno/contract/handing-over';

/** A lesson with Ana and Ben in it, and a file among Maren's materials. */
describe('a file that is handed over', () => {
  let house: House;
  let asset: string;
  let pdf: Uint8Array;
  let ana: Visitor;
  let ben: Visitor;
  let anas: Window;
  let lesson: string;

  beforeEach(async () => {
    house = await House.open('handing-over');
    lesson = await house.openLesson();
    pdf = await plainPdf(2);
    const response = await house.uploadMaterial(house.tutor, 'Tide table.pdf', pdf);
    asset = ((await response.json()) as { id: string }).id;
    ana = await house.student('Ana');
    ben = await house.student('Ben');
    anas = await house.window(ana);
    await anas.hears('welcome');
  });
  afterEach(() => house.close());

  const path = () => `/courses/${house.course.id}/hand-overs`;
  const list = async (): Promise<{ students: Receiver[]; handOvers: HandOverShape[] }> =>
    (await house.tutor.get(path())).json();
  const hand = (to: 'all' | string[], who = house.tutor) => who.post(path(), { asset, to });
  const idOf = async (name: string): Promise<string> =>
    (await list()).students.find((one) => one.name === name)!.id;
  const handed = async (who: Visitor): Promise<HandedFile[]> =>
    (await who.get('/handed')).json<{ files: HandedFile[] }>().files;
  const file = (who: Visitor, id: string) => who.get(`/handed/${id}/file`);

  it('is for one student alone, who is told at once, and the tutor sees that they have it', async () => {
    expect((await list()).students.map(({ name, here }) => [name, here])).toEqual([
      ['Ana', true],
      ['Ben', true],
    ]);
    expect((await hand([await idOf('Ana')])).statusCode).toBe(204);
    await anas.hears('handed');
    const [one] = await handed(ana);
    expect(one).toEqual(
      jasmine.objectContaining({ name: 'Tide table.pdf', kind: 'pdf', fetchedAt: null }),
    );
    expect(await handed(ben)).toEqual([]);
    expect((await file(ben, one!.id)).statusCode).toBe(404);
    expect((await list()).handOvers[0]).toEqual(
      jasmine.objectContaining({ fileName: 'Tide table.pdf', to: 'Ana', fetched: [] }),
    );
    const got = await file(ana, one!.id);
    expect(got.rawPayload.equals(Buffer.from(pdf))).toBeTrue();
    expect(got.headers['content-disposition']).toContain('attachment; filename="Tide table.pdf"');
    expect(got.headers['content-type']).toBe('application/pdf');
    expect((await list()).handOvers[0]!.fetched.map(({ name }) => name)).toEqual(['Ana']);
    expect((await handed(ana))[0]!.fetchedAt).not.toBeNull();
  });

  it('for all is theirs too who come later, and stays when the lesson is over', async () => {
    await hand('all');
    expect((await handed(ben)).length).toBe(1);
    const cleo = await house.student('Cleo');
    const [forCleo] = await handed(cleo);
    await house.tutor.post(`/lessons/${lesson}/close`);
    expect((await file(cleo, forCleo!.id)).statusCode).toBe(200);
    expect((await list()).students.every(({ here }) => !here)).toBeTrue();
    // Before the next lesson it is handed to somebody who isn't there.
    const more = await house.uploadMaterial(house.tutor, 'Moon.pdf', await plainPdf(1));
    const { id } = (await more.json()) as { id: string };
    await house.tutor.post(path(), { asset: id, to: [await idOf('Ben')] });
    expect((await handed(ben)).map(({ name }) => name)).toEqual(['Moon.pdf', 'Tide table.pdf']);
  });

  it('is handed once, however often it is done', async () => {
    const to = await idOf('Ana');
    for (let i = 0; i < 3; i++) await hand([to, to]);
    await hand('all');
    await hand('all');
    expect((await list()).handOvers.length).toBe(2);
    expect((await handed(ana)).length).toBe(1);
  });

  it('can be taken back, and goes with its material', async () => {
    await hand('all');
    const [one] = await handed(ana);
    const { id } = (await list()).handOvers[0]!;
    expect((await house.tutor.post(`/hand-overs/${id}/take-back`)).statusCode).toBe(204);
    expect(await handed(ana)).toEqual([]);
    expect((await file(ana, one!.id)).statusCode).toBe(404);
    expect((await house.tutor.post(`/hand-overs/${id}/take-back`)).statusCode).toBe(404);
    await hand('all');
    const [again] = await handed(ana);
    await house.tutor.post('/materials/remove', { folders: [], assets: [asset] });
    expect(await handed(ana)).toEqual([]);
    expect((await file(ana, again!.id)).statusCode).toBe(404);
  });

  it('goes to nobody who wasn’t let in, nor to another tutor', async () => {
    await hand('all');
    const [one] = await handed(ana);
    expect(await handed(house.visitor())).toEqual([]);
    expect((await file(house.visitor(), one!.id)).statusCode).toBe(404);
    const nils = await house.otherTutor('Nils');
    expect((await nils.get(path())).statusCode).toBe(404);
    expect((await hand('all', nils)).statusCode).toBe(404);
    const { id } = (await list()).handOvers[0]!;
    expect((await nils.post(`/hand-overs/${id}/take-back`)).statusCode).toBe(404);
    // Neither somebody who isn't of the course, nor a file that isn't one's own.
    expect((await hand(['nobody'])).statusCode).toBe(404);
    const course = (await nils.post('/courses', { name: 'Knots' })).json<{ id: string }>().id;
    const stolen = await nils.post(`/courses/${course}/hand-overs`, { asset, to: 'all' });
    expect(stolen.statusCode).toBe(404);
    expect((await house.tutor.post(path(), { asset: newId(), to: 'all' })).statusCode).toBe(404);
    expect((await house.tutor.post(path(), { asset, to: [] })).statusCode).toBe(400);
  });
});
