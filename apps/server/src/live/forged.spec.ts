import {
  changePage,
  encodePoints,
  itemsOn,
  layCover,
  newId,
  operation,
  CLOSE,
} from '@cuaderno/core';
import type { ClientMessage, Id, Operation } from '@cuaderno/core';
import { addInk, addMark, addPages, somePages } from '@cuaderno/core/testing';
import { House } from '../testing/harness.js';
import type { Window } from '../testing/harness.js';

/* What a student’s browser can send that our own never would: anyone who writes messages by hand gets no farther. */

describe('forged and replayed', () => {
  let house: House;

  beforeEach(async () => {
    house = await House.open('forged');
  });
  afterEach(() => house.close());

  const refused = async (window: Window, op: Operation): Promise<string> =>
    (await window.hears('refused', ({ id }) => id === op.id)).problem.type.split(':').pop()!;

  it('every word that is the tutor’s is refused from a student, hands on or not', async () => {
    const { maren, ana, anaId, page } = await house.lesson();
    maren.send({ kind: 'trust', who: anaId, trust: 'hands' });
    await ana.hears('people', ({ people }) =>
      people.some(({ id, trust }) => id === anaId && trust === 'hands'),
    );
    const words: ClientMessage[] = [
      { kind: 'trust', who: 'all', trust: 'hands' },
      { kind: 'rules', who: anaId, over: { addPages: true } },
      { kind: 'lead', who: anaId },
      { kind: 'plan', endsAt: 5 },
      { kind: 'lower', who: 'all' },
      { kind: 'signals.clear' },
      { kind: 'chat.empty' },
      { kind: 'arrows.clear' },
      { kind: 'door', who: 'all', word: 'in' },
    ];
    // The one that would be seen by everyone says the opposite of what is.
    const { on } = await ana.hears('step');
    words.push({ kind: 'step', on: !on });
    for (const word of words) ana.send(word);
    await ana.hearsTimes('problem', words.length);
    const types = ana.told.flatMap((m) => (m.kind === 'problem' ? [m.problem.type] : []));
    expect(new Set(types)).toEqual(new Set(['urn:cuaderno:tutor-only']));
    // And nobody was told anything else for it.
    const line = addInk(page);
    maren.send({ kind: 'ops', ops: [line] });
    await ana.hears('applied', ({ ops }) => ops.some(({ id }) => id === line.id));
    const steps = maren.told.flatMap((m) => (m.kind === 'step' ? [m.on] : []));
    expect(new Set(steps).size).toBe(1);
  });

  it('every operation that is the tutor’s is refused from a student, and the board stays as it is', async () => {
    const { maren, ana, anaId, page } = await house.lesson();
    maren.send({ kind: 'trust', who: anaId, trust: 'hands' });
    await ana.hears('people', ({ people }) =>
      people.some(({ id, trust }) => id === anaId && trust === 'hands'),
    );
    const [theirs, fixed] = [addInk(page, 9), addMark(page, { fixed: true })];
    maren.send({ kind: 'ops', ops: [theirs, fixed] });
    await maren.hears('confirmed', ({ ids }) => ids.includes(fixed.id));
    const before = await (await house.tutorWindow()).wholeBoard();
    const here = before.pages.get(page)!;
    const frame = { x: 1, y: 1, width: 9, height: 9, turn: 0 };
    const moved = (item: Id): Operation =>
      operation({ kind: 'item.change', page, item, to: { frame }, from: {} });
    const forged: [Operation, string][] = [
      [operation({ kind: 'board.rename', title: 'Mine', former: '' }), 'tutor-only'],
      [operation({ kind: 'board.sheet', to: null, from: null }), 'tutor-only'],
      [operation({ kind: 'board.rules', to: {}, from: {} }), 'tutor-only'],
      [operation(changePage(before, page, { rules: { trust: 'hands' } })!), 'tutor-only'],
      [operation({ kind: 'pages.remove', pages: [page] }), 'tutor-only'],
      [addPages(somePages(1)), 'tutor-only'],
      [operation({ kind: 'items.remove', page, items: [theirs.id] }), 'not-yours'],
      [moved(fixed.id), 'material-tutor'],
      [addMark(page, { layer: 'material' }), 'material-tutor'],
      [addMark(page, { layer: 'ink', hidden: true }), 'material-tutor'],
      [operation(layCover(here, 'whole', '#ffffff')[0]!), 'material-tutor'],
    ];
    ana.send({ kind: 'ops', ops: forged.map(([op]) => op) });
    for (const [op, why] of forged)
      expect(await refused(ana, op))
        .withContext(op.kind)
        .toBe(why);
    const after = await (await house.tutorWindow()).wholeBoard();
    expect([...after.pages.keys()]).toEqual([...before.pages.keys()]);
    expect(itemsOn(after.pages.get(page)!)).toEqual(itemsOn(here));
    expect(after.title).toBe(before.title);
  });

  it('an operation that was sent before is confirmed to nobody but who made it, and only as it was', async () => {
    const { maren, ana, anaId, page } = await house.lesson();
    const line = addInk(page);
    ana.send({ kind: 'ops', ops: [line] });
    await ana.hears('confirmed', ({ ids }) => ids.includes(line.id));
    // The tutor’s browser is made to say the same again: it is known, and still Ana’s.
    maren.send({ kind: 'ops', ops: [line] });
    expect(await refused(maren, line)).toBe('id-taken');
    // Ana says it once more after a break: that is confirmed. Something else by the same id isn’t.
    ana.send({ kind: 'ops', ops: [line] });
    await ana.hearsTimes('confirmed', 2);
    ana.send({ kind: 'ops', ops: [{ ...addInk(page, 77), id: line.id }] });
    expect(await refused(ana, line)).toBe('id-taken');
    const board = await (await house.tutorWindow()).wholeBoard();
    expect(itemsOn(board.pages.get(page)!).map(({ by }) => by)).toEqual([anaId]);
  });

  it('a stroke under way can’t be kept from becoming a line: nobody else knows what it will be called', async () => {
    const { maren, ana, page } = await house.lesson();
    const ben = await house.window(await house.student('Ben'));
    await ben.hears('welcome');
    const line = addInk(page, 5);
    const style = { tool: 'pen', ink: 'poppy', width: 2 } as const;
    maren.send({
      ...{ kind: 'live.ink', stroke: line.id, start: { page, style } },
      points: encodePoints([{ x: 1, y: 1, pressure: 0.5, time: 0 }]),
    });
    const { n } = await ana.hears('live.ink');
    await ben.hears('live.ink');
    expect(JSON.stringify([ana.told, ben.told])).not.toContain(line.id);
    maren.send({ kind: 'ops', ops: [line] });
    await maren.hears('confirmed', ({ ids }) => ids.includes(line.id));
    // Who saw the stroke is told which line it is.
    expect((await ana.hears('live.end')).n).toBe(n);
    expect((await ana.hears('live.end')).item).toBe(line.id);
    await ana.hears('applied', ({ ops }) => ops.some(({ id }) => id === line.id));
  });

  it('operations of any shape but their own are turned away, and nothing of them is kept', async () => {
    const { maren, ana, page } = await house.lesson();
    maren.send({ kind: 'trust', who: 'all', trust: 'hands' });
    const mark = addMark(page);
    maren.send({ kind: 'ops', ops: [mark] });
    await ana.hears('applied', ({ ops }) => ops.some(({ id }) => id === mark.id));
    let deep: unknown = 1;
    for (let i = 0; i < 120; i++) deep = { x: deep };
    const odd = [
      { to: { order: { toString: 1, valueOf: 1 } }, from: {} },
      { to: { frame: { x: 1, y: 1, width: 9, height: 9, turn: 0 } }, from: { x: { y: 1 } } },
      { to: { order: 'a5' }, from: deep },
      { to: { order: 'a5' }, from: { order: deep } },
      { to: JSON.parse('{"__proto__": {"order": 1}}'), from: {} },
    ];
    for (const traits of odd) {
      const op = { id: newId(), kind: 'item.change', page, item: mark.id, ...traits };
      // As text, as it was found; and packed, as far as it can be.
      ana.socket.send(JSON.stringify({ kind: 'ops', ops: [op] }));
    }
    await ana.hearsTimes('problem', odd.length);
    const raw = `{"kind":"ops","ops":[{"id":"${newId()}","kind":"item.change","page":"${page}","item":"${mark.id}","to":{},"from":{"x":{"__proto__":1}}}]}`;
    ana.socket.send(raw);
    await ana.hearsTimes('problem', odd.length + 1);
    await house.restart();
    const board = await (await house.tutorWindow()).wholeBoard();
    expect(itemsOn(board.pages.get(page)!).map(({ id }) => id)).toEqual([mark.id]);
  });

  it('a socket that is silent ends, and one that says hello when the lesson is over hears nothing', async () => {
    const { student, maren, lesson } = await house.lesson();
    const [early, silent] = await Promise.all([
      house.window(student, '/live/lesson', null),
      house.window(student, '/live/lesson', null),
    ]);
    await house.tutor.post(`/lessons/${lesson}/close`);
    expect(await early.ends()).toBe(CLOSE.over);
    expect(await silent.ends()).toBe(CLOSE.over);
    expect([...early.told, ...silent.told]).toEqual([]);
    await maren.hears('over');
  });

  it('who is sent out says and hears nothing from that moment, on all of their windows', async () => {
    const { maren, ana, anaId, student, page } = await house.lesson();
    const second = await house.window(student);
    await second.hears('welcome');
    maren.send({ kind: 'door', who: anaId, word: 'out' });
    // Words that are on their way while they are sent out, from a browser that doesn’t go.
    const say = (): void => {
      for (const window of [ana, second]) {
        window.send({ kind: 'chat', id: newId(), to: 'all', text: 'still here' });
        window.send({ kind: 'ops', ops: [addInk(page)] });
        window.send({ kind: 'hand', up: true });
      }
    };
    await maren.hears('door', ({ arrivals }) => arrivals.some(({ id }) => id === anaId));
    say();
    maren.send({ kind: 'chat', id: newId(), to: 'all', text: 'now we are among us' });
    await maren.hears('chat', ({ lines }) => lines.some(({ text }) => text.startsWith('now')));
    expect(await ana.ends()).toBe(CLOSE.door);
    expect(await second.ends()).toBe(CLOSE.door);
    expect(JSON.stringify([ana.told, second.told])).not.toContain('among us');
    expect(JSON.stringify(maren.told)).not.toContain('still here');
    expect(maren.told.some((m) => m.kind === 'applied')).toBeFalse();
  });

  it('a tutor who signs out says and hears nothing from that moment, on all of their windows', async () => {
    const { maren, ana, page } = await house.lesson();
    const other = await house.tutorWindow();
    await other.hears('welcome');
    await house.tutor.post('/sign-out');
    expect(await maren.ends()).toBe(CLOSE.notIn);
    expect(await other.ends()).toBe(CLOSE.notIn);
    const told = maren.told.length;
    maren.send({ kind: 'trust', who: 'all', trust: 'view' });
    ana.send({ kind: 'ops', ops: [addInk(page)] });
    await ana.hears('confirmed');
    expect(maren.told.length).toBe(told);
    await house.tutor.post('/sign-in', {
      email: 'maren@example.org',
      password: 'low-water-at-ten',
    });
    const back = await house.tutorWindow();
    await back.hears('welcome');
    // Signing out everywhere leaves the browser in which it was pressed.
    const elsewhere = house.visitor();
    await elsewhere.post('/sign-in', { email: 'maren@example.org', password: 'low-water-at-ten' });
    const away = await house.window(elsewhere, `/live/boards/${house.board}`);
    await away.hears('welcome');
    await house.tutor.post('/sign-out/everywhere');
    expect(await away.ends()).toBe(CLOSE.notIn);
    back.send({ kind: 'ping', n: 9 });
    await back.hears('pong', ({ n }) => n === 9);
  });

  it('the pass of a lesson that is over is good for no other', async () => {
    const { student, lesson } = await house.lesson();
    await house.tutor.post(`/lessons/${lesson}/close`);
    await house.openLesson();
    const window = await house.window(student);
    expect([CLOSE.over, CLOSE.notIn]).toContain((await window.ends()) as 4410);
    expect(window.told.some(({ kind }) => kind === 'welcome')).toBeFalse();
  });

  it('the pass of one who was sent out opens nothing, in whatever browser it is laid', async () => {
    const { maren, ana, anaId, student } = await house.lesson();
    maren.send({ kind: 'door', who: anaId, word: 'barred' });
    expect(await ana.ends()).toBe(CLOSE.door);
    const copy = house.visitor();
    copy.cookie = student.cookie;
    const window = await house.window(copy);
    expect(await window.ends()).toBe(CLOSE.door);
    expect(window.told.some(({ kind }) => kind === 'welcome')).toBeFalse();
  });

  it('a pass that was changed by a letter, or signed by another office, is none', async () => {
    const { student, lesson } = await house.lesson();
    const pass = /cuaderno_pass=([^;]+)/.exec(student.cookie)![1]!;
    const [text, signature] = pass.split('.') as [string, string];
    const content = JSON.parse(Buffer.from(text, 'base64url').toString()) as object;
    const other = Buffer.from(JSON.stringify({ ...content, arrival: newId() })).toString(
      'base64url',
    );
    const swapped = signature.startsWith('A') ? `B${signature.slice(1)}` : `A${signature.slice(1)}`;
    expect(lesson).toBeTruthy();
    for (const made of [
      `${other}.${signature}`,
      `${text}.${swapped}`,
      `${text}.`,
      `.${signature}`,
    ]) {
      const visitor = house.visitor();
      visitor.cookie = `cuaderno_pass=${made}`;
      const window = await house.window(visitor);
      expect(await window.ends()).toBe(CLOSE.notIn);
    }
  });
});
