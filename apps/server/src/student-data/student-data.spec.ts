import { itemsOn, newId, operation, pagesInOrder } from '@cuaderno/core';
import type { Board, Id, Operation } from '@cuaderno/core';
import { addInk } from '@cuaderno/core/testing';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { House } from '../testing/harness.js';
import type { Window } from '../testing/harness.js';
import type { Deletion, StudentData } from '@cuaderno/contract/student-data';

/** A name that can't be in a file by chance. */
const NAME = 'Anaqued';

describe('a student’s data', () => {
  let house: House;
  let lesson: string;
  let page: Id;
  let maren: Window;
  let line: Extract<Operation, { kind: 'ink.add' }>;

  const typed = (words: string): Operation =>
    operation({
      ...{ kind: 'item.add', page },
      item: {
        ...{ kind: 'text', layer: 'ink', order: 'a0', colour: '#16255a', size: 16, font: 'plain' },
        frame: { x: 50, y: 50, width: 200, height: 30, turn: 0 },
        ...{ text: [{ runs: [{ text: words }] }], align: 'start', slip: null, lines: [] },
      },
    });
  const inkOf = (board: Board): string[] =>
    pagesInOrder(board).flatMap((one) => itemsOn(one).map(({ id }) => id));
  const data = async (name = NAME): Promise<StudentData> =>
    (await house.tutor.post('/students/data', { name })).json<StudentData>();
  const remove = async (change: object = {}) =>
    house.tutor.post('/students/delete', {
      ...{ name: NAME, ink: 'take-out', named: true },
      people: (await data()).seats.map(({ person }) => person),
      ...change,
    });

  /** Every file of the server in which these bytes stand. */
  function filesWith(bytes: Uint8Array | string): string[] {
    const found: string[] = [];
    const look = (folder: string): void => {
      for (const name of readdirSync(folder)) {
        const path = join(folder, name);
        if (statSync(path).isDirectory()) look(path);
        else if (readFileSync(path).includes(Buffer.from(bytes as Uint8Array))) found.push(name);
      }
    };
    look(house.folder);
    return found;
  }

  beforeEach(async () => {
    house = await House.open('student-data');
    const met = await house.lesson();
    ({ lesson, page, maren } = met);
    const theirs = await house.window(await house.student(NAME));
    const { you } = await theirs.hears('welcome');
    maren.send({ kind: 'trust', who: you, trust: 'write' });
    await theirs.hears('people', ({ people }) =>
      people.some(({ id, trust }) => id === you && trust === 'write'),
    );
    line = addInk(page, 5) as typeof line;
    theirs.send({ kind: 'ops', ops: [line] });
    await maren.hears('applied', ({ ops }) => ops.some(({ id }) => id === line.id));
    met.ana.send({ kind: 'ops', ops: [addInk(page, 2)] });
    await met.ana.hears('confirmed');
    // The tutor moves the line: what it was goes along in the tutor's own entry.
    const change = operation({
      ...{ kind: 'item.change', page, item: line.id },
      ...{ to: { ink: (addInk(page, 6) as typeof line).ink }, from: { ink: line.ink } },
    });
    maren.send({ kind: 'ops', ops: [addInk(page, 3), change] });
    await maren.hears('confirmed', ({ ids }) => ids.includes(change.id));
    theirs.send({ kind: 'chat', id: newId(), to: 'all', text: 'My word is quixotic' });
    maren.send({ kind: 'chat', id: newId(), to: you, text: 'A word for you alone' });
    maren.send({ kind: 'chat', id: newId(), to: 'all', text: `Well done, ${NAME}!` });
    await maren.hearsTimes('chat', 3);
    await house.tutor.post(`/lessons/${lesson}/close`);
    await house.tutor.post(`/lessons/${lesson}/notes`, {
      ...{ kind: 'summary', text: `${NAME}’s ebb, and Ana’s`, follows: null },
    });
    const until = Date.now() + 86_400_000;
    const link = { lesson: null, may: 'view', names: 'own', until, zone: 'UTC' };
    for (const forWhom of [`${NAME}’s father`, 'Ana’s aunt'])
      await house.tutor.post(`/courses/${house.course.id}/record-links`, {
        ...link,
        ...{ forWhom, email: 'someone@example.org', student: null },
      });
    // A board of the course came as a file once, which named them.
    await house.app.boardWriters.came(house.board, [
      { id: newId(), name: NAME, nameOrdinal: 1, role: 'student' },
    ]);
    await house.app.indexing.settled();
  });
  afterEach(() => house.close());

  it('is listed, lesson by lesson, and with what names them', async () => {
    const { seats, links, browsers, named: times } = await data();
    expect(
      seats.map(({ ink, said, open, courseName }) => [ink, said.chat, open, courseName]),
    ).toEqual([[1, 2, false, 'Tides']]);
    // Named in the chat, in the summary, and in the letter that brought the link.
    expect([links, browsers, times]).toEqual([1, 1, 3]);
    expect(await data('Nobody')).toEqual({ seats: [], links: 0, browsers: 0, named: 0 });
  });

  it('goes, with every byte of it, and all else stays', async () => {
    expect(filesWith(NAME)).not.toEqual([]);
    expect(filesWith(line.ink)).not.toEqual([]);
    const before = await (await house.tutorWindow()).wholeBoard();
    const answer = await remove();
    expect(answer.statusCode).withContext(answer.body).toBe(200);
    const { report } = answer.json<Deletion>();
    expect(report).toEqual({
      ...{ alias: 'Former student 1', courses: ['Tides'], lessons: 1, ink: 'take-out' },
      ...{
        boards: 1,
        entries: 2,
        said: jasmine.objectContaining({ chat: 2 }),
        links: 1,
        letters: 1,
        guestLinks: 0,
        browsers: 1,
      },
      ...{ renamed: 2, left: [] },
    });
    expect(filesWith(NAME)).toEqual([]);
    expect(filesWith(NAME.toLowerCase())).toEqual([]);
    expect(filesWith(line.ink)).toEqual([]);
    expect(filesWith('quixotic')).toEqual([]);
    expect(filesWith('A word for you alone')).toEqual([]);
    const after = await (await house.tutorWindow()).wholeBoard();
    expect(inkOf(after)).toEqual(inkOf(before).filter((id) => id !== line.id));
    expect((await house.tutor.get(`/courses/${house.course.id}/record-links`)).body).toContain(
      'Ana',
    );
    expect((await house.tutor.get('/students/deletions')).json()).toEqual({
      deletions: [answer.json<Deletion>()],
    });
  });

  it('leaves a record that opens, is found and is counted, with another name in it', async () => {
    const known = (await house.tutor.get(`/records/${lesson}/log`)).headers.etag;
    await remove();
    const record = await house.tutor.get(`/records/${lesson}`);
    expect(record.body).toContain('"Former student 1"');
    expect(record.json<{ indexing: { state: string } }>().indexing.state).toBe('whole');
    expect(record.json<{ statistics: unknown }>().statistics).not.toBeNull();
    const found = async (words: string) =>
      (await house.tutor.get(`/records?words=${words}`)).json<{ found: unknown[] }>().found.length;
    expect([await found('quixotic'), await found('ebb'), await found('done')]).toEqual([0, 1, 1]);
    const chat = (await house.tutor.get(`/records/${lesson}/said/chat.txt?zone=UTC`)).body;
    expect(chat).toContain('Well done, Former student 1!');
    const notes = (await house.tutor.get(`/lessons/${lesson}/notes`)).body;
    expect(notes).toContain('Former student 1’s ebb, and Ana’s');
    const { etag } = (await house.tutor.get(`/records/${lesson}/log`)).headers;
    expect(etag).toBeDefined();
    expect(etag).not.toBe(known);
    const again = { 'if-none-match': etag! };
    const same = await house.tutor.request('GET', `/records/${lesson}/log`, undefined, again);
    expect(same.statusCode).toBe(304);
    const pdf = await house.tutor.get(`/records/${lesson}/pdf?ink=annotations&zone=UTC`);
    expect(pdf.statusCode).toBe(200);
  });

  it('is out of what is found of lessons to which they never came, too', async () => {
    const next = await house.lesson();
    next.maren.send({ kind: 'chat', id: newId(), to: 'all', text: `Where is ${NAME}, Ana?` });
    await next.ana.hears('chat');
    await house.tutor.post(`/lessons/${next.lesson}/close`);
    await house.app.indexing.settled();
    const { report } = (await remove()).json<Deletion>();
    expect([report.lessons, report.renamed]).toEqual([1, 3]);
    expect(filesWith(NAME)).toEqual([]);
    expect(filesWith(NAME.toLowerCase())).toEqual([]);
    const found = await house.tutor.get('/records?words=where');
    expect(found.body).toContain('Former student 1');
  });

  it('leaves the ink where that is wished, and the tutor’s words', async () => {
    const answer = await remove({ ink: 'keep', named: false });
    const { report } = answer.json<Deletion>();
    expect([report.entries, report.renamed, report.said.chat]).toEqual([0, 0, 2]);
    expect(inkOf(await (await house.tutorWindow()).wholeBoard())).toContain(line.id);
    const notes = (await house.tutor.get(`/lessons/${lesson}/notes`)).body;
    expect(notes).toContain(`${NAME}’s ebb`);
    expect((await house.tutor.get(`/records/${lesson}`)).body).not.toContain(NAME);
    const writers = (await house.tutor.get(`/boards/${house.board}/writers`)).body;
    expect(writers).toContain('Former student 1');
    expect(writers).not.toContain(NAME);
  });

  it('is gone from open boards at once, also for who comes back to one', async () => {
    const window = await house.tutorWindow();
    const { outline: board } = await window.hears('board.opened');
    expect(board).not.toBeNull();
    const seq = board!.seq;
    await remove();
    await window.ends();
    const again = await house.tutorWindow(seq);
    const { outline } = await again.hears('board.opened');
    expect(outline).not.toBeNull();
    expect(inkOf(await again.wholeBoard())).not.toContain(line.id);
    // And who has seen that comes back to it without another board.
    const third = await house.tutorWindow(outline!.seq);
    expect((await third.hears('board.opened')).outline).toBeNull();
    // A late copy of what was taken out brings nothing back.
    third.send({ kind: 'ops', ops: [line] });
    const { problem } = await third.hears('refused', ({ id }) => id === line.id);
    expect(problem.type).toBe('urn:cuaderno:id-taken');
    expect(inkOf(await (await house.tutorWindow()).wholeBoard())).not.toContain(line.id);
  });

  it('says where the name still stands, for the tutor to change', async () => {
    const renamed = operation({ kind: 'board.rename', title: `Ebb for ${NAME}`, former: 'Ebb' });
    const window = await house.tutorWindow();
    await window.hears('welcome');
    window.send({ kind: 'ops', ops: [typed(`${NAME} reads`), renamed] });
    // Two at a time, or one after the other.
    await window.hears('confirmed', ({ ids }) => ids.includes(renamed.id));
    const { report } = (await remove()).json<Deletion>();
    expect(report.left).toEqual([
      { where: 'page', title: 'Ebb for Former student 1', pages: [1] },
      { where: 'board', title: 'Ebb for Former student 1', pages: [] },
    ]);
  });

  it('waits until their lesson is closed, and is their own tutor’s', async () => {
    const other = await house.otherTutor('Sunniva');
    const { seats } = await data();
    const wish = { name: NAME, people: [seats[0]!.person], ink: 'keep', named: true };
    expect((await other.post('/students/delete', wish)).statusCode).toBe(404);
    expect((await other.post('/students/data', { name: NAME })).json<StudentData>().seats).toEqual(
      [],
    );
    expect((await remove({ people: [newId()] })).statusCode).toBe(404);
    await house.lesson();
    await house.student(NAME);
    const open = await remove();
    expect([open.statusCode, open.json<{ type: string }>().type]).toEqual([
      409,
      'urn:cuaderno:student-in-lesson',
    ]);
    // What is of the lessons that are over can go.
    expect((await remove({ people: [seats[0]!.person] })).statusCode).toBe(200);
  });

  it('is one student’s of two who have the same name', async () => {
    const again = await house.lesson();
    await house.student(NAME);
    await again.maren.hears('door', () => true).catch(() => undefined);
    await house.tutor.post(`/lessons/${again.lesson}/close`);
    const [latest, first] = (await data()).seats;
    const { report } = (await remove({ people: [first!.person] })).json<Deletion>();
    // Notes and links of the course may be about the other one.
    expect([report.lessons, report.renamed, report.links, report.browsers]).toEqual([1, 0, 0, 0]);
    expect((await data()).seats.map(({ person }) => person)).toEqual([latest!.person]);
    expect((await remove()).json<Deletion>().report.alias).toBe('Former student 2');
  });
});
