import { changePage, itemsOn, layCover, newId, operation } from '@cuaderno/core';
import type { ClientMessage, Id, Operation } from '@cuaderno/core';
import { addInk, addMark, addPages, somePages } from '@cuaderno/core/testing';
import { House } from '../testing/harness.js';
import type { Window } from '../testing/harness.js';
import { CLOSE } from './connection.js';

/* What a student’s browser can send that our own never would: whoever writes messages by hand gets no farther. */

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
      [addMark(page, { layer: 'ink', held: true }), 'material-tutor'],
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

  it('an operation that was sent before, in another’s name, is what it was', async () => {
    const { maren, ana, anaId, page } = await house.lesson();
    const line = addInk(page);
    ana.send({ kind: 'ops', ops: [line] });
    await ana.hears('confirmed', ({ ids }) => ids.includes(line.id));
    // The tutor’s browser is made to say the same again: it is known, and still Ana’s.
    maren.send({ kind: 'ops', ops: [line] });
    await maren.hears('confirmed', ({ ids }) => ids.includes(line.id));
    const board = await (await house.tutorWindow()).wholeBoard();
    expect(itemsOn(board.pages.get(page)!).map(({ by }) => by)).toEqual([anaId]);
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
