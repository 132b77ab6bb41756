import { pptxOf, silentWav } from '@cuaderno/formats/testing';
import { House } from '../testing/harness.js';
import type { Visitor } from '../testing/harness.js';
import { plainPdf } from '../testing/pdf-files.js';

interface Shelf {
  readonly folders: { id: string; parent: string | null; name: string }[];
  readonly assets: { id: string; name: string; file: string; folder: string | null }[];
}

describe('a shared folder', () => {
  let house: House;
  let folder: string;
  let pdf: Shelf['assets'][0];

  beforeEach(async () => {
    house = await House.open('sharing');
    const make = async (name: string, parent: string | null): Promise<string> =>
      (await house.tutor.post('/materials/folders', { name, parent })).json<{ id: string }>().id;
    folder = await make('Winter', await make('Sky', null));
    const inside = await make('Orion', folder);
    const response = await house.uploadMaterial(
      house.tutor,
      'Orion.pdf',
      await plainPdf(2),
      inside,
    );
    pdf = (await response.json()) as Shelf['assets'][0];
  });
  afterEach(() => house.close());

  const share = async (kind: 'tutor' | 'course', id: string): Promise<string> => {
    const response = await house.tutor.post(`/materials/folders/${folder}/share`, { kind, id });
    expect(response.statusCode).withContext(response.body).toBe(201);
    return response.json<{ id: string }>().id;
  };
  const takeBack = (id: string) => house.tutor.post(`/materials/shares/${id}/take-back`);

  describe('with another tutor', () => {
    let sigrid: Visitor;
    let course: string;
    let given: string;

    beforeEach(async () => {
      sigrid = await house.otherTutor('Sigrid');
      course = (await sigrid.post('/courses', { name: 'Stars' })).json<{ id: string }>().id;
      const [other] = (await house.tutor.get('/materials/tutors')).json<
        { id: string; name: string }[]
      >();
      expect(other!.name).toBe('Sigrid');
      given = await share('tutor', other!.id);
    });

    const shared = async (): Promise<(Shelf & { owner: { name: string } })[]> =>
      (await sigrid.get('/materials')).json<{ shared: (Shelf & { owner: { name: string } })[] }>()
        .shared;

    it('is theirs to use and to copy, with all that is in it, and nothing above it', async () => {
      const [theirs] = await shared();
      expect(theirs!.owner.name).toBe('Maren');
      expect(theirs!.folders.map(({ name, parent }) => [name, parent])).toEqual([
        ['Winter', null],
        ['Orion', folder],
      ]);
      const board = await sigrid.post(`/materials/assets/${pdf.id}/board`, { course });
      expect(board.statusCode).toBe(201);
      await house.app.imports.settled();
      const uses = (await sigrid.post('/materials/uses', { assets: [pdf.id] })).json<object[]>();
      expect(uses).toEqual([jasmine.objectContaining({ title: 'Orion', pages: [1, 2] })]);
      expect(
        (await sigrid.post('/materials/copy', { folders: [folder], to: null })).statusCode,
      ).toBe(204);
      const own = (await sigrid.get('/materials')).json<Shelf>();
      expect(own.folders.map(({ name }) => name)).toContain('Winter');
      expect(own.assets.some(({ file }) => file === pdf.file)).toBeTrue();
      const picture = await sigrid.get(`/materials/assets/${pdf.id}/picture`);
      expect(picture.headers['cache-control']).toBe('no-store');
      expect((await sigrid.get(`/files/${pdf.file}`)).statusCode).toBe(200);
    });

    it('is not theirs to change, or to share on', async () => {
      for (const [path, body] of [
        ['move', { assets: [pdf.id], to: null }],
        ['remove', { folders: [folder] }],
        [`folders/${folder}/name`, { name: 'Mine' }],
        [`assets/${pdf.id}/name`, { name: 'Mine' }],
        [`folders/${folder}/share`, { kind: 'course', id: course }],
        ['folders', { name: 'Inside', parent: folder }],
        [`shares/${given}/take-back`, {}],
      ] as const)
        expect((await sigrid.post(`/materials/${path}`, body)).statusCode)
          .withContext(path)
          .toBe(404);
      // What they send into it lands on their own shelf.
      await house.uploadMaterial(sigrid, 'Own.pdf', await plainPdf(1), folder);
      expect((await house.tutor.get('/materials')).json<Shelf>().assets).toHaveSize(1);
    });

    it('is gone for them at once when it is taken back; what they copied or used stays', async () => {
      await sigrid.post(`/materials/assets/${pdf.id}/board`, { course });
      const unused = await house.uploadMaterial(house.tutor, 'B.pdf', await plainPdf(3), folder);
      const { id, file } = (await unused.json()) as Shelf['assets'][0];
      expect((await sigrid.get(`/files/${file}`)).statusCode).toBe(200);
      await takeBack(given);
      expect(await shared()).toEqual([]);
      expect((await sigrid.get(`/files/${file}`)).statusCode).toBe(404);
      expect((await sigrid.get(`/materials/assets/${id}/picture`)).statusCode).toBe(404);
      expect((await sigrid.post(`/materials/assets/${id}/board`, { course })).statusCode).toBe(404);
      expect((await sigrid.get(`/files/${pdf.file}`)).statusCode).toBe(200);
    });

    it('that goes to the bin is gone for them as well', async () => {
      await house.tutor.post('/materials/remove', { folders: [folder] });
      expect(await shared()).toHaveSize(0);
    });
  });

  it('is shared with nobody unknown, not with oneself, and not with others’ courses', async () => {
    const sigrid = await house.otherTutor('Sigrid');
    const theirs = (await sigrid.post('/courses', { name: 'Stars' })).json<{ id: string }>().id;
    const [me] = (await sigrid.get('/materials/tutors')).json<{ id: string }[]>();
    for (const [kind, id] of [
      ['tutor', 'nobody__here'],
      ['tutor', me!.id],
      ['course', theirs],
    ])
      expect(
        (await house.tutor.post(`/materials/folders/${folder}/share`, { kind, id })).statusCode,
      ).toBe(404);
  });

  describe('with the students of a course', () => {
    interface Told {
      readonly name: string;
      readonly sheets: { id: string; name: string; kind: string; pages: number | null }[];
    }
    const look = (who: Visitor, page: number, id = pdf.id) =>
      who.get(`/lesson/materials/${id}/pages/${page}`);

    it('is looked at as pictures with their name across, and no address has the file itself', async () => {
      await house.uploadMaterial(house.tutor, 'horn.wav', silentWav(1), folder);
      await share('course', house.course.id);
      const { student } = await house.lesson();
      const list = (await student.get('/lesson/materials')).json<Told[]>();
      expect(list).toEqual([
        { id: jasmine.any(String) as never, name: 'Orion', sheets: [jasmine.any(Object)] } as never,
      ]);
      expect(list[0]!.sheets[0]).toEqual({ id: pdf.id, name: 'Orion.pdf', kind: 'pdf', pages: 2 });
      expect(JSON.stringify(list)).not.toContain(pdf.file);
      const [ana, plain] = [await look(student, 2), await house.tutor.get(`/files/${pdf.file}`)];
      expect(ana.statusCode).toBe(200);
      expect(ana.headers['content-type']).toBe('image/jpeg');
      expect(ana.headers['cache-control']).toBe('no-store');
      expect(ana.rawPayload.includes(plain.rawPayload.subarray(0, 60))).toBeFalse();
      // Another name makes another picture.
      const ben = await house.student('Ben');
      expect(Buffer.compare((await look(ben, 2)).rawPayload, ana.rawPayload)).not.toBe(0);
      expect((await look(student, 3)).statusCode).toBe(404);
      for (const address of [
        `/files/${pdf.file}`,
        `/materials`,
        `/materials/assets/${pdf.id}/picture`,
        `/materials/assets/${pdf.id}/lay`,
      ])
        expect([401, 404])
          .withContext(address)
          .toContain((await student.get(address)).statusCode);
    });

    it('is gone for them at once when it is taken back, and they are told', async () => {
      const given = await share('course', house.course.id);
      const { student, ana } = await house.lesson();
      expect((await look(student, 1)).statusCode).toBe(200);
      await takeBack(given);
      await ana.hears('materials');
      expect((await look(student, 1)).statusCode).toBe(404);
      expect((await student.get('/lesson/materials')).json<Told[]>()).toEqual([]);
    });

    it('is seen as soon as something is put into it', async () => {
      await share('course', house.course.id);
      const { student, ana } = await house.lesson();
      const before = ana.told.filter(({ kind }) => kind === 'materials').length;
      await house.uploadMaterial(house.tutor, 'New.pdf', await plainPdf(1), folder);
      await ana.hearsTimes('materials', before + 1);
      // Another name is seen as well.
      await house.tutor.post(`/materials/assets/${pdf.id}/name`, { name: 'Hunter.pdf' });
      await ana.hearsTimes('materials', before + 2);
      const sheets = (await student.get('/lesson/materials')).json<Told[]>();
      expect(sheets.flatMap(({ sheets: all }) => all.map(({ name }) => name))).toContain('New.pdf');
    });

    it('is for those who are in its lesson', async () => {
      await share('course', house.course.id);
      expect((await look(house.visitor(), 1)).statusCode).toBe(401);
      const { student, lesson } = await house.lesson();
      await house.tutor.post(`/lessons/${lesson}/close`);
      expect((await look(student, 1)).statusCode).toBe(410);
    });

    it('shows slides as soon as they are pages', async () => {
      const response = await house.uploadMaterial(
        house.tutor,
        'Ebb.pptx',
        pptxOf([{ title: 'Ebb' }, { title: 'Flood' }]),
        folder,
      );
      const { id } = (await response.json()) as Shelf['assets'][0];
      await share('course', house.course.id);
      const { student } = await house.lesson();
      const first = await look(student, 1, id);
      expect(first.json<{ type: string }>().type).toBe('urn:cuaderno:slides-coming');
      await house.app.importQueue.settled();
      expect((await look(student, 2, id)).statusCode).toBe(200);
      const list = (await student.get('/lesson/materials')).json<Told[]>();
      expect(list.flatMap(({ sheets }) => sheets).find((sheet) => sheet.id === id)!.pages).toBe(2);
    });
  });
});

describe('an invitation', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('invitations');
  });
  afterEach(() => house.close());

  it('lets one tutor in, once', async () => {
    const { token } = (await house.tutor.post('/invitations')).json<{ token: string }>();
    const visitor = house.visitor();
    const looked = await visitor.post('/invitations/read', { token });
    expect(looked.json<{ by: string }>().by).toBe('Maren');
    const accept = (email: string) =>
      visitor.post('/invitations/accept', {
        token,
        name: 'Sigrid',
        email,
        password: 'ropes-and-knots',
      });
    expect((await accept('maren@example.org')).statusCode).toBe(409);
    expect((await accept('sigrid@example.org')).statusCode).toBe(204);
    expect((await visitor.get('/me')).json<{ tutor: { name: string } }>().tutor.name).toBe(
      'Sigrid',
    );
    expect((await accept('other@example.org')).statusCode).toBe(410);
    expect((await house.visitor().post('/invitations')).statusCode).toBe(401);
  });
});
