import { newId, operation } from '@cuaderno/core';
import { addInk } from '@cuaderno/core/testing';
import { eq } from 'drizzle-orm';
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { House } from '../testing/harness.js';
import { deviceOf } from './device.js';
import type { RecordLink, SharedList, SharedRecord } from '@cuaderno/contract/record-links';
import { recordLinks } from './tables.js';

const DAY = 86_400_000;

describe('links to records', () => {
  let house: House;
  let lesson: string;
  let page: string;

  beforeEach(async () => {
    house = await House.open('record-links');
    const met = await house.lesson();
    ({ lesson, page } = met);
    const { maren, ana } = met;
    const tom = await house.window(await house.student('Tom'));
    const hidden = operation({
      ...{ kind: 'item.add', page },
      item: {
        ...{
          kind: 'mark',
          mark: 'tick',
          colour: '#c22f2f',
          order: 'a0',
          layer: 'material',
          hidden: true,
        },
        frame: { x: 10, y: 10, width: 40, height: 40, turn: 0 },
      },
    });
    maren.send({ kind: 'ops', ops: [addInk(page), hidden] });
    await ana.hears('applied');
    for (const [window, to, text] of [
      [tom, 'all', 'Is Ana there?'],
      [ana, 'all', 'Yes'],
      [tom, 'tutor', 'I am lost'],
    ] as const)
      window.send({ kind: 'chat', id: newId(), to, text });
    await maren.hearsTimes('chat', 3);
    await house.tutor.post(`/lessons/${lesson}/close`);
    const note = { kind: 'summary', text: 'Spring tides', follows: null };
    await house.tutor.post(`/lessons/${lesson}/notes`, note);
  });
  afterEach(() => house.close());

  async function made(wish: object = {}): Promise<RecordLink> {
    const response = await house.tutor.post(`/courses/${house.course.id}/record-links`, {
      ...{ lesson, forWhom: 'Ana’s mother', may: 'view', names: 'own', student: 'Ana' },
      ...{ until: Date.now() + 7 * DAY, ...wish },
    });
    expect(response.statusCode).withContext(response.body).toBe(201);
    return response.json<RecordLink>();
  }

  /** Somebody without any account. */
  const mother = (): ReturnType<House['visitor']> => house.visitor();

  async function refused(path: string): Promise<[number, string]> {
    const response = await mother().get(path);
    return [
      response.statusCode,
      response.json<{ type: string }>().type.replace('urn:cuaderno:', ''),
    ];
  }

  it('show one record, without others’ names and what was said in private', async () => {
    const { token } = await made();
    const list = (await mother().get(`/shared/${token}`)).json<SharedList>();
    expect(list).toEqual(
      jasmine.objectContaining({
        tutor: 'Maren',
        course: 'Tides',
        forWhom: 'Ana’s mother',
        all: false,
      }),
    );
    expect(list.records.map((record) => record.lesson)).toEqual([lesson]);
    const response = await mother().get(`/shared/${token}/records/${lesson}`);
    const record = response.json<SharedRecord>();
    expect(record.people).toEqual(['Ana']);
    expect(record.others).toBe(1);
    expect(record.summary).toBe('Spring tides');
    expect(record.chat.map(({ by, text }) => [by, text])).toEqual([
      ['another student', 'Is Ana there?'],
      ['Ana', 'Yes'],
    ]);
    expect(response.body).not.toContain('Tom');
    expect(response.body).not.toContain('lost');
    expect(response.headers['cache-control']).toBe('no-store');
  });

  it('show all names where the tutor wished so', async () => {
    const { token } = await made({ names: 'all' });
    const record = (await mother().get(`/shared/${token}/records/${lesson}`)).json<SharedRecord>();
    expect(record.people).toEqual(['Ana', 'Tom']);
    expect(record.chat[0]!.by).toBe('Tom');
  });

  it('show pages as pictures, and give out no file of which they are made', async () => {
    const { token } = await made();
    const picture = await mother().get(`/shared/${token}/records/${lesson}/pages/1`);
    expect(picture.headers['content-type']).toBe('image/jpeg');
    expect([...picture.rawPayload.subarray(0, 2)]).toEqual([0xff, 0xd8]);
    expect(await refused(`/shared/${token}/records/${lesson}/pages/99`)).toEqual([
      404,
      'not-found',
    ]);
    expect(await refused(`/shared/${token}/records/${lesson}/pdf`)).toEqual([403, 'look-only']);
    for (const path of [`/records/${lesson}`, `/records/${lesson}/pdf`, `/records/${lesson}/board`])
      expect((await mother().get(path)).statusCode).toBe(401);
  });

  it('give the PDF where they are for more than looking: with the notes, without what was hidden', async () => {
    const { token } = await made({ may: 'download' });
    const response = await mother().get(`/shared/${token}/records/${lesson}/pdf?zone=Europe/Oslo`);
    expect(response.statusCode).withContext(response.body.slice(0, 300)).toBe(200);
    const path = join(house.folder, 'shared.pdf');
    writeFileSync(path, response.rawPayload);
    execFileSync('qpdf', ['--check', path]);
    expect(execFileSync('pdftotext', [path, '-']).toString()).toContain('Spring tides');
    const content = execFileSync('qpdf', ['--qdf', '--object-streams=disable', path, '-']).toString(
      'latin1',
    );
    // The mark that is hidden is the only thing that is drawn in this red.
    expect(content).not.toContain('0.760784 0.184314 0.184314 RG');
  });

  it('open nothing from the moment at which they are withdrawn', async () => {
    const { id, token } = await made({ may: 'download' });
    expect((await mother().get(`/shared/${token}/state`)).statusCode).toBe(204);
    expect((await house.tutor.post(`/record-links/${id}/withdraw`)).statusCode).toBe(204);
    for (const path of [
      '',
      '/state',
      `/records/${lesson}`,
      `/records/${lesson}/pages/1`,
      `/records/${lesson}/pdf`,
    ])
      expect(await refused(`/shared/${token}${path}`))
        .withContext(path)
        .toEqual([410, 'link-withdrawn']);
  });

  it('open nothing after their last day, and nowhere but where they lead', async () => {
    const { id, token } = await made();
    const other = await house.openLesson();
    await house.tutor.post(`/lessons/${other}/close`);
    expect(await refused(`/shared/${token}/records/${other}`)).toEqual([404, 'not-found']);
    expect(await refused(`/shared/${token}x`)).toEqual([404, 'no-such-link']);
    await house.app.db
      .update(recordLinks)
      .set({ untilAt: Date.now() - 1 })
      .where(eq(recordLinks.id, id));
    expect(await refused(`/shared/${token}`)).toEqual([410, 'link-over']);
    const { links } = (await house.tutor.get(`/courses/${house.course.id}/record-links`)).json<{
      links: RecordLink[];
    }>();
    expect(links.map(({ state }) => state)).toEqual(['over']);
  });

  it('lead to all records of a course, those to come included', async () => {
    const { token } = await made({ lesson: null });
    const before = (await mother().get(`/shared/${token}`)).json<SharedList>();
    expect([before.all, before.records.length]).toEqual([true, 1]);
    const next = await house.openLesson();
    await house.tutor.post(`/lessons/${next}/close`);
    const after = (await mother().get(`/shared/${token}`)).json<SharedList>();
    expect(after.records.map((record) => record.lesson)).toEqual([next, lesson]);
    expect((await mother().get(`/shared/${token}/records/${next}`)).statusCode).toBe(200);
  });

  it('list every opening, and what was done, on what kind of machine', async () => {
    const { token } = await made({ may: 'download' });
    await mother().get(`/shared/${token}`);
    await mother().get(`/shared/${token}/records/${lesson}`);
    await mother().get(`/shared/${token}/records/${lesson}/pdf`);
    await mother().get(`/shared/${token}/state`);
    await mother().get(`/shared/${token}`);
    const path = `/courses/${house.course.id}/record-links?lesson=${lesson}`;
    const { links } = (await house.tutor.get(path)).json<{ links: RecordLink[] }>();
    expect(links[0]!.count).toBe(2);
    expect(links[0]!.openings.map(({ what }) => what)).toEqual([
      'opened',
      'downloaded',
      'record',
      'opened',
    ]);
  });

  it('are sent to an address, and lie in the mailbox', async () => {
    const { token } = await made({ email: 'mother@example.org', zone: 'Europe/Oslo' });
    const { letters } = (await house.tutor.get('/mailbox')).json<{
      letters: { id: string; to: string; subject: string; body: string }[];
    }>();
    expect(letters.map(({ to }) => to)).toEqual(['mother@example.org']);
    expect(letters[0]!.body).toContain(`/shared/${token}`);
    expect(letters[0]!.body).toContain('Hello Ana’s mother,');
    const other = await house.otherTutor('Sunniva');
    expect((await other.get('/mailbox')).json<{ letters: object[] }>().letters).toEqual([]);
    expect((await other.post(`/mailbox/${letters[0]!.id}/remove`)).statusCode).toBe(404);
    expect((await house.tutor.post(`/mailbox/${letters[0]!.id}/remove`)).statusCode).toBe(204);
    expect((await house.tutor.get('/mailbox')).json<{ letters: object[] }>().letters).toEqual([]);
  });

  it('are made, seen and withdrawn by their tutor alone, with wishes that can be', async () => {
    const other = await house.otherTutor('Sunniva');
    const { id } = await made();
    const path = `/courses/${house.course.id}/record-links`;
    const wish = { lesson, forWhom: 'Me', may: 'view', names: 'all', until: Date.now() + DAY };
    expect((await other.get(path)).statusCode).toBe(404);
    expect((await other.post(path, wish)).statusCode).toBe(404);
    expect((await other.post(`/record-links/${id}/withdraw`)).statusCode).toBe(404);
    for (const bad of [
      { until: Date.now() - DAY },
      { until: Date.now() + 400 * DAY },
      { forWhom: '  ' },
      { email: 'nobody' },
      { may: 'change' },
      { lesson: newId() },
    ])
      expect((await house.tutor.post(path, { ...wish, ...bad })).statusCode)
        .withContext(JSON.stringify(bad))
        .toBeGreaterThanOrEqual(400);
  });
});

describe('what kind of machine a link was opened on', () => {
  it('is told from what browsers say (as of their makers’ examples, from memory)', () => {
    const said = {
      phone:
        'Mozilla/5.0 (Linux; Android 10; K) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/124.0.0.0 Mobile Safari/537.36',
      tablet:
        'Mozilla/5.0 (Linux; Android 10; K) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/124.0.0.0 Safari/537.36',
      computer: 'Mozilla/5.0 (X11; Linux x86_64; rv:125.0) Gecko/20100101 Firefox/125.0',
    };
    for (const [device, agent] of Object.entries(said))
      expect(deviceOf(agent) as string).toBe(device);
    expect(deviceOf(undefined)).toBe('computer');
  });
});
